#include "core/judge/gaps/families.h"

#include <algorithm>
#include <numeric>

namespace knot::judge {
namespace {

std::vector<std::size_t> ascending(const std::vector<double>& p) {
    std::vector<std::size_t> order(p.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::stable_sort(order, {}, [&](std::size_t i) { return p[i]; });
    return order;
}

// Each p, from the least on, times how many claims its step counts.
std::vector<double> steppedDown(const std::vector<double>& p, const std::vector<double>& steps) {
    std::vector<double> adjusted(p.size());
    double largest = 0;
    std::size_t step = 0;
    for (const std::size_t i : ascending(p)) {
        largest = std::max(largest, std::min(1.0, p[i] * steps[step++]));
        adjusted[i] = largest;
    }
    return adjusted;
}

// How many pairs of builds can be equal at once, for every number whether it can be: builds fall into groups of equals.
std::vector<bool> equalitiesOf(std::size_t builds) {
    std::vector<std::vector<bool>> can(builds + 1);
    can[0] = {true};
    for (std::size_t all = 1; all <= builds; ++all) {
        can[all].assign(all * (all - 1) / 2 + 1, false);
        for (std::size_t group = 1; group <= all; ++group) {
            const auto& rest = can[all - group];
            for (std::size_t others = 0; others < rest.size(); ++others)
                if (rest[others])
                    can[all][group * (group - 1) / 2 + others] = true;
        }
    }
    return can[builds];
}

} // namespace

std::vector<double> holm(const std::vector<double>& p) {
    std::vector<double> steps(p.size());
    std::iota(steps.rbegin(), steps.rend(), 1.0);
    return steppedDown(p, steps);
}

std::vector<double> shaffer(const std::vector<double>& p, std::size_t builds) {
    const std::vector<bool> can = equalitiesOf(builds);
    std::vector<double> steps(p.size());
    for (std::size_t i = 0; i < p.size(); ++i) {
        std::size_t most = p.size() - i;
        while (!can[most])
            --most;
        steps[i] = static_cast<double>(most);
    }
    return steppedDown(p, steps);
}

std::vector<double> benjaminiHochberg(const std::vector<double>& p) {
    std::vector<double> adjusted(p.size());
    const auto order = ascending(p);
    const auto m = static_cast<double>(p.size());
    double smallest = 1;
    for (std::size_t rank = order.size(); rank > 0; --rank) {
        const std::size_t i = order[rank - 1];
        smallest = std::min(smallest, p[i] * m / static_cast<double>(rank));
        adjusted[i] = smallest;
    }
    return adjusted;
}

} // namespace knot::judge
