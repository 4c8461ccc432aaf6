#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// How often a shot with one build passes one with the other, for each average row of the column's metric; the
/// interval resamples stints (1,000 seeded draws), from four stints each; where pairs of stints are more than 100,000
/// it is a normal one from how stints stray.
std::vector<Beats> beatsOf(const JudgeRequest& request, const Column& column, const Reading& reading);

/// What lies between the longest and the shortest of ten shots with a build: 3.078 times the SD of its shots, stints
/// and shots together (the mean range of ten normal values). Nothing where a build has fewer than three degrees of
/// freedom inside stints.
std::optional<TenShots> tenShots(const Column& column, BuildAt build);

} // namespace knot::judge
