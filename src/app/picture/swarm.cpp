#include "app/picture/swarm.h"

#include <algorithm>
#include <numeric>

namespace knot::picture {

std::vector<int> swarmLevels(const std::vector<double>& x, double width) {
    std::vector<std::size_t> order(x.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::stable_sort(order, {}, [&](std::size_t i) { return x[i]; });
    std::vector<int> levels(x.size(), 0);
    std::vector<double> lastOnLevel;
    for (const std::size_t i : order) {
        const auto free = std::ranges::find_if(lastOnLevel, [&](double last) { return x[i] - last >= width; });
        levels[i] = static_cast<int>(free - lastOnLevel.begin());
        if (free == lastOnLevel.end())
            lastOnLevel.push_back(x[i]);
        else
            *free = x[i];
    }
    return levels;
}

} // namespace knot::picture
