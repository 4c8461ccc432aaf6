#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/judge/request.h"

namespace knot::judge {

/// Where a gap comes from (judgement §17), for carry, apex, descent and side of each pair of the reading's averages:
/// the model's flight at both builds' means over the laps that hold both (over all shots where none does), each input
/// swapped in turn and averaged over all orders (Shapley 1953). Inputs: club speed and efficiency, or ball speed
/// alone where club speed is not read; launch; spin; direction and spin axis together. Intervals by resampling laps
/// (1,000 seeded draws) from five on, on the flight's own slopes and curvature. Shots need ball speed, launch, spin
/// and the metric.
std::vector<PartsOfGap> partsOfGaps(const JudgeRequest& request, const Reading& reading);

} // namespace knot::judge
