#include "core/judge/shots/probability_of_beating.h"

#include "core/judge/resample.h"
#include "core/judge/seed.h"
#include "core/statistics/distributions.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

constexpr double rangeOfTen = 3.078; // mean range of ten standard normal values
constexpr double fewestDegrees = 3;
constexpr double mostPairs = 1e5; // of stints, up to which they are drawn anew

std::vector<std::vector<double>> sortedStints(const BuildValues& build) {
    std::vector<std::vector<double>> stints;
    for (const TurnValues& turn : build.turns) {
        stints.push_back(turn.values);
        std::ranges::sort(stints.back());
    }
    return stints;
}

// Pairs that pass, for each stint of one with each of the other.
class Passed {
public:
    Passed(const BuildValues& own, const BuildValues& other)
        : m_own(sortedStints(own))
        , m_other(sortedStints(other)) {
        m_above.reserve(m_own.size() * m_other.size());
        for (const auto& a : m_other)
            for (const auto& b : m_own)
                m_above.push_back(statistics::pairsAbove(a, b));
    }

    std::optional<Interval> interval(std::uint64_t seed) const {
        return percentileInterval(seed, usualDraws, [this](Random& random) { return resampled(random); });
    }

private:
    double resampled(Random& random) const {
        const auto own = drawnWithReplacement(random, m_own.size());
        double above = 0;
        double shotsOther = 0;
        double shotsOwn = 0;
        for (const std::size_t b : own)
            shotsOwn += static_cast<double>(m_own[b].size());
        for (const std::size_t a : drawnWithReplacement(random, m_other.size())) {
            shotsOther += static_cast<double>(m_other[a].size());
            const double* row = &m_above[a * m_own.size()];
            for (const std::size_t b : own)
                above += row[b];
        }
        return above / (shotsOwn * shotsOther);
    }

    std::vector<std::vector<double>> m_own, m_other;
    std::vector<double> m_above;
};

// The share of ordered values that one is above, ties counting half.
double shareUnder(const std::vector<double>& ordered, double value) {
    const auto [from, to] = std::ranges::equal_range(ordered, value);
    const auto under = static_cast<double>(from - ordered.begin());
    const auto upTo = static_cast<double>(to - ordered.begin());
    return 0.5 * (under + upTo) / static_cast<double>(ordered.size());
}

// How far the stints of one build stray from the chance: the part of its variance that this build adds (Obuchowski
// 1997). `chance` is that of this build passing the other.
double varianceFrom(const BuildValues& build, const std::vector<double>& others, double chance) {
    double squares = 0;
    double shots = 0;
    for (const TurnValues& turn : build.turns) {
        double off = 0;
        for (const double value : turn.values)
            off += shareUnder(others, value) - chance;
        squares += off * off;
        shots += static_cast<double>(turn.values.size());
    }
    const auto stints = static_cast<double>(build.turns.size());
    return stints / (stints - 1) * squares / (shots * shots);
}

Beats passing(const JudgeRequest& request, const Column& column, BuildAt build, BuildAt against) {
    const BuildValues& own = column.builds[build];
    const BuildValues& other = column.builds[against];
    auto mine = own.all();
    auto theirs = other.all();
    std::ranges::sort(mine);
    std::ranges::sort(theirs);
    const double pairs = static_cast<double>(mine.size()) * static_cast<double>(theirs.size());
    Beats row{.metric = column.metric, .build = build, .against = against};
    row.chance = statistics::pairsAbove(theirs, mine) / pairs;
    if (std::min(own.turns.size(), other.turns.size()) < fewestStints)
        return row;
    const double stints = static_cast<double>(own.turns.size()) * static_cast<double>(other.turns.size());
    if (stints <= mostPairs) {
        if (const auto drawn = Passed(own, other).interval(seedFor(request, "beats", column.metric, build, against))) {
            const Interval wide = expanded(*drawn, row.chance, std::min(own.turns.size(), other.turns.size()));
            row.ci95 = Interval{std::max(0.0, wide.low), std::min(1.0, wide.high), wide.level};
        }
        return row;
    }
    const double variance = varianceFrom(own, theirs, row.chance) + varianceFrom(other, mine, 1 - row.chance);
    const double reach = statistics::normalQuantile(0.975) * std::sqrt(variance);
    row.ci95 = Interval{std::max(0.0, row.chance - reach), std::min(1.0, row.chance + reach), 0.95};
    return row;
}

} // namespace

std::vector<Beats> beatsOf(const JudgeRequest& request, const Column& column, const Reading& reading) {
    std::vector<Beats> all;
    for (const AverageGap& row : reading.average) {
        if (row.metric != column.metric || row.kind != record::OutcomeKind::average)
            continue;
        all.push_back(passing(request, column, row.build, row.against));
    }
    return all;
}

std::optional<TenShots> tenShots(const Column& column, BuildAt build) {
    double squares = 0;
    double degrees = 0;
    double inverse = 0;
    const auto& turns = column.builds[build].turns;
    for (const TurnValues& turn : turns) {
        squares += squaresAboutMean(turn.values);
        degrees += static_cast<double>(turn.values.size()) - 1;
        inverse += 1 / static_cast<double>(turn.values.size());
    }
    if (degrees < fewestDegrees)
        return std::nullopt;
    const double shots = squares / degrees;
    double stints = 0;
    if (turns.size() > 1) {
        const auto count = static_cast<double>(turns.size());
        const double seen = squaresAboutMean(column.builds[build].turnMeans()) / (count - 1);
        stints = std::max(0.0, seen - shots * inverse / count);
    }
    return TenShots{.metric = column.metric, .build = build, .range = rangeOfTen * std::sqrt(shots + stints)};
}

} // namespace knot::judge
