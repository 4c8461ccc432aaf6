#include "core/judge/columns.h"
#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using record::Metric;

TEST_CASE("a scenario strikes the same shots for a seed and others for another") {
    const auto& scenario = *simulate::scenarioByKey("five-wood");
    CHECK(simulate::testFrom(scenario) == simulate::testFrom(scenario));
    CHECK(!(simulate::testFrom(scenario, {.seed = 1}) == simulate::testFrom(scenario, {.seed = 2})));
}

TEST_CASE("a rotated test holds every build once a lap, and repeats are logged as handed over") {
    for (const auto& scenario : simulate::scenarios()) {
        const auto test = simulate::testFrom(scenario);
        const auto structure = record::structureOf(test);
        std::vector<int> turns(test.builds.size(), 0);
        for (const auto& turn : structure.turns)
            if (turn.round)
                ++turns[turn.build];
        const int expected = scenario.schedule == simulate::Schedule::oneRunEach ? 1 : scenario.rounds;
        for (const int count : turns)
            CHECK(count == expected);
    }
}

TEST_CASE("the shots are those of real clubs") {
    for (const auto& scenario : simulate::scenarios())
        for (const auto& shot : simulate::testFrom(scenario).shots) {
            CHECK(*shot.readings.at(Metric::carry) > 50);
            CHECK(*shot.readings.at(Metric::carry) < 300);
            CHECK(*shot.readings.at(Metric::smash) > 0.9);
            CHECK(*shot.readings.at(Metric::smash) < 1.56);
            CHECK(*shot.readings.at(Metric::spin) > 600);
            CHECK(*shot.readings.at(Metric::total) > *shot.readings.at(Metric::carry) - 5);
        }
}

TEST_CASE("warming up raises club speed over the first shots, and only there") {
    const auto test = simulate::testFrom(*simulate::scenarioByKey("cold-start"), {.seed = 4, .turnLength = 60});
    auto meanSpeed = [&](std::size_t from, std::size_t to) {
        std::vector<double> values;
        for (std::size_t i = from; i < to; ++i)
            values.push_back(*test.shots[i].readings.at(Metric::clubSpeed));
        return judge::meanOf(values);
    };
    CHECK(meanSpeed(50, 60) - meanSpeed(0, 5) > 1.0);
    CHECK(std::fabs(meanSpeed(90, 120) - meanSpeed(60, 90)) < 0.6);
}

TEST_CASE("the demo tells its stories") {
    auto verdict = [](const char* key, Metric metric, std::size_t build) {
        const auto test = simulate::testFrom(*simulate::scenarioByKey(key));
        return judge::judge({.subject = judge::Case::of(test)})
            ->averageOf(metric, record::BuildAt(build), record::BuildAt(0))
            ->claim.verdict;
    };
    CHECK(verdict("five-wood", Metric::carry, 1) == judge::Verdict::real);
    CHECK(verdict("five-wood", Metric::carry, 2) == judge::Verdict::open);
    CHECK(verdict("wedge-loft", Metric::carry, 1) == judge::Verdict::slight);
    CHECK(verdict("cold-start", Metric::ballSpeed, 1) == judge::Verdict::uncontrolled);
    CHECK(verdict("same-ball", Metric::carry, 1) == judge::Verdict::same);
}
