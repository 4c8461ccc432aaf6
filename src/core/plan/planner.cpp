#include "core/plan/planner.h"

#include "core/statistics/distributions.h"
#include "core/statistics/roots.h"

#include "core/plan/schedule.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace knot::plan {
namespace {

double restsFor(const Pace& pace, int swings) {
    const int rests = pace.restEvery > 0 ? (swings - 1) / pace.restEvery : 0;
    return pace.restSeconds * rests;
}

// The fewest rounds for which `enough` holds; power grows with the rounds.
template<typename Enough> std::optional<int> fewest(int most, Enough enough) {
    if (!enough(most))
        return std::nullopt;
    int low = 1;
    int high = most;
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (enough(middle) ? high : low) = middle;
    }
    return high;
}

// The ratio above 1 at which a growing power reaches 80 %.
template<typename Power> double ratioSeen(Power power) {
    return statistics::rootFrom([&](double ratio) { return power(ratio) - wantedPower; }, 1, 2, 1e-8)
        .value_or(std::numeric_limits<double>::infinity());
}

} // namespace

Pace paceOf(const record::Plan& plan) {
    return {.changeSeconds = plan.changeSeconds,
            .shotSeconds = plan.shotSeconds,
            .warmUp = plan.warmUp,
            .restEvery = plan.restEvery,
            .restSeconds = plan.restSeconds};
}

PairPlan pairOf(const Question& question, int rounds, int turnLength) {
    return {.varTurn = question.sdTurn * question.sdTurn,
            .varShot = question.sdShot * question.sdShot,
            .rounds = static_cast<double>(rounds),
            .turnLength = static_cast<double>(turnLength)};
}

double minutesFor(const Question& question, const Pace& pace, int rounds, int turnLength) {
    const int turns = rounds * static_cast<int>(question.builds);
    const int swings = turns * turnLength + pace.warmUp;
    return (turns * pace.changeSeconds + swings * pace.shotSeconds + restsFor(pace, swings)) / 60;
}

int shotsATurn(const record::Plan& plan) {
    return plan.schedule == record::Schedule::shotByShot ? 1 : std::max(1, plan.turnLength);
}

int swingsOf(const record::Plan& plan, const std::vector<record::PlannedTurn>& turns) {
    std::set<std::size_t> players; // each warms up
    int swings = 0;
    for (const auto& turn : turns) {
        players.insert(turn.player);
        swings += turn.shots;
    }
    return swings + plan.warmUp * std::max(1, static_cast<int>(players.size()));
}

double minutesOf(const record::Plan& plan, const std::vector<record::PlannedTurn>& turns) {
    double seconds = swingsOf(plan, turns) * plan.shotSeconds;
    for (std::size_t i = 0; i < turns.size(); ++i)
        seconds += i == 0 ? plan.changeSeconds
                          : changeTime(plan.changeTimes, plan.changeSeconds, turns[i - 1].build, turns[i].build);
    const Pace pace{.restEvery = plan.restEvery, .restSeconds = plan.restSeconds};
    return (seconds + restsFor(pace, swingsOf(plan, turns))) / 60;
}

Option optionOf(const Question& question, const Pace& pace, int rounds, int turnLength) {
    const PairPlan pair = pairOf(question, rounds, turnLength);
    return {.rounds = rounds,
            .turnLength = turnLength,
            .shots = rounds * turnLength * static_cast<int>(question.builds),
            .minutes = minutesFor(question, pace, rounds, turnLength),
            .power = powerToSee(pair, question.gap, question.alpha),
            .powerSame = powerToSaySame(pair, question.gap, question.alpha),
            .smallestGap = plan::smallestGap(pair, wantedPower, question.alpha)};
}

std::optional<Option> bestIn(double minutes, const Question& question, const Pace& pace) {
    struct Found {
        int rounds = 0, length = 0;
        double power = -1;
    } best;
    for (int length = 1; length <= 12; ++length) {
        int rounds = 2;
        if (minutesFor(question, pace, rounds, length) > minutes)
            break;
        while (rounds < 200 && minutesFor(question, pace, rounds + 1, length) <= minutes)
            ++rounds;
        const double power = powerToSee(pairOf(question, rounds, length), question.gap, question.alpha);
        if (power > best.power + 1e-9)
            best = {rounds, length, power};
    }
    return best.rounds > 0 ? std::optional(optionOf(question, pace, best.rounds, best.length)) : std::nullopt;
}

std::optional<Option> toSee(const Question& question, const Pace& pace, int turnLength, int most) {
    const auto rounds = fewest(most, [&](int r) {
        return powerToSee(pairOf(question, r, turnLength), question.gap, question.alpha) >= wantedPower;
    });
    return rounds ? std::optional(optionOf(question, pace, *rounds, turnLength)) : std::nullopt;
}

std::optional<Option> toSaySame(const Question& question, const Pace& pace, int turnLength, int most) {
    const auto rounds = fewest(most, [&](int r) {
        return powerToSaySame(pairOf(question, r, turnLength), question.gap, question.alpha) >= wantedPower;
    });
    return rounds ? std::optional(optionOf(question, pace, *rounds, turnLength)) : std::nullopt;
}

namespace {

// Two runs of n are a pair of means with 2·(τ² + σ²/n) and 2(n − 1) df, as far as anybody can tell.
double errorOfRuns(const Question& question, int shots) {
    return std::sqrt(2 * (question.sdTurn * question.sdTurn + question.sdShot * question.sdShot / shots));
}

constexpr double plainLevel = 0.05;

} // namespace

double powerOfRuns(const Question& question, int shots) {
    return powerFor(errorOfRuns(question, shots), 2.0 * (shots - 1), question.gap, question.alpha);
}

double falseAlarmsOfRuns(const Question& question, int shots) {
    const double df = 2.0 * (shots - 1);
    const double taken = question.sdShot * std::sqrt(2.0 / shots); // for the whole error
    const double bar = statistics::studentUpperQuantile(plainLevel / 2, df) * taken / errorOfRuns(question, shots);
    return 1 - std::pow(1 - statistics::studentTwoSided(bar, df), static_cast<double>(question.builds) - 1);
}

double gapSeenByRuns(const Question& question, int shots) {
    return smallestGapFor(errorOfRuns(question, shots), 2.0 * (shots - 1), wantedPower, question.alpha);
}

double spreadSeenByRuns(int shots, double alpha) {
    const double nu = shots - 1;
    return ratioSeen([&](double ratio) { return powerOfVariances(nu, ratio, alpha); });
}

std::optional<double> spreadSeen(int rounds, int turnLength, double alpha) {
    const double nu = rounds * (turnLength - 1);
    if (!(nu > 4))
        return std::nullopt;
    return ratioSeen([&](double ratio) { return powerToSeeSpread(nu, ratio, alpha); });
}

std::optional<double> areaSeen(int rounds, int turnLength, double alpha) {
    const double nu = rounds * (turnLength - 1);
    if (rounds < 4 || !(nu > 1))
        return std::nullopt;
    return ratioSeen([&](double ratio) { return powerToSeeArea(nu, ratio, alpha); });
}

} // namespace knot::plan
