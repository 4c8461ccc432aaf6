#pragma once

#include "core/record/typed/number_in.h"
#include "core/record/units.h"

#include <optional>
#include <set>
#include <string_view>
#include <vector>

namespace knot::files {

/// What the values of a column look like, as far as they were looked at.
struct Values {
    std::vector<std::string_view> cells; ///< neither empty nor a missing reading
    std::vector<double> numbers;
    std::optional<record::Unit> unit; ///< that most of its cells have with them
    record::DecimalMark mark = record::DecimalMark::open;
    std::size_t wholeNumbers = 0;

    double numeric() const {
        return cells.empty() ? 1 : static_cast<double>(numbers.size()) / static_cast<double>(cells.size());
    }
    /// Figures that come again and again, in runs where they have decimals: lofts that clubs are called by, and no
    /// speeds.
    bool areNames() const {
        constexpr std::size_t mostClubs = 16, fewClubs = 4;
        if (2 * distinct() > cells.size())
            return false;
        std::size_t changes = 0;
        for (std::size_t i = 1; i < cells.size(); ++i)
            changes += cells[i] != cells[i - 1] ? 1 : 0;
        return wholeNumbers == numbers.size() || distinct() <= fewClubs ||
               (distinct() <= mostClubs && 2 * changes <= cells.size());
    }
    std::size_t distinct() const { return std::set<std::string_view>(cells.begin(), cells.end()).size(); }
};

} // namespace knot::files
