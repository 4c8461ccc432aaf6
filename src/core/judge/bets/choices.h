#pragma once

#include "core/judge/bets/bet.h"
#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

#include <map>

namespace knot::judge {

/// Fills the reading's `best` and `byPriority`: for each declared outcome with a direction the set
/// that may be best (which of these) and the chances of being best, and the same by the card's
/// priorities, averages as `bets` have them. Without a direction "which of these" takes more as better.
void fillChoices(const JudgeRequest& request, const std::vector<Column>& columns, const std::map<Metric, Bet>& bets,
                 Reading& reading);

} // namespace knot::judge
