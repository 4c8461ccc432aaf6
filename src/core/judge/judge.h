#pragma once

#include "core/judge/reading.h"

#include <functional>

namespace knot::judge {

/// What to judge. `test` is not copied and must outlive the call.
struct JudgeRequest {
    const record::Test& test; ///< with successors (record::withSuccessors) where clubs were changed
    std::uint64_t seed = 1;   ///< for shuffles too many to count
    /// Verdicts alone leave out second opinions, explanations and checks: for simulations.
    enum class Depth { everything, verdicts } depth = Depth::everything;
    /// Asked now and then; true ends the work early and `judge` returns nothing.
    std::function<bool()> cancelled = {};
};

/// Judges a test. The same request gives the same reading bit for bit. A test without shots or
/// with one build gives a reading without comparisons and a check that says so.
std::optional<Reading> judge(const JudgeRequest& request);

} // namespace knot::judge
