#include "core/judge/judge.h"

#include "core/judge/average.h"
#include "core/judge/checks.h"
#include "core/judge/summary.h"
#include "core/judge/verdict.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

using record::Structure;
using record::Test;

struct Pair {
    std::size_t build = 0, against = 0;
};

// FNV-1a over the names, so that a shuffle's draws do not depend on the order of builds or metrics.
std::uint64_t seedFor(const JudgeRequest& request, Metric metric, const Pair& pair) {
    std::uint64_t hash = 0xcbf29ce484222325ULL ^ request.seed;
    auto mix = [&](const std::string& text) {
        for (const char c : text)
            hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
        hash = (hash ^ 0xff) * 0x100000001b3ULL;
    };
    mix(record::info(metric).key);
    mix(request.test.builds[pair.build].name);
    mix(request.test.builds[pair.against].name);
    return hash;
}

record::Card completed(const Test& test) {
    record::Card card = test.card;
    if (!test.builds.empty())
        card.baseline = test.builds[test.baselineIndex()].name;
    for (const Metric metric : record::allMetrics())
        card.margins[metric] = card.margin(metric);
    return card;
}

std::vector<BuildCount> countShots(const Test& test, const Structure& structure) {
    std::vector<BuildCount> counts(test.builds.size());
    for (std::size_t b = 0; b < counts.size(); ++b)
        counts[b].name = test.builds[b].name;
    for (const auto& shot : test.shots) {
        BuildCount& count = counts[shot.build];
        ++count.shots;
        ++(shot.status == record::ShotStatus::counted    ? count.counted
           : shot.status == record::ShotStatus::setAside ? count.setAside
                                                         : count.warmUp);
    }
    for (const auto& turn : structure.turns)
        if (std::ranges::any_of(turn.shots, [&](std::size_t shot) {
                return test.shots[shot].status == record::ShotStatus::counted;
            }))
            ++counts[turn.build].turns;
    return counts;
}

std::vector<Pair> pairsToJudge(const Test& test) {
    std::vector<std::size_t> order{test.baselineIndex()};
    for (std::size_t b = 0; b < test.builds.size(); ++b)
        if (b != order.front())
            order.push_back(b);
    const bool everyPair = test.card.comparison == record::Comparison::whichOfThese;
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < order.size() && (everyPair || i < 1); ++i)
        for (std::size_t j = i + 1; j < order.size(); ++j)
            pairs.push_back({order[j], order[i]});
    return pairs;
}

Role roleOf(const record::Card& card, Metric metric) {
    const Outcome outcome{.kind = record::OutcomeKind::average, .metric = metric, .shape = {}};
    if (std::ranges::find(card.primary, outcome) != card.primary.end())
        return Role::primary;
    return record::isStrike(metric) ? Role::explanation : Role::exploratory;
}

void adjustAverages(std::vector<AverageGap>& rows) {
    std::vector<Claim*> primary;
    std::vector<Claim*> rest;
    for (AverageGap& row : rows)
        (row.claim.role == Role::primary ? primary : rest).push_back(&row.claim);
    adjustFamilies(primary, rest);
}

Favours favoursOf(const Reading& reading, const AverageGap& row) {
    const Summary* build = reading.summaryOf(row.metric, row.build);
    const Summary* against = reading.summaryOf(row.metric, row.against);
    const Outcome outcome{.kind = record::OutcomeKind::average, .metric = row.metric, .shape = {}};
    return direction({.gap = row.gap,
                      .want = reading.card.want(outcome),
                      .meanBuild = build->mean,
                      .meanAgainst = against->mean,
                      .intervalBuild = build->ci95,
                      .intervalAgainst = against->ci95});
}

// What an unsettled gap can still be, and what it would take to settle it.
void boundAndOutlook(AverageGap& row, double level) {
    if (row.ci95)
        row.bound = std::max(std::fabs(row.ci95->low), std::fabs(row.ci95->high));
    if (!row.se)
        return;
    FurtherRoundsInput input{.margin = row.margin, .alpha = level};
    if (row.method == GapMethod::rounds) {
        const auto rounds = static_cast<double>(row.rounds);
        input.roundsDone = row.rounds;
        input.varTurn = row.varTurn.value_or(0);
        input.varShot = row.varShot.value_or(*row.se * *row.se * rounds / 2);
        input.turnLength = row.varShot ? static_cast<double>(row.shotsBuild + row.shotsAgainst) / (2 * rounds) : 1;
    } else {
        const auto nBuild = static_cast<double>(row.shotsBuild);
        const auto nAgainst = static_cast<double>(row.shotsAgainst);
        input.varShot = *row.se * *row.se / (1 / nBuild + 1 / nAgainst);
        input.turnLength = (nBuild + nAgainst) / 2;
    }
    row.furtherRounds = furtherRounds(input);
}

void settle(Reading& reading) {
    std::size_t declared = 0;
    for (const AverageGap& row : reading.average)
        declared += row.claim.role == Role::primary ? 1 : 0;
    const double level = reading.card.alpha / static_cast<double>(std::max<std::size_t>(declared, 1));
    for (AverageGap& row : reading.average) {
        decide(row.claim, reading.card.alpha);
        switch (row.claim.verdict) {
        case Verdict::real:
        case Verdict::slight:
        case Verdict::realSizeOpen:
            row.claim.favours = favoursOf(reading, row);
            break;
        case Verdict::open:
            boundAndOutlook(row, level);
            break;
        default:
            break;
        }
    }
}

} // namespace

const Summary* Reading::summaryOf(Metric metric, std::size_t build) const {
    const auto at = std::ranges::find_if(
        summary, [&](const Summary& s) { return s.metric == metric && s.build == build; });
    return at == summary.end() ? nullptr : &*at;
}

const AverageGap* Reading::averageOf(Metric metric, std::size_t build, std::size_t against) const {
    const auto at = std::ranges::find_if(average, [&](const AverageGap& row) {
        return row.metric == metric && row.build == build && row.against == against;
    });
    return at == average.end() ? nullptr : &*at;
}

std::optional<Reading> judge(const JudgeRequest& request) {
    const Test& test = request.test;
    const Structure structure = structureOf(test);
    const auto pairs = test.builds.empty() ? std::vector<Pair>{} : pairsToJudge(test);
    Reading reading;
    reading.baseline = test.builds.empty() ? 0 : test.baselineIndex();
    reading.card = completed(test);
    reading.builds = countShots(test, structure);
    reading.rounds = structure.rounds.size();
    reading.sittings = structure.sittings.size();
    for (const Metric metric : test.metricsRead()) {
        if (request.cancelled && request.cancelled())
            return std::nullopt;
        const Column column = columnOf(test, structure, metric, Taken::counted);
        const std::size_t before = reading.summary.size();
        for (std::size_t b = 0; b < test.builds.size(); ++b)
            if (auto summary = summarise(column, b))
                reading.summary.push_back(*summary);
        if (reading.summary.size() > before)
            reading.metrics.push_back(metric);
        for (const Pair& pair : pairs)
            if (auto gap = averageGap(column, pair.build, pair.against, reading.card.margin(metric),
                                      seedFor(request, metric, pair))) {
                gap->claim.role = roleOf(reading.card, metric);
                reading.average.push_back(std::move(*gap));
            }
    }
    adjustAverages(reading.average);
    settle(reading);
    reading.checks = checksOf(test, structure, reading);
    return reading;
}

} // namespace knot::judge
