#include "core/judge/gaps/average.h"

#include "core/judge/gaps/common_line.h"
#include "core/judge/gaps/robust.h"
#include "core/judge/gaps/shuffle.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/spreads/turn_variances.h"
#include "core/plan/power.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace knot::judge {
namespace {

// A build's value in a round is the mean of its turn means there.
std::map<record::RoundAt, double> meansByRound(const BuildValues& build) {
    std::map<record::RoundAt, std::vector<double>> turns;
    for (const auto& turn : build.turns)
        turns[turn.round].push_back(turn.mean());
    std::map<record::RoundAt, double> means;
    for (const auto& [round, values] : turns)
        means[round] = meanOf(values);
    return means;
}

std::optional<Cap> fairnessCap(const BuildValues& a, const BuildValues& b) {
    if (a.turns.size() == 1 || b.turns.size() == 1)
        return Cap::oneTurnEach;
    if (a.turns.back().turn < b.turns.front().turn || b.turns.back().turn < a.turns.front().turn)
        return Cap::separatedTurns;
    return std::nullopt;
}

// Several players or deliveries, with none of which both were hit in two laps or more.
std::optional<Cap> oneLapPerSetting(const BuildValues& build, const BuildValues& against) {
    using Setting = std::pair<std::size_t, std::size_t>; // player, delivery
    std::map<Setting, std::set<record::RoundAt>> own;
    for (const auto& turn : build.turns)
        own[{turn.player, turn.delivery}].insert(turn.round);
    std::map<Setting, std::set<record::RoundAt>> both;
    for (const auto& turn : against.turns)
        if (own[{turn.player, turn.delivery}].contains(turn.round))
            both[{turn.player, turn.delivery}].insert(turn.round);
    if (both.size() < 2 || std::ranges::any_of(both, [](const auto& laps) { return laps.second.size() > 1; }))
        return std::nullopt;
    const bool onePlayer = both.begin()->first.first == both.rbegin()->first.first;
    return onePlayer ? Cap::onePerDelivery : Cap::onePerPlayer;
}

bool tooSteady(const Effect& effect) {
    return !(effect.se > 1e-12 * std::max(std::fabs(effect.value), 1.0));
}

void byShots(AverageGap& gap, const std::vector<double>& build, const std::vector<double>& against) {
    gap.method = GapMethod::welch;
    gap.gap = meanOf(build) - meanOf(against);
    if (build.size() < 2 || against.size() < 2)
        return;
    auto part = [](const std::vector<double>& v) {
        const auto n = static_cast<double>(v.size());
        return squaresAboutMean(v) / (n - 1) / n;
    };
    const double a = part(against);
    const double b = part(build);
    Effect effect{gap.gap, std::sqrt(a + b), 0};
    effect.df = (a + b) * (a + b) /
                (a * a / static_cast<double>(against.size() - 1) + b * b / static_cast<double>(build.size() - 1));
    judgeEffect(gap, effect);
}

void byRounds(AverageGap& gap, const Column& column) {
    gap.method = GapMethod::rounds;
    const auto differences = roundDifferences(column, gap.build, gap.against);
    gap.rounds = differences.size();
    if (differences.empty()) {
        gap.gap = meanOf(column.builds[gap.build].turnMeans()) - meanOf(column.builds[gap.against].turnMeans());
        gap.claim.cap = Cap::tooFewRounds;
        return;
    }
    gap.gap = meanOf(differences);
    if (differences.size() < 2) {
        gap.claim.cap = Cap::tooFewRounds;
        return;
    }
    gap.sameOrder = !column.drawn && hasSameOrder(column, gap.build, gap.against);
    if (const auto line = gap.sameOrder ? commonLine(column, gap.build, gap.against) : std::nullopt) {
        gap.method = GapMethod::line;
        gap.details.slopePerStint = line->slopePerStint;
        judgeEffect(gap, line->gap);
        return;
    }
    const auto rounds = static_cast<double>(differences.size());
    judgeEffect(gap, {gap.gap, standardDeviation(differences) / std::sqrt(rounds), rounds - 1});
    if (gap.sameOrder)
        gap.claim.cap = gap.claim.cap.value_or(Cap::sameOrder);
}

void describeVariances(AverageGap& gap, const Column& column) {
    if (const auto variances = turnVariances(column, gap.build, gap.against)) {
        gap.varTurn = variances->turn;
        gap.varShot = variances->shot;
    }
}

} // namespace

void judgeEffect(AverageGap& gap, const Effect& effect) {
    gap.gap = effect.value;
    if (tooSteady(effect) || !(effect.df > 0)) {
        gap.claim.cap = gap.claim.cap.value_or(Cap::noVariation);
        return;
    }
    gap.se = effect.se;
    gap.df = effect.df;
    gap.ci95 = intervalOf(effect, 0.95);
    gap.ci90 = intervalOf(effect, 0.90);
    fillPs(gap.claim, effect, gap.margin);
}

