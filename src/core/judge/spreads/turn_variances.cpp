#include "core/judge/spreads/turn_variances.h"

#include "core/judge/gaps/mixed_model.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

struct Turn {
    std::size_t round = 0;
    bool isBuild = false;
    double shots = 0, mean = 0;
};

struct Turns {
    std::vector<Turn> all;
    std::size_t rounds = 0;
    double inside = 0; ///< squares about the turn means
    double shots = 0, squares = 0;

    double degrees() const { return shots - static_cast<double>(rounds) - 1; }
};

Turns turnsOf(const Column& column, BuildAt build, BuildAt against) {
    Turns turns;
    std::map<record::RoundAt, std::size_t> rounds;
    double sum = 0;
    for (const BuildAt b : {against, build})
        for (const TurnValues& turn : column.builds[b].turns) {
            const std::size_t round = rounds.try_emplace(turn.round, rounds.size()).first->second;
            const auto shots = static_cast<double>(turn.values.size());
            turns.all.push_back({round, b == build, shots, turn.mean()});
            turns.inside += squaresAboutMean(turn.values);
            turns.shots += shots;
            sum += shots * turns.all.back().mean;
        }
    turns.rounds = rounds.size();
    for (Turn& turn : turns.all) { // means far from 0 would cost digits
        turn.mean -= sum / turns.shots;
        turns.squares += turn.shots * turn.mean * turn.mean;
    }
    return turns;
}

// What is left of the turn means, and the logarithm of what builds and rounds know, where turns weigh by their shots
// and `lambda`, the variance of turns over that of shots.
struct Profiled {
    double left = 0, logInformation = 0, ofBuild = 0;
};

Profiled profiled(const Turns& turns, double lambda) {
    struct Round {
        double weight = 0, ofBuild = 0, sum = 0;
    };
    std::vector<Round> rounds(turns.rounds);
    double bb = 0;
    double by = 0;
    double yy = 0;
    for (const Turn& turn : turns.all) {
        const double w = turn.shots / (1 + lambda * turn.shots);
        Round& round = rounds[turn.round];
        round.weight += w;
        round.sum += w * turn.mean;
        yy += w * turn.mean * turn.mean;
        if (turn.isBuild) {
            round.ofBuild += w;
            bb += w;
            by += w * turn.mean;
        }
    }
    Profiled s;
    for (const Round& round : rounds) {
        bb -= round.ofBuild * round.ofBuild / round.weight;
        by -= round.ofBuild * round.sum / round.weight;
        yy -= round.sum * round.sum / round.weight;
        s.logInformation += std::log(round.weight);
    }
    s.ofBuild = bb;
    s.left = bb > 0 ? std::max(0.0, yy - by * by / bb) : 0;
    s.logInformation += bb > 0 ? std::log(bb) : 0;
    return s;
}

double deviance(const Turns& turns, double lambda) {
    const Profiled s = profiled(turns, lambda);
    double logV = 0;
    for (const Turn& turn : turns.all)
        logV += std::log1p(lambda * turn.shots);
    return logV + s.logInformation + turns.degrees() * std::log(turns.inside + s.left);
}

} // namespace

std::optional<TurnVariances> turnVariances(const Column& column, BuildAt build, BuildAt against) {
    const Turns turns = turnsOf(column, build, against);
    if (static_cast<double>(turns.all.size()) == turns.shots || !(turns.degrees() > 0))
        return std::nullopt;
    const Profiled plain = profiled(turns, 0);
    if (!(plain.ofBuild > 1e-9 * turns.shots))
        return std::nullopt;
    constexpr double noise = 1e-24;
    if (turns.inside + plain.left <= noise * std::max(turns.squares, 1.0))
        return TurnVariances{};
    const double lambda = leastDeviance([&](double at) { return deviance(turns, at); });
    const double shot = (turns.inside + profiled(turns, lambda).left) / turns.degrees();
    return TurnVariances{lambda * shot, shot};
}

} // namespace knot::judge
