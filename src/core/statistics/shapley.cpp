#include "core/statistics/shapley.h"

#include <bit>
#include <cstddef>

namespace knot::statistics {

std::vector<double> shapley(const std::vector<double>& worth) {
    const auto players = static_cast<std::size_t>(std::bit_width(worth.size()) - 1);
    std::vector<double> factorial(players + 1, 1.0);
    for (std::size_t i = 1; i < factorial.size(); ++i)
        factorial[i] = factorial[i - 1] * static_cast<double>(i);
    std::vector<double> shares(players, 0.0);
    for (std::size_t set = 0; set < worth.size(); ++set)
        for (std::size_t player = 0; player < players; ++player)
            if ((set >> player & 1U) == 0) {
                const auto size = static_cast<std::size_t>(std::popcount(set));
                shares[player] += factorial[size] * factorial[players - size - 1] / factorial[players] *
                                  (worth[set | std::size_t{1} << player] - worth[set]);
            }
    return shares;
}

} // namespace knot::statistics
