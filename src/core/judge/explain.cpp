#include "core/judge/explain.h"

#include "core/judge/bets/choices.h"
#include "core/judge/bets/reading_bets.h"
#include "core/judge/causes/models.h"
#include "core/judge/causes/order_by_weight.h"
#include "core/judge/causes/parts_of_gap.h"
#include "core/judge/causes/same_swing.h"
#include "core/judge/causes/variance_shares.h"
#include "core/judge/days/pooling.h"
#include "core/judge/gaps/average.h"
#include "core/judge/gaps/influence.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/said/what_was_said.h"
#include "core/judge/seed.h"
#include "core/judge/shots/called.h"
#include "core/judge/shots/forgiveness.h"
#include "core/judge/shots/misses.h"
#include "core/judge/shots/probability_of_beating.h"
#include "core/judge/shots/unread.h"
#include "core/judge/spreads/consistency.h"
#include "core/judge/spreads/dispersion.h"
#include "core/judge/spreads/shares.h"
#include "core/rack/club_kind.h"
#include "core/rack/figures.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

constexpr int explainedDraws = 1000;

class Explanation {
public:
    Explanation(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading)
        : m_request(request)
        , m_test(request.subject.test())
        , m_kinds(m_test)
        , m_structure(request.subject.structure())
        , m_columns(columns)
        , m_reading(reading) {}

    void fill() {
        for (const Column& column : m_columns) {
            if (m_request.cancelled && m_request.cancelled())
                return;
            byMetric(column);
            for (AverageGap& row : m_reading.average)
                if (row.metric == column.metric && row.kind == record::OutcomeKind::average)
                    byPair(column, row);
        }
        addInfluence(m_request.subject, m_columns, m_reading);
        m_reading.findings = groupFindings(m_columns);
        whoseDoings();
        fillChoices(m_request, m_columns, addBets(m_request, m_columns, m_reading), m_reading);
        forgivenessGaps();
        lateSetAsides();
        guesses();
        m_reading.sameSwing = sameSwings(m_test, m_reading);
        m_reading.amendments = m_test.amendments;
        m_reading.weightOrder = orderByWeight(m_test, m_reading.summary);
        m_reading.parts = partsOfGaps(m_request, m_reading);
        m_reading.unread = unreadOf(m_request.subject, m_reading);
        shots();
        addWhatWasSaid(m_request, m_columns, m_reading);
        usualNumbers();
    }

    void shots() {
        setAsideShares();
        targets();
        shapeShares();
        carrySlope();
        m_reading.misses = missesOf(m_request.subject, m_reading.card);
        callsAndShots();
    }

private:
    template<typename T> static void append(std::vector<T>& list, std::optional<T> item) {
        if (item)
            list.push_back(std::move(*item));
    }

    bool isDeclared(Metric metric) const {
        return std::ranges::find(m_reading.card.primary, averageOf(metric)) != m_reading.card.primary.end();
    }

    static Outcome averageOf(Metric metric) {
        return {.kind = record::OutcomeKind::average, .metric = metric, .shape = {}};
    }

    void byMetric(const Column& column) {
        append(m_reading.brownForsythe, brownForsythe(column));
        append(m_reading.drift, driftPerShot(column, m_structure));
        for (BuildAt b; b < column.builds.size(); ++b) {
            append(m_reading.settling, settlingSlope(column, b));
            append(m_reading.lateInTurn, lateInTurn(column, b));
            if (column.metric == Metric::ballSpeed || column.metric == Metric::carry)
                append(m_reading.forgiveness, forgivenessOf(m_test, column, b));
        }
        if (!m_reading.card.trendColumn.empty())
            append(m_reading.trend, trendAlong(m_test, column, m_reading.card.trendColumn));
        const std::string& factor = m_reading.card.factorColumn;
        if (factor.empty())
            return;
        std::ranges::move(interactions(m_test, column, m_reading.baseline, factor),
                          std::back_inserter(m_reading.interaction));
        std::ranges::move(interactionsInLaps(m_test, m_structure, column, m_reading.baseline, factor),
                          std::back_inserter(m_reading.interactionInLaps));
    }

    void byPair(const Column& column, AverageGap& row) {
        row.adaptation = adaptationGap(column, row.build, row.against);
        row.settling = settlingGap(column, row.build, row.against);
        const auto& covariates = m_reading.card.covariates;
        if (!covariates.empty() && std::ranges::find(covariates, column.metric) == covariates.end())
            row.equalStrike = equalStrike(m_test, column, row.build, row.against, covariates,
                                          isDeclared(column.metric) ? explainedDraws : 0,
                                          seedFor(m_request, "equal", column.metric, row.build, row.against));
        if ((column.metric == Metric::carry || column.metric == Metric::side) && row.method == GapMethod::rounds)
            row.worstFifth = worstFifthGap(column, row.build, row.against,
                                           seedFor(m_request, "worst", column.metric, row.build, row.against));
        if (column.metric == Metric::carry && row.method == GapMethod::rounds)
            row.longestFifth = longestFifthGap(column, row.build, row.against,
                                               seedFor(m_request, "longest", column.metric, row.build, row.against));
    }

