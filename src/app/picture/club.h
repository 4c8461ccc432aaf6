#pragma once

#include "core/flight/impact.h"
#include "core/record/test.h"

#include <optional>
#include <string_view>
#include <vector>

namespace knot::picture {

struct ClubPoint {
    double x = 0, y = 0;
};
using ClubOutline = std::vector<ClubPoint>;

/// Heads as they are told apart at a glance.
enum class HeadLook { driver, wood, hybrid, iron, wedge };
/// `usual`: of heads of which nothing is known.
HeadLook lookOf(const record::Part& head, flight::HeadKind usual = flight::HeadKind::wood);

/// A club lying with its butt at the left, in mm: x along the club from the end of the hands, y down. Its length and
/// balance are to scale; the shaft is as thick as it is heavy.
struct ClubSide {
    ClubOutline grip, shaft, head;
    double length = 0;
    bool isLengthKnown = false;
    std::optional<double> balance;
};
/// A club of unknown length is as long as is usual of its kind, and said to be so.
ClubSide clubFromSide(const record::Club& club, flight::HeadKind usual = flight::HeadKind::wood);

/// A head from the toe, in mm, ground at y = 0 and up negative, the face toward the left: its loft as it stands.
struct HeadFromToe {
    ClubOutline body;
    ClubPoint faceLow, faceHigh; ///< the face, leaning back by the loft
    double loft = 0;
};
std::optional<HeadFromToe> headFromToe(const record::Club& club);

/// A head from in front of its face, sole on the ground, with its shaft at the lie; mirrored for left-handed players.
struct HeadFromFace {
    ClubOutline body;
    ClubPoint heel, shaftEnd;
    double lie = 0;
};
std::optional<HeadFromFace> headFromFace(const record::Club& club, bool leftHanded);

} // namespace knot::picture
