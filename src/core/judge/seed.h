#pragma once

#include "core/judge/judge.h"

namespace knot::judge {

/// A seed for one use of random numbers, from names and not from positions, so that neither the
/// order of builds nor that of metrics reaches the draws.
std::uint64_t seedFor(const JudgeRequest& request, const char* use, Metric metric, std::size_t build,
                      std::size_t against);

} // namespace knot::judge
