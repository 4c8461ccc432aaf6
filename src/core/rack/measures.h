#pragma once

#include "core/record/club.h"

#include <array>
#include <optional>
#include <string_view>

namespace knot::rack {

/// A number of a club that the clubs of a test may be put in order by.
struct Measure {
    std::string_view key;  ///< as cards have it: "club:shaft_g"
    std::string_view what; ///< "shaft weight"
    std::string_view unit; ///< "g", "°"; empty for points
    double step = 1;       ///< what people count it in
    std::optional<double> (*of)(const record::Club& club) = nullptr;
};

/// Weights, lengths and angles of a club, from its parts as they are assembled.
const std::array<Measure, 9>& measures();
/// Nothing where no measure is called so.
const Measure* measureCalled(std::string_view key);

} // namespace knot::rack
