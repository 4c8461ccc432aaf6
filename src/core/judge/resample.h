#pragma once

#include "core/judge/claim.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"

#include <cmath>
#include <cstdint>
#include <vector>

namespace knot::judge {

/// Stints of a build under which nothing is drawn anew, or said of them.
inline constexpr std::size_t fewestStints = 4;
/// How often stints or laps are drawn anew where an interval is only told roughly.
inline constexpr int usualDraws = 1000;

/// How many draws are enough where `parts` (stints, laps) are drawn anew: all of them up to 500, where each part
/// weighs; a quarter up to 5,000 and a tenth beyond, where what is drawn is smooth and nearly normal.
inline int drawsFor(int draws, std::size_t parts) {
    return parts <= 500 ? draws : parts <= 5000 ? draws / 4 : draws / 10;
}

/// From the 2.5 % to the 97.5 % quantile of what was drawn; not empty.
inline Interval percentiles(const std::vector<double>& drawn) {
    return {statistics::quantileOf(drawn, 0.025), statistics::quantileOf(drawn, 0.975), 0.95};
}

/// A percentile interval of few parts (laps, stints) is too narrow by √((n − 1)/n) and by what Student's t has over the
/// normal: widened about its estimate by both (after Hesterberg 2015). `parts` ≥ 2.
inline Interval expanded(const Interval& interval, double estimate, std::size_t parts) {
    const auto n = static_cast<double>(parts);
    const double factor =
        std::sqrt(n / (n - 1)) * statistics::studentQuantile(0.975, n - 1) / statistics::normalQuantile(0.975);
    return {estimate - factor * (estimate - interval.low), estimate + factor * (interval.high - estimate),
            interval.level};
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

/// Places 0 … count − 1 drawn with replacement, as many as there are; count below 2³². Two from each 64 random bits:
/// no place is likelier than another by more than one in four thousand million.
inline std::vector<std::size_t> drawnWithReplacement(Random& random, std::size_t count) {
    std::vector<std::size_t> drawn(count);
    constexpr std::uint64_t half = 0xffffffff;
    for (std::size_t i = 0; i < count; i += 2) {
        const std::uint64_t bits = random.bits();
        drawn[i] = static_cast<std::size_t>((bits & half) * count >> 32);
        if (i + 1 < count)
            drawn[i + 1] = static_cast<std::size_t>((bits >> 32) * count >> 32);
    }
    return drawn;
}

} // namespace knot::judge
