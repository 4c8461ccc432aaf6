#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// What was called good, so-so or bad before its number showed (judgement §18). All of it counts; this looks at
/// shots called alike, and at how far the word goes with what was measured. Exploratory.

/// By build, where any of its shots that take part was called.
std::vector<Called> calledOf(const Case& subject);

/// Among shots called bad and among those called good: the gaps of a metric, for each pair of its average rows with
/// two such shots or more on both sides. Interval by resampling stints (1,000 seeded draws, expanded), from four stints
/// each.
std::vector<CalledGap> calledGaps(const JudgeRequest& request, const Column& column, const Reading& reading);

/// Nothing where fewer than eight shots were called and measured.
std::optional<CallAgreement> callAgreement(const Case& subject);

} // namespace knot::judge
