#include "app/picture/landing.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace knot::picture {
namespace {

constexpr double degree = std::numbers::pi / 180;
constexpr double leastWidth = 10; // units, so that a single shot has ground around it

struct Bounds {
    double low = std::numeric_limits<double>::infinity();
    double high = -std::numeric_limits<double>::infinity();
    void hold(double value) {
        low = std::min(low, value);
        high = std::max(high, value);
    }
    double middle() const { return (low + high) / 2; }
    double width() const { return std::max(high - low, leastWidth); }
};

// How far a contour reaches on either side of its middle, across and along.
std::pair<double, double> reachOf(const LandingCloud::Spread& spread, double share) {
    const double radius = std::sqrt(-2 * std::log(1 - share));
    const double lean = spread.tilt * degree;
    return {radius * std::hypot(spread.sdAlong * std::sin(lean), spread.sdAcross * std::cos(lean)),
            radius * std::hypot(spread.sdAlong * std::cos(lean), spread.sdAcross * std::sin(lean))};
}

} // namespace

GroundPoint LandingLayout::place(double side, double carry) const {
    return {origin.x + side * pixelsPerUnit, origin.y - carry * pixelsPerUnit};
}

std::vector<GroundPoint> LandingLayout::contour(const LandingCloud::Spread& spread, double share) const {
    constexpr int corners = 72;
    const double radius = std::sqrt(-2 * std::log(1 - share));
    const double lean = spread.tilt * degree;
    std::vector<GroundPoint> points;
    points.reserve(corners);
    for (int i = 0; i < corners; ++i) {
        const double angle = 2 * std::numbers::pi * i / corners;
        const double along = radius * spread.sdAlong * std::cos(angle);
        const double across = radius * spread.sdAcross * std::sin(angle);
        points.push_back(place(spread.side + along * std::sin(lean) + across * std::cos(lean),
                               spread.carry + along * std::cos(lean) - across * std::sin(lean)));
    }
    return points;
}

LandingLayout layOutLanding(const LandingData& data, const Frame& frame) {
    LandingLayout layout;
    Bounds side;
    Bounds carry;
    side.hold(0); // the target line is always there
    for (const LandingCloud& cloud : data.clouds)
        for (const auto& shot : cloud.shots) {
            side.hold(shot.side);
            carry.hold(shot.carry);
        }
    if (!std::isfinite(carry.low))
        return layout;
    const double most = 1.5 * std::max(side.width(), carry.width());
    for (const LandingCloud& cloud : data.clouds)
        if (cloud.spread) {
            const auto [across, along] = reachOf(*cloud.spread, 0.9);
            if (across < most && along < most) {
                side.hold(cloud.spread->side - across);
                side.hold(cloud.spread->side + across);
                carry.hold(cloud.spread->carry - along);
                carry.hold(cloud.spread->carry + along);
            }
        }
    if (data.aim) {
        side.hold(data.aim->side);
        carry.hold(data.aim->carry);
    }
    const double width = frame.right - frame.left;
    const double height = frame.bottom - frame.top;
    constexpr double air = 1.08;
    layout.pixelsPerUnit = std::min(width / (air * side.width()), height / (air * carry.width()));
    layout.origin = {(frame.left + frame.right) / 2 - side.middle() * layout.pixelsPerUnit,
                     (frame.top + frame.bottom) / 2 + carry.middle() * layout.pixelsPerUnit};
    const double half = height / layout.pixelsPerUnit / 2;
    layout.carryAxis = niceAxis(carry.middle() - half, carry.middle() + half, frame.bottom, frame.top,
                                std::max(2, static_cast<int>(height / 90)));
    for (std::size_t c = 0; c < data.clouds.size(); ++c)
        for (const auto& shot : data.clouds[c].shots)
            layout.shots.push_back({layout.place(shot.side, shot.carry), c, shot.shot});
    layout.isEmpty = false;
    return layout;
}

} // namespace knot::picture
