#include "core/judge/gaps/average.h"
#include "core/plan/power.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

using namespace knot;
using plan::PairPlan;

namespace {

PairPlan planOf(const nlohmann::json& row) {
    const double turn = row.at("sd_turn");
    const double shot = row.at("sd_shot");
    return {.varTurn = turn * turn,
            .varShot = shot * shot,
            .rounds = row.at("rounds"),
            .turnLength = row.at("turn_length")};
}

} // namespace

TEST_CASE("power and smallest visible gap agree with the reference") {
    const auto facts = knot::test::loadJson("facts");
    for (const auto& row : facts.at("power"))
        CHECK(plan::powerToSee(planOf(row), row.at("delta"), 0.05) ==
              Approx(row.at("power").get<double>()).epsilon(1e-6));
    for (const auto& row : facts.at("smallest_gap_80"))
        CHECK(plan::smallestGap(planOf(row), 0.8, 0.05) == Approx(row.at("gap").get<double>()).epsilon(1e-6));
}

TEST_CASE("power grows with rounds and gap, and the power of no gap is the level") {
    const PairPlan small{.varTurn = 1, .varShot = 9, .rounds = 4, .turnLength = 3};
    PairPlan large = small;
    large.rounds = 12;
    CHECK(plan::powerToSee(small, 0, 0.05) == Approx(0.05).epsilon(1e-9));
    CHECK(plan::powerToSee(large, 3, 0.05) > plan::powerToSee(small, 3, 0.05));
    CHECK(plan::powerToSaySame(large, 3, 0.05) > plan::powerToSaySame(small, 3, 0.05));
    CHECK(plan::powerToSaySame(small, 1e-6, 0.05) < 1e-3);
    const PairPlan two{.varTurn = 1, .varShot = 9, .rounds = 2, .turnLength = 3};
    CHECK(plan::smallestGap(two, 0.8, 0.005) > 100); // two rounds, a strict level: next to nothing is seen
}

TEST_CASE("the power to see a spread or an area is the level where they are alike, and grows") {
    CHECK(plan::powerToSeeSpread(20, 1, 0.05) == Approx(0.05).epsilon(1e-9));
    CHECK(plan::powerToSeeArea(20, 1, 0.05) == Approx(0.05).epsilon(1e-9));
    CHECK(plan::powerToSeeSpread(20, 2, 0.05) == Approx(plan::powerToSeeSpread(20, 0.5, 0.05)).epsilon(1e-9));
    CHECK(plan::powerToSeeSpread(40, 2, 0.05) > plan::powerToSeeSpread(20, 2, 0.05));
    CHECK(plan::powerToSeeArea(40, 2, 0.05) > plan::powerToSeeArea(20, 2, 0.05));
}

TEST_CASE("further rounds count what is still missing, up to more than can be hit") {
    judge::FurtherRoundsInput input{
        .varTurn = 0.5, .varShot = 4, .margin = 2.7, .alpha = 0.05, .turnLength = 3, .roundsDone = 0};
    const int total = judge::furtherRounds(input);
    CHECK(total > 2);
    CHECK(total < 20);
    input.roundsDone = 3;
    CHECK(judge::furtherRounds(input) == total - 3);
    input.roundsDone = 100;
    CHECK(judge::furtherRounds(input) == 0);
    input.margin = 0.05;
    CHECK(judge::furtherRounds(input) > judge::tooManyRounds);
}
