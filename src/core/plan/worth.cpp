#include "core/plan/worth.h"

#include "core/plan/requirements.h"
#include "core/plan/strike_off.h"
#include "core/random.h"
#include "core/record/structure.h"
#include "core/statistics/distributions.h"
#include "core/statistics/integral.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <numbers>
#include <numeric>

namespace knot::plan {

using record::Outcome;
using record::OutcomeKind;
using statistics::normalLower;

namespace {

constexpr int draws = 4000;
constexpr double never = std::numeric_limits<double>::infinity();

// Over low to high, where nothing happens in less than a twentieth of it.
double inPanels(const std::function<double(double)>& function, double low, double high) {
    constexpr int panels = 20;
    const double step = (high - low) / panels;
    double sum = 0;
    for (int i = 0; i < panels; ++i)
        sum += statistics::integral(function, low + i * step, low + (i + 1) * step);
    return sum;
}

// The mean of the greatest of normal values about 0.
double meanOfGreatest(const std::vector<double>& sds) {
    const double widest = *std::ranges::max_element(sds);
    if (!(widest > 0))
        return 0;
    auto all = [&](double z) {
        double product = 1;
        for (const double sd : sds)
            product *= sd > 0 ? normalLower(z / sd) : z > 0 ? 1 : 0;
        return product;
    };
    return inPanels([&](double z) { return 1 - all(z) - all(-z); }, 0, 10 * widest);
}

// How far the best guess of a club moves about 0, where it is seen with an error.
double guessed(double tau, double error) {
    return tau > 0 ? tau * tau / std::hypot(tau, error) : 0;
}

Worth shareOf(double had, double toBeHad) {
    return {.share = toBeHad > 0 ? had / toBeHad : 0, .toBeHad = toBeHad, .had = had, .lost = toBeHad - had};
}

} // namespace

Worth worthOf(const Choosing& choosing) {
    std::vector<double> guesses;
    for (const double error : choosing.errors)
        guesses.push_back(guessed(choosing.tau, error));
    if (guesses.size() < 2)
        return {};
    const double greatest = meanOfGreatest(std::vector<double>(guesses.size(), 1));
    const bool alike = std::ranges::all_of(guesses, [&](double one) { return one == guesses.front(); });
    return shareOf(alike ? greatest * guesses.front() : meanOfGreatest(guesses), greatest * choosing.tau);
}

Worth worthNearValue(const Choosing& choosing, std::uint64_t seed) {
    if (choosing.errors.size() < 2)
        return {};
    Random random(seed);
    double chosen = 0;
    double nearest = 0;
    double blindly = 0; // how far off the first one is, which is as good as any
    for (int draw = 0; draw < draws; ++draw) {
        double least = never;
        double leastSeen = never;
        double ofChosen = 0;
        std::optional<double> first;
        for (const double error : choosing.errors) {
            const double truth = choosing.tau * random.normal();
            const double noise = random.normal();
            const double weight = std::isinf(error) ? 0 : guessed(choosing.tau, error) / choosing.tau;
            // How far off it is expected to be, its own uncertainty included.
            const double guess = std::isinf(error) ? 0 : weight * weight * (truth + error * noise);
            const double seen = guess * guess + (1 - weight * weight) * choosing.tau * choosing.tau;
            if (seen < leastSeen) {
                leastSeen = seen;
                ofChosen = std::fabs(truth);
            }
            least = std::min(least, std::fabs(truth));
            first = first.value_or(std::fabs(truth));
        }
        blindly += *first / draws;
        chosen += ofChosen / draws;
        nearest += least / draws;
    }
    return shareOf(blindly - chosen, blindly - nearest);
}

Worth worthStrikingOff(double tau, std::size_t clubs, double ofLap, int laps, std::uint64_t seed) {
    Random random(seed);
    double had = 0;
    double toBeHad = 0;
    std::vector<double> truth(clubs);
    std::vector<double> sum(clubs);
    std::vector<std::size_t> in(clubs);
    for (int draw = 0; draw < draws; ++draw) {
        for (std::size_t i = 0; i < clubs; ++i)
            truth[i] = tau * random.normal();
        std::ranges::fill(sum, 0);
        in.resize(clubs);
        std::iota(in.begin(), in.end(), std::size_t{0});
        for (int lap = 1; lap <= laps; ++lap) {
            for (const std::size_t club : in)
                sum[club] += truth[club] + ofLap * random.normal();
            if (lap != firstCut && lap != secondCut)
                continue;
            std::ranges::sort(in, std::greater(), [&](std::size_t club) { return sum[club]; });
            in.resize(std::min(in.size(), stayAfter(in.size(), lap)));
        }
        had += truth[*std::ranges::max_element(in, {}, [&](std::size_t club) { return sum[club]; })] / draws;
        toBeHad += *std::ranges::max_element(truth) / draws;
    }
    return shareOf(had, toBeHad);
}

Futures futuresOf(const std::vector<double>& errors, double gap, double proved) {
    double rightly = 0;
    for (std::size_t better = 0; better < errors.size(); ++better)
        rightly += inPanels(
                       [&](double z) {
                           double product = std::exp(-z * z / 2) / std::sqrt(2 * std::numbers::pi);
                           for (std::size_t i = 0; i < errors.size(); ++i)
                               if (i != better)
                                   product *= normalLower((gap + errors[better] * z) / errors[i]);
                           return product;
                       },
                       -9, 9) /
                   static_cast<double>(errors.size());
    const double shown = std::min(proved, rightly);
    return {.proved = shown, .chosen = rightly - shown, .wrong = 1 - rightly};
}

namespace {

constexpr double tails = 20.0 / 17;  // what the planner allows for mishits in a spread, at twenty degrees of freedom
constexpr double alikeInStint = 0.1; // hits of a stint, as the judge's usual stints have them

double varianceOfAverage(const Spreads& spreads, const std::vector<std::size_t>& stints) {
    double shots = 0;
    for (const std::size_t n : stints)
        shots += 1 / static_cast<double>(n);
    const auto r = static_cast<double>(stints.size());
    return (spreads.sdTurn * spreads.sdTurn + spreads.sdShot * spreads.sdShot * shots / r) / r;
}

} // namespace

double errorOf(const Outcome& outcome, const Spreads& spreads, const std::vector<std::size_t>& stints) {
    double shots = 0;
    double squares = 0;
    for (const std::size_t n : stints) {
        shots += static_cast<double>(n);
        squares += static_cast<double>(n * n);
    }
    const double nu = shots - static_cast<double>(stints.size());
    switch (outcome.kind) {
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical:
        return stints.empty() ? never : std::sqrt(varianceOfAverage(spreads, stints));
    case OutcomeKind::spread:
        return nu > 0 ? std::sqrt(tails * statistics::trigamma(nu / 2) / 4) : never;
    case OutcomeKind::area:
        return nu > 1 ? std::sqrt(tails * (statistics::trigamma(nu / 2) + statistics::trigamma((nu - 1) / 2)) / 4)
                      : never;
    case OutcomeKind::share: // at a half, where they are known worst
        return shots > 0 ? 0.5 * std::sqrt((1 - alikeInStint + alikeInStint * squares / shots) / shots) : never;
    }
    return never;
}

double errorOf(const Outcome& outcome, const Spreads& spreads, int laps, int shots) {
    return errorOf(outcome, spreads,
                   std::vector<std::size_t>(static_cast<std::size_t>(std::max(laps, 0)),
                                            static_cast<std::size_t>(std::max(shots, 1))));
}

TwoClubs twoClubsIn(double minutes, record::Metric metric, const Spreads& spreads, double tau, const Pace& pace) {
    constexpr int fewest = 2, longestStint = 5;
    const Outcome outcome{.metric = metric, .shape = {}};
    TwoClubs best;
    auto worth = [&](int laps, int shots) {
        const double error = errorOf(outcome, spreads, laps, shots);
        return worthOf({.tau = tau, .errors = {error, error}}).share;
    };
    best.worth = worth(best.laps, best.shots);
    for (int shots = fewest; shots <= longestStint; ++shots)
        for (int laps = fewest; minutesFor({}, pace, laps, shots) <= minutes; ++laps)
            if (const double share = worth(laps, shots); share > best.worth)
                best = {laps, shots, share};
    return best;
}

double scaleOf(const record::Test& test, const Outcome& outcome, std::optional<double> learnt) {
    constexpr double ofShares = 0.10;
    const double times = gapTimes(test.card.kind);
    switch (outcome.kind) {
    case OutcomeKind::spread:
        return times * std::log(test.card.sdRatioMargin);
    case OutcomeKind::area:
        return times * std::log(test.card.areaRatioMargin);
    case OutcomeKind::share:
        return ofShares;
    default:
        break;
    }
    return learnt ? *learnt : gapTimes(test) * record::info(outcome.metric).worthwhileGap;
}

namespace {

struct Planned {
    int laps = 0, shots = 1, days = 1;
    bool isRun = false;
};

double marginOf(const record::Test& test, const Outcome& outcome) {
    return outcome.kind == OutcomeKind::spread  ? test.card.sdRatioMargin
           : outcome.kind == OutcomeKind::area  ? test.card.areaRatioMargin
           : outcome.kind == OutcomeKind::share ? 0.10
                                                : test.card.margin(outcome.metric);
}

double provedBy(const record::Test& test, const Outcome& outcome, const Spreads& spreads, const Planned& planned,
                double gap) {
    if (planned.isRun || planned.laps < 2)
        return 0;
    const double level = levelOfOne(test);
    if (outcome.kind == OutcomeKind::share || record::isRatio(outcome))
        return chanceIn({planned.laps, planned.shots, planned.days}, outcome, spreads, gap, level);
    const double error = errorOf(outcome, spreads, planned.laps * planned.days, planned.shots);
    return chanceToProve(std::numbers::sqrt2 * error, planned.days * (planned.laps - 1.0), gap, level);
}

PlanWorth worthIn(const record::Test& test, const Outcome& outcome, const Spreads& spreads, double tau,
                  const Planned& planned) {
    const std::size_t clubs = std::max<std::size_t>(test.builds.size(), 2);
    const double error = errorOf(outcome, spreads, planned.laps * planned.days, planned.shots);
    const Choosing choosing{.tau = tau, .errors = std::vector<double>(clubs, error)};
    PlanWorth of{.outcome = outcome, .worth = {}, .futures = {}, .gap = marginOf(test, outcome)};
    if (!planned.isRun && strikesOff(test) && !record::isRatio(outcome) && outcome.kind != OutcomeKind::share)
        of.worth = worthStrikingOff(tau, clubs, errorOf(outcome, spreads, 1, planned.shots), planned.laps);
    else if (test.card.want(outcome).kind == record::Want::Kind::near)
        of.worth = worthNearValue(choosing);
    else
        of.worth = worthOf(choosing);
    if (!(error < never)) {
        of.futures = {.wrong = 1 - 1.0 / static_cast<double>(clubs)};
        of.futures.chosen = 1 - of.futures.wrong;
        return of;
    }
    of.futures = futuresOf(choosing.errors, record::isRatio(outcome) ? std::log(of.gap) : of.gap,
                           provedBy(test, outcome, spreads, planned, of.gap));
    return of;
}

} // namespace

PlanWorth worthOfPlan(const record::Test& test, const Outcome& outcome, const Spreads& spreads, double tau,
                      std::optional<int> laps, int days) {
    const bool isRun = test.plan.schedule == record::Schedule::oneRunEach;
    return worthIn(test, outcome, spreads, tau,
                   {.laps = isRun ? 1 : laps.value_or(test.plan.rounds),
                    .shots = shotsATurn(test.plan),
                    .days = days,
                    .isRun = isRun});
}

PlanWorth worthByHand(const record::Test& test, const Outcome& outcome, const Spreads& spreads, double tau) {
    return worthIn(test, outcome, spreads, tau, {.laps = 1, .shots = shotsByHand, .isRun = true});
}

Worth worthStruck(const record::Test& test, const Outcome& outcome, const Spreads& spreads, double tau) {
    const record::Structure structure = record::structureOf(test);
    std::vector<std::vector<std::size_t>> stints(test.builds.size());
    for (const record::Turn& turn : structure.turns) {
        const auto counted = std::ranges::count_if(
            turn.shots, [&](std::size_t shot) { return test.shots[shot].status == record::ShotStatus::counted; });
        if (counted > 0)
            stints[turn.build].push_back(static_cast<std::size_t>(counted));
    }
    Choosing choosing{.tau = tau, .errors = {}};
    for (const auto& own : stints)
        if (!own.empty()) // a club that was not hit is not chosen among
            choosing.errors.push_back(errorOf(outcome, spreads, own));
    return test.card.want(outcome).kind == record::Want::Kind::near ? worthNearValue(choosing) : worthOf(choosing);
}

} // namespace knot::plan
