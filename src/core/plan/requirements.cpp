#include "core/plan/requirements.h"

#include "core/plan/looks.h"
#include "core/plan/planner.h"
#include "core/plan/power.h"
#include "core/plan/strike_off.h"
#include "core/plan/worth.h"

#include <algorithm>
#include <cmath>

namespace knot::plan {

using record::Outcome;
using record::OutcomeKind;
using record::Test;

namespace {

constexpr double fewestForSpread = 4; // degrees of freedom: below, a spread is not judged
constexpr int fewestForArea = 4;      // laps

PairPlan pairOf(const Laps& laps, const Spreads& spreads) {
    return {.varTurn = spreads.sdTurn * spreads.sdTurn,
            .varShot = spreads.sdShot * spreads.sdShot,
            .rounds = static_cast<double>(laps.count),
            .turnLength = static_cast<double>(laps.shots)};
}

} // namespace

double chanceIn(const Laps& laps, const Outcome& outcome, const Spreads& spreads, double gap, double level) {
    if (laps.count < 2)
        return 0;
    switch (outcome.kind) {
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical: {
        const PairPlan plan = pairOf(laps, spreads);
        return laps.days == 1
                   ? powerToSee(plan, gap, level)
                   : powerFor(plan.standardError() / std::sqrt(laps.days), laps.days * plan.df(), gap, level);
    }
    case OutcomeKind::spread:
        return laps.nu() > fewestForSpread ? powerToSeeSpread(laps.nu(), gap, level) : 0;
    case OutcomeKind::area:
        return laps.count * laps.days >= fewestForArea && laps.nu() > 1 ? powerToSeeArea(laps.nu(), gap, level) : 0;
    case OutcomeKind::share:
        break;
    }
    return 0;
}

namespace {

Laps lapsOf(const Test& test) {
    return {.count = test.plan.schedule == record::Schedule::oneRunEach ? 1 : test.plan.rounds,
            .shots = shotsATurn(test.plan)};
}

std::optional<double> smallestSeen(const Laps& laps, const Outcome& outcome, const Spreads& spreads, double level) {
    if (outcome.kind == OutcomeKind::spread)
        return spreadSeen(laps.count, laps.shots, level);
    if (outcome.kind == OutcomeKind::area)
        return areaSeen(laps.count, laps.shots, level);
    return smallestGap(pairOf(laps, spreads), 0.8, level);
}

} // namespace

double chanceToSee(const Test& test, const Outcome& outcome, const Spreads& spreads, double gap) {
    return chanceIn(lapsOf(test), outcome, spreads, gap, levelOfOne(test));
}

double chanceByHand(const Test& test, const Outcome& outcome, const Spreads& spreads, double gap) {
    const double level = levelOfOne(test);
    switch (outcome.kind) {
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical:
        return powerOfRuns({.sdTurn = spreads.sdTurn, .sdShot = spreads.sdShot, .gap = gap, .alpha = level},
                           shotsByHand);
    case OutcomeKind::spread:
        return powerOfVariances(shotsByHand - 1, gap, level);
    case OutcomeKind::area:
        return powerToSeeArea(shotsByHand - 1, gap, level);
    case OutcomeKind::share:
        break;
    }
    return 0;
}

double levelOfOne(const Test& test) {
    const std::size_t builds = std::max<std::size_t>(test.builds.size(), 2);
    const std::size_t comparisons = strikesOff(test) ? 1 // of the two that are left, whoever they are
                                    : test.card.comparison == record::Comparison::whichOfThese
                                        ? builds * (builds - 1) / 2
                                        : builds - 1;
    const std::size_t family = comparisons * std::max<std::size_t>(test.card.primary.size(), 1);
    const auto laps = static_cast<std::size_t>(std::max(test.card.plannedRounds, 2)); // the last look has less than α
    return levelAt(test.card, laps) / static_cast<double>(family);
}

std::vector<Takes> takesOf(const Test& test, const SpreadsOf& spreads, const ScaleOf& scale) {
    const double level = levelOfOne(test);
    const Laps once = lapsOf(test);
    const Laps twice{once.count, once.shots, 2};
    std::vector<Takes> all;
    for (const Outcome& outcome : test.card.primary) {
        if (outcome.kind == OutcomeKind::share)
            continue;
        Takes takes{.outcome = outcome, .spreads = spreads(outcome)};
        takes.gap = outcome.kind == OutcomeKind::spread ? test.card.sdRatioMargin
                    : outcome.kind == OutcomeKind::area ? test.card.areaRatioMargin
                                                        : test.card.margin(outcome.metric);
        const double tau = scale ? scale(outcome) : scaleOf(test, outcome);
        takes.worth = worthOfPlan(test, outcome, takes.spreads, tau).worth.share;
        takes.worthOnTwoDays = worthOfPlan(test, outcome, takes.spreads, tau, {}, 2).worth.share;
        takes.worthByHand = worthByHand(test, outcome, takes.spreads, tau).worth.share;
        if (once.count >= 2) {
            takes.thisPlan = chanceIn(once, outcome, takes.spreads, takes.gap, level);
            takes.twoSittings = chanceIn(twice, outcome, takes.spreads, takes.gap, level);
            takes.smallest = smallestSeen(once, outcome, takes.spreads, level);
        }
        all.push_back(takes);
    }
    return all;
}

} // namespace knot::plan
