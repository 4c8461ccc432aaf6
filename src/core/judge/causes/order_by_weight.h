#pragma once

#include "core/judge/reading.h"

namespace knot::judge {

/// In how many numbers the clubs' averages rise or fall with the clubs' weight. Three to eight clubs that were struck,
/// each with a weight of its own; strikes and misses are no such numbers.
std::optional<WeightOrder> orderByWeight(const record::Test& test, const std::vector<Summary>& summaries);

} // namespace knot::judge
