#pragma once

#include "core/judge/case.h"
#include "core/judge/days/earlier.h"
#include "core/plan/spreads.h"

#include <cstdint>
#include <functional>

namespace knot::judge {

/// What to judge, and how much of it.
struct JudgeRequest {
    Case subject;
    std::uint64_t seed = 1;                ///< for shuffles too many to count
    plan::Level level = plan::Level::club; ///< which usual spreads bets rest on
    Earlier earlier = {};                  ///< what the logbook's other tests tell
    /// Verdicts alone leave out second opinions, explanations and checks: for simulations.
    enum class Depth { everything, verdicts } depth = Depth::everything;
    /// Asked now and then; true ends the work early and `judge` returns nothing.
    std::function<bool()> cancelled = {};
};

} // namespace knot::judge
