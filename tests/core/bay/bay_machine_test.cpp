// Every bay command in every phase, in any order: a warm-up swing stays one, no lap is had twice, ids
// stay with their shots, the case takes whatever comes.
#include "bay_machine.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::bay;

namespace {

void runAnything(bool alone, record::Stage stage) {
    CHECK(rc::check([=] {
        Machine machine(plannedTest(alone, stage));
        // Struck more often than anything else, so that runs get somewhere.
        const auto steps = *rc::gen::container<std::vector<int>>(rc::gen::inRange(0, 2 * commandCount));
        for (const int step : steps) {
            const auto command = step < commandCount ? static_cast<Command>(step)
                                 : step % 3 == 0     ? Command::confirm
                                                     : Command::hit;
            machine.run(command, static_cast<std::size_t>(*rc::gen::inRange(0, 1000)));
        }
    }));
}

} // namespace

TEST_CASE("whatever is done in the bay, a planned test stays whole") {
    runAnything(false, record::Stage::test);
}

TEST_CASE("whatever is done in the bay, a test struck alone stays whole") {
    runAnything(true, record::Stage::test);
}

TEST_CASE("whatever is done in the bay, a screening stays whole") {
    runAnything(false, record::Stage::screening);
}

TEST_CASE("a warm-up swing that is called a mishit stays a warm-up swing") {
    record::Test test = plannedTest(false, record::Stage::test);
    Arrival swing{.at = "2026-05-02T09:00:00.000"};
    swing.readings.measure(Metric::carry, 120);
    swing.called = true;
    addShot(test, swing);
    REQUIRE(test.shots.size() == 1);
    CHECK(test.shots[0].status == ShotStatus::warmUp);
    const auto called = changeStatus(test, test.shots[0].id, ShotStatus::setAside, Moment::beforeNumber, "called");
    REQUIRE(!called);
    CHECK(called.error() == WhyNot::warmUp);
    const auto counted = changeStatus(test, test.shots[0].id, ShotStatus::counted, Moment::beforeNumber);
    REQUIRE(!counted);
    CHECK(counted.error() == WhyNot::warmUp);
    CHECK(record::structureOf(test).rounds.empty());
}

TEST_CASE("the table of statuses answers every question, and says why not") {
    const ShotStatus all[] = {ShotStatus::counted, ShotStatus::setAside, ShotStatus::warmUp};
    for (const ShotStatus from : all)
        for (const ShotStatus to : all)
            for (const Moment moment : {Moment::beforeNumber, Moment::afterNumber, Moment::afterReveal}) {
                record::Test test = plannedTest(false, record::Stage::test);
                record::Shot shot;
                shot.status = from;
                shot.readings.measure(Metric::carry, 150);
                test.shots = {shot};
                test.nameShots();
                const auto before = test;
                const auto changed = changeStatus(test, ShotId{1}, to, moment, "why");
                const bool may = from != to && from != ShotStatus::warmUp && to != ShotStatus::warmUp;
                REQUIRE(changed.has_value() == may);
                if (!may) {
                    CHECK(test == before);
                    continue;
                }
                CHECK(test.shots[0].status == to);
                CHECK(test.shots[0].reason == (to == ShotStatus::setAside ? "why" : ""));
                CHECK(test.shots[0].isSetAsideLate() == (to == ShotStatus::setAside && moment != Moment::beforeNumber));
            }
    record::Test test = plannedTest(false, record::Stage::test);
    CHECK(changeStatus(test, ShotId{7}, ShotStatus::setAside, Moment::afterNumber).error() == WhyNot::noSuchShot);
}

TEST_CASE("one more lap of a sandwich begins and ends with the own club") {
    record::Test test = plannedTest(false, record::Stage::test);
    test.card.baseline = "Slate";
    test.plan.schedule = record::Schedule::sandwich;
    plan::makeCourse(test);
    const std::size_t lap = test.turns.size() / 2;
    REQUIRE(addRound(test, 5));
    REQUIRE(test.turns.size() == 3 * lap);
    CHECK(test.turns[2 * lap].build == 1);
    CHECK(test.turns.back().build == 1);
    CHECK(std::ranges::count_if(test.turns, [](const auto& turn) { return turn.round == 3; }) ==
          static_cast<std::ptrdiff_t>(lap));
}

TEST_CASE("a club that was struck off is not in hand, and none is where all were") {
    record::Test test = plannedTest(false, record::Stage::screening);
    takeInHand(test, record::BuildAt(2));
    setStanding(test, record::BuildAt(2), record::Standing::What::struckOff, 1, "too low");
    CHECK(standOf(test).as<Free>()->build == record::BuildAt(1));
    addShot(test, {.at = "2026-05-02T09:00:00.000"});
    CHECK(test.shots.back().build == 1);
    for (record::BuildAt club; club < test.builds.size(); ++club)
        setStanding(test, club, record::Standing::What::struckOff, 1, "x");
    CHECK(!standOf(test).as<Free>()->build);
}
