#include "core/judge/bets/choices.h"

#include "core/judge/bets/choosing.h"
#include "core/judge/seed.h"
#include "core/judge/spreads/consistency.h"
#include "core/judge/spreads/dispersion.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

// What is known of the builds in one declared outcome.
struct Known {
    std::vector<Standing> standings;
    std::vector<BuildAt> set;
    LossScale scale = LossScale::plain;
    double margin = 0;
};

class Choices {
public:
    Choices(const JudgeRequest& request, const std::vector<Column>& columns, const std::map<Metric, Bet>& bets,
            Reading& reading)
        : m_request(request)
        , m_test(request.subject.test())
        , m_structure(request.subject.structure())
        , m_columns(columns)
        , m_bets(bets)
        , m_reading(reading) {}

    void fill() {
        std::vector<Priority> priorities;
        for (const Outcome& outcome : m_reading.card.primary) {
            record::Want want = m_reading.card.want(outcome);
            if (want.kind == record::Want::Kind::none) {
                if (!whichOfThese())
                    continue;
                want.kind = record::Want::Kind::more; // asked for the best without a direction
            }
            Known known = knownOf(outcome, want);
            // Spreads and areas are only ever wanted more or less; near a value is for averages.
            const auto seed = seedFor(m_request, record::outcomeText(outcome).c_str(), outcome.metric, {}, {});
            BestOf best = choosing(known.standings, want, known.scale, seed);
            best.outcome = outcome;
            if (whichOfThese())
                best.set = std::move(known.set);
            m_reading.best.push_back(std::move(best));
            if (const auto bet = m_bets.find(outcome.metric);
                outcome.kind == record::OutcomeKind::average && bet != m_bets.end())
                known.standings =
                    standings(*std::ranges::find(m_columns, outcome.metric, &Column::metric), bet->second);
            if (!known.standings.empty())
                priorities.push_back({want, known.margin, std::move(known.standings)});
        }
        if (priorities.size() > 1)
            m_reading.byPriority =
                choosingByPriority(priorities, seedFor(m_request, "priorities", Metric::carry, {}, {}));
    }

private:
    bool whichOfThese() const { return m_reading.card.comparison == record::Comparison::whichOfThese; }

    Known knownOf(const Outcome& outcome, const record::Want& want) const {
        switch (outcome.kind) {
        case record::OutcomeKind::average:
            return average(outcome, want);
        case record::OutcomeKind::equal:
        case record::OutcomeKind::typical:
            return byRows(outcome, want);
        case record::OutcomeKind::spread:
            return spread(outcome, want);
        case record::OutcomeKind::area:
            return area(want);
        case record::OutcomeKind::share:
            return share(outcome, want);
        }
        return {};
    }

    Known average(const Outcome& outcome, const record::Want& want) const {
        const auto column = std::ranges::find(m_columns, outcome.metric, &Column::metric);
        if (column == m_columns.end())
            return {};
        return {standings(*column), bestSet(*column, want, levels()), LossScale::plain,
                m_reading.card.margin(outcome.metric)};
    }

    // At equal delivery or of the typical shot only the rows know: who may be best, and no chances.
    Known byRows(const Outcome& outcome, const record::Want& want) const {
        std::vector<AverageGap> rows;
        std::ranges::copy_if(m_reading.average, std::back_inserter(rows), [&](const AverageGap& row) {
            return row.kind == outcome.kind && row.metric == outcome.metric;
        });
        std::vector<PairBeaten> pairs;
        std::vector<BuildAt> builds;
        for (const AverageGap& row : rows) {
            const double sign = want.kind == record::Want::Kind::less ? -1 : 1;
            std::optional<Effect> effect;
            if (row.se && isJudged(row.claim) && want.kind != record::Want::Kind::near)
                effect = Effect{sign * row.gap, *row.se, *row.df};
            pairs.push_back(beatenBy(row.build, row.against, effect));
            pairs.back().level = row.claim.level;
            for (const BuildAt build : {row.against, row.build})
                if (std::ranges::find(builds, build) == builds.end())
                    builds.push_back(build);
        }
        return {.standings = {}, .set = bestSetOf(pairs, builds, m_reading.level)};
    }

    // The level that a pair is judged at, in whatever order it is named.
    LevelOf levels() const {
        return [this](BuildAt a, BuildAt b) {
            for (const AverageGap& row : m_reading.average)
                if ((row.build == a && row.against == b) || (row.build == b && row.against == a))
                    return row.claim.level;
            return m_reading.level;
        };
    }

