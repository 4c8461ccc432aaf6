#pragma once

#include <vector>

namespace knot::picture {

/// A linear scale from values to pixels with round ticks.
struct Axis {
    double low = 0, high = 1;           ///< values at the ends
    double pixelLow = 0, pixelHigh = 1; ///< where they stand
    double step = 1;
    std::vector<double> ticks;
    int decimals = 0; ///< that the ticks need

    double pixel(double value) const { return pixelLow + (value - low) / (high - low) * (pixelHigh - pixelLow); }
};

/// An axis that holds [low, high] with some air at the ends and at most `mostTicks` ticks at steps
/// of 1, 2 or 5 times a power of ten. Equal or non-finite ends give an axis of width 1 around low.
Axis niceAxis(double low, double high, double pixelLow, double pixelHigh, int mostTicks);

} // namespace knot::picture
