#include "core/statistics/quantile.h"

#include "core/statistics/moments.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace knot::statistics {

double medianOf(std::vector<double> values) {
    if (values.empty())
        return std::numeric_limits<double>::quiet_NaN();
    std::ranges::sort(values);
    const std::size_t n = values.size();
    return n % 2 == 1 ? values[n / 2] : std::midpoint(values[n / 2 - 1], values[n / 2]);
}

double quantileOf(std::vector<double> values, double share) {
    if (values.empty())
        return std::numeric_limits<double>::quiet_NaN();
    const double at = share * static_cast<double>(values.size() - 1);
    const auto below = values.begin() + static_cast<std::ptrdiff_t>(at);
    std::nth_element(values.begin(), below, values.end());
    if (below + 1 == values.end())
        return *below;
    const double above = *std::min_element(below + 1, values.end());
    return *below + (at - std::floor(at)) * (above - *below);
}

double trimmedMeanOf(std::vector<double> values, double share) {
    std::ranges::sort(values);
    const auto drop = static_cast<std::ptrdiff_t>(std::floor(share * static_cast<double>(values.size())));
    return meanOf({values.begin() + drop, values.end() - drop});
}

std::uint64_t waysToChoose(std::size_t n, std::size_t k, std::uint64_t most) {
    k = std::min(k, n - k);
    double ways = 1;
    for (std::size_t i = 1; i <= k; ++i) {
        ways = ways * static_cast<double>(n - k + i) / static_cast<double>(i);
        if (ways > static_cast<double>(most) + 0.5)
            return most + 1;
    }
    return static_cast<std::uint64_t>(std::llround(ways));
}

} // namespace knot::statistics
