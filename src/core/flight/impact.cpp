#include "core/flight/impact.h"

#include "core/flight/constants.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::flight {
namespace {

// along, right, up
using Vector = std::array<double, 3>;

Vector times(const Vector& v, double scale) {
    return {scale * v[0], scale * v[1], scale * v[2]};
}
Vector plus(const Vector& a, const Vector& b) {
    return {a[0] + b[0], a[1] + b[1], a[2] + b[2]};
}
double dot(const Vector& a, const Vector& b) {
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}

// A direction by its angles: right of the target line and upward.
Vector pointing(double right, double upward) {
    return {std::cos(upward * degree) * std::cos(right * degree), std::cos(upward * degree) * std::sin(right * degree),
            std::sin(upward * degree)};
}

// How much a curved face turns at a strike off its middle, degrees.
double turnOfFace(double offMm, double radius) {
    return radius > 0 ? std::asin(std::clamp(offMm / 1000 / radius, -1.0, 1.0)) / degree : 0;
}

} // namespace

Head usualHead(HeadKind kind) {
    switch (kind) {
    case HeadKind::driver:
        return {};
    case HeadKind::wood:
        return {.mass = 0.23,
                .restitution = 0.815,
                .grip = 0.95,
                .inertiaUp = 2.8e-4,
                .inertiaAcross = 1.9e-4,
                .depth = 0.025};
    case HeadKind::iron:
        return {.mass = 0.27,
                .restitution = 0.80,
                .grip = 1.3,
                .inertiaUp = 2.4e-4,
                .inertiaAcross = 0.7e-4,
                .depth = 0.006,
                .bulge = 0,
                .roll = 0};
    case HeadKind::wedge:
        return {.mass = 0.30,
                .restitution = 0.79,
                .grip = 1.25,
                .inertiaUp = 2.8e-4,
                .inertiaAcross = 0.9e-4,
                .depth = 0.004,
                .bulge = 0,
                .roll = 0};
    }
    return {};
}

Launch launchOf(const Delivery& delivery, const Head& head, const Ball& ball) {
    const double outward = delivery.leftHanded ? -1 : 1; // a right-handed player's toe points right of the line
    const double toe = outward * delivery.strikeToe;
    const double face = delivery.face + turnOfFace(toe, head.bulge);
    const double loft = delivery.dynamicLoft + turnOfFace(delivery.strikeHigh, head.roll);
    const Vector normal = pointing(face, loft);
    const Vector club = times(pointing(delivery.path, delivery.attack), delivery.clubSpeed);
    const double into = dot(club, normal);
    if (!(into > 0))
        return {};
    Vector across = plus(club, times(normal, -into));
    // Off the middle a free head gives way as if it were lighter.
    const double toeM = toe / 1000;
    const double highM = delivery.strikeHigh / 1000;
    const double lightness = 1 / head.mass + toeM * toeM / head.inertiaUp + highM * highM / head.inertiaAcross;
    const double restitution = std::clamp(head.restitution + ball.restitution - 0.002 * (into - 40), 0.0, 0.95);
    const double normalSpeed = (1 + restitution) * into / (1 + flight::ball::mass * lightness);
    // Pushed back beside its centre of mass, which lies behind the face, the head turns, and its face moves sideways
    // toward the strike while the ball leaves, rolling on it.
    const double push = flight::ball::mass * normalSpeed;
    const Vector rightward = pointing(face + 90, 0);
    const Vector upward = {-std::sin(loft * degree) * std::cos(face * degree),
                           -std::sin(loft * degree) * std::sin(face * degree), std::cos(loft * degree)};
    across = plus(across, times(rightward, push * toeM / head.inertiaUp * head.depth));
    across = plus(across, times(upward, push * highM / head.inertiaAcross * head.depth));
    const double slide = std::sqrt(dot(across, across));
    const double grip = head.grip * ball.spin;
    const Vector leaving = plus(times(normal, normalSpeed), times(across, 2.0 / 7 * grip));
    Launch launch;
    launch.ballSpeed = std::sqrt(dot(leaving, leaving));
    launch.launch = std::asin(leaving[2] / launch.ballSpeed) / degree;
    launch.direction = std::atan2(leaving[1], leaving[0]) / degree;
    launch.spin = 5.0 / 7 * grip * slide / flight::ball::radius * 60 / (2 * std::numbers::pi);
    // The ball turns as the face drags it: downward across the face is backspin, leftward across it curves right.
    launch.spinAxis = std::atan2(-dot(across, rightward), -dot(across, upward)) / degree;
    return launch;
}

} // namespace knot::flight
