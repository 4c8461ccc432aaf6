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
    case record::Want::Kind::less:
        return -mean;
    case record::Want::Kind::near:
        return -std::fabs(mean - want.value);
    default:
        return mean;
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

BestOf choosing(const Column& column, const record::Want& want, std::uint64_t seed, int furtherLaps, int draws) {
    const auto builds = withReadings(column, 2);
    if (builds.size() < 2)
        return {};
    BestOf best{.furtherLaps = furtherLaps};
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
    for (const std::size_t b : builds)
        best.choosing.push_back({.build = b});
    Random random(seed);
    std::vector<double> merits(builds.size());
    std::vector<double> later(builds.size());
    for (int draw = 0; draw < draws; ++draw) {
        for (std::size_t i = 0; i < builds.size(); ++i) {
            const Centre& c = centres[i];
            const double truth = c.mean + c.se * random.studentT(c.df);
            merits[i] = merit(truth, want);
            // What the mean over the laps done and to come would then be.
            const double turns = c.df + 1;
            const double fresh = truth + c.se * std::sqrt(turns / furtherLaps) * random.normal();
            later[i] = merit((turns * c.mean + furtherLaps * fresh) / (turns + furtherLaps), want);
        }
        const auto top = std::ranges::max_element(merits);
        best.choosing[static_cast<std::size_t>(top - merits.begin())].chanceBest += 1.0 / draws;
        for (std::size_t i = 0; i < builds.size(); ++i)
            best.choosing[i].meanLoss += (*top - merits[i]) / draws;
        const auto chosen = static_cast<std::size_t>(std::ranges::max_element(later) - later.begin());
        best.lossAfter += (*top - merits[chosen]) / draws;
    }
    best.lossNow = std::ranges::min_element(best.choosing, {}, &BestOf::Choice::meanLoss)->meanLoss;
    return best;
}

} // namespace knot::judge
