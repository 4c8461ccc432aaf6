#pragma once

#include "core/record/shot_fields.h"
#include "core/record/units.h"
#include "files/error.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace knot::files {

/// What a column of a shot file holds.
enum class ColumnRole { metric, build, field, extra };

struct ColumnMeaning {
    ColumnRole role = ColumnRole::extra;
    record::Metric metric = record::Metric::carry; ///< for `metric`
    record::Unit unit = record::Unit::one;         ///< for `metric`
    const record::ShotField* field = nullptr;      ///< for `field`
    std::string heading;                           ///< as it stands in the file
};

/// Headings by hand: the heading in the file → a canonical one such as `carry_yd` or `build`, or
/// nothing to keep it as text.
using HeadingMap = std::map<std::string, std::string>;

/// Understands a heading row, with units as suffixes, in brackets, or in a row of their own
/// (`unitRow`, empty when there is none). Unknown headings are kept as text; a metric's name with a
/// unit that it can't have is an error.
Result<std::vector<ColumnMeaning>> understandHeadings(const std::string& file, std::size_t line,
                                                      const std::vector<std::string>& headings,
                                                      const std::vector<std::string>& unitRow, const HeadingMap& map);

/// Whether a row holds nothing but units ("m", "[mph]", "rpm") and empty cells, at least one unit.
bool isUnitRow(const std::vector<std::string>& cells);

} // namespace knot::files
