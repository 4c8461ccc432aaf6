#pragma once

#include <cstdint>
#include <vector>

namespace knot::plan {

/// The chance that keeping the `kept` builds with the best averages drops the truly best one, when
/// each was hit in one run of its number of shots. True averages are drawn with an SD of `gap` (clubs
/// that differ by about what matters); `sdTurn` and `sdShot` as in the planner. 20,000 seeded draws.
/// 0 when all are kept; every run needs a shot.
double riskOfDroppingBest(const std::vector<int>& shots, std::size_t kept, double gap, double sdTurn, double sdShot,
                          std::uint64_t seed = 1);

} // namespace knot::plan
