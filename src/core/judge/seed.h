#pragma once

#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// A seed for one use of random numbers, from names and not from positions, so that neither the
/// order of builds nor that of metrics reaches the draws. Where no pair is meant, both places alike.
std::uint64_t seedFor(const JudgeRequest& request, const char* use, Metric metric, BuildAt build, BuildAt against);

} // namespace knot::judge
