#pragma once

#include "core/random.h"
#include "core/record/metric.h"

#include <string>

namespace knot::simulate {

/// A simulated player with one kind of club: the middle of the swing, how it varies from shot to
/// shot and from turn to turn, and how it warms up. SI units, degrees, mm.
struct Player {
    std::string name;
    bool leftHanded = false;
    double clubSpeed = 40, clubSpeedSd = 0.55, clubSpeedTurnSd = 0.2;
    double attack = -2, attackSd = 0.7;
    double path = 0, pathSd = 1.3, pathTurnSd = 0.4;
    double face = 0, faceSd = 1.6, faceTurnSd = 0.5;
    double dynamicLoft = 17, dynamicLoftSd = 0.9, dynamicLoftTurnSd = 0.3;
    double strikeSd = 6, strikeTurnSd = 1.5; ///< mm, each way
    /// Club speed that is still missing at the first shot, and after how many shots a third of it
    /// is left.
    double coldLoss = 0, warmUpShots = 12;
};

/// A club's true effect on the swing and the ball, as shifts against a neutral one. This is the
/// hidden truth that a test tries to find.
struct BuildTruth {
    std::string name;
    std::string note;
    double clubSpeed = 0;    ///< m/s
    double dynamicLoft = 0;  ///< degrees
    double spin = 0;         ///< rpm, beyond what loft explains
    double smash = 0;        ///< ratio
    double face = 0;         ///< degrees
    double strikeHigh = 0;   ///< mm: where the player tends to meet it
    double spreadFactor = 1; ///< on the SDs of face and path
};

/// What one turn has in common: tempo, stance and aim of the moment.
struct TurnState {
    double clubSpeed = 0, path = 0, face = 0, dynamicLoft = 0, strikeToe = 0, strikeHigh = 0;
};

TurnState drawTurn(const Player& player, Random& random);

/// Strikes one shot: swing, impact (smash, gear effect and strike height), flight by the model of
/// core/flight, then the monitor's own error. `struckBefore` counts the player's earlier shots of
/// the sitting, for warming up. Gives every metric the stand-in monitor reads.
record::Readings strike(const Player& player, const BuildTruth& build, const TurnState& turn, int struckBefore,
                        Random& random);

} // namespace knot::simulate
