#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// What was said (judgement §21): fills the reading's feels by club (likeness of repeated blind stints, gaps, rank
/// correlation with the declared averages), how clubs were called against the one before, and what became of what
/// was expected. Exploratory, but for expectations, which follow from the verdicts.
void addWhatWasSaid(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading);

} // namespace knot::judge
