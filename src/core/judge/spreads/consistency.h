#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// The ratio of spreads inside turns by Bonett's interval (CSDA 50, 2006), robust to kurtosis, with
/// its raw p's against the margin ρ > 1. When every turn of the test is one shot, the spread is
/// that about the build's mean. Nothing when either build has no reading; no p under three degrees
/// of freedom or without variation. Assumes that both builds' shots have one shape.
std::optional<SpreadRatio> spreadRatio(const Column& column, BuildAt build, BuildAt against, double margin);

/// The logarithm of each build's spread inside turns with its error, from the kurtosis that all
/// builds share, ν df; builds with fewer than three degrees of freedom or no variation are left out.
struct LogSpread {
    BuildAt build;
    double value = 0, se = 0, df = 0;
};
std::vector<LogSpread> logSpreads(const Column& column);

/// Brown and Forsythe (1974): one-way F on absolute deviations from each build's median. Nothing
/// with fewer than two builds or without variation.
std::optional<BrownForsythe> brownForsythe(const Column& column);

} // namespace knot::judge
