// Ways to spend the same minutes: what each sees, against what is known in closed form and by drawing; and the clocks.
#include "core/plan/measured_pace.h"
#include "core/plan/power.h"
#include "core/plan/spreads.h"
#include "core/plan/ways.h"
#include "core/random.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using plan::Way;
using record::Metric;

namespace {

plan::WaysOf ballSpeed(double changeSeconds) {
    const plan::Spreads struck = plan::usualSpreads(Metric::ballSpeed, plan::Level::club);
    const plan::Spreads equal = plan::atEqualDelivery(struck);
    return {.question = {.sdTurn = struck.sdTurn,
                         .sdShot = struck.sdShot,
                         .gap = record::info(Metric::ballSpeed).worthwhileGap,
                         .alpha = 0.05,
                         .builds = 2},
            .pace = {.changeSeconds = changeSeconds, .shotSeconds = 30},
            .turnLength = 5,
            .equalShot = equal.sdShot,
            .equalTurn = equal.sdTurn};
}

double chance(Way way, const plan::WaysOf& ways, double minutes) {
    const auto option = plan::bestOfWay(way, ways, minutes);
    return option ? option->chance : 0;
}

record::Test clocked(double change, double shot, record::TestKind kind) {
    record::Test test;
    test.card.kind = kind;
    test.builds = {{.name = "Reed"}, {.name = "Alder"}};
    double seconds = 0;
    for (int turn = 0; turn < 8; ++turn)
        for (int i = 0; i < 3; ++i) {
            seconds += turn == 4 && i == 0 ? 3000 : shot + (i == 0 ? change : 0); // a pause in the middle
            const int whole = static_cast<int>(seconds);
            record::Shot one{.build = record::BuildAt(static_cast<std::size_t>(turn % 2))};
            one.turn = std::to_string(turn);
            one.round = std::to_string(turn / 2);
            one.sitting = "1";
            char text[32];
            std::snprintf(text, sizeof text, "2026-05-02T%02d:%02d:%02d", 9 + whole / 3600, whole / 60 % 60,
                          whole % 60);
            one.takenAt = text;
            test.shots.push_back(one);
        }
    test.nameShots();
    return test;
}

} // namespace

TEST_CASE("the best stints see at least what stints as planned do, and short ones where changes are quick") {
    for (const double change : {5.0, 40.0, 180.0})
        for (const double minutes : {20.0, 45.0, 90.0}) {
            const auto ways = ballSpeed(change);
            CHECK(chance(Way::shortStints, ways, minutes) >= chance(Way::asPlanned, ways, minutes));
            CHECK(chance(Way::equalDelivery, ways, minutes) > 0);
            CHECK(chance(Way::twoSittings, ways, minutes) > chance(Way::shortStints, ways, minutes));
            CHECK(chance(Way::withLooks, ways, minutes) <= chance(Way::shortStints, ways, minutes) + 0.03);
        }
    CHECK(plan::bestOfWay(Way::shortStints, ballSpeed(5), 60)->turnLength == 1);
    CHECK(plan::bestOfWay(Way::shortStints, ballSpeed(180), 60)->turnLength >= 3);
    CHECK_FALSE(plan::bestOfWay(Way::shortStints, ballSpeed(5), 1));
    const auto fits = *plan::bestOfWay(Way::asPlanned, ballSpeed(40), 45);
    CHECK(fits.minutes <= 45);
    CHECK(fits.turnLength == 5);
    CHECK(plan::minutesFor(ballSpeed(40).question, ballSpeed(40).pace, fits.rounds + 1, 5) > 45);
}

TEST_CASE("minutes to eighty in a hundred are the least ones, and nothing where it is out of reach") {
    const auto ways = ballSpeed(10);
    for (const Way way : {Way::shortStints, Way::equalDelivery, Way::twoSittings}) {
        const auto least = plan::toSeeBy(way, ways);
        REQUIRE(least);
        CHECK(least->chance >= 0.8);
        CHECK(chance(way, ways, least->minutes - 2) < 0.8);
    }
    CHECK_FALSE(plan::toSeeBy(Way::threeEach, ways));
    CHECK_FALSE(plan::toSeeBy(Way::shortStints, ways, 5));
}