    // What is looked at shot by shot: the declared averages, else what people look at first.
    bool isLookedAt(Metric metric) const {
        return isDeclared(metric) ||
               (m_reading.card.primary.empty() && (metric == Metric::carry || metric == Metric::ballSpeed));
    }

    void whoseDoings() {
        for (const Column& column : m_columns)
            if (isMoved(column.metric))
                append(m_reading.whoseDoing, whoseDoing(m_request, column, isLookedAt(column.metric)));
    }

    void callsAndShots() {
        m_reading.called = calledOf(m_request.subject);
        m_reading.callAgreement = callAgreement(m_request.subject);
        for (const Column& column : m_columns) {
            if (!isLookedAt(column.metric))
                continue;
            if (!m_reading.called.empty())
                std::ranges::move(calledGaps(m_request, column, m_reading), std::back_inserter(m_reading.calledGaps));
            std::ranges::move(beatsOf(m_request, column, m_reading), std::back_inserter(m_reading.beats));
            for (BuildAt b; b < column.builds.size(); ++b)
                append(m_reading.tenShots, tenShots(column, b));
        }
    }

    void usualNumbers() {
        std::vector<UsualBasis> bases = m_request.earlier.usual;
        for (const UsualBasis& typed : usualTyped(m_test.firstPlayer()))
            bases.push_back(typed);
        if (bases.empty() || m_test.builds.empty())
            return;
        const BuildAt baseline = m_reading.baseline;
        if (const Summary* carry = m_reading.summaryOf(Metric::carry, baseline))
            m_reading.bagStep = bagStep(bases, carry->mean);
        // The numbers that are looked at are one family.
        const auto known = std::ranges::count_if(
            m_columns, [&](const Column& column) { return basisFor(bases, column.metric, baseline) != nullptr; });
        const double level = 1 - 0.05 / static_cast<double>(std::max<std::ptrdiff_t>(known, 1));
        for (const Column& column : m_columns) {
            if (const UsualBasis* basis = basisFor(bases, column.metric, baseline))
                append(m_reading.usual, againstUsual(*basis, column, baseline,
                                                     plan::usualSpreads(column.metric, m_request.level), level));
            if (!m_test.seal.isClosed())
                againstClubsNotHit(bases, column);
        }
    }

    const UsualBasis* basisFor(const std::vector<UsualBasis>& bases, Metric metric, BuildAt build) const {
        return basisOf(bases, metric, m_test.builds[build], rack::kindName(m_kinds.head(build)));
    }

    // A club that was left at home, but of which is known what is usual: the baseline, or any of several.
    void againstClubsNotHit(const std::vector<UsualBasis>& bases, const Column& column) {
        for (BuildAt absent; absent < column.builds.size(); ++absent) {
            const bool isMeant =
                absent == m_reading.baseline || m_reading.card.comparison == record::Comparison::whichOfThese;
            const UsualBasis* basis = isMeant ? basisFor(bases, column.metric, absent) : nullptr;
            if (basis == nullptr || !column.builds[absent].turns.empty())
                continue;
            const BetPrior prior = BetPriors(m_request).of(column);
            const record::Want want = m_reading.card.want(averageOf(column.metric));
            for (BuildAt b; b < column.builds.size(); ++b)
                append(m_reading.usualBets, betAgainstUsual(*basis, column, b, absent, prior, want,
                                                            seedFor(m_request, "usual", column.metric, b, absent)));
        }
    }

    void setAsideShares() {
        std::vector<std::vector<std::vector<bool>>> turns(m_test.builds.size());
        for (const auto& turn : m_structure.turns) {
            std::vector<bool> trials;
            for (const std::size_t shot : turn.shots)
                if (m_test.shots[shot].status != record::ShotStatus::warmUp)
                    trials.push_back(m_test.shots[shot].status == record::ShotStatus::setAside);
            turns[turn.build].push_back(std::move(trials));
        }
        for (const auto& own : turns)
            m_reading.setAsideShares.push_back(shareByTurns(own).value_or(Share{}));
    }

    void forgivenessGaps() {
        auto of = [&](Metric metric, BuildAt build) {
            return std::ranges::find_if(m_reading.forgiveness,
                                        [&](const Forgiveness& f) { return f.metric == metric && f.build == build; });
        };
        const auto none = m_reading.forgiveness.end();
        for (AverageGap& row : m_reading.average) {
            if (row.kind != record::OutcomeKind::average)
                continue;
            if (const auto a = of(row.metric, row.build), b = of(row.metric, row.against); a != none && b != none)
                row.forgiveness =
                    forgivenessGap(m_test, *std::ranges::find(m_columns, row.metric, &Column::metric), *a, *b);
        }
    }

