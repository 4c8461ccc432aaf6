#include "core/judge/said/what_was_said.h"

#include "core/judge/gaps/average.h"
#include "core/judge/resample.h"
#include "core/judge/rows.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <map>
#include <set>

namespace knot::judge {
namespace {

using record::Expectation;
using record::FeelScale;
using record::Versus;

// The intraclass correlation of repeated scores, one-way over clubs, from the mean squares; clubs may have been felt
// different numbers of times.
std::optional<double> likeness(const std::vector<std::vector<double>>& byClub) {
    double between = 0;
    double within = 0;
    double n = 0;
    double squares = 0;
    double clubs = 0;
    std::vector<double> all;
    for (const auto& scores : byClub)
        all.insert(all.end(), scores.begin(), scores.end());
    const double grand = meanOf(all);
    for (const auto& scores : byClub) {
        if (scores.empty())
            continue;
        const auto count = static_cast<double>(scores.size());
        between += count * (meanOf(scores) - grand) * (meanOf(scores) - grand);
        within += squaresAboutMean(scores);
        n += count;
        squares += count * count;
        ++clubs;
    }
    if (clubs < 2 || !(n > clubs) || !(between + within > 0))
        return std::nullopt;
    const double msb = between / (clubs - 1);
    const double msw = within / (n - clubs);
    const double usual = (n - squares / n) / (clubs - 1);
    return (msb - msw) / (msb + (usual - 1) * msw);
}

Expected::Found foundOf(Expectation said, const AverageGap& row) {
    switch (row.claim.verdict) {
    case Verdict::open:
    case Verdict::uncontrolled:
        return Expected::Found::notSettled;
    case Verdict::same:
    case Verdict::slight:
        return said == Expectation::noChange ? Expected::Found::asExpected : Expected::Found::nothingThatMatters;
    case Verdict::real:
    case Verdict::realSizeOpen:
        break;
    }
    if (said == Expectation::noChange)
        return row.claim.verdict == Verdict::real ? Expected::Found::otherWay : Expected::Found::notSettled;
    return (row.gap > 0) == (said == Expectation::up) ? Expected::Found::asExpected : Expected::Found::otherWay;
}

constexpr std::size_t fewestRanked = 8; // stints, for a remark

class WhatWasSaid {
public:
    WhatWasSaid(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading)
        : m_test(request.subject.test())
        , m_structure(request.subject.structure())
        , m_columns(columns)
        , m_reading(reading) {
        for (record::TurnAt t; t < m_structure.turns.size(); ++t) {
            const record::Turn& turn = m_structure.turns[t];
            m_turnOf.try_emplace({m_test.shots[turn.shots.front()].turn, turn.build}, t);
        }
    }

    void add() {
        for (std::size_t i = 0; i < record::feelScaleCount; ++i)
            feels(static_cast<FeelScale>(i));
        versus();
        expectations();
        expectedOrder();
    }

private:
    std::optional<record::TurnAt> turnOf(const record::Feel& feel) const {
        const auto at = m_turnOf.find({feel.turn, feel.build});
        return at == m_turnOf.end() ? std::nullopt : std::optional(at->second);
    }

    // One value for each stint that was felt, as a column of its own.
    Column scoresOf(FeelScale scale) const {
        std::map<record::TurnAt, double> scores;
        for (const record::Feel& feel : m_test.feels)
            if (const int score = feel.scores[static_cast<std::size_t>(scale)]; score > 0)
                if (const auto turn = turnOf(feel))
                    scores[*turn] = score;
        Column column{.drawn = !m_test.turns.empty(), .builds = {}};
        column.builds.resize(m_test.builds.size());
        for (const auto& [at, score] : scores) {
            const record::Turn& turn = m_structure.turns[at];
            if (turn.round)
                column.builds[turn.build].turns.push_back({.turn = at,
                                                           .round = *turn.round,
                                                           .player = turn.player,
                                                           .delivery = turn.delivery,
                                                           .sitting = turn.sitting,
                                                           .place = at,
                                                           .phase = turn.phase,
                                                           .values = {score},
                                                           .shots = {turn.shots.front()}});
        }
        return column;
    }

    void feels(FeelScale scale) {
        const Column column = scoresOf(scale);
        std::vector<std::vector<double>> byClub;
        std::size_t stints = 0;
        for (const BuildValues& build : column.builds) {
            byClub.push_back(build.all());
            stints += byClub.back().size();
        }
        if (stints < 2)
            return;
        const bool isBlind = m_test.card.blinding == record::Blinding::playerBlind ||
                             m_test.card.blinding == record::Blinding::bothBlind;
        if (const auto icc = isBlind && stints >= fewestStints ? likeness(byClub) : std::nullopt)
            m_reading.feelLikeness.push_back({scale, stints, *icc});
        for (const auto& [build, against] : pairs())
            if (const auto gap = averageGap(column, build, against, 1))
                m_reading.feelGaps.push_back({.scale = scale,
                                              .build = build,
                                              .against = against,
                                              .stints = gap->shotsBuild + gap->shotsAgainst,
                                              .gap = gap->gap,
                                              .ci95 = gap->ci95,
                                              .p = gap->claim.p});
        for (const Outcome& outcome : m_reading.card.primary)
            if (outcome.kind == record::OutcomeKind::average)
                rank(scale, column, outcome.metric);
    }

