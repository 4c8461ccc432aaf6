#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// Yuen's trimmed-mean t (1974), 20 % at each end, on shots. Nothing when fewer than two values
/// remain in either build or neither varies.
std::optional<YuenTest> yuenTest(const Column& column, BuildAt build, BuildAt against);

/// Median of the differences by round with the exact sign-test interval at 95 % or just above;
/// without an interval where even the outermost differences do not reach 95 % (under six rounds).
std::optional<MedianGap> medianGap(const Column& column, BuildAt build, BuildAt against);

} // namespace knot::judge
