#pragma once

#include "core/judge/columns.h"

#include <string>

namespace knot::judge {

/// How a club was delivered and what came of it: means over its counted shots with one delivery asked for. What was
/// not read is absent.
struct Delivered {
    BuildAt build;
    std::string delivery; ///< empty where none was asked for
    std::size_t shots = 0;
    std::optional<double> staticLoft; ///< degrees, as assembled
    std::optional<double> dynamicLoft, attack, spinLoft, clubSpeed, ballSpeed, launch, spin, carry;
    /// What a change of the loft delivered would do, by the impact and flight models.
    struct Change {
        double launch = 0, spin = 0, carry = 0, apex = 0, descent = 0;
    };
    std::optional<Change> twoMore; ///< 2° more; needs club speed, dynamic loft, ball speed, launch and spin
};

/// By build in the order of the test, and by delivery in the order struck. Only builds with a dynamic loft or an
/// attack read.
std::vector<Delivered> deliveredBy(const record::Test& test, const record::Structure& structure);

} // namespace knot::judge
