#include "core/record/structure.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

using namespace knot::record;
using knot::test::TestBuilder;

namespace {

struct Row {
    const char* build;
    const char* sitting;
    const char* round;
    const char* turn;
};

Test testOf(const std::vector<Row>& rows) {
    Test test;
    for (const Row& row : rows) {
        Shot shot;
        if (!test.buildIndex(row.build))
            test.builds.push_back({row.build, {}});
        shot.build = *test.buildIndex(row.build);
        shot.sitting = row.sitting;
        shot.round = row.round;
        shot.turn = row.turn;
        test.shots.push_back(shot);
    }
    return test;
}

std::string shape(const Structure& structure) {
    std::string text;
    for (const Turn& turn : structure.turns) {
        text += static_cast<char>('A' + turn.build);
        text += std::to_string(turn.shots.size()) + "/";
        text += (turn.round ? structure.rounds[*turn.round] : "-") + " ";
    }
    return text;
}

} // namespace

TEST_CASE("without turns and rounds a run of one build is a turn and its k-th turn is in round k") {
    CHECK(shape(structureOf(testOf({{"A", "", "", ""}, {"A", "", "", ""}, {"B", "", "", ""}, {"A", "", "", ""}}))) ==
          "A2/1 B1/1 A1/2 ");
}

TEST_CASE("a round boundary parts a run where each round has one stint a build and nothing else tells stints") {
    auto shapeOf = [](const std::vector<Row>& rows) { return shape(structureOf(testOf(rows))); };
    CHECK(shapeOf({{"A", "", "1", ""}, {"B", "", "1", ""}, {"B", "", "2", ""}, {"A", "", "2", ""}}) ==
          "A1/1 B1/1 B1/2 A1/2 ");
    // A club that comes twice in a round, a round of one club, and a record that names its stints are let be.
    CHECK(
        shapeOf({{"A", "", "1", ""}, {"B", "", "1", ""}, {"A", "", "1", ""}, {"A", "", "2", ""}, {"B", "", "2", ""}}) ==
        "A1/1 B1/1 A2/2 B1/2 ");
    CHECK(shapeOf({{"A", "", "1", ""}, {"B", "", "2", ""}, {"B", "", "3", ""}}) == "A1/1 B2/1 ");
    CHECK(shapeOf({{"A", "", "1", "1"}, {"B", "", "1", "2"}, {"B", "", "2", "2"}, {"A", "", "2", "3"}}) ==
          "A1/1 B2/1 A1/2 ");
    Test handed = testOf({{"A", "", "1", ""}, {"B", "", "1", ""}, {"B", "", "2", ""}, {"A", "", "2", ""}});
    handed.shots[3].handedOver = true;
    CHECK(shape(structureOf(handed)) == "A1/1 B2/1 A1/2 ");
}

TEST_CASE("a turn value parts neighbours across the border of two rotated rounds") {
    CHECK(shape(structureOf(
              testOf({{"A", "", "1", "1"}, {"B", "", "1", "2"}, {"B", "", "2", "3"}, {"A", "", "2", "4"}}))) ==
          "A1/1 B1/1 B1/2 A1/2 ");
}

TEST_CASE("labels alone do not make turns out of one run") {
    // One club hit nine times in a row, written down as three turns.
    CHECK(shape(structureOf(testOf({{"A", "", "1", "1"},
                                    {"A", "", "2", "2"},
                                    {"A", "", "3", "3"},
                                    {"B", "", "1", "4"},
                                    {"B", "", "2", "5"},
                                    {"B", "", "3", "6"}}))) == "A3/1 B3/1 ");
    CHECK(shape(structureOf(testOf({{"A", "", "1", "1"}, {"A", "", "1", "2"}, {"B", "", "1", "3"}}))) == "A2/1 B1/1 ");
}

TEST_CASE("a logged hand-over, a new sitting and a new player end a turn") {
    Test test = testOf({{"A", "", "", ""}, {"A", "", "", ""}, {"A", "", "", ""}});
    test.shots[1].handedOver = true;
    test.shots[2].player = "Ivo";
    CHECK(shape(structureOf(test)) == "A1/1 A1/2 A1/Ivo · 1 ");
    const auto structure = structureOf(testOf({{"A", "May", "", ""}, {"A", "June", "", ""}, {"B", "June", "", ""}}));
    CHECK(shape(structure) == "A1/May · 1 A1/June · 1 B1/June · 1 ");
    CHECK(structure.orderInSitting == std::vector<std::size_t>{1, 1, 2});
}

TEST_CASE("a set-aside shot with another club still parts two turns") {
    Test test = testOf({{"A", "", "", ""}, {"B", "", "", ""}, {"A", "", "", ""}});
    test.shots[1].status = ShotStatus::setAside;
    CHECK(shape(structureOf(test)) == "A1/1 B1/1 A1/2 ");
}

TEST_CASE("warm-up has no round and does not shift the rounds of its club") {
    Test test = testOf({{"A", "", "", ""}, {"A", "", "", ""}, {"A", "", "1", "2"}, {"B", "", "1", "3"}});
    test.shots[0].status = ShotStatus::warmUp;
    test.shots[1].status = ShotStatus::warmUp;
    test.shots[2].handedOver = true;
    CHECK(shape(structureOf(test)) == "A2/- A1/1 B1/1 ");
    test.shots[2].handedOver = false;
    CHECK(shape(structureOf(test)) == "A3/1 B1/1 ");
}

TEST_CASE("shot by shot is a property of the whole test") {
    TestBuilder single;
    single.turn("A", "1", {1}).turn("B", "1", {2}).turn("A", "2", {3});
    CHECK(structureOf(single.test).shotByShot);
    single.turn("B", "2", {1, 2});
    CHECK(!structureOf(single.test).shotByShot);
    CHECK(structureOf(Test{}).turns.empty());
}

TEST_CASE("deliveries are never laps of each other: what was asked for parts stints and laps") {
    auto test = testOf({{"A", "", "1", ""},
                        {"B", "", "1", ""},
                        {"A", "", "2", ""},
                        {"A", "", "2", ""},
                        {"B", "", "2", ""},
                        {"B", "", "2", ""}});
    for (const std::size_t shot : {3, 5})
        test.shots[shot].delivery = "high";
    const auto structure = structureOf(test);
    CHECK(shape(structure) == "A1/1 B1/1 A1/2 A1/high · 2 B1/2 B1/high · 2 ");
    // The lap is one all the same, for what was planned.
    CHECK(structure.turns[2].lap == structure.turns[3].lap);
    CHECK(structure.turns[0].lap != structure.turns[2].lap);
    CHECK(structure.turns[2].round != structure.turns[3].round);
}

TEST_CASE("a club's stints without laps are counted for each delivery by itself") {
    auto test = testOf({{"A", "", "", ""}, {"B", "", "", ""}, {"A", "", "", ""}, {"B", "", "", ""}});
    test.shots[2].delivery = test.shots[3].delivery = "low";
    CHECK(shape(structureOf(test)) == "A1/1 B1/1 A1/low · 1 B1/low · 1 ");
}
