#pragma once

#include <vector>

namespace knot::flight {

/// How a ball leaves the club. Angles in degrees; direction + right of the target line; spin axis
/// + tilts so that the ball curves right.
struct Launch {
    double ballSpeed = 0; ///< m/s
    double launch = 0;
    double direction = 0;
    double spin = 0; ///< rpm
    double spinAxis = 0;
};

struct Air {
    double density = 1.225;                          ///< kg/m³; `densityOf` gives it from the weather
    double windAlong = 0, windRight = 0, windUp = 0; ///< m/s; + with the ball, to the right, upward
    /// How the wind grows with height: as (height / 10 m) to this power, the wind above being that at 10 m.
    /// 0: the same at every height; about 0.14 over open ground.
    double shear = 0;
};

struct Point {
    double along = 0, right = 0, up = 0; ///< m
};

struct Flight {
    double carry = 0, side = 0; ///< m, along and right of the target line
    double apex = 0;            ///< m
    double descent = 0;         ///< degrees below the horizontal at landing
    double hang = 0;            ///< s
    double speedAtLanding = 0;  ///< m/s
    double spinAtLanding = 0;   ///< rpm
    std::vector<Point> path;    ///< every 0.05 s and the landing point, when asked for
};

enum class PathWanted { no, yes };

/// Flies a ball from the ground to ground that lies `landing` m higher (lower where negative) by the drag and
/// lift of Smits & Smith (1994): CD = 0.24 + 0.18 S + 0.06 sin π(Re − 90000)/200000, CL = 0.54 S^0.4, spin
/// decaying at 2·2e-5·V/d; by Dormand and Prince's integrator with its own steps, to 1e-11 of the carry on the
/// reference flights. A launch that is not upward, or without speed, lands where it stands; a ball that never gets so
/// high comes to nothing. `tolerance` is of each step: at 1e-7 the carry is right to a hundredth of a millimetre in
/// less than a third of the time. Not for putts; real balls and monitors differ by some per cent.
Flight fly(const Launch& launch, const Air& air = {}, PathWanted path = PathWanted::no, double landing = 0,
           double tolerance = 1e-10);

} // namespace knot::flight
