#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// Whether a metric is one that something moves: of the ball and its flight.
bool isMoved(Metric metric);

/// Of what moves a metric from shot to shot, the share of each group of causes (judgement §16): strike
/// height and toe–heel with their squares, attack, club speed, for side and curve path and face, and the
/// build; laps taken out. Shares are Shapley values of adjusted R². A cause that is missing in more than a
/// third of the shots is left out and named. Nothing where fewer than ten degrees of freedom would be left,
/// or fewer than two builds or no variation are there.
/// Where it `isResampled`, and from five laps on (strike height: ten), shares have rough intervals by resampling whole
/// laps (1,000 seeded draws), widened for few of them.
std::optional<WhoseDoing> whoseDoing(const JudgeRequest& request, const Column& column, bool isResampled = false);

} // namespace knot::judge
