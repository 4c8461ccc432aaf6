#include "core/judge/judge.h"

#include "core/judge/average.h"
#include "core/judge/checks.h"
#include "core/judge/consistency.h"
#include "core/judge/dispersion.h"
#include "core/judge/explain.h"
#include "core/judge/level.h"
#include "core/judge/seed.h"
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
        if (std::ranges::any_of(
                turn.shots, [&](std::size_t shot) { return test.shots[shot].status == record::ShotStatus::counted; }))
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

Role roleOf(const record::Card& card, const Outcome& outcome) {
    if (std::ranges::find(card.primary, outcome) != card.primary.end())
        return Role::primary;
    const bool strike = outcome.kind != record::OutcomeKind::area && record::isStrike(outcome.metric);
    return strike ? Role::explanation : Role::exploratory;
}

Outcome outcomeOf(const AverageGap& row) {
    return {.kind = record::OutcomeKind::average, .metric = row.metric, .shape = {}};
}
Outcome outcomeOf(const SpreadRatio& row) {
    return {.kind = record::OutcomeKind::spread, .metric = row.metric, .shape = {}};
}
Outcome outcomeOf(const ShareGap& row) {
    return {.kind = record::OutcomeKind::share, .metric = Metric::carry, .shape = row.shape};
}
Outcome outcomeOf(const AreaRatio&) {
    return {.kind = record::OutcomeKind::area, .metric = Metric::carry, .shape = {}};
}

// One family of declared claims over all kinds of outcomes; one exploratory family for each kind.
class Families {
public:
    template<typename Row> void add(std::vector<Row>& rows) {
        std::vector<Claim*> exploratory;
        for (Row& row : rows) {
            Claim& claim = claimOf(row);
            (claim.role == Role::primary ? m_primary : exploratory).push_back(&claim);
        }
        adjustFamilies({}, exploratory);
    }
    void close(std::size_t declared) { adjustFamilies(m_primary, {}, declared); }

private:
    template<typename Row> static Claim& claimOf(Row& row) { return row.claim; }
    static Claim& claimOf(ShareGap& row) { return row.gap.claim; }

    std::vector<Claim*> m_primary;
};

Favours favoursOf(const Reading& reading, const AverageGap& row) {
    const Summary* build = reading.summaryOf(row.metric, row.build);
    const Summary* against = reading.summaryOf(row.metric, row.against);
    return direction({.gap = row.gap,
                      .want = reading.card.want(outcomeOf(row)),
                      .meanBuild = build->mean,
                      .meanAgainst = against->mean,
                      .intervalBuild = build->ci95,
                      .intervalAgainst = against->ci95});
}

