#pragma once

#include "core/flight/flight.h"

namespace knot::flight {

/// What a ball does after it came down, as far as that can be said of any turf: rough.
struct Run {
    double bounce = 0, roll = 0; ///< m, along the direction of landing; negative: back
    double length() const { return bounce + roll; }
};

/// How the turf takes a ball.
enum class Turf { soft, usual, firm };

/// Bounce by bounce as a ball that grips or slips on turf which gives way in proportion to how hard and how steeply
/// it is hit (the shape and the coefficients after Penner, "The run of a golf ball", 2002), then rolling at a steady
/// drag. Level ground, no slope, no grain; a guess, compared with no measured runs. Nothing where the flight did not
/// land.
Run runAfter(const Flight& flight, Turf turf = Turf::usual);

} // namespace knot::flight
