#pragma once

#include "core/reach/window.h"

#include <optional>

namespace knot::reach {

/// How a driver was struck on average.
struct Means {
    flight::Launch launch;                ///< ball speed, launch and spin; the rest is not asked
    double carry = 0;                     ///< as measured
    double attack = 0;                    ///< degrees
    std::optional<double> clubSpeed = {}; ///< m/s
};

/// What was carried, what this ball speed could carry with a loft that is sold, and this club speed with the usual
/// efficiency: modelled. Differences of the models are added to what was measured, so that what they have too much or
/// too little of in common goes. m.
struct Reached {
    double carry = 0;
    double withBallSpeed = 0;
    double byLaunch = 0, bySpin = 0; ///< parts of what is missing; each on the average of both orders
    std::optional<double> withClubSpeed;
    double byEfficiency = 0;   ///< what the usual efficiency would add to that; 0 where no club speed was read
    double perBallSpeed = 0;   ///< what another metre a second of ball speed is worth
    double twoDegreesMore = 0; ///< what two degrees more of delivered loft would add, efficiency lost with it
};

/// Nothing where no loft on offer gives such a ball speed.
std::optional<Reached> reachedBy(const Means& means);

} // namespace knot::reach
