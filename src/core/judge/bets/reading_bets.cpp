#include "core/judge/bets/reading_bets.h"

#include "core/judge/bets/single_runs.h"
#include "core/judge/seed.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace knot::judge {
namespace {

constexpr double mostDegrees = 60; // that a player's own spreads weigh

class ReadingBets {
public:
    ReadingBets(const JudgeRequest& request, Reading& reading)
        : m_request(request)
        , m_priors(request)
        , m_reading(reading) {}

    std::optional<Bet> add(const Column& column, bool hasSingleRuns) {
        auto bet = Bet::of(column, m_priors.of(column));
        if (isOfOneClub(column))
            for (Again& one : goneBackTo(m_request.subject, column, m_priors.of(column).usual))
                if (one.after != Again::After::left) // its stints are no goes back to it
                    m_reading.again.push_back(std::move(one));
        if (!bet)
            return bet;
        if (m_request.earlier.own.contains(column.metric))
            m_reading.ownStints.push_back(column.metric);
        if (m_request.earlier.gapScales.contains(column.metric))
            m_reading.ownGaps.push_back(column.metric);
        pairs(column, *bet, Runs::asTheyWere, m_reading.bets, m_reading.bestBets);
        further(column, *bet);
        if (!hasSingleRuns)
            return bet;
        if (isOfSingleRuns(column)) {
            m_reading.singleRuns.push_back(column.metric);
            std::ranges::move(goneBackTo(m_request.subject, column, m_priors.of(column).usual),
                              std::back_inserter(m_reading.again));
        }
        pairs(column, *Bet::of(column, m_priors.of(column, 1, Runs::asStints)), Runs::asStints, m_reading.betsAsStints,
              m_reading.bestBetsAsStints);
        return bet;
    }

private:
    using Runs = BetPriors::Runs;

    void pairs(const Column& column, const Bet& bet, Runs runs, std::vector<BetOnPair>& pairs,
               std::vector<BestBet>& best) const {
        const auto halved = Bet::of(column, m_priors.of(column, 0.5, runs));
        const auto doubled = Bet::of(column, m_priors.of(column, 2, runs));
        const record::Want want = m_reading.card.want({.metric = column.metric, .shape = {}});
        for (const AverageGap& row : m_reading.average) {
            if (row.metric != column.metric || row.kind != record::OutcomeKind::average)
                continue;
            const auto seed = seedFor(m_request, "bet", row.metric, row.build, row.against);
            BetOnPair pair = bet.pair(row.build, row.against, want, seed);
            pair.halved = halved->glance(row.build, row.against, want, seed);
            pair.doubled = doubled->glance(row.build, row.against, want, seed);
            pairs.push_back(pair);
        }
        std::ranges::move(bet.best(want, seedFor(m_request, "best bet", column.metric, {}, {})),
                          std::back_inserter(best));
    }

    // Of what is declared and wanted, where more laps could still change the choice.
    void further(const Column& column, const Bet& bet) {
        constexpr std::size_t laps = 5;
        const Outcome outcome{.metric = column.metric, .shape = {}};
        const auto kind = m_reading.card.want(outcome).kind;
        const bool isDeclared = std::ranges::find(m_reading.card.primary, outcome) != m_reading.card.primary.end();
        if (!isDeclared || (kind != record::Want::Kind::more && kind != record::Want::Kind::less))
            return;
        double shots = 0;
        double stints = 0;
        for (const BuildValues& build : column.builds) {
            shots += static_cast<double>(build.count());
            stints += static_cast<double>(build.turns.size());
        }
        const auto usual = static_cast<std::size_t>(std::max(1.0, std::round(shots / stints)));
        FurtherBet left = bet.further(m_reading.card.want(outcome), m_priors.of(column).usual, laps, usual,
                                      seedFor(m_request, "further", column.metric, {}, {}));
        // Said beside the chances and losses of the bet, and so on their scale.
        double least = std::numeric_limits<double>::infinity();
        for (const BestBet& best : m_reading.bestBets)
            if (best.metric == column.metric)
                least = std::min(least, best.loss);
        left.after = left.now > 0 ? least * left.after / left.now : 0;
        left.now = least;
        m_reading.furtherBets.push_back(left);
    }

    const JudgeRequest& m_request;
    BetPriors m_priors;
    Reading& m_reading;
};

} // namespace

BetPriors::BetPriors(const JudgeRequest& request)
    : m_request(request)
    , m_gapTimes(plan::gapTimes(request.subject.test())) {}

BetPrior BetPriors::of(const Column& column, double times, Runs runs) const {
    const Earlier& earlier = m_request.earlier;
    const auto own = earlier.own.find(column.metric);
    const bool isKnown = own != earlier.own.end();
    plan::Spreads usual = isKnown ? own->second : plan::usualSpreads(column.metric, m_request.level);
    usual.sdTurn *= times;
    BetPrior prior{.usual = usual};
    if (isKnown)
        prior.degrees = std::clamp(static_cast<double>(own->second.turns), prior.degrees, mostDegrees);
    const auto learnt = earlier.gapScales.find(column.metric);
    prior.scale = times * (learnt != earlier.gapScales.end() ? learnt->second
                                                             : m_gapTimes * record::info(column.metric).worthwhileGap);
    if (runs == Runs::asTheyWere && isOfSingleRuns(column)) {
        const auto warm = earlier.warmUp.find(column.metric);
        prior.warmUp = warm != earlier.warmUp.end() ? warm->second : warmUpOf(usual);
        if (const auto alike = earlier.neighbours.find(column.metric); alike != earlier.neighbours.end())
            prior.neighbours = alike->second;
    }
    return prior;
}

std::map<Metric, Bet> addBets(const JudgeRequest& request, const std::vector<Column>& columns, Reading& reading) {
    const bool hasSingleRuns = std::ranges::any_of(columns, isOfSingleRuns);
    ReadingBets all(request, reading);
    std::map<Metric, Bet> bets;
    for (const Column& column : columns)
        if (auto bet = all.add(column, hasSingleRuns))
            bets.emplace(column.metric, std::move(*bet));
    return bets;
}

} // namespace knot::judge
