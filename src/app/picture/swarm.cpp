#include "app/picture/swarm.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <numeric>
#include <queue>

namespace knot::picture {

std::vector<int> swarmLevels(const std::vector<double>& x, double width) {
    std::vector<std::size_t> order(x.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    if (!std::ranges::is_sorted(x))
        std::ranges::stable_sort(order, {}, [&](std::size_t i) { return x[i]; });
    std::vector<int> levels(x.size(), 0);
    // From left to right a level is let go in the order it was taken; the lowest that is free is taken next.
    std::priority_queue<int, std::vector<int>, std::greater<>> free;
    std::size_t held = 0; // the first in `order` whose level is not let go
    int used = 0;
    for (const std::size_t i : order) {
        for (; order[held] != i && x[i] - x[order[held]] >= width; ++held)
            free.push(levels[order[held]]);
        if (free.empty()) {
            levels[i] = used++;
        } else {
            levels[i] = free.top();
            free.pop();
        }
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
