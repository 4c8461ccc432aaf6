#include "core/judge/beats.h"

#include "core/judge/resample.h"
#include "core/judge/seed.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

constexpr std::size_t fewestStints = 4;
constexpr double rangeOfTen = 3.078; // mean range of ten standard normal values
constexpr double fewestDegrees = 3;
constexpr double mostWork = 2e7; // pairs of stints over all draws

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
        for (const auto& a : m_other)
            for (const auto& b : m_own)
                m_above.push_back(statistics::pairsAbove(a, b));
    }

    double chance() const {
        double above = 0;
        for (const double pairs : m_above)
            above += pairs;
        return above / (count(m_own) * count(m_other));
    }

    std::optional<Interval> interval(std::uint64_t seed) const {
        if (std::min(m_own.size(), m_other.size()) < fewestStints)
            return std::nullopt;
        const auto work = static_cast<double>(m_above.size());
        const int draws = static_cast<int>(std::clamp(mostWork / work, 200.0, 1000.0));
        return percentileInterval(seed, draws, [this](Random& random) { return resampled(random); });
    }

private:
    static double count(const std::vector<std::vector<double>>& stints) {
        double n = 0;
        for (const auto& stint : stints)
            n += static_cast<double>(stint.size());
        return n;
    }

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

} // namespace

std::vector<Beats> beatsOf(const JudgeRequest& request, const Column& column, const Reading& reading) {
    std::vector<Beats> all;
    for (const AverageGap& row : reading.average) {
        if (row.metric != column.metric || row.kind != record::OutcomeKind::average)
            continue;
        const Passed passed(column.builds[row.build], column.builds[row.against]);
        all.push_back({.metric = column.metric,
                       .build = row.build,
                       .against = row.against,
                       .chance = passed.chance(),
                       .ci95 = passed.interval(seedFor(request, "beats", column.metric, row.build, row.against))});
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
