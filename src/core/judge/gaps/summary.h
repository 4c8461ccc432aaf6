#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// Summaries of one build in one metric (judgement §2), in the metric's unit. n = 0 gives nothing.
/// With one value there is no SD, and with constant values the SD is 0. The interval rests on turn
/// means; with one turn on shots.
std::optional<Summary> summarise(const Column& column, BuildAt build);

/// t interval of a mean from two values or more.
Interval meanInterval(const std::vector<double>& values, double level);

} // namespace knot::judge
