#pragma once

#include "core/judge/claim.h"
#include "core/random.h"
#include "core/statistics/quantile.h"

#include <cmath>
#include <vector>

namespace knot::judge {

/// From the 2.5 % to the 97.5 % quantile of what was drawn; not empty.
inline Interval percentiles(const std::vector<double>& drawn) {
    return {statistics::quantileOf(drawn, 0.025), statistics::quantileOf(drawn, 0.975), 0.95};
}

/// The 95 % percentile interval of a statistic over seeded draws; draws of which it makes nothing (nan) are passed
/// over. Nothing where half of them or more are.
template<typename Statistic>
std::optional<Interval> percentileInterval(std::uint64_t seed, int draws, Statistic statistic) {
    Random random(seed);
    std::vector<double> values;
    values.reserve(static_cast<std::size_t>(draws));
    for (int draw = 0; draw < draws; ++draw)
        if (const double value = statistic(random); std::isfinite(value))
            values.push_back(value);
    if (2 * values.size() <= static_cast<std::size_t>(draws))
        return std::nullopt;
    return percentiles(values);
}

/// Places 0 … count − 1 drawn with replacement, as many as there are.
inline std::vector<std::size_t> drawnWithReplacement(Random& random, std::size_t count) {
    std::vector<std::size_t> drawn(count);
    for (std::size_t& one : drawn)
        one = random.below(count);
    return drawn;
}

} // namespace knot::judge
