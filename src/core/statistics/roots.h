#pragma once

#include <functional>
#include <optional>

namespace knot::statistics {

/// Where a function that falls (or rises) through 0 does so, to `tolerance` in its argument. The
/// search begins between `low` and `high`, low < high; where both ends have the same sign the upper
/// one moves out, twice as far each time, up to a hundred times. Nothing when no change of sign is
/// found or the function is not finite there.
std::optional<double> rootFrom(const std::function<double(double)>& function, double low, double high,
                               double tolerance = 1e-11);

} // namespace knot::statistics
