#include "core/flight/air.h"
#include "core/flight/flight.h"
#include "core/flight/impact.h"
#include "core/flight/run.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot::flight;

TEST_CASE("flights agree with the reference trajectories") {
    const auto reference = knot::test::loadJson("flight");
    for (const auto& row : reference.at("flights")) {
        const auto wind = row.at("wind_ms");
        const Flight flown = fly({row.at("ball_speed_ms"), row.at("launch_deg"), row.at("launch_direction_deg"),
                                  row.at("spin_rpm"), row.at("spin_axis_deg")},
                                 {row.at("air_density"), wind[0], wind[1], wind[2]});
        auto agrees = [&](const char* key, double value) {
            CHECK(value == Approx(row.at(key).get<double>()).epsilon(1e-6).margin(1e-6));
        };
        agrees("carry_m", flown.carry);
        agrees("side_m", flown.side);
        agrees("apex_m", flown.apex);
        agrees("descent_deg", flown.descent);
        agrees("hang_s", flown.hang);
        agrees("spin_at_landing_rpm", flown.spinAtLanding);
    }
}

TEST_CASE("a ball that is not struck upward lands where it stands") {
    for (const Launch& launch :
         {Launch{}, Launch{60, 0, 0, 3000, 0}, Launch{60, -3, 0, 3000, 0}, Launch{60, 12, 0, -5, 0}})
        CHECK(fly(launch).carry == 0);
}

TEST_CASE("left and right mirror each other, and the path ends on the ground") {
    const Flight right = fly({60, 14, 1, 3500, 10}, {}, PathWanted::yes);
    const Flight left = fly({60, 14, -1, 3500, -10});
    CHECK(left.side == Approx(-right.side));
    CHECK(right.side > 5);
    REQUIRE(right.path.size() > 50);
    CHECK(right.path.back().up == 0);
    CHECK(right.path.back().along == right.carry);
}

namespace {

constexpr double degree = 3.14159265358979323846 / 180;

} // namespace

TEST_CASE("without air a ball flies the parabola of the textbook") {
    for (const double angle : {10.0, 30.0, 45.0, 70.0}) {
        const Flight flown = fly({40, angle, 5, 4000, 10}, {.density = 0});
        const double whole = 40 * 40 * std::sin(2 * angle * degree) / 9.80665;
        CHECK(std::hypot(flown.carry, flown.side) == Approx(whole).epsilon(1e-8));
        CHECK(flown.hang == Approx(2 * 40 * std::sin(angle * degree) / 9.80665).epsilon(1e-8));
        CHECK(flown.apex == Approx(std::pow(40 * std::sin(angle * degree), 2) / 2 / 9.80665).epsilon(1e-8));
        CHECK(flown.descent == Approx(angle).epsilon(1e-8));
        CHECK(flown.speedAtLanding == Approx(40).epsilon(1e-8));
    }
}

TEST_CASE("in still air a ball only loses energy, and spin") {
    const Flight flown = fly({70, 12, 0, 2800, 0});
    CHECK(flown.speedAtLanding < 70);
    CHECK(flown.spinAtLanding < 2800);
    CHECK(flown.spinAtLanding > 0.6 * 2800);
}

TEST_CASE("ground that lies lower is reached later and farther, and a hill too high not at all") {
    const Launch launch{55, 18, 0, 6000, 0};
    const Flight level = fly(launch);
    const Flight below = fly(launch, {}, PathWanted::yes, -10);
    const Flight above = fly(launch, {}, PathWanted::no, 10);
    CHECK(below.carry > level.carry + 5);
    CHECK(above.carry < level.carry - 5);
    CHECK(below.hang > level.hang);
    CHECK(below.apex == Approx(level.apex).epsilon(1e-7));
    CHECK(below.path.back().up == -10);
    CHECK(fly(launch, {}, PathWanted::no, level.apex + 1).carry == 0);
}

TEST_CASE("wind that grows with height does less than the same wind everywhere to a low ball") {
    const Launch low{60, 4, 0, 2500, 0};
    const double calm = fly(low).carry;
    const double same = fly(low, {.windAlong = -8}).carry;
    const double growing = fly(low, {.windAlong = -8, .shear = 0.25}).carry;
    CHECK(same < growing);
    CHECK(growing < calm);
    CHECK(fly(low, {.windAlong = -8, .shear = 0}).carry == same);
}

TEST_CASE("the density of air follows the weather as the tables have it") {
    CHECK(densityOf({}) == Approx(1.225).epsilon(1e-4));
    CHECK(densityOf({.temperature = 0}) == Approx(1.2922).epsilon(1e-3));
    CHECK(densityOf({.temperature = 2, .altitude = 2000}) == Approx(1.0066).epsilon(2e-3)); // standard, at 2 °C there
    CHECK(densityOf({.temperature = 30, .humidity = 1}) < densityOf({.temperature = 30}));
    CHECK(densityOf({.temperature = 20, .humidity = 0.5, .pressure = 1013.25}) == Approx(1.1988).epsilon(1e-3));
    CHECK(fly({60, 15, 0, 5000, 0}, {.density = densityOf({.altitude = 1600})}).carry >
          fly({60, 15, 0, 5000, 0}).carry);
}

