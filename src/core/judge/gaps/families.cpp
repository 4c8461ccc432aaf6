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

} // namespace

std::vector<double> holm(const std::vector<double>& p) {
    std::vector<double> adjusted(p.size());
    double largest = 0;
    std::size_t left = p.size();
    for (const std::size_t i : ascending(p)) {
        largest = std::max(largest, std::min(1.0, p[i] * static_cast<double>(left--)));
        adjusted[i] = largest;
    }
    return adjusted;
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
