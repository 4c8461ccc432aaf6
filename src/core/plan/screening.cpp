#include "core/plan/screening.h"

#include "core/random.h"

#include <algorithm>
#include <cmath>

namespace knot::plan {

double riskOfDroppingBest(const std::vector<int>& shots, std::size_t kept, double gap, double sdTurn, double sdShot,
                          std::uint64_t seed) {
    if (kept >= shots.size() || kept == 0)
        return 0;
    constexpr int draws = 20000;
    Random random(seed);
    int dropped = 0;
    std::vector<double> truth(shots.size());
    std::vector<double> seen(shots.size());
    for (int draw = 0; draw < draws; ++draw) {
        for (std::size_t i = 0; i < shots.size(); ++i) {
            truth[i] = gap * random.normal();
            seen[i] = truth[i] + std::sqrt(sdTurn * sdTurn + sdShot * sdShot / std::max(1, shots[i])) * random.normal();
        }
        const auto best = static_cast<std::size_t>(std::ranges::max_element(truth) - truth.begin());
        const auto ahead = std::ranges::count_if(seen, [&](double other) { return other > seen[best]; });
        dropped += static_cast<std::size_t>(ahead) >= kept ? 1 : 0;
    }
    return static_cast<double>(dropped) / draws;
}

} // namespace knot::plan
