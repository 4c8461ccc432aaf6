#pragma once

#include <vector>

namespace knot::statistics {

/// What each of g players adds on average over all orders of entry (Shapley 1953). `worth` has 2^g values by set: bit i
/// of the place says whether player i is in it. g up to 16.
std::vector<double> shapley(const std::vector<double>& worth);

} // namespace knot::statistics
