#include "core/statistics/roots.h"

#include <boost/math/tools/toms748_solve.hpp>

#include <cmath>

namespace knot::statistics {

std::optional<double> rootFrom(const std::function<double(double)>& function, double low, double high,
                               double tolerance) {
    const double atLow = function(low);
    if (atLow == 0)
        return low;
    double atHigh = function(high);
    for (int step = 0; step < 100 && std::isfinite(atHigh) && atHigh != 0 && (atLow > 0) == (atHigh > 0); ++step) {
        high = low + 2 * (high - low);
        atHigh = function(high);
    }
    if (!std::isfinite(atLow) || !std::isfinite(atHigh))
        return std::nullopt;
    if (atHigh == 0)
        return high;
    if ((atLow > 0) == (atHigh > 0))
        return std::nullopt;
    boost::uintmax_t steps = 200;
    const auto [left, right] = boost::math::tools::toms748_solve(
        function, low, high, atLow, atHigh, [&](double a, double b) { return std::fabs(a - b) < tolerance; }, steps);
    return 0.5 * (left + right);
}

} // namespace knot::statistics
