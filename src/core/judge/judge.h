#pragma once

#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// Judges a case. The same request gives the same reading bit for bit. A test without shots or
/// with one build gives a reading without comparisons and a check that says so.
std::optional<Reading> judge(const JudgeRequest& request);

} // namespace knot::judge
