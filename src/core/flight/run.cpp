#include "core/flight/run.h"

#include "core/flight/constants.h"

#include <algorithm>
#include <cmath>

namespace knot::flight {
namespace {

constexpr double friction = 0.4;
constexpr double stillBounces = 0.3; // m/s upward, under which it rolls

struct Firmness {
    double give = 1;    ///< how far the turf gives way, times the usual
    double drag = 0.13; ///< of rolling, times gravity
};

Firmness firmnessOf(Turf turf) {
    switch (turf) {
    case Turf::soft:
        return {1.3, 0.20};
    case Turf::firm:
        return {0.7, 0.10};
    case Turf::usual:
        break;
    }
    return {1, 0.13};
}

// How much of the speed into the ground comes back out of it.
double restitution(double speed) {
    return speed > 20 ? 0.12 : 0.510 - 0.0375 * speed + 0.000903 * speed * speed;
}

// A ball in the plane of its path: forward and downward speed, backspin in rad/s.
struct Falling {
    double forward = 0, down = 0, backspin = 0;
};

// After it touched the ground. The turf gives way as if it sloped toward the ball.
Falling bounced(const Falling& in, const Firmness& firmness) {
    const double speed = std::hypot(in.forward, in.down);
    const double steep = std::atan2(in.down, std::fabs(in.forward)) / degree;
    const double slope = std::copysign(15.4 * firmness.give * (speed / 18.6) * (steep / 44.4) * degree, in.forward);
    // Along and into the slope that the turf makes.
    const double along = in.forward * std::cos(slope) - in.down * std::sin(slope);
    const double into = in.forward * std::sin(slope) + in.down * std::cos(slope);
    const double e = restitution(into);
    const double slip = along + ball::radius * in.backspin;
    const double gripped = 2.0 / 7 * slip;
    const double most = friction * into * (1 + e);
    const double impulse = std::clamp(gripped, -most, most); // per mass, against the slip
    const double alongAfter = along - impulse;
    const double out = e * into;
    return {.forward = alongAfter * std::cos(slope) - out * std::sin(slope),
            .down = -(alongAfter * std::sin(slope) + out * std::cos(slope)),
            .backspin = in.backspin - 2.5 * impulse / ball::radius};
}

} // namespace

Run runAfter(const Flight& flight, Turf turf) {
    Run run;
    if (!(flight.hang > 0))
        return run;
    const Firmness firmness = firmnessOf(turf);
    Falling ball{.forward = flight.speedAtLanding * std::cos(flight.descent * degree),
                 .down = flight.speedAtLanding * std::sin(flight.descent * degree),
                 .backspin = flight.spinAtLanding * 2 * std::numbers::pi / 60};
    for (int bounces = 0; bounces < 50; ++bounces) {
        ball = bounced(ball, firmness);
        const double upward = -ball.down;
        if (upward < stillBounces)
            break;
        run.bounce += ball.forward * 2 * upward / gravity;
        ball.down = upward; // what goes up comes down as fast
    }
    run.roll = std::copysign(ball.forward * ball.forward / (2 * firmness.drag * gravity), ball.forward);
    return run;
}

} // namespace knot::flight
