#include "core/judge/judge.h"

#include "core/judge/bets/choosing.h"
#include "core/judge/checks.h"
#include "core/judge/days/pooling.h"
#include "core/judge/explain.h"
#include "core/judge/gaps/average.h"
#include "core/judge/gaps/declared_gaps.h"
#include "core/judge/gaps/summary.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/pairs.h"
#include "core/judge/rows.h"
#include "core/judge/seed.h"
#include "core/judge/spreads/consistency.h"
#include "core/judge/spreads/dispersion.h"
#include "core/plan/looks.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

using record::Structure;
using record::Test;

// Where a player says which side costs, what lies beyond it is a shape of its own.
void addCostlySide(const Test& test, record::Card& card) {
    using Kind = record::Shape::Kind;
    const record::Side costs = test.firstPlayer().costs;
    if (costs == record::Side::notSaid)
        return;
    const Kind kind = costs == record::Side::left ? Kind::beyondLeft : Kind::beyondRight;
    const std::string name = costs == record::Side::left ? "the costly left" : "the costly right";
    if (std::ranges::any_of(card.shapes, [&](const record::Shape& s) { return s.kind == kind || s.name == name; }))
        return;
    constexpr double room = 10; // m to either side of the line to hit
    const double line = card.aim ? card.aim->side : 0;
    card.shapes.push_back({.kind = kind, .name = name, .side = line + (costs == record::Side::left ? -room : room)});
}

bool severalDeliveries(const Test& test) {
    return std::ranges::any_of(test.shots, [&](const auto& s) { return s.delivery != test.shots.front().delivery; });
}

record::Card completed(const Test& test) {
    record::Card card = test.card;
    if (!test.builds.empty())
        card.baseline = test.builds[test.baselineIndex()].who();
    for (const Metric metric : record::judgedMetrics())
        card.margins[metric] = card.margin(metric);
    card.plannedRounds = static_cast<int>(plannedRounds(test));
    if (card.factorColumn.empty() && test.players.size() > 1)
        card.factorColumn = "player";
    if (card.factorColumn.empty() && severalDeliveries(test))
        card.factorColumn = "delivery";
    addCostlySide(test, card);
    return card;
}

std::vector<BuildCount> countShots(const Test& test, const Structure& structure) {
    std::vector<BuildCount> counts(test.builds.size());
    for (std::size_t b = 0; b < counts.size(); ++b) {
        counts[b].name = test.builds[b].name;
        counts[b].id = test.builds[b].id;
    }
    for (const auto& shot : test.shots) {
        BuildCount& count = counts[shot.build];
        ++count.shots;
        if (shot.status == record::ShotStatus::counted)
            ++count.counted;
        else if (shot.status == record::ShotStatus::setAside)
            ++count.setAside;
        else
            ++count.warmUp;
    }
    for (const auto& turn : structure.turns)
        if (std::ranges::any_of(turn.shots, [&](record::ShotAt shot) {
                return test.shots[shot].status == record::ShotStatus::counted;
            }))
            ++counts[turn.build].turns;
    return counts;
}

Role roleOf(const record::Card& card, const Outcome& outcome) {
    if (std::ranges::find(card.primary, outcome) != card.primary.end())
        return Role::primary;
    const bool strike = outcome.kind != record::OutcomeKind::area && record::isStrike(outcome.metric);
    return strike ? Role::explanation : Role::exploratory;
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
    void close(std::size_t declared, std::size_t allPairsOf) { adjustFamilies(m_primary, {}, declared, allPairsOf); }

private:
    std::vector<Claim*> m_primary;
};

