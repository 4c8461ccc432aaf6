#include "core/judge/choosing.h"

#include "core/judge/average.h"
#include "core/judge/distributions.h"
#include "core/judge/families.h"
#include "core/random.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

// How good a mean is: larger is better.
double merit(double mean, const record::Want& want) {
    switch (want.kind) {
    case record::Want::Kind::less: return -mean;
    case record::Want::Kind::near: return -std::fabs(mean - want.value);
    default: return mean;
    }
}

// The readings as merits. For a wanted value it is the turn's mean whose distance counts, since
// single shots on both sides of it would all look far away.
Column onMeritScale(Column column, const record::Want& want) {
    for (auto& build : column.builds)
        for (auto& turn : build.turns) {
            const double mean = turn.mean();
            for (double& value : turn.values)
                value = merit(want.kind == record::Want::Kind::near ? mean : value, want);
        }
    return column;
}

std::vector<std::size_t> withReadings(const Column& column, std::size_t fewestTurns) {
    std::vector<std::size_t> builds;
    for (std::size_t b = 0; b < column.builds.size(); ++b)
        if (column.builds[b].turns.size() >= fewestTurns)
            builds.push_back(b);
    return builds;
}

} // namespace

std::vector<std::size_t> bestSet(const Column& column, const record::Want& want, double alpha) {
    const Column merits = onMeritScale(column, want);
    const auto builds = withReadings(column, 1);
    std::vector<double> p;
    std::vector<std::size_t> beaten;
    for (const std::size_t winner : builds)
        for (const std::size_t loser : builds) {
            if (winner == loser)
                continue;
            const auto gap = averageGap(merits, winner, loser, 1);
            const bool fair = gap && gap->se && (!gap->claim.cap || *gap->claim.cap == Cap::noVariation);
            p.push_back(fair ? studentUpper(gap->gap / *gap->se, *gap->df) : 1);
            beaten.push_back(loser);
        }
    const auto adjusted = holm(p);
    std::vector<std::size_t> set;
    for (const std::size_t build : builds) {
        bool stands = true;
        for (std::size_t i = 0; i < beaten.size(); ++i)
            stands = stands && !(beaten[i] == build && adjusted[i] < alpha);
        if (stands)
            set.push_back(build);
    }
    return set;
}

std::vector<BestOf::Choice> choosing(const Column& column, const record::Want& want, std::uint64_t seed, int draws) {
    const auto builds = withReadings(column, 2);
    if (builds.size() < 2)
        return {};
    // Take out what a lap did to every club in it, keeping the grand mean.
    std::map<std::size_t, std::vector<double>> laps;
    std::vector<double> all;
    for (const std::size_t b : builds)
        for (const auto& turn : column.builds[b].turns) {
            laps[turn.round].push_back(turn.mean());
            all.push_back(turn.mean());
        }
    const double grand = meanOf(all);
    struct Centre {
        double mean = 0, se = 0, df = 1;
    };
    std::vector<Centre> centres;
    for (const std::size_t b : builds) {
        std::vector<double> means;
        for (const auto& turn : column.builds[b].turns) {
            const auto& lap = laps[turn.round];
            means.push_back(turn.mean() - (lap.size() == builds.size() ? meanOf(lap) - grand : 0));
        }
        const auto turns = static_cast<double>(means.size());
        centres.push_back({meanOf(means), standardDeviation(means) / std::sqrt(turns), turns - 1});
    }
    std::vector<BestOf::Choice> choices;
    for (const std::size_t b : builds)
        choices.push_back({.build = b});
    Random random(seed);
    std::vector<double> merits(builds.size());
    for (int draw = 0; draw < draws; ++draw) {
        for (std::size_t i = 0; i < builds.size(); ++i)
            merits[i] = merit(centres[i].mean + centres[i].se * random.studentT(centres[i].df), want);
        const auto best = std::ranges::max_element(merits);
        choices[static_cast<std::size_t>(best - merits.begin())].chanceBest += 1.0 / draws;
        for (std::size_t i = 0; i < builds.size(); ++i)
            choices[i].meanLoss += (*best - merits[i]) / draws;
    }
    return choices;
}

} // namespace knot::judge