    void rank(FeelScale scale, const Column& scores, Metric metric) {
        const auto numbers = std::ranges::find(m_columns, metric, &Column::metric);
        if (numbers == m_columns.end())
            return;
        std::vector<double> felt;
        std::vector<double> measured;
        for (BuildAt b; b < scores.builds.size(); ++b)
            for (const TurnValues& turn : scores.builds[b].turns) {
                const auto& stints = numbers->builds[b].turns;
                if (const auto at = std::ranges::find(stints, turn.turn, &TurnValues::turn); at != stints.end()) {
                    felt.push_back(turn.values.front());
                    measured.push_back(at->mean());
                }
            }
        if (felt.size() < fewestStints)
            return;
        if (const auto rho = statistics::spearman(felt, measured))
            m_reading.feelRanks.push_back(
                {scale, metric, felt.size(), *rho,
                 felt.size() < fewestRanked ? std::nullopt : statistics::spearmanByLuck(felt, measured)});
    }

    // Both ways of saying it of a pair are one: better than A of B is worse than B of A.
    void versus() {
        std::map<std::pair<BuildAt, BuildAt>, VersusCount> counts;
        for (const record::Feel& feel : m_test.feels) {
            if (feel.versus == Versus::notSaid)
                continue;
            const auto before = std::ranges::find(m_test.shots, feel.against, &record::Shot::turn);
            if (before == m_test.shots.end() || before->build == feel.build)
                continue;
            const bool turned = feel.build < before->build;
            const BuildAt build = turned ? before->build : feel.build;
            const BuildAt against = turned ? feel.build : before->build;
            VersusCount& count = counts[{against, build}];
            count.build = build;
            count.against = against;
            if (feel.versus == Versus::same)
                ++count.same;
            else
                ++((feel.versus == Versus::better) != turned ? count.better : count.worse);
        }
        for (auto& [pair, count] : counts) {
            count.p = statistics::signTest(count.better, count.better + count.worse);
            m_reading.versus.push_back(count);
        }
    }

    // What was expected is of the others against the baseline: while the seal is closed nobody knows which that is.
    void expectations() {
        if (m_test.seal.isClosed())
            return;
        for (const auto& [metric, said] : m_reading.card.expectations)
            for (const AverageGap& row : m_reading.average)
                if (row.metric == metric && row.kind == record::OutcomeKind::average &&
                    row.against == m_reading.baseline)
                    m_reading.expected.push_back({metric, row.build, row.against, said, foundOf(said, row)});
    }

    // What a verdict makes of a pair, where the build was expected before the other one or after it.
    static void count(ExpectedOrder& order, const Claim& claim, bool buildFirst) {
        switch (claim.verdict) {
        case Verdict::open:
        case Verdict::uncontrolled:
            ++order.notSettled;
            return;
        case Verdict::same:
        case Verdict::slight:
            ++order.nothingThatMatters;
            return;
        case Verdict::real:
        case Verdict::realSizeOpen:
            if (claim.favours != Favours::better && claim.favours != Favours::worse)
                ++order.notSettled; // they differ, and which is nearer to what is wanted is open
            else
                ++((claim.favours == Favours::better) == buildFirst ? order.asExpected : order.otherWay);
        }
    }

    void expectedOrder() {
        const record::Card& card = m_reading.card;
        const auto directed = std::ranges::find_if(
            card.primary, [&](const Outcome& outcome) { return card.want(outcome).kind != record::Want::Kind::none; });
        ExpectedOrder order;
        for (const std::string& named : card.expectedOrder)
            if (const auto build = m_test.buildIndex(named))
                order.said.push_back(*build);
        if (order.said.size() < 2 || directed == card.primary.end())
            return;
        order.outcome = *directed;
        auto pairs = [&](const auto& rows) {
            for (const auto& row : rows) {
                const auto build = std::ranges::find(order.said, pairOf(row).build);
                const auto against = std::ranges::find(order.said, pairOf(row).against);
                if (outcomeOf(row) == *directed && build != order.said.end() && against != order.said.end())
                    count(order, claimOf(row), build < against);
            }
        };
        pairs(m_reading.average);
        pairs(m_reading.consistency);
        pairs(m_reading.areas);
        pairs(m_reading.shareGaps);
        m_reading.expectedOrder = std::move(order);
    }

    // The pairs that averages are compared by.
    std::vector<std::pair<BuildAt, BuildAt>> pairs() const {
        std::vector<std::pair<BuildAt, BuildAt>> all;
        for (const AverageGap& row : m_reading.average)
            if (std::ranges::find(all, std::pair(row.build, row.against)) == all.end())
                all.emplace_back(row.build, row.against);
        return all;
    }

    const record::Test& m_test;
    const record::Structure& m_structure;
    const std::vector<Column>& m_columns;
    Reading& m_reading;
    std::map<std::pair<std::string, BuildAt>, record::TurnAt> m_turnOf;
};

} // namespace

void addWhatWasSaid(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading) {
    WhatWasSaid(request, columns, reading).add();
}

} // namespace knot::judge
