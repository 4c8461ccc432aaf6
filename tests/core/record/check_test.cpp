// What may not be kept, since it could not be read back, and what goes when a club does.
#include "core/plan/course.h"
#include "core/record/check.h"
#include "core/record/structure.h"
#include "files/test_json.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <functional>
#include <limits>

using namespace knot::record;

namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();

Test sound() {
    Test test;
    test.builds = {{.name = "A"}, {.name = "B"}, {.name = "C"}};
    test.turns = {{BuildAt(0), 1, 2}, {BuildAt(2), 1, 2}};
    Shot shot;
    shot.build = BuildAt(2);
    shot.readings.measure(Metric::carry, 150);
    test.shots = {shot, shot};
    test.nameShots();
    return test;
}

} // namespace

TEST_CASE("each thing that can't be read back is named in a sentence") {
    struct Row {
        const char* part; ///< of the sentence
        std::function<void(Test&)> harm;
    };
    const Row rows[] = {
        {"worthwhile gap in carry", [](Test& t) { t.card.margins[Metric::carry] = infinite; }},
        {"worthwhile gap in carry", [](Test& t) { t.card.margins[Metric::carry] = 0; }},
        {"worthwhile gap in side", [](Test& t) { t.card.margins[Metric::side] = std::nan(""); }},
        {"ratio of spreads", [](Test& t) { t.card.sdRatioMargin = 1; }},
        {"error rate", [](Test& t) { t.card.alpha = 1; }},
        {"planned laps", [](Test& t) { t.card.plannedRounds = -1; }},
        {"number of laps", [](Test& t) { t.plan.rounds = -3; }},
        {"shots of a stint", [](Test& t) { t.plan.turnLength = 0; }},
        {"seconds of a change", [](Test& t) { t.plan.changeSeconds = infinite; }},
        {"planned stint names a club", [](Test& t) { t.turns[0].build = BuildAt(3); }},
        {"planned stint needs a lap", [](Test& t) { t.turns[0].shots = 0; }},
        {"figure of a club", [](Test& t) { t.builds[0].club.length = infinite; }},
        {"figure of the head", [](Test& t) { t.builds[1].club.head.mass = std::nan(""); }},
        {"Two clubs are called", [](Test& t) { t.builds[1].name = "A"; }},
        {"Shot 2 names a club", [](Test& t) { t.shots[1].build = BuildAt(9); }},
        {"Shot 2 has the id of another", [](Test& t) { t.shots[1].id = t.shots[0].id; }},
        {"Shot 1 has 1 cell for 0 columns", [](Test& t) { t.shots[0].extra = {"x"}; }},
        {"Shot 1 has no finite carry", [](Test& t) { t.shots[0].readings.measure(Metric::carry, infinite); }},
        {"feel that is not from 1 to 10", [](Test& t) { t.shots[0].feel = 11; }},
        {"wind",
         [](Test& t) {
             t.sittings.push_back({"x", "", {Place::outdoors, infinite, {}, "", ""}});
         }},
        {"window in carry must go from low",
         [](Test& t) {
             t.card.targets.push_back({Metric::carry, "", 160, 150});
         }},
    };
    CHECK(faultsOf(sound()).empty());
    for (const Row& row : rows) {
        INFO(row.part);
        Test test = sound();
        row.harm(test);
        const auto faults = faultsOf(test);
        REQUIRE(!faults.empty());
        CHECK(faults.front().find(row.part) != std::string::npos);
        CHECK(faults.front().back() == '.');
    }
}

TEST_CASE("an exported test whose numbers are out of range is refused when it is read") {
    const std::string text = knot::files::testJson(sound());
    for (const auto& [from, to] :
         {std::pair{"\"planned_rounds\": 0", "\"planned_rounds\": -1"},
          std::pair{"\"turn_length\": 3", "\"turn_length\": 0"}, std::pair{"\"rounds\": 5", "\"rounds\": -3"},
          std::pair{"\"alpha\": 0.05", "\"alpha\": 0"}}) {
        std::string harmed = text;
        const auto at = harmed.find(from);
        REQUIRE(at != std::string::npos);
        harmed.replace(at, std::string(from).size(), to);
        const auto read = knot::files::readTestJson("t.json", harmed);
        INFO(to);
        REQUIRE(!read);
        CHECK(read.error().kind == knot::files::ErrorKind::notATest);
    }
    CHECK(knot::files::readTestJson("t.json", text)->test == sound());
}

TEST_CASE("a club that nothing was struck with goes, and the others keep their shots") {
    Test test = sound();
    test.feels = {{"1", BuildAt(2), {7}, ""}};
    test.progress.inHand = BuildAt(2);
    test.plan.changeTimes = {{BuildAt(0), BuildAt(2), 90}};
    test.turns = {
        {.build = BuildAt(1), .round = 1}, {.build = BuildAt(2), .round = 1}, {.build = BuildAt(0), .round = 1}};
    auto without = [&](std::size_t club) {
        Declared next = test;
        next.builds.erase(next.builds.begin() + static_cast<std::ptrdiff_t>(club));
        next.plan.changeTimes.clear();
        return next;
    };
    const Test before = test;
    CHECK(knot::plan::declare(test, without(2)).ends_with("so it stays; strike it off instead."));
    CHECK(test == before);
    REQUIRE(knot::plan::declare(test, without(1)).empty());
    CHECK(test.builds.size() == 2);
    CHECK(test.shots[0].build == BuildAt(1));
    CHECK(test.feels[0].build == BuildAt(1));
    CHECK(test.progress.inHand == BuildAt(1));
    REQUIRE(test.turns.size() == 2); // and keep their labels
    CHECK(turnLabel(test, PlannedAt(0)) == "2");
    CHECK(turnLabel(test, PlannedAt(1)) == "3");
    CHECK(test.turns[0].build == BuildAt(1));
    CHECK(headFaultsOf(test).empty());
}

TEST_CASE("two players with the same laps are not more laps of one") {
    Test test;
    test.builds = {{.name = "A"}, {.name = "B"}};
    for (const char* player : {"Runa", "Vigdis"})
        for (std::size_t club = 0; club < 2; ++club)
            for (int i = 0; i < 4; ++i) {
                Shot shot;
                shot.build = BuildAt(club);
                shot.player = player;
                shot.readings.measure(Metric::carry, 150 + 5.0 * static_cast<double>(club) + 0.3 * i);
                test.shots.push_back(shot);
            }
    const auto structure = structureOf(test);
    CHECK(structure.players.size() == 2);
    CHECK(structure.rounds == std::vector<std::string>{"Runa · 1", "Vigdis · 1"});
    for (const auto& turn : structure.turns)
        CHECK(*turn.round == turn.player);
}
