#pragma once

#include "core/flight/flight.h"

namespace knot::flight {

enum class HeadKind { driver, wood, iron, wedge };

/// How a club meets the ball. Angles in degrees, + up and right; the strike in mm, + toward the toe and above the
/// middle of the face.
struct Delivery {
    double clubSpeed = 0; ///< m/s
    double dynamicLoft = 0, attack = 0;
    double path = 0, face = 0;
    double strikeToe = 0, strikeHigh = 0;
    bool leftHanded = false;
};

/// A head as far as the impact feels it.
struct Head {
    double mass = 0.22;          ///< kg, with what of the shaft takes part
    double restitution = 0.83;   ///< at 40 m/s into the face, less 0.002 for each m/s more
    double grip = 0.85;          ///< spin as a share of what a rigid ball that stops slipping takes
    double inertiaUp = 4.5e-4;   ///< kg·m², against turning open or closed
    double inertiaAcross = 3e-4; ///< kg·m², against tipping back
    double depth = 0.035;        ///< m from the face back to the centre of mass
    double bulge = 0.3;          ///< m, radius across the face; 0: flat
    double roll = 0.3;           ///< m, radius up the face; 0: flat
};

/// Usual heads of a kind.
Head usualHead(HeadKind kind);

/// A ball's liveliness: what it adds to the restitution, and its spin as a share of the usual.
struct Ball {
    double restitution = 0, spin = 1;
};

/// The launch that a delivery gives, by the oblique impact of a ball and a free head (as in Daish, The Physics of
/// Ball Games, 1972): along the face's normal by restitution, across it by what friction turns into spin; off the
/// middle the head gives way by its inertia, a curved face turns with the strike, and the head's own turning drives
/// the ball's spin (gear effect). `grip` stands for what a real ball stores and gives back. Clean strikes from 20 to
/// 60 m/s, dynamic lofts from 5 to 55°, up to 25 mm off the middle; beyond that it is not to be believed. Rough: its
/// figures were set so that each kind of club comes out as is usual, and were compared with no measured launches.
Launch launchOf(const Delivery& delivery, const Head& head, const Ball& ball = {});

} // namespace knot::flight