// What an unsettled gap can still be, and what it would take to settle it at level `alpha`.
void boundAndOutlook(AverageGap& row, double alpha) {
    if (row.shown)
        row.bound = std::max(std::fabs(row.shown->low), std::fabs(row.shown->high));
    if (!row.se || row.method == GapMethod::days)
        return; // only further days would help there
    FurtherRoundsInput input{.margin = row.margin, .alpha = alpha};
    if (row.method != GapMethod::welch) {
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

// Verdicts from adjusted p's at the level of this look, the intervals to show, and directions.
class Settling {
public:
    Settling(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading)
        : m_request(request)
        , m_columns(columns)
        , m_reading(reading) {}

    void settle() {
        const double planning =
            m_reading.card.alpha / static_cast<double>(std::max<std::size_t>(m_reading.declared, 1));
        for (AverageGap& row : m_reading.average) {
            gap(row);
            if (hasDirection(row.claim.verdict))
                row.claim.favours = favoursOf(row);
            if (row.claim.verdict == Verdict::open && m_request.depth == JudgeRequest::Depth::everything)
                boundAndOutlook(row, planning);
        }
        for (SpreadRatio& row : m_reading.consistency) {
            ratio(row, row.logCentre);
            if (row.claim.verdict == Verdict::open && row.shown)
                row.bound = std::max(row.shown->high, 1 / row.shown->low);
        }
        for (AreaRatio& row : m_reading.areas)
            ratio(row, std::nullopt);
        for (ShareGap& row : m_reading.shareGaps) {
            gap(row.gap);
            if (hasDirection(row.gap.claim.verdict))
                row.gap.claim.favours = direction(row.gap.gap, m_reading.card.want(outcomeOf(row)));
        }
    }

private:
    // Near a wanted value is who is so by laps, two-sided at the claim's level.
    Favours favoursOf(const AverageGap& row) const {
        const record::Want want = m_reading.card.want(outcomeOf(row));
        const auto column = std::ranges::find(m_columns, row.metric, &Column::metric);
        if (want.kind != record::Want::Kind::near || row.method != GapMethod::rounds)
            return direction(row.gap, want);
        const PairBeaten nearer = nearerOf(*column, row.build, row.against, want.value);
        return nearer.buildBeats < row.claim.level / 2     ? Favours::better
               : nearer.againstBeats < row.claim.level / 2 ? Favours::worse
                                                           : Favours::different;
    }

    // The information that a look rests on is the pair's own: a club struck off early holds nobody else up.
    void claim(Claim& claim, BuildAt build, BuildAt against) {
        claim.level = levelOf(build, against);
        judge::settle(claim, m_request.subject.held(), claim.level);
    }

    double levelOf(BuildAt build, BuildAt against) {
        if (m_reading.card.looks == record::Looks::none)
            return m_reading.level;
        const auto [at, isNew] = m_levels.try_emplace({build, against}, 0.0);
        if (isNew)
            at->second = plan::levelAt(
                m_reading.card, roundsOfBoth(m_request.subject.test(), m_request.subject.structure(), build, against));
        return at->second;
    }

    void gap(AverageGap& row) {
        claim(row.claim, row.build, row.against);
        if (row.se)
            row.shown = intervalOf({row.gap, *row.se, *row.df}, levelShown(row.claim, row.claim.level));
    }

    template<typename Row> void ratio(Row& row, std::optional<double> logCentre) {
        claim(row.claim, row.build, row.against);
        if (hasDirection(row.claim.verdict))
            row.claim.favours = direction(std::log(row.ratio), m_reading.card.want(outcomeOf(row)));
        if (row.logSe)
            row.shown = exponentiated(intervalOf({logCentre.value_or(std::log(row.ratio)), *row.logSe, *row.df},
                                                 levelShown(row.claim, row.claim.level)));
    }

    const JudgeRequest& m_request;
    const std::vector<Column>& m_columns;
    Reading& m_reading;
    std::map<std::pair<BuildAt, BuildAt>, double> m_levels;
};

// Averages and spreads of every metric, summaries, and the landing areas, all before families.
class Measuring {
public:
    Measuring(const JudgeRequest& request, Taken taken, Reading& reading)
        : m_request(request)
        , m_test(request.subject.test())
        , m_structure(request.subject.structure())
        , m_taken(taken)
        , m_reading(reading)
        , m_pairs(m_test.builds.empty() ? std::vector<Pair>{} : pairsToJudge(request.subject)) {}

    void metric(const Column& column) {
        for (BuildAt b; b < m_test.builds.size(); ++b)
            if (auto summary = summarise(column, b)) {
                nameExtremes(column, *summary);
                m_reading.summary.push_back(*summary);
            }
        for (const Pair& pair : m_pairs) {
            average(column, pair);
            if (auto spread = spreadRatio(column, pair.build, pair.against, m_reading.card.sdRatioMargin)) {
                spread->claim.role = roleOf(m_reading.card, outcomeOf(*spread));
                m_reading.consistency.push_back(*spread);
            }
        }
    }

    std::size_t comparisons() const { return comparisonsOf(m_request.subject, m_pairs.size()); }
    /// The builds that all pairs are compared of; 0 where it is not all of them, or not of those that are left.
    std::size_t allPairsOf() const {
        const std::size_t builds = m_test.builds.size();
        const bool isAll = !m_request.subject.strikesOff() && m_pairs.size() == builds * (builds - 1) / 2;
        return isAll ? builds : 0;
    }

    void landings() {
        const Landings landings = landingsOf(m_test, m_structure, m_taken);
        for (BuildAt b; b < m_test.builds.size(); ++b)
            if (auto area = landingArea(landings, b))
                m_reading.landing.push_back(*area);
        for (const Pair& pair : m_pairs)
            if (auto area = areaRatio(landings, pair.build, pair.against, m_reading.card.areaRatioMargin,
                                      seedFor(m_request, "area", Metric::carry, pair.build, pair.against))) {
                area->claim.role = roleOf(m_reading.card, outcomeOf(*area));
                m_reading.areas.push_back(*area);
            }
    }

    void shares() {
        for (const auto& shape : m_reading.card.shapes) {
            const Column hits = hitsOf(m_test, m_structure, shape, m_taken);
            for (const Pair& pair : m_pairs)
                if (auto gap = averageGap(hits, pair.build, pair.against, shareMargin)) {
                    ShareGap row{shape.name, std::move(*gap)};
                    row.gap.claim.role = roleOf(m_reading.card, outcomeOf(row));
                    m_reading.shareGaps.push_back(std::move(row));
                }
        }
    }

private:
    // The first of the shots that hold the least and the greatest number.
    void nameExtremes(const Column& column, Summary& summary) const {
        for (const TurnValues& turn : column.builds[summary.build].turns)
            for (std::size_t i = 0; i < turn.values.size(); ++i) {
                if (turn.values[i] == summary.min && summary.minShot == 0)
                    summary.minShot = m_request.subject.numberOf(turn.shots[i]);
                if (turn.values[i] == summary.max && summary.maxShot == 0)
                    summary.maxShot = m_request.subject.numberOf(turn.shots[i]);
            }
    }

    void average(const Column& column, const Pair& pair) {
        const double margin = m_reading.card.margin(column.metric);
        auto gap = averageGap(column, pair.build, pair.against, margin);
        if (!gap)
            return;
        if (m_request.depth == JudgeRequest::Depth::everything)
            addOpinions(*gap, column, seedFor(m_request, "average", column.metric, pair.build, pair.against));
        gap->claim.role = roleOf(m_reading.card, outcomeOf(*gap));
        if (gap->claim.role == Role::primary)
            carryByDays(m_request.subject, column, *gap);
        m_reading.average.push_back(std::move(*gap));
        declaredElse(column, pair, margin);
    }

    // At equal delivery, and of the typical shot: only where that was declared.
    void declaredElse(const Column& column, const Pair& pair, double margin) {
        const record::Card& card = m_reading.card;
        auto keep = [&](std::optional<AverageGap> gap) {
            if (!gap)
                return;
            gap->claim.role = roleOf(card, outcomeOf(*gap));
            m_reading.average.push_back(std::move(*gap));
        };
        auto isDeclared = [&](record::OutcomeKind kind) {
            return std::ranges::any_of(card.primary,
                                       [&](const Outcome& o) { return o.kind == kind && o.metric == column.metric; });
        };
        if (isDeclared(record::OutcomeKind::equal))
            keep(gapAtEqualDelivery(m_test, column, pair.build, pair.against, card.covariates, margin));
        if (isDeclared(record::OutcomeKind::typical))
            keep(gapOfTypicalShot(
                column, pair.build, pair.against, margin,
                card.want({.kind = record::OutcomeKind::typical, .metric = column.metric, .shape = {}})));
    }

    const JudgeRequest& m_request;
    const Test& m_test;
    const Structure& m_structure;
    Taken m_taken;
    Reading& m_reading;
    std::vector<Pair> m_pairs;
};

// The verdicts alone, from the shots `taken`. Nothing when the work was called off.
std::optional<Reading> verdictsFrom(const JudgeRequest& request, Taken taken, std::vector<Column>& columns) {
    const Test& test = request.subject.test();
    const Structure& structure = request.subject.structure();
    Reading reading;
    reading.baseline = test.baselineIndex();
    reading.card = completed(test);
    reading.builds = countShots(test, structure);
    const rack::ClubKinds kinds(test);
    reading.kind.areOne = kinds.areOne();
    if (const auto& all = kinds.ofAll())
        reading.kind = {rack::kindText(all->kind), all->by, all->chance, kinds.areOne()};
    reading.rounds = structure.rounds.size();
    reading.sittings = structure.sittings.size();
    reading.roundsBeyond = request.subject.roundsBeyond();
    reading.clubs = request.subject.clubs();
    reading.roundsDone = completeRounds(request.subject);
    reading.level = plan::levelAt(reading.card, reading.roundsDone);
    reading.fromAllRead = taken == Taken::allRead;
    reading.steadiness = request.level;
    Measuring measuring(request, taken, reading);
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
    measuring.shares();
    Families families;
    families.add(reading.average);
    families.add(reading.consistency);
    families.add(reading.areas);
    families.add(reading.shareGaps);
    reading.declared = reading.card.primary.size() * measuring.comparisons();
    reading.allPairsOf = reading.card.primary.size() == 1 ? measuring.allPairsOf() : 0;
    families.close(reading.declared, reading.allPairsOf);
    Settling(request, columns, reading).settle();
    poolSettings(request.subject, columns, reading);
    return reading;
}

double estimateOf(const AverageGap& row) {
    return row.gap;
}
double estimateOf(const ShareGap& row) {
    return row.gap.gap;
}
template<typename Ratio> double estimateOf(const Ratio& row) {
    return row.ratio;
}

template<typename Row>
void compareRows(std::vector<Row>& rows, const std::vector<Row>& others, std::optional<OtherSide> Claim::*side) {
    for (Row& row : rows) {
        const auto other = std::ranges::find_if(others, [&](const Row& o) {
            return outcomeOf(o) == outcomeOf(row) && pairOf(o).build == pairOf(row).build &&
                   pairOf(o).against == pairOf(row).against;
        });
        if (other == others.end())
            continue;
        Claim& claim = claimOf(row);
        const Verdict verdict = claimOf(*other).verdict;
        claim.*side = {estimateOf(*other), verdict, verdict != claim.verdict};
    }
}

// The same verdicts, of every kind and in the same families, of another subject or from other shots.
void addSide(const JudgeRequest& request, const Case& subject, Taken taken, Reading& reading,
             std::optional<OtherSide> Claim::*side) {
    JudgeRequest verdicts = request;
    verdicts.depth = JudgeRequest::Depth::verdicts;
    verdicts.subject = subject;
    std::vector<Column> columns;
    const auto other = verdictsFrom(verdicts, taken, columns);
    if (!other || other->builds.size() != reading.builds.size())
        return;
    compareRows(reading.average, other->average, side);
    compareRows(reading.consistency, other->consistency, side);
    compareRows(reading.areas, other->areas, side);
    compareRows(reading.shareGaps, other->shareGaps, side);
}

// What was seen of each player and delivery by themselves.
void addSettings(const JudgeRequest& request, Reading& reading) {
    for (const Case::Setting& setting : request.subject.settings()) {
        JudgeRequest part = request;
        part.depth = JudgeRequest::Depth::verdicts;
        part.subject = request.subject.partOf(setting);
        std::vector<Column> columns;
        auto own = verdictsFrom(part, part.subject.taken(), columns);
        if (!own)
            return;
        explainShots(part, columns, *own);
        reading.bySetting.push_back({setting.name(), std::move(*own)});
    }
}

void addOtherDays(const JudgeRequest& request, Reading& reading) {
    if (request.earlier.repeats.empty())
        return;
    reading.repeated = repeatedIn(reading, request.earlier.repeats);
    reading.byWay = byWayIn(reading, request.earlier.repeats);
}

void addOtherSides(const JudgeRequest& request, Reading& reading) {
    const Case& subject = request.subject;
    if (std::ranges::any_of(reading.builds, [](const BuildCount& build) { return build.setAside > 0; }))
        addSide(request, subject, subject.otherSide(), reading, &Claim::otherSide);
    if (const auto before = subject.withoutLateChanges())
        addSide(request, *before, before->taken(), reading, &Claim::withoutLate);
}

} // namespace

const Summary* Reading::summaryOf(Metric metric, BuildAt build) const {
    const auto at =
        std::ranges::find_if(summary, [&](const Summary& s) { return s.metric == metric && s.build == build; });
    return at == summary.end() ? nullptr : &*at;
}

const AverageGap* Reading::averageOf(Metric metric, BuildAt build, BuildAt against) const {
    const auto at = std::ranges::find_if(average, [&](const AverageGap& row) {
        return row.metric == metric && row.kind == record::OutcomeKind::average && row.build == build &&
               row.against == against;
    });
    return at == average.end() ? nullptr : &*at;
}

std::optional<Reading> judge(const JudgeRequest& request) {
    std::vector<Column> columns;
    auto reading = verdictsFrom(request, request.subject.taken(), columns);
    if (!reading || request.depth == JudgeRequest::Depth::verdicts)
        return reading;
    addOtherSides(request, *reading);
    explain(request, columns, *reading);
    addOtherDays(request, *reading);
    addSettings(request, *reading);
    if (request.cancelled && request.cancelled())
        return std::nullopt;
    reading->checks = checksOf(request.subject, *reading);
    return reading;
}

} // namespace knot::judge
