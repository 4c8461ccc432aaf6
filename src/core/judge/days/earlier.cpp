#include "core/judge/days/earlier.h"

#include "core/judge/bets/swept_stints.h"
#include "core/judge/may_see.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <set>

namespace knot::judge {
namespace {

// Of a test, the shots that one player hit.
record::Test struckBy(const record::Test& test, const std::string& name) {
    record::Test own = test;
    std::erase_if(own.shots, [&](const record::Shot& shot) {
        return (shot.player.empty() ? test.firstPlayer().name : shot.player) != name;
    });
    return own;
}

bool isOf(const record::Test& test, const std::string& playerId) {
    return std::ranges::any_of(test.players, [&](const record::Player& player) { return player.id == playerId; });
}

// The builds of a test that share a lap with another one.
std::vector<BuildAt> compared(const Column& column) {
    std::map<record::RoundAt, std::set<BuildAt>> laps;
    for (BuildAt b; b < column.builds.size(); ++b)
        for (const TurnValues& turn : column.builds[b].turns)
            laps[turn.round].insert(b);
    std::set<BuildAt> builds;
    for (const auto& [lap, held] : laps)
        if (held.size() > 1)
            builds.insert(held.begin(), held.end());
    return {builds.begin(), builds.end()};
}

/// The log likelihood of τ by one test, its stints of any of the sizes that the prior holds likely.
struct Compared {
    std::vector<Swept> sizes;

    double logLikelihood(double tau) const {
        double most = -std::numeric_limits<double>::infinity();
        std::vector<double> logs;
        for (const Swept& size : sizes)
            most = std::max(most, logs.emplace_back(size.logLikelihood(tau)));
        double sum = 0;
        for (const double log : logs)
            sum += std::exp(log - most);
        return most + std::log(sum);
    }
};

} // namespace

std::optional<double> gapScale(const std::vector<Column>& tests, const BetPrior& prior, std::size_t fewest) {
    constexpr double widest = 4;
    constexpr int steps = 48;
    std::vector<Compared> all;
    for (const Column& column : tests) {
        const auto builds = compared(column);
        if (builds.size() < 2)
            continue;
        const Stints stints = stintsOf(column, builds);
        auto& one = all.emplace_back();
        for (std::size_t point = 0; point < stintPoints; ++point)
            one.sizes.push_back(sweep(stints, stintVariance(point, prior), shotVariance(stints, prior)));
    }
    if (all.size() < fewest)
        return std::nullopt;
    double best = prior.scale;
    double most = -std::numeric_limits<double>::infinity();
    for (int step = -steps; step <= steps; ++step) {
        const double tau = prior.scale * std::pow(widest, static_cast<double>(step) / steps);
        double sum = 0;
        for (const Compared& one : all)
            sum += one.logLikelihood(tau);
        if (sum > most) {
            most = sum;
            best = tau;
        }
    }
    return best;
}

double warmUpOf(const plan::Spreads& usual, const std::vector<Column>& own) {
    constexpr double tableDegrees = 6;
    const double table = 0.25 * usual.sdShot * usual.sdShot;
    const double ofStint = usual.sdTurn * usual.sdTurn;
    double squares = tableDegrees * table;
    double degrees = tableDegrees;
    for (const Column& column : own) {
        const TurnValues* first = nullptr;
        const BuildValues* of = nullptr;
        for (const BuildValues& build : column.builds)
            if (!build.turns.empty() && (first == nullptr || build.turns.front().turn < first->turn)) {
                first = &build.turns.front();
                of = &build;
            }
        if (first == nullptr || of->turns.size() < 2)
            continue;
        std::vector<double> later;
        std::size_t shots = 0;
        for (auto turn = of->turns.begin() + 1; turn != of->turns.end(); ++turn) {
            later.push_back(turn->mean());
            shots += turn->values.size();
        }
        const double share = std::exp(-first->swings / warmAfter);
        const auto n = static_cast<double>(later.size());
        const double ofLuck = ofStint * (1 + 1 / n) +
                              usual.sdShot * usual.sdShot *
                                  (1 / static_cast<double>(first->values.size()) + 1 / static_cast<double>(shots));
        // What a stint far into the sitting says of the first swings is little, and weighs as little.
        const double off = first->mean() - meanOf(later);
        squares += share * share * (off * off - ofLuck);
        degrees += share * share * share * share;
    }
    return std::sqrt(std::max(squares / degrees, 0.1 * table));
}

namespace {

// From the player's own shots; a sitting differs from the others, so that many of them weigh no more than a few.
Neighbours neighboursOf(const std::vector<Column>& own) {
    constexpr double most = 40; // pairs
    std::vector<const Column*> columns;
    columns.reserve(own.size());
    for (const Column& column : own)
        columns.push_back(&column);
    const Neighbours known = neighboursIn(columns);
    return {known.alike, std::min(known.pairs, most)};
}

} // namespace

Earlier learntFrom(std::vector<record::Test> tests, const record::Test& inHand) {
    Earlier earlier;
    earlier.pace = plan::measuredPace(tests, inHand.card.kind);
    std::erase_if(tests, [](const record::Test& test) { return withheld(test).has_value(); });
    const record::Player player = inHand.firstPlayer();
    std::vector<record::Test> own;
    std::vector<std::pair<const record::Test*, record::Structure>> ofKind;
    for (const record::Test& test : tests) {
        if (test.id == inHand.id)
            continue;
        if (!player.id.empty() && isOf(test, player.id))
            own.push_back(struckBy(test, player.name));
        if (test.card.kind == inHand.card.kind && !test.shots.empty())
            ofKind.emplace_back(&test, record::structureOf(test));
    }
    earlier.usual = usualStruck(own, player.name);
    earlier.repeats = gapsOfRepeats(tests, inHand);
    std::vector<record::Structure> structures;
    structures.reserve(own.size());
    for (const record::Test& test : own)
        structures.push_back(record::structureOf(test));
    for (const Metric metric : record::allMetrics()) {
        if (const auto spreads = plan::ownSpreads(own, metric))
            earlier.own[metric] = *spreads;
        if (!own.empty()) {
            std::vector<Column> struck;
            struck.reserve(own.size());
            for (std::size_t i = 0; i < own.size(); ++i)
                struck.push_back(columnOf(own[i], structures[i], metric, Taken::counted));
            const auto known = earlier.own.find(metric);
            earlier.warmUp[metric] = warmUpOf(
                known != earlier.own.end() ? known->second : plan::usualSpreads(metric, plan::Level::club), struck);
            earlier.neighbours[metric] = neighboursOf(struck);
        }
        if (const auto equal = plan::ownSpreadsAtEqual(own, metric, inHand.card.covariates))
            earlier.equal[metric] = *equal;
        BetPrior prior{.usual = plan::usualSpreads(metric, plan::Level::club),
                       .scale = plan::gapTimes(inHand.card.kind) * record::info(metric).worthwhileGap};
        std::vector<Column> columns;
        columns.reserve(ofKind.size());
        for (const auto& [test, structure] : ofKind)
            columns.push_back(columnOf(*test, structure, metric, Taken::counted));
        if (const auto scale = gapScale(columns, prior))
            earlier.gapScales[metric] = *scale;
    }
    return earlier;
}

} // namespace knot::judge