    void lateSetAsides() {
        for (record::ShotAt i; i < m_test.shots.size(); ++i)
            if (const auto& shot = m_test.shots[i]; shot.isSetAsideLate())
                m_reading.lateSetAsides.push_back(
                    {shot.id, m_request.subject.numberOf(i), shot.build, shot.setAsideWhen});
    }

    void guesses() {
        // Guesses name the record's clubs; a changed one is still the same guess.
        GuessScore score{.tries = m_test.guesses.size(), .builds = m_request.subject.clubs()};
        if (score.tries == 0)
            return;
        std::vector<std::string> said;
        bool wholeTest = true;
        for (const auto& guess : m_test.guesses) {
            score.right += m_test.buildIndex(guess.said) == guess.build ? 1 : 0;
            said.push_back(guess.said);
            wholeTest = wholeTest && guess.turn.empty();
        }
        std::ranges::sort(said);
        const bool eachOnce = std::ranges::adjacent_find(said) == said.end();
        score.matching = wholeTest && eachOnce && score.tries == score.builds;
        const auto right = static_cast<int>(score.right);
        const auto builds = static_cast<int>(score.builds);
        score.p =
            score.matching ? luckyMatches(right, builds) : luckyGuesses(right, static_cast<int>(score.tries), builds);
        m_reading.guesses = score;
    }

    void targets() {
        for (const auto& target : m_reading.card.targets)
            for (BuildAt b; b < m_test.builds.size(); ++b) {
                const auto column = std::ranges::find(m_columns, target.metric, &Column::metric);
                // A changed club is still the one that was meant.
                const bool meant =
                    target.build.empty() || m_test.buildIndex(target.build) == m_request.subject.clubOf(b);
                // A wanted value is a window of the worthwhile gap to either side.
                const double room = target.low == target.high ? m_reading.card.margin(target.metric) : 0;
                if (column != m_columns.end() && meant && !column->builds[b].turns.empty())
                    m_reading.targets.push_back(againstTarget(*column, b, target.low - room, target.high + room));
            }
    }

    void shapeShares() {
        const Landings landings = landingsOf(m_test, m_structure, m_request.subject.taken());
        for (const auto& shape : m_reading.card.shapes) {
            const Column hits = hitsOf(m_test, m_structure, shape, m_request.subject.taken());
            for (BuildAt b; b < hits.builds.size(); ++b) {
                std::vector<std::vector<bool>> turns;
                for (const auto& turn : hits.builds[b].turns) {
                    turns.emplace_back();
                    for (const double value : turn.values)
                        turns.back().push_back(value > 0.5);
                }
                if (const auto share = shareByTurns(turns))
                    m_reading.shapeShares.push_back({shape.name, b, *share, fittedShare(landings, b, shape)});
            }
        }
    }

    void carrySlope() {
        const auto speed = std::ranges::find(m_columns, Metric::ballSpeed, &Column::metric);
        if (speed == m_columns.end())
            return;
        double xy = 0;
        double xx = 0;
        double yy = 0;
        std::size_t n = 0;
        for (const auto& build : speed->builds)
            for (const auto& turn : build.turns) {
                std::vector<double> x;
                std::vector<double> y;
                for (std::size_t i = 0; i < turn.values.size(); ++i)
                    if (const auto carry = m_test.shots[turn.shots[i]].readings.at(Metric::carry)) {
                        x.push_back(turn.values[i]);
                        y.push_back(*carry);
                    }
                if (x.size() < 2)
                    continue;
                for (std::size_t i = 0; i < x.size(); ++i)
                    xy += (x[i] - meanOf(x)) * (y[i] - meanOf(y));
                xx += squaresAboutMean(x);
                yy += squaresAboutMean(y);
                n += x.size() - 1;
            }
        if (n < 8 || !(xx > 0))
            return;
        const auto df = static_cast<double>(n - 1);
        const double se = std::sqrt(std::max(0.0, yy - xy * xy / xx) / df / xx);
        m_reading.carryPerBallSpeed = xy / xx;
        m_reading.carryPerBallSpeedWithin = intervalOf({xy / xx, se, df}, 0.95);
    }

    const JudgeRequest& m_request;
    const record::Test& m_test;
    rack::ClubKinds m_kinds;
    const record::Structure& m_structure;
    const std::vector<Column>& m_columns;
    Reading& m_reading;
};

} // namespace

void explain(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading) {
    Explanation(request, columns, reading).fill();
}

void explainShots(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading) {
    Explanation(request, columns, reading).shots();
}

} // namespace knot::judge