TEST_CASE("impacts give launches as they are usual for each kind of club") {
    struct Usual {
        HeadKind kind;
        Delivery delivery;
        double smashLow, smashHigh, launchLow, launchHigh, spinLow, spinHigh, carryLow, carryHigh;
    };
    const std::vector<Usual> table = {
        {HeadKind::driver, {.clubSpeed = 45, .dynamicLoft = 14, .attack = -1}, 1.42, 1.5, 9, 13, 2300, 3600, 190, 220},
        {HeadKind::wood, {.clubSpeed = 42, .dynamicLoft = 15, .attack = -3}, 1.4, 1.49, 9, 13, 3200, 4600, 170, 200},
        {HeadKind::iron,
         {.clubSpeed = 37.5, .dynamicLoft = 22, .attack = -4},
         1.32,
         1.44,
         13.5,
         18,
         5800,
         7800,
         145,
         172},
        {HeadKind::wedge, {.clubSpeed = 34, .dynamicLoft = 38, .attack = -5}, 1.1, 1.28, 23, 30, 8000, 10500, 95, 125},
    };
    for (const Usual& usual : table) {
        const Launch launch = launchOf(usual.delivery, usualHead(usual.kind));
        const double smash = launch.ballSpeed / usual.delivery.clubSpeed;
        INFO("kind " << static_cast<int>(usual.kind));
        CHECK((usual.smashLow < smash && smash < usual.smashHigh));
        CHECK((usual.launchLow < launch.launch && launch.launch < usual.launchHigh));
        CHECK((usual.spinLow < launch.spin && launch.spin < usual.spinHigh));
        const double carry = fly(launch).carry;
        CHECK((usual.carryLow < carry && carry < usual.carryHigh));
        CHECK(launch.direction == Approx(0).margin(1e-9));
        CHECK(launch.spinAxis == Approx(0).margin(1e-9));
    }
}

TEST_CASE("an impact turns as every player knows it") {
    const Head driver = usualHead(HeadKind::driver);
    const Delivery square{.clubSpeed = 45, .dynamicLoft = 14, .attack = -1};
    auto with = [&](auto change) {
        Delivery delivery = square;
        change(delivery);
        return launchOf(delivery, driver);
    };
    const Launch straight = launchOf(square, driver);
    const Launch open = with([](Delivery& d) { d.face = 3; });
    CHECK(open.direction > 2); // near where the face points
    CHECK(open.direction < 3);
    CHECK(open.spinAxis > 5);
    const Launch inside = with([](Delivery& d) { d.path = 3; });
    CHECK(inside.spinAxis < -5);
    CHECK(inside.direction < 1);
    const Launch toe = with([](Delivery& d) { d.strikeToe = 12; });
    const Launch heel = with([](Delivery& d) { d.strikeToe = -12; });
    CHECK(toe.ballSpeed < straight.ballSpeed);
    CHECK(toe.spinAxis < 0); // starts right and curves back
    CHECK(toe.direction > 0);
    CHECK(heel.spinAxis == Approx(-toe.spinAxis));
    const Launch left = with([](Delivery& d) {
        d.strikeToe = 12;
        d.leftHanded = true;
    });
    CHECK(left.spinAxis == Approx(-toe.spinAxis));
    const Launch high = with([](Delivery& d) { d.strikeHigh = 10; });
    CHECK(high.launch > straight.launch);
    CHECK(high.spin < straight.spin);
    CHECK(launchOf(square, driver, {.restitution = -0.03}).ballSpeed < straight.ballSpeed);
    CHECK(launchOf(square, driver, {.spin = 1.1}).spin > straight.spin);
    CHECK(with([](Delivery& d) { d.clubSpeed = 0; }).ballSpeed == 0);
}

TEST_CASE("a flat landing runs, a steep one stops, and firm ground lets both run farther") {
    const Flight drive = fly({65, 11, 0, 2600, 0});
    const Flight wedge = fly({40, 28, 0, 9500, 0});
    CHECK(runAfter(drive).length() > 15);
    CHECK(runAfter(drive).length() < 50);
    CHECK(std::fabs(runAfter(wedge).length()) < 3);
    CHECK(runAfter(drive, Turf::soft).length() < runAfter(drive).length());
    CHECK(runAfter(drive, Turf::firm).length() > runAfter(drive).length());
    CHECK(runAfter(Flight{}).length() == 0);
}