    // A claim that nothing but the moment holds back.
    static bool isJudged(const Claim& claim) {
        return !claim.cap || *claim.cap == Cap::beforeFirstLook || *claim.cap == Cap::leadOnly;
    }

    Known share(const Outcome& outcome, const record::Want& want) const {
        const auto shape = std::ranges::find(m_reading.card.shapes, outcome.shape, &record::Shape::name);
        if (shape == m_reading.card.shapes.end())
            return {};
        const Column hits = hitsOf(m_test, m_structure, *shape, m_request.subject.taken());
        return {standings(hits), bestSet(hits, want, levels()), LossScale::plain, shareMargin};
    }

    // The logarithmic effects of the rows of one outcome, turned so that larger is better.
    template<typename Rows, typename Centre>
    std::vector<PairBeaten> effectsOf(const Rows& rows, const record::Want& want, Centre centre) const {
        const double sign = want.kind == record::Want::Kind::less ? -1 : 1;
        std::vector<PairBeaten> effects;
        for (const auto& row : rows) {
            std::optional<Effect> effect;
            if (row.logSe && isJudged(row.claim))
                effect = Effect{sign * centre(row), *row.logSe, *row.df};
            effects.push_back(beatenBy(row.build, row.against, effect));
            effects.back().level = row.claim.level;
        }
        return effects;
    }

    static std::vector<BuildAt> buildsOf(const std::vector<Standing>& standings) {
        std::vector<BuildAt> builds;
        builds.reserve(standings.size());
        for (const Standing& standing : standings)
            builds.push_back(standing.build);
        return builds;
    }

    Known spread(const Outcome& outcome, const record::Want& want) const {
        const auto column = std::ranges::find(m_columns, outcome.metric, &Column::metric);
        if (column == m_columns.end())
            return {};
        Known known{.scale = LossScale::ratio, .margin = std::log(m_reading.card.sdRatioMargin)};
        for (const LogSpread& s : logSpreads(*column))
            known.standings.push_back({.build = s.build,
                                       .effect = {s.value, s.se, s.df},
                                       .turns = static_cast<double>(column->builds[s.build].turns.size()),
                                       .residuals = {}});
        std::vector<SpreadRatio> rows;
        std::ranges::copy_if(m_reading.consistency, std::back_inserter(rows),
                             [&](const SpreadRatio& row) { return row.metric == outcome.metric; });
        known.set = bestSetOf(effectsOf(rows, want, [](const SpreadRatio& row) { return *row.logCentre; }),
                              buildsOf(known.standings), m_reading.level);
        known.standings = asBet(std::move(known.standings), known.margin);
        return known;
    }

    Known area(const record::Want& want) const {
        Known known{.scale = LossScale::ratio, .margin = std::log(m_reading.card.areaRatioMargin)};
        const Landings landings = landingsOf(m_test, m_structure, m_request.subject.taken());
        for (BuildAt b; b < m_test.builds.size(); ++b)
            if (const auto area = logArea(landings, b))
                known.standings.push_back({.build = b,
                                           .effect = {area->value, area->se, area->df},
                                           .turns = static_cast<double>(landings.builds[b].size()),
                                           .residuals = {}});
        known.set =
            bestSetOf(effectsOf(m_reading.areas, want, [](const AreaRatio& row) { return std::log(row.ratio); }),
                      buildsOf(known.standings), m_reading.level);
        known.standings = asBet(std::move(known.standings), known.margin);
        return known;
    }

    // Spreads and areas as a bet: shrunk as if builds usually differed by the margin. Nothing common to all was taken
    // out of them, so that they are drawn apart as they are.
    static std::vector<Standing> asBet(std::vector<Standing> standings, double margin) {
        return standings.empty() ? standings : shrunk(std::move(standings), margin);
    }

    const JudgeRequest& m_request;
    const record::Test& m_test;
    const record::Structure& m_structure;
    const std::vector<Column>& m_columns;
    const std::map<Metric, Bet>& m_bets;
    Reading& m_reading;
};

} // namespace

void fillChoices(const JudgeRequest& request, const std::vector<Column>& columns, const std::map<Metric, Bet>& bets,
                 Reading& reading) {
    Choices(request, columns, bets, reading).fill();
}

} // namespace knot::judge
