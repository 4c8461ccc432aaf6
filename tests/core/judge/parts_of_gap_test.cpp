// Where a gap comes from, by a model of flight.
#include "core/judge/flown.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::test;
using record::Metric;

TEST_CASE("the parts of a gap make the measured gap, and where the model flew the shots hardly anything is left") {
    const auto reading = readingOfTest(flownTest());
    const auto* carry = rowOf(reading.parts, Metric::carry);
    REQUIRE(carry != nullptr);
    double sum = carry->rest;
    for (const auto& part : carry->parts) {
        sum += part.value;
        REQUIRE(part.ci95);
        CHECK(part.ci95->contains(part.value));
    }
    CHECK(sum == Approx(carry->measured).epsilon(1e-12));
    CHECK(carry->measured == Approx(reading.averageOf(Metric::carry, carry->build, carry->against)->gap));
    CHECK(std::fabs(carry->rest) < 0.05 * std::fabs(carry->measured) + 0.05);
    REQUIRE(carry->parts.size() == 5);
    CHECK(carry->parts[0].input == "club_speed");
    CHECK(carry->parts[0].value > 1); // half a metre a second faster
    CHECK(std::fabs(carry->parts[4].value) < 0.1);
    REQUIRE(rowOf(reading.parts, Metric::side) != nullptr);
    CHECK(rowOf(reading.parts, Metric::apex) == nullptr); // nobody read it

    SECTION("the other way round each part changes its sign") {
        record::Test turned = flownTest();
        turned.card.baseline = "Fern";
        const auto other = readingOfTest(turned);
        const auto* back = rowOf(other.parts, Metric::carry);
        for (std::size_t p = 0; p < carry->parts.size(); ++p)
            CHECK(back->parts[p].value == Approx(-carry->parts[p].value).epsilon(1e-9).margin(1e-9));
    }
    SECTION("without club speed the ball's stands for both, and the sum is the same") {
        record::Test test = flownTest();
        for (auto& shot : test.shots) {
            shot.readings.clear(Metric::clubSpeed);
            shot.readings.clear(Metric::smash);
        }
        const auto other = readingOfTest(test);
        const auto* less = rowOf(other.parts, Metric::carry);
        REQUIRE(less->parts.size() == 4);
        CHECK(less->parts[0].input == "ball_speed");
        CHECK(less->parts[0].value == Approx(carry->parts[0].value + carry->parts[1].value).margin(0.02));
        CHECK(less->modelled == Approx(carry->modelled).epsilon(1e-9));
    }
    SECTION("a direction that was not read is no 0: such shots are left out, and where few are read the part is") {
        // All start left of the line; of one club every other direction is not read.
        record::Test test = flownTest();
        std::size_t of = 0;
        for (auto& shot : test.shots) {
            const double left = *shot.readings.at(Metric::launchDirection) - 3;
            shot.readings.measure(Metric::side, *shot.readings.at(Metric::side) - 8);
            shot.readings.measure(Metric::launchDirection, left);
            if (test.builds[shot.build].name == "Fern" && ++of % 3 == 0)
                shot.readings.clear(Metric::launchDirection);
        }
        const auto gaps = readingOfTest(test);
        const auto* side = rowOf(gaps.parts, Metric::side);
        REQUIRE(side->parts.size() == 5);
        CHECK(side->parts[4].input == "direction");
        CHECK(std::fabs(side->rest) < 0.7); // counted as 0 it was 2.8 m
        for (auto& shot : test.shots) {
            shot.readings.clear(Metric::launchDirection);
            shot.readings.clear(Metric::spinAxis);
        }
        const auto without = readingOfTest(test);
        for (const auto& part : rowOf(without.parts, Metric::carry)->parts)
            CHECK(part.input != "direction");
    }
    SECTION("what comes with the factor in weight has the size that the models give it") {
        record::Test test = flownTest();
        test.card.clubKind = "5-wood";
        for (auto& shot : test.shots)
            shot.readings.measure(Metric::dynamicLoft, 22);
        for (auto& build : test.builds) {
            const bool fern = build.name == "Fern";
            build.club.head.mass = fern ? 228 : 218;
            build.club.shaft.mass = fern ? 55 : 65;
            build.club.shaft.length = 1050;
            build.club.grip.mass = 50;
            build.club.length = 1073;
        }
        const auto weighed = readingOfTest(test);
        const auto of = rowOf(weighed.parts, Metric::carry)->ofMass;
        REQUIRE(of);
        CHECK(*of->head == Approx(10));
        // A ball leaves a free head of mass M as 1/(1 + m/M) says: 0.0459 kg against 0.23 and 0.24.
        CHECK(*of->ballSpeed == Approx(52.6 * ((1 + 0.0459 / 0.23) / (1 + 0.0459 / 0.24) - 1)).epsilon(0.1));
        CHECK(*of->value > 0.3);
        CHECK(*of->swingWeight > 2);
        CHECK_FALSE(of->whole); // ten grams moved from the shaft to the head
        CHECK(isSaid(weighed, "parts_of_head_mass", "10 g more at the head"));
        CHECK(isSaid(weighed, "parts_of_weight", "by the models nothing at the same club speed"));
        for (auto& build : test.builds)
            build.club.head.mass = 218;
        const auto shaft = readingOfTest(test);
        CHECK_FALSE(rowOf(shaft.parts, Metric::carry)->ofMass->head);
        CHECK(*rowOf(shaft.parts, Metric::carry)->ofMass->whole == Approx(-10));
        CHECK_FALSE(isSaid(shaft, "parts_of_head_mass"));
        for (auto& build : test.builds)
            build.club.shaft.mass = 60;
        CHECK_FALSE(rowOf(readingOfTest(test).parts, Metric::carry)->ofMass);
    }
    SECTION("heads of another loft say what that alone would do") {
        record::Test test = flownTest();
        for (auto& shot : test.shots)
            shot.readings.measure(Metric::dynamicLoft, 22);
        for (auto& build : test.builds)
            build.club.head.loft = build.name == "Fern" ? 30 : 32;
        const auto of = rowOf(readingOfTest(test).parts, Metric::carry)->ofLoft;
        REQUIRE(of);
        CHECK(of->loft == Approx(-2));
        CHECK(of->launch < -1);
        CHECK(of->spin < -200);
        CHECK(of->ballSpeed > 0);
    }
}

TEST_CASE("no parts are made up where the flight is not read") {
    TestBuilder builder;
    builder.turn("Slate", "", {150, 152, 151}).turn("Fern", "", {155, 154, 153});
    CHECK(readingOfTest(builder.test).parts.empty());
}
