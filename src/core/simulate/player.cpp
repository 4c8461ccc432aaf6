#include "core/simulate/player.h"

#include "core/flight/flight.h"

#include <algorithm>
#include <cmath>

namespace knot::simulate {
namespace {

using record::Metric;

struct Swing {
    double clubSpeed = 0, attack = 0, path = 0, face = 0, dynamicLoft = 0, toe = 0, high = 0;
};

Swing swingOf(const Player& player, const BuildTruth& build, const TurnState& turn, int struckBefore, Random& random) {
    const double wide = build.spreadFactor;
    const double cold = player.coldLoss * std::exp(-struckBefore / player.warmUpShots);
    Swing s;
    s.clubSpeed = player.clubSpeed + build.clubSpeed + turn.clubSpeed - cold + player.clubSpeedSd * random.normal();
    s.attack = player.attack + player.attackSd * random.normal();
    s.path = player.path + turn.path + wide * player.pathSd * random.normal();
    s.face = player.face + build.face + turn.face + wide * player.faceSd * random.normal();
    s.dynamicLoft = player.dynamicLoft + build.dynamicLoft + turn.dynamicLoft + player.dynamicLoftSd * random.normal();
    s.toe = turn.strikeToe + player.strikeSd * random.normal();
    s.high = build.strikeHigh + turn.strikeHigh + player.strikeSd * random.normal();
    return s;
}

// Impact: the ball leaves nearer the face than the path; loss of ball speed grows with the square
// of the distance from the sweet spot; a strike above the centre launches higher with less spin.
flight::Launch impact(const Player& player, const BuildTruth& build, const Swing& s) {
    const double spinLoft = s.dynamicLoft - s.attack;
    const double smashCentre = 1.52 - 0.0042 * std::max(0.0, spinLoft - 10) + build.smash;
    const double away = s.toe * s.toe + s.high * s.high;
    flight::Launch launch;
    launch.ballSpeed = s.clubSpeed * (smashCentre - 0.00032 * away);
    launch.launch = 0.83 * s.dynamicLoft + 0.17 * s.attack + 0.06 * s.high;
    launch.direction = 0.82 * s.face + 0.18 * s.path;
    launch.spin =
        std::max(600.0, 62 * launch.ballSpeed * std::sin(spinLoft * 0.0174533) * 4.1 + build.spin - 28 * s.high);
    // Toe strikes of a right-handed club turn the ball left; a left-handed one mirrors that.
    const double toeRight = player.leftHanded ? -s.toe : s.toe;
    launch.spinAxis = 55 * std::sin((s.face - s.path) * 0.0174533) * 20 / std::max(8.0, spinLoft) - 0.22 * toeRight;
    return launch;
}

} // namespace

TurnState drawTurn(const Player& player, Random& random) {
    TurnState turn;
    turn.clubSpeed = player.clubSpeedTurnSd * random.normal();
    turn.path = player.pathTurnSd * random.normal();
    turn.face = player.faceTurnSd * random.normal();
    turn.dynamicLoft = player.dynamicLoftTurnSd * random.normal();
    turn.strikeToe = player.strikeTurnSd * random.normal();
    turn.strikeHigh = player.strikeTurnSd * random.normal();
    return turn;
}

record::Readings strike(const Player& player, const BuildTruth& build, const TurnState& turn, int struckBefore,
                        Random& random) {
    const Swing swing = swingOf(player, build, turn, struckBefore, random);
    const flight::Launch launch = impact(player, build, swing);
    const flight::Flight flown = flight::fly(launch);
    const double roll = std::max(0.0, 24 - 0.45 * flown.descent);
    record::Readings r;
    // A monitor reads with an error of its own and writes a fixed number of decimals.
    auto read = [&](Metric metric, double value, double error, double perUnit) {
        r.measure(metric, std::round((value + error * random.normal()) * perUnit) / perUnit + 0.0); // no −0
    };
    read(Metric::clubSpeed, swing.clubSpeed, 0.2, 100);
    read(Metric::ballSpeed, launch.ballSpeed, 0.1, 100);
    read(Metric::attack, swing.attack, 0.3, 10);
    read(Metric::path, swing.path, 0.4, 10);
    read(Metric::face, swing.face, 0.4, 10);
    read(Metric::dynamicLoft, swing.dynamicLoft, 0.4, 10);
    read(Metric::launch, launch.launch, 0.15, 10);
    read(Metric::launchDirection, launch.direction, 0.2, 10);
    read(Metric::spin, launch.spin, 50, 1);
    read(Metric::spinAxis, launch.spinAxis, 0.6, 10);
    read(Metric::carry, flown.carry, 0.6, 10);
    read(Metric::total, flown.carry + roll, 1.2, 10);
    read(Metric::side, flown.side, 0.6, 10);
    read(Metric::apex, flown.apex, 0.3, 10);
    read(Metric::descent, flown.descent, 0.3, 10);
    read(Metric::hang, flown.hang, 0.03, 100);
    read(Metric::strikeToe, swing.toe, 0.8, 10);
    read(Metric::strikeHigh, swing.high, 0.8, 10);
    deriveMissing(r);
    return r;
}

} // namespace knot::simulate
