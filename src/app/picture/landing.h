#pragma once

#include "app/picture/cords.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace knot::picture {

/// Where the shots of one build came down, in display units: + right of the target line, and how far.
struct LandingCloud {
    struct Shot {
        double side = 0, carry = 0;
        std::size_t shot = 0;
    };
    std::vector<Shot> shots;
    /// The middle, and how shots lie about it: SDs along and across an axis that leans `tilt` degrees to the right of
    /// the target line. Nothing from too few shots.
    struct Spread {
        double side = 0, carry = 0;
        double sdAlong = 0, sdAcross = 0, tilt = 0;
    };
    std::optional<Spread> spread;
};

struct LandingAim {
    double side = 0, carry = 0;
};

struct LandingData {
    std::vector<LandingCloud> clouds;
    std::optional<LandingAim> aim;
};

struct GroundPoint {
    double x = 0, y = 0;
};

struct PlacedLanding {
    GroundPoint at;
    std::size_t cloud = 0, shot = 0;
};

/// The ground seen from above, the ball flying upward, one scale both ways.
struct LandingLayout {
    double pixelsPerUnit = 1;
    GroundPoint origin; ///< where side 0 and carry 0 would be
    std::vector<PlacedLanding> shots;
    Axis carryAxis; ///< ticks of the distances shown
    bool isEmpty = true;

    GroundPoint place(double side, double carry) const;
    /// The contour about a cloud's middle that holds a share of a bivariate normal's shots.
    std::vector<GroundPoint> contour(const LandingCloud::Spread& spread, double share) const;
};

/// Places everything in a frame. Contours far wider than the shots do not squeeze them together.
LandingLayout layOutLanding(const LandingData& data, const Frame& frame);

} // namespace knot::picture
