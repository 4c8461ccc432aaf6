#include "app/picture/swarm.h"

#include <algorithm>
#include <cmath>
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

double knotRadius(std::size_t count, double usual) {
    constexpr double fewest = 300;
    constexpr double smallest = 1.2;
    return std::max(smallest,
                    usual * std::min(1.0, std::sqrt(fewest / static_cast<double>(std::max<std::size_t>(count, 1)))));
}

} // namespace knot::picture
