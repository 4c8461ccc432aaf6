#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// Everything beside the verdicts (judgement §8 and the second opinions): fills the reading's
/// explanations from finished verdicts. `columns` are those of the reading's metrics, in order.
void explain(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading);

/// Of them only what is said of shots and of no gap: windows, shares, misses, calls, ten shots, set-asides.
void explainShots(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading);

} // namespace knot::judge
