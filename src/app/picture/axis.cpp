#include "app/picture/axis.h"

#include <algorithm>
#include <cmath>

namespace knot::picture {
namespace {

double roundStep(double raw) {
    const double power = std::pow(10.0, std::floor(std::log10(raw)));
    for (const double factor : {1.0, 2.0, 5.0})
        if (factor * power >= raw * (1 - 1e-9))
            return factor * power;
    return 10 * power;
}

} // namespace

Axis niceAxis(double low, double high, double pixelLow, double pixelHigh, int mostTicks) {
    Axis axis;
    if (!std::isfinite(low))
        low = 0;
    if (!std::isfinite(high) || !(high - low > 1e-12 * std::max(std::fabs(low), 1e-300))) {
        low -= 0.5;
        high = low + 1;
    }
    const double air = 0.04 * (high - low);
    axis.low = low - air;
    axis.high = high + air;
    axis.pixelLow = pixelLow;
    axis.pixelHigh = pixelHigh;
    axis.step = roundStep((axis.high - axis.low) / std::max(mostTicks, 1));
    axis.decimals = std::max(0, static_cast<int>(std::ceil(-std::log10(axis.step) - 1e-9)));
    // By whole multiples of the step, so that no rounding piles up along the axis.
    const double first = std::ceil(axis.low / axis.step);
    const double last = std::floor(axis.high / axis.step);
    for (int i = 0; first + i <= last && i <= 4 * mostTicks; ++i)
        axis.ticks.push_back((first + i) * axis.step);
    return axis;
}

} // namespace knot::picture