TEST_CASE("looks claim as often as they may where nothing is there, and sooner the larger the gap") {
    plan::Question question = ballSpeed(10).question;
    const auto none = plan::withLooks(question, 12, 1, 0, 20000);
    CHECK(none.chance < 0.05);
    CHECK(none.meanLaps > 11);
    double before = 12;
    for (const double times : {1.0, 2.0, 3.0}) {
        const auto looked = plan::withLooks(question, 12, 1, times, 20000);
        CHECK(looked.meanLaps < before);
        before = looked.meanLaps;
        const plan::PairPlan pair{.varTurn = question.sdTurn * question.sdTurn,
                                  .varShot = question.sdShot * question.sdShot,
                                  .rounds = 12,
                                  .turnLength = 1};
        const double fixed = plan::powerToSee(pair, times * question.gap, question.alpha);
        CHECK(looked.chance < fixed + 0.01); // a look is paid for
        CHECK(looked.chance > fixed - 0.2);
    }
    CHECK(plan::withLooks(question, 1, 1, 1).chance == 0);
}

TEST_CASE(
    "what a player's shots scatter by at equal delivery is learnt from their own, and else a share is taken off") {
    Random random(7);
    record::Test test;
    test.builds = {{.name = "Reed"}, {.name = "Alder"}};
    for (int turn = 0; turn < 40; ++turn) {
        const double own = 0.5 * random.normal();
        for (int i = 0; i < 5; ++i) {
            const double swing = random.normal();
            record::Shot shot{.build = record::BuildAt(static_cast<std::size_t>(turn % 2))};
            shot.turn = std::to_string(turn);
            shot.round = std::to_string(turn / 2);
            shot.sitting = "1";
            shot.readings.measure(Metric::clubSpeed, 40 + swing);
            shot.readings.measure(Metric::carry, 150 + own + std::sqrt(0.7) * swing + std::sqrt(0.3) * random.normal());
            test.shots.push_back(shot);
        }
    }
    test.nameShots();
    const auto struck = *plan::ownSpreads({test}, Metric::carry);
    const auto equal = *plan::ownSpreadsAtEqual({test}, Metric::carry, {Metric::clubSpeed});
    CHECK(struck.sdShot == Approx(1).margin(0.12));
    CHECK(equal.sdShot == Approx(std::sqrt(0.3)).margin(0.07));
    CHECK(equal.sdTurn == Approx(0.5).margin(0.2));
    CHECK_FALSE(plan::ownSpreadsAtEqual({test}, Metric::carry, {}));
    CHECK_FALSE(plan::ownSpreadsAtEqual({test}, Metric::carry, {Metric::attack}));
    CHECK_FALSE(plan::ownSpreadsAtEqual({test}, Metric::carry, {Metric::clubSpeed, Metric::clubSpeed}));
    const auto usual = plan::atEqualDelivery({.sdTurn = 1, .sdShot = 2});
    CHECK(usual.sdShot * usual.sdShot == Approx(4 * 0.7));
    CHECK(usual.sdTurn == 1);
}

TEST_CASE("how long changes and shots take is read off the sittings' own clocks, pauses left out") {
    const auto test = clocked(40, 20, record::TestKind::shaft);
    const auto pace = plan::measuredPace({test}, record::TestKind::shaft);
    CHECK(pace.shotSeconds == Approx(20));
    CHECK(pace.changeSeconds == Approx(40));
    CHECK(plan::measuredPace({test}, record::TestKind::loft) == plan::MeasuredPace{});
    auto untimed = test;
    for (auto& shot : untimed.shots)
        shot.takenAt = {};
    CHECK_FALSE(plan::measuredPace({untimed}, record::TestKind::shaft).shotSeconds);
    CHECK_FALSE(plan::measuredPace({}, record::TestKind::shaft).changeSeconds);
}

TEST_CASE("two days have twice the laps and twice the degrees of freedom of one") {
    const auto ways = ballSpeed(60);
    const auto two = plan::bestOfWay(Way::twoSittings, ways, 20);
    REQUIRE(two);
    const plan::PairPlan pair{.varTurn = ways.question.sdTurn * ways.question.sdTurn,
                              .varShot = ways.question.sdShot * ways.question.sdShot,
                              .rounds = static_cast<double>(two->rounds),
                              .turnLength = static_cast<double>(two->turnLength)};
    CHECK(two->chance == Approx(plan::powerFor(pair.standardError() / std::sqrt(2.0), 2 * pair.df(), ways.question.gap,
                                               ways.question.alpha)));
}
