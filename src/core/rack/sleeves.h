#pragma once

#include "core/record/club.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::rack {

/// What a setting of a sleeve does, for the heads of a family: those whose name begins with its word.
struct SleeveRow {
    std::string family;
    record::Sleeve sleeve;
    bool operator==(const SleeveRow&) const = default;
};

/// The table that ships (data/sleeves.csv): invented, to be written over by the shop's own.
const std::vector<SleeveRow>& usualSleeves();

/// One row a line: family, setting, loft, face, lie; nothing and the reason when a line can't be taken.
std::string sleeveTableText(const std::vector<SleeveRow>& rows);
std::optional<std::vector<SleeveRow>> sleeveTableFrom(const std::string& text, std::string& reason);

/// What a setting does to a head; nothing where the table does not know it.
std::optional<record::Sleeve> sleeveOf(const std::vector<SleeveRow>& rows, const std::string& head,
                                       const std::string& setting);

} // namespace knot::rack
