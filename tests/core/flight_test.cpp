#include "core/flight/flight.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

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