BuildValues comparable(const Column& column, BuildAt own, BuildAt other) {
    const auto& others = column.builds[other].turns;
    BuildValues kept;
    for (const auto& turn : column.builds[own].turns)
        if (std::ranges::any_of(others, [&](const auto& t) { return t.phase == turn.phase; }))
            kept.turns.push_back(turn);
    return kept;
}

std::vector<std::pair<double, double>> roundPairs(const Column& column, BuildAt build, BuildAt against) {
    const auto own = meansByRound(column.builds[build]);
    const auto other = meansByRound(column.builds[against]);
    std::vector<std::pair<double, double>> pairs;
    for (const auto& [round, mean] : own)
        if (const auto at = other.find(round); at != other.end())
            pairs.emplace_back(mean, at->second);
    return pairs;
}

std::vector<double> roundDifferences(const Column& column, BuildAt build, BuildAt against) {
    std::vector<double> differences;
    for (const auto& [own, other] : roundPairs(column, build, against))
        differences.push_back(own - other);
    return differences;
}

std::optional<AverageGap> averageGap(const Column& column, BuildAt build, BuildAt against, double margin) {
    if (column.builds[build].turns.empty() || column.builds[against].turns.empty())
        return std::nullopt;
    AverageGap gap;
    gap.metric = column.metric;
    gap.build = build;
    gap.against = against;
    gap.margin = margin;
    const BuildValues own = comparable(column, build, against);
    const BuildValues other = comparable(column, against, build);
    if (own.turns.empty()) {
        gap.claim.cap = Cap::markBetween;
        gap.shotsBuild = column.builds[build].count();
        gap.shotsAgainst = column.builds[against].count();
        gap.gap = meanOf(column.builds[build].all()) - meanOf(column.builds[against].all());
        return gap;
    }
    gap.shotsBuild = own.count();
    gap.shotsAgainst = other.count();
    gap.claim.cap = fairnessCap(other, own);
    if (const auto cap = oneLapPerSetting(own, other))
        gap.claim.cap = cap;
    if (std::min(gap.shotsBuild, gap.shotsAgainst) < 3) {
        // Where a mark cut the shots off that there are, the mark is the reason.
        const bool enough = std::min(column.builds[build].count(), column.builds[against].count()) >= 3;
        gap.claim.cap = enough ? Cap::markBetween : Cap::tooFewShots;
    }
    if (own.turns.size() == 1 || other.turns.size() == 1 || gap.claim.cap == Cap::separatedTurns)
        byShots(gap, own.all(), other.all());
    else
        byRounds(gap, column);
    return gap;
}

void addOpinions(AverageGap& gap, const Column& column, std::uint64_t seed) {
    if (gap.method == GapMethod::line) {
        describeVariances(gap, column); // shuffling laps would trust the order
    } else if (gap.method == GapMethod::rounds) {
        if (const auto differences = roundDifferences(column, gap.build, gap.against); differences.size() >= 2)
            gap.shuffle = flipSigns(differences, seed);
        describeVariances(gap, column);
        if (const auto median = medianGap(column, gap.build, gap.against))
            gap.opinion = *median;
    } else if (gap.shotsBuild >= 2 && gap.shotsAgainst >= 2) {
        gap.shuffle = shuffleLabels(comparable(column, gap.build, gap.against).all(),
                                    comparable(column, gap.against, gap.build).all(), seed);
        if (const auto yuen = yuenTest(column, gap.build, gap.against))
            gap.opinion = *yuen;
    }
}

int furtherRounds(const FurtherRoundsInput& in) {
    // A turn variance fitted as 0 is seldom true; with turns of one shot it is inside varShot.
    const double varTurn = in.turnLength > 1 ? std::max(in.varTurn, 0.09 * in.varShot) : 0;
    auto settles = [&](int rounds) {
        const plan::PairPlan plan{.varTurn = varTurn,
                                  .varShot = in.varShot,
                                  .rounds = static_cast<double>(rounds),
                                  .turnLength = in.turnLength};
        return plan::powerToSee(plan, in.margin, in.alpha) >= 0.8 &&
               plan::powerToSaySame(plan, in.margin, in.alpha) >= 0.8;
    };
    if (!settles(tooManyRounds))
        return tooManyRounds + 1;
    // Both powers grow with the rounds, so the smallest number is found by halving.
    int fails = 1;
    int enough = tooManyRounds;
    while (enough - fails > 1) {
        const int middle = (fails + enough) / 2;
        (settles(middle) ? enough : fails) = middle;
    }
    return std::max(0, enough - static_cast<int>(in.roundsDone));
}

} // namespace knot::judge
