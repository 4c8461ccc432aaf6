#include "core/plan/takes.h"

#include "core/plan/looks.h"
#include "core/plan/planner.h"
#include "core/plan/power.h"

#include <algorithm>
#include <cmath>

namespace knot::plan {

using record::Outcome;
using record::OutcomeKind;
using record::Test;

namespace {

constexpr int byHand = 3; // shots with each club, as people do

Takes ofAverage(Takes takes, int laps, int shots, double level) {
    const double perShot = takes.spreads.sdShot * takes.spreads.sdShot;
    const double perStint = takes.spreads.sdTurn * takes.spreads.sdTurn;
    takes.threeEach = powerFor(std::sqrt(2 * (perStint + perShot / byHand)), 2 * (byHand - 1), takes.gap, 0.05);
    if (laps < 2)
        return takes;
    const PairPlan plan{.varTurn = perStint,
                        .varShot = perShot,
                        .rounds = static_cast<double>(laps),
                        .turnLength = static_cast<double>(shots)};
    takes.thisPlan = powerToSee(plan, takes.gap, level);
    takes.twoSittings = powerFor(plan.standardError() / std::sqrt(2.0), 2 * plan.df(), takes.gap, level);
    takes.smallest = smallestGap(plan, 0.8, level);
    return takes;
}

Takes ofSpread(Takes takes, int laps, int shots, double level) {
    takes.threeEach = powerOfVariances(byHand - 1, takes.gap, 0.05);
    constexpr double fewest = 4; // degrees of freedom: below, a spread is not judged
    const double nu = laps * (shots - 1);
    if (laps < 2)
        return takes;
    takes.thisPlan = nu > fewest ? powerToSeeSpread(nu, takes.gap, level) : 0;
    takes.twoSittings = 2 * nu > fewest ? powerToSeeSpread(2 * nu, takes.gap, level) : 0;
    takes.smallest = spreadSeen(laps, shots, level);
    return takes;
}

Takes ofArea(Takes takes, int laps, int shots, double level) {
    takes.threeEach = powerToSeeArea(byHand - 1, takes.gap, 0.05);
    constexpr int fewestLaps = 4;
    const double nu = laps * (shots - 1);
    if (laps < 2)
        return takes;
    takes.thisPlan = laps >= fewestLaps && nu > 1 ? powerToSeeArea(nu, takes.gap, level) : 0;
    takes.twoSittings = 2 * laps >= fewestLaps && nu > 1 ? powerToSeeArea(2 * nu, takes.gap, level) : 0;
    takes.smallest = areaSeen(laps, shots, level);
    return takes;
}

} // namespace

double levelOfOne(const Test& test) {
    const std::size_t builds = std::max<std::size_t>(test.builds.size(), 2);
    const std::size_t comparisons =
        test.card.comparison == record::Comparison::whichOfThese ? builds * (builds - 1) / 2 : builds - 1;
    const std::size_t family = comparisons * std::max<std::size_t>(test.card.primary.size(), 1);
    const auto laps = static_cast<std::size_t>(std::max(test.card.plannedRounds, 2)); // the last look has less than α
    return levelAt(test.card, laps) / static_cast<double>(family);
}

std::vector<Takes> takesOf(const Test& test, const SpreadsOf& spreads) {
    const double level = levelOfOne(test);
    const bool isRuns = test.plan.schedule == record::Schedule::oneRunEach;
    const int laps = isRuns ? 1 : test.plan.rounds;
    const int shots = shotsATurn(test.plan);
    std::vector<Takes> all;
    for (const Outcome& outcome : test.card.primary) {
        Takes takes{.outcome = outcome, .spreads = spreads(outcome.metric)};
        switch (outcome.kind) {
        case OutcomeKind::average:
        case OutcomeKind::equal:
        case OutcomeKind::typical:
            takes.gap = test.card.margin(outcome.metric);
            all.push_back(ofAverage(takes, laps, shots, level));
            break;
        case OutcomeKind::spread:
            takes.gap = test.card.sdRatioMargin;
            all.push_back(ofSpread(takes, laps, shots, level));
            break;
        case OutcomeKind::area:
            takes.gap = test.card.areaRatioMargin;
            all.push_back(ofArea(takes, laps, shots, level));
            break;
        case OutcomeKind::share:
            break;
        }
    }
    return all;
}

} // namespace knot::plan
