#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// How often a shot with one build passes one with the other, for each average row of the column's metric; the
/// interval resamples stints (seeded), from four stints each.
std::vector<Beats> beatsOf(const JudgeRequest& request, const Column& column, const Reading& reading);

/// What lies between the longest and the shortest of ten shots with a build: 3.078 times the SD of its shots, stints
/// and shots together (the mean range of ten normal values). Nothing where a build has fewer than three degrees of
/// freedom inside stints.
std::optional<TenShots> tenShots(const Column& column, BuildAt build);

} // namespace knot::judge
