#pragma once

#include "core/judge/case.h"
#include "core/judge/usual.h"
#include "core/plan/spreads.h"

#include <cstdint>
#include <functional>
#include <map>

namespace knot::judge {

/// What to judge, and how much of it.
struct JudgeRequest {
    Case subject;
    std::uint64_t seed = 1;                   ///< for shuffles too many to count
    plan::Level level = plan::Level::club;    ///< which usual spreads bets rest on
    std::map<Metric, plan::Spreads> own = {}; ///< the player's own spreads, which go before the usual ones
    std::vector<UsualBasis> usual = {};       ///< what is usual for the player, beside what was typed for them
    /// Verdicts alone leave out second opinions, explanations and checks: for simulations.
    enum class Depth { everything, verdicts } depth = Depth::everything;
    /// Asked now and then; true ends the work early and `judge` returns nothing.
    std::function<bool()> cancelled = {};
};

} // namespace knot::judge
