#pragma once

#include "app/picture/axis.h"

#include <vector>

namespace knot::picture {

/// How often a gap is seen, by its size: the plan's chances and those of short runs, at even steps of
/// the gap from `smallest` (0, or a ratio of 1) to `largest`.
struct PowerCurve {
    double smallest = 0;
    double largest = 1;             ///< the gap at the right edge, in the user's unit
    std::vector<double> plan, runs; ///< chances, 0 to 1
    double worthwhile = 0;          ///< the gap that matters, in the same unit
};

/// The curve placed in a box, in pixels.
struct PowerLayout {
    struct Point {
        double x = 0, y = 0;
    };
    struct Tick {
        double at = 0;    ///< x of a gap, y of a chance
        double value = 0; ///< the gap, or the chance in 100
    };
    double left = 0, top = 0, width = 0, height = 0; ///< the field inside the labels
    double worthwhileX = 0;
    std::vector<Point> plan, runs;
    std::vector<Tick> gaps, chances;
    int decimals = 0; ///< of the gaps
};

/// Nothing to draw where `plan` has fewer than two chances.
PowerLayout layOutPower(const PowerCurve& curve, double width, double height);

} // namespace knot::picture
