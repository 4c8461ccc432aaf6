#include "core/reach/reached.h"

namespace knot::reach {
namespace {

using flight::HeadKind;

double carryOf(double ballSpeed, double launch, double spin) {
    constexpr double tolerance = 1e-7;
    return flight::fly({.ballSpeed = ballSpeed, .launch = launch, .spin = spin}, {}, flight::PathWanted::no, 0,
                       tolerance)
        .carry;
}

// What two degrees more of delivered loft do to this launch: the impact model's change added to what was measured.
double twoMore(const Means& means, double clubSpeed, double carryNow) {
    constexpr double degrees = 2;
    const flight::Head head = flight::usualHead(HeadKind::driver);
    // The loft that the model needs for this launch.
    double low = 0;
    double high = 40;
    const auto launchAt = [&](double loft) {
        return flight::launchOf({.clubSpeed = clubSpeed, .dynamicLoft = loft, .attack = means.attack}, head);
    };
    for (int i = 0; i < 40; ++i) {
        const double middle = (low + high) / 2;
        (launchAt(middle).launch < means.launch.launch ? low : high) = middle;
    }
    const flight::Launch now = launchAt(low);
    const flight::Launch then = launchAt(low + degrees);
    return carryOf(means.launch.ballSpeed + then.ballSpeed - now.ballSpeed,
                   means.launch.launch + then.launch - now.launch, means.launch.spin + then.spin - now.spin) -
           carryNow;
}

} // namespace

std::optional<Reached> reachedBy(const Means& means) {
    const double ball = means.launch.ballSpeed;
    const auto club = clubSpeedFor(HeadKind::driver, ball, means.attack);
    if (!club)
        return std::nullopt;
    const flight::Launch best = bestOf({.kind = HeadKind::driver, .clubSpeed = *club, .attack = means.attack}).launch;
    const flight::Launch& own = means.launch;
    const double now = carryOf(ball, own.launch, own.spin);
    const double launched = carryOf(ball, best.launch, own.spin);
    const double spun = carryOf(ball, own.launch, best.spin);
    const double both = carryOf(ball, best.launch, best.spin);
    Reached reached{.carry = means.carry};
    reached.byLaunch = ((launched - now) + (both - spun)) / 2;
    reached.bySpin = ((spun - now) + (both - launched)) / 2;
    reached.withBallSpeed = means.carry + both - now;
    reached.perBallSpeed = carryOf(ball + 1, own.launch, own.spin) - now;
    reached.twoDegreesMore = twoMore(means, means.clubSpeed.value_or(*club), now);
    if (means.clubSpeed) {
        const Try usual = bestOf({.kind = HeadKind::driver, .clubSpeed = *means.clubSpeed, .attack = means.attack});
        reached.withClubSpeed = means.carry + usual.distance - now;
        reached.byEfficiency = *reached.withClubSpeed - reached.withBallSpeed;
    }
    return reached;
}

} // namespace knot::reach