// What an unsettled gap can still be, and what it would take to settle it at level `alpha`.
void boundAndOutlook(AverageGap& row, double alpha) {
    if (row.shown)
        row.bound = std::max(std::fabs(row.shown->low), std::fabs(row.shown->high));
    if (!row.se)
        return;
    FurtherRoundsInput input{.margin = row.margin, .alpha = alpha};
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

bool hasDirection(Verdict verdict) {
    return verdict == Verdict::real || verdict == Verdict::slight || verdict == Verdict::realSizeOpen;
}

void settleClaim(Claim& claim, double level) {
    if (!(level > 0) && !claim.cap)
        claim.cap = Cap::beforeFirstLook;
    decide(claim, level);
}

void settleGap(AverageGap& row, double level) {
    settleClaim(row.claim, level);
    if (row.se)
        row.shown = intervalOf({row.gap, *row.se, *row.df}, levelShown(row.claim, level));
}

template<typename Row> void settleRatio(const Reading& reading, Row& row, std::optional<double> logCentre) {
    settleClaim(row.claim, reading.level);
    if (hasDirection(row.claim.verdict))
        row.claim.favours = direction({.gap = std::log(row.ratio), .want = reading.card.want(outcomeOf(row))});
    if (row.logSe)
        row.shown = exponentiated(intervalOf({logCentre.value_or(std::log(row.ratio)), *row.logSe, *row.df},
                                             levelShown(row.claim, reading.level)));
}

void settle(Reading& reading, JudgeRequest::Depth depth) {
    const double planning = reading.card.alpha / static_cast<double>(std::max<std::size_t>(reading.declared, 1));
    for (AverageGap& row : reading.average) {
        settleGap(row, reading.level);
        if (hasDirection(row.claim.verdict))
            row.claim.favours = favoursOf(reading, row);
        if (row.claim.verdict == Verdict::open && depth == JudgeRequest::Depth::everything)
            boundAndOutlook(row, planning);
    }
    for (SpreadRatio& row : reading.consistency) {
        settleRatio(reading, row, row.logCentre);
        if (row.claim.verdict == Verdict::open && row.shown)
            row.bound = std::max(row.shown->high, 1 / row.shown->low);
    }
    for (AreaRatio& row : reading.areas)
        settleRatio(reading, row, std::nullopt);
    for (ShareGap& row : reading.shareGaps) {
        settleGap(row.gap, reading.level);
        if (hasDirection(row.gap.claim.verdict))
            row.gap.claim.favours = direction({.gap = row.gap.gap, .want = reading.card.want(outcomeOf(row))});
    }
}

// Averages and spreads of every metric, summaries, and the landing areas, all before families.
class Measuring {
public:
    Measuring(const JudgeRequest& request, const Structure& structure, Reading& reading)
        : m_request(request)
        , m_test(request.test)
        , m_structure(structure)
        , m_reading(reading)
        , m_pairs(request.test.builds.empty() ? std::vector<Pair>{} : pairsToJudge(request.test)) {}

    void metric(const Column& column) {
        for (std::size_t b = 0; b < m_test.builds.size(); ++b)
            if (auto summary = summarise(column, b))
                m_reading.summary.push_back(*summary);
        for (const Pair& pair : m_pairs) {
            average(column, pair);
            if (auto spread = spreadRatio(column, pair.build, pair.against, m_reading.card.sdRatioMargin)) {
                spread->claim.role = roleOf(m_reading.card, outcomeOf(*spread));
                m_reading.consistency.push_back(std::move(*spread));
            }
        }
    }

    std::size_t comparisons() const { return m_pairs.size(); }

    void landings() {
        const Landings landings = landingsOf(m_test, m_structure);
        for (std::size_t b = 0; b < m_test.builds.size(); ++b)
            if (auto area = landingArea(landings, b))
                m_reading.landing.push_back(*area);
        for (const Pair& pair : m_pairs)
            if (auto area = areaRatio(landings, pair.build, pair.against, m_reading.card.areaRatioMargin,
                                      seedFor(m_request, "area", Metric::carry, pair.build, pair.against))) {
                area->claim.role = roleOf(m_reading.card, outcomeOf(*area));
                m_reading.areas.push_back(std::move(*area));
            }
    }

    void shares(Taken taken) {
        for (const auto& shape : m_reading.card.shapes) {
            const Column hits = hitsOf(m_test, m_structure, shape, taken);
            for (const Pair& pair : m_pairs)
                if (auto gap = averageGap(hits, pair.build, pair.against, shareMargin)) {
                    ShareGap row{shape.name, std::move(*gap)};
                    row.gap.claim.role = roleOf(m_reading.card, outcomeOf(row));
                    m_reading.shareGaps.push_back(std::move(row));
                }
        }
    }

private:
    void average(const Column& column, const Pair& pair) {
        auto gap = averageGap(column, pair.build, pair.against, m_reading.card.margin(column.metric));
        if (!gap)
            return;
        if (m_request.depth == JudgeRequest::Depth::everything)
            addOpinions(*gap, column, seedFor(m_request, "average", column.metric, pair.build, pair.against));
        gap->claim.role = roleOf(m_reading.card, outcomeOf(*gap));
        m_reading.average.push_back(std::move(*gap));
    }

    const JudgeRequest& m_request;
    const Test& m_test;
    const Structure& m_structure;
    Reading& m_reading;
    std::vector<Pair> m_pairs;
};

std::optional<Reading> judgePlanned(const JudgeRequest& request, std::size_t roundsBeyond) {
    const Test& test = request.test;
    const Structure structure = structureOf(test);
    Reading reading;
    reading.baseline = test.builds.empty() ? 0 : test.baselineIndex();
    reading.card = completed(test);
    reading.builds = countShots(test, structure);
    reading.rounds = structure.rounds.size();
    reading.sittings = structure.sittings.size();
    reading.roundsBeyond = roundsBeyond;
    reading.roundsDone = completeRounds(test, structure);
    reading.level = levelNow(test.card, reading.roundsDone);
    Measuring measuring(request, structure, reading);
    std::vector<Column> columns;
    const Taken taken = test.card.setsAsideByNumbers() ? Taken::allRead : Taken::counted;
    for (const Metric metric : test.metricsRead()) {
        if (request.cancelled && request.cancelled())
            return std::nullopt;
        Column column = columnOf(test, structure, metric, taken);
        if (std::ranges::all_of(column.builds, [](const BuildValues& b) { return b.turns.empty(); }))
            continue;
        reading.metrics.push_back(metric);
        measuring.metric(column);
        columns.push_back(std::move(column));
    }
    measuring.landings();
    measuring.shares(taken);
    Families families;
    families.add(reading.average);
    families.add(reading.consistency);
    families.add(reading.areas);
    families.add(reading.shareGaps);
    reading.declared = reading.card.primary.size() * measuring.comparisons();
    families.close(reading.declared);
    settle(reading, request.depth);
    if (request.depth == JudgeRequest::Depth::verdicts)
        return reading;
    explain(request, structure, columns, reading);
    if (request.cancelled && request.cancelled())
        return std::nullopt;
    reading.checks = checksOf(test, structure, reading);
    return reading;
}

} // namespace

const Summary* Reading::summaryOf(Metric metric, std::size_t build) const {
    const auto at =
        std::ranges::find_if(summary, [&](const Summary& s) { return s.metric == metric && s.build == build; });
    return at == summary.end() ? nullptr : &*at;
}

const AverageGap* Reading::averageOf(Metric metric, std::size_t build, std::size_t against) const {
    const auto at = std::ranges::find_if(average, [&](const AverageGap& row) {
        return row.metric == metric && row.build == build && row.against == against;
    });
    return at == average.end() ? nullptr : &*at;
}

std::optional<Reading> judge(const JudgeRequest& request) {
    const Structure all = structureOf(request.test);
    if (const auto planned = static_cast<std::size_t>(request.test.card.plannedRounds);
        planned > 0 && all.rounds.size() > planned) {
        Test asPlanned = request.test;
        const std::size_t beyond = dropRoundsBeyondPlan(asPlanned, all);
        return judgePlanned(
            {.test = asPlanned, .seed = request.seed, .depth = request.depth, .cancelled = request.cancelled}, beyond);
    }
    return judgePlanned(request, 0);
}

} // namespace knot::judge
