// Who hits, with what, at what: players, clubs and parts that change hands, and what is said meanwhile.
#include "core/bay/correct.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/bay/strike.h"
#include "core/judge/judge.h"
#include "core/plan/course.h"
#include "core/plan/schedule.h"
#include "core/record/check.h"
#include "core/words/remarks/remarks.h"
#include "support/build_test.h"
#include "support/struck.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using namespace knot::bay;
using record::Metric;
using record::PlayerAt;
using record::Test;

namespace {

Test planned(std::size_t clubs, record::Schedule schedule = record::Schedule::rotated) {
    Test test;
    for (const char* name : {"Fern", "Slate", "Birch"})
        if (test.builds.size() < clubs)
            test.builds.push_back({.name = name});
    test.players = {{.id = {}, .name = "Marit"}, {.id = {}, .name = "Odd"}};
    test.plan.schedule = schedule;
    test.plan.rounds = 2;
    test.plan.turnLength = 2;
    test.plan.warmUp = 1;
    plan::makeCourse(test);
    return test;
}

Test sitting() {
    Test test;
    test.stage = record::Stage::openSitting;
    test.plan.warmUp = 0;
    test.builds = {{.name = "Club 1"}};
    return test;
}

void hit(Test& test, double carry = 150, int minute = 0) {
    char at[32];
    std::snprintf(at, sizeof at, "2026-05-02T09:%02d:00.000", minute);
    Arrival arrival{.at = at, .readId = {}, .reason = {}};
    arrival.readings.measure(Metric::carry, carry);
    addShot(test, arrival);
}

std::vector<std::size_t> orderOf(const Test& test, PlayerAt player) {
    std::vector<std::size_t> order;
    for (const auto& turn : test.turns)
        if (turn.player == player)
            order.push_back(turn.build);
    return order;
}

} // namespace

TEST_CASE("players meet the clubs in orders that are turned by one") {
    const Test test = planned(3);
    REQUIRE(test.turns.size() == 12);
    const auto first = orderOf(test, PlayerAt(0));
    auto turned = first;
    for (auto& club : turned)
        club = (club + 1) % 3;
    CHECK(orderOf(test, PlayerAt(1)) == turned);
    for (const auto& turn : test.turns)
        CHECK((turn.round == 1 || turn.round == 2));

    const Test sandwich = planned(3, record::Schedule::sandwich);
    CHECK(orderOf(sandwich, PlayerAt(0)) == orderOf(sandwich, PlayerAt(1)));
}

TEST_CASE("the next player's stints come first of those that nobody has begun") {
    Test test = planned(2);
    confirm(test, "2026-05-02T09:00:00.000"); // warm enough
    confirm(test, "2026-05-02T09:01:00.000");
    hit(test, 150, 2);
    takePlayer(test, PlayerAt(1));
    // The stint in hand is struck to its end.
    REQUIRE(standOf(test).phase() == Phase::striking);
    CHECK(standOf(test).stint()->player == PlayerAt(0));
    hit(test, 151, 3);
    REQUIRE(standOf(test).phase() == Phase::handOver);
    CHECK(standOf(test).stint()->player == PlayerAt(1));
    CHECK(standOf(test).stint()->anotherPlayer);
    confirm(test, "2026-05-02T09:04:00.000");
    // Who has not swung in this sitting warms up first; the swings of the other are not theirs.
    REQUIRE(standOf(test).phase() == Phase::warmUp);
    CHECK(standOf(test).swings == 0);
    hit(test, 120, 5);
    CHECK(test.shots.back().status == record::ShotStatus::warmUp);
    CHECK(test.shots.back().player == "Odd");
    confirm(test, "2026-05-02T09:06:00.000");
    confirm(test, "2026-05-02T09:07:00.000");
    hit(test, 160, 8);
    CHECK(test.shots.back().player == "Odd");
    CHECK(test.shots.back().status == record::ShotStatus::counted);
    CHECK(standOf(test).sinceRest == 2);
    // Back again: warm, and the club is handed over at once.
    hit(test, 161, 9);
    takePlayer(test, PlayerAt(0));
    CHECK(standOf(test).stint()->player == PlayerAt(0));
    confirm(test, "2026-05-02T09:10:00.000");
    CHECK(standOf(test).phase() == Phase::striking);
    hit(test, 152, 11);
    CHECK(test.shots.back().player == "Marit");
    CHECK(standOf(test).sinceRest == 3);
}

TEST_CASE("a stint that was spoken of before its first shot keeps its place when players change") {
    Test test = planned(2);
    confirm(test, "2026-05-02T09:00:00.000");
    confirm(test, "2026-05-02T09:01:00.000");
    const auto stint = stintInQuestion(test);
    REQUIRE(stint);
    CHECK(stint->turn == "1");
    auto feel = feelOf(test, *stint);
    feel.scores[4] = 9;
    setFeel(test, feel);
    takePlayer(test, PlayerAt(1));
    CHECK(test.turns[0].player == PlayerAt(0));
    CHECK(test.turns[1].player == PlayerAt(1));
}

TEST_CASE("shots that named nobody are the first player's once there is a second") {
    Test test = sitting();
    hit(test);
    CHECK(test.shots[0].player.empty());
    CHECK(takeNewPlayer(test, {.id = {}, .name = "Player 2"}) == 0);
    REQUIRE(test.players.size() == 2);
    CHECK(test.shots[0].player == "Player 1");
    hit(test);
    CHECK(test.shots[1].player == "Player 2");
    CHECK(test.shots[1].turn != test.shots[0].turn);
    CHECK(test.shots[1].handedOver);
    takeNewPlayer(test, {.id = {}, .name = "Player 1"});
    CHECK(test.players.size() == 2);
    hit(test);
    CHECK(test.shots[2].player == "Player 1");
}

TEST_CASE("a player who joins a planned test gets the same laps") {
    Test test = planned(2);
    test.players.pop_back();
    plan::makeCourse(test);
    const std::size_t own = test.turns.size();
    takeNewPlayer(test, {.id = {}, .name = "Odd"});
    CHECK(test.turns.size() == 2 * own);
    CHECK(standOf(test).stint()->player == PlayerAt(1));
}

TEST_CASE("the same head with another shaft is another club, and is known again") {
    Test test = sitting();
    hit(test);
    takeOtherPart(test, record::PartKind::shaft, "Reed");
    REQUIRE(test.builds.size() == 2);
    CHECK(test.builds[1].name == "Reed");
    CHECK(test.builds[0].club.head.name == test.builds[1].club.head.name);
    CHECK(!test.builds[0].club.head.name.empty());
    CHECK(test.builds[0].club.shaft.name != test.builds[1].club.shaft.name);
    CHECK(test.progress.inHand == record::BuildAt(1));
    takeOtherPart(test, record::PartKind::shaft, test.builds[0].club.shaft.name);
    CHECK(test.builds.size() == 2);
    CHECK(test.progress.inHand == record::BuildAt(0));
    takeOtherPart(test, record::PartKind::head, "Reed");
    REQUIRE(test.builds.size() == 3);
    CHECK(test.builds[2].name == "Club 1 · Reed"); // a club is called Reed already
    takeOtherPart(test, record::PartKind::grip, "");
    CHECK(test.builds[3].name == "Club 1 · Reed, grip 2");
    takeNewInHand(test, "Heath");
    std::set<std::string> ids; // each is somebody from the moment it is taken up
    for (const record::Build& build : test.builds)
        CHECK((!build.id.empty() && ids.insert(build.id).second));
}

TEST_CASE("where the club in hand is deleted another one is not taken up in its place") {
    Test test = sitting();
    hit(test);
    takeNewInHand(test, "Heath");
    hit(test);
    takeNewInHand(test, "Moss");
    hit(test);
    takeNewInHand(test, "Larch"); // nothing was struck with it
    record::Declared next = test;
    next.builds.pop_back();
    REQUIRE(plan::declare(test, next).empty());
    CHECK(test.progress.inHand == record::nowhere);
    hit(test);
    CHECK(test.shots.back().build == record::BuildAt(2)); // with the one that was there last
}

TEST_CASE("what is asked for stands with the shots until something else is") {
    Test test = sitting();
    hit(test);
    askDelivery(test, "low");
    hit(test);
    hit(test);
    askDelivery(test, "");
    hit(test);
    CHECK(test.shots[0].delivery.empty());
    CHECK(test.shots[2].delivery == "low");
    CHECK(test.shots[3].delivery.empty());
    CHECK(deliveriesOf(test) == std::vector<std::string>{"low"});
    askDelivery(test, "high");
    beginSitting(test, "2026-05-03T09:00:00.000");
    CHECK(test.progress.delivery.empty());
}

TEST_CASE("another day marks the next shot and has conditions of its own, with their time") {
    Test test = sitting();
    hit(test);
    test.sittings.back().conditions.wind = 2;
    changeDay(test, "2026-05-02T10:00:00.000");
    test.sittings.back().present().wind = 6;
    hit(test);
    CHECK(test.shots[1].mark == record::Mark::day);
    REQUIRE(test.sittings.back().later.size() == 1);
    CHECK(test.sittings.back().later[0].at == "2026-05-02T10:00:00.000");
    CHECK(test.sittings.back().later[0].afterShots == 1);
    CHECK(test.sittings.back().conditions.wind == 2.0);
    CHECK(test.sittings.back().present().wind == 6.0);
    const Test before = test;
    changeDay(test, "2026-05-02T10:05:00.000");
    changeDay(test, "2026-05-02T10:06:00.000"); // not after all
    CHECK(test == before);
}

TEST_CASE("a lap that the day cuts in two pairs nothing across the cut") {
    test::TestBuilder made;
    made.turn("Fern", "1", {150, 151}).turn("Slate", "1", {140, 141});
    made.turn("Fern", "2", {152, 153}).turn("Slate", "2", {143, 142});
    made.test.nameShots();
    made.test.shots[2].mark = record::Mark::day; // before Slate's first
    const auto structure = record::structureOf(made.test);
    CHECK(structure.turns[0].round != structure.turns[1].round);
    made.test.shots[2].mark = record::Mark::none;
    CHECK(record::structureOf(made.test).turns[0].round == record::structureOf(made.test).turns[1].round);
}

TEST_CASE("what is said at the hand-over is of the club taken up, later of the one that was hit") {
    Test test = sitting();
    REQUIRE(stintInQuestion(test));
    CHECK(stintInQuestion(test)->build == 0);
    CHECK(!compareToLast(test, *stintInQuestion(test), record::Versus::better));
    hit(test);
    CHECK(*stintInQuestion(test) == *lastStint(test));
    takeNewInHand(test, "Reed");
    const auto taken = stintInQuestion(test);
    REQUIRE(taken);
    CHECK(taken->build == 1);
    REQUIRE(compareToLast(test, *taken, record::Versus::worse));
    CHECK(feelOf(test, *taken).versus == record::Versus::worse);
    CHECK(feelOf(test, *taken).against == test.shots[0].turn);
    hit(test);
    CHECK(*stintInQuestion(test) == *taken); // the label was kept for it
    CHECK(compareToLast(test, *taken, record::Versus::worse));
    CHECK(test.feels.empty()); // said twice is not said
}

TEST_CASE("a shot is called good, so-so or bad before its number shows, and counts") {
    using record::Call;
    using record::ShotStatus;
    for (const auto status : {ShotStatus::counted, ShotStatus::setAside, ShotStatus::warmUp})
        for (const auto from : {Call::none, Call::bad})
            for (const auto to : {Call::none, Call::good, Call::soSo, Call::bad})
                for (const auto moment : {Moment::beforeNumber, Moment::afterNumber, Moment::afterReveal}) {
                    Test test = sitting();
                    hit(test);
                    test.shots[0].status = status;
                    test.shots[0].call = from;
                    const Test before = test;
                    const auto called = callShot(test, test.shots[0].id, to, moment);
                    const bool may = status != ShotStatus::warmUp && moment == Moment::beforeNumber && from != to;
                    REQUIRE(called.has_value() == may);
                    CHECK(test.shots[0].status == status);
                    if (!may)
                        CHECK(test == before);
                    else
                        CHECK(test.shots[0].call == to);
                }
}

TEST_CASE("a call in the air falls on the shot that comes") {
    Test test = sitting();
    addShot(test, {.at = "2026-05-02T09:00:00.000", .readId = {}, .reason = {}, .call = record::Call::soSo});
    CHECK(test.shots[0].call == record::Call::soSo);
    CHECK(test.shots[0].status == record::ShotStatus::counted);
}

TEST_CASE("shots of the wrong player go to the right one") {
    Test test = sitting();
    hit(test);
    takeNewPlayer(test, {.id = {}, .name = "Odd"});
    for (int i = 0; i < 3; ++i)
        hit(test);
    SECTION("where nothing is planned they go on with that player's stint") {
        REQUIRE(moveToPlayer(test, {test.shots[1].id}, PlayerAt(0)));
        CHECK(test.shots[1].player == "Player 1");
        CHECK(test.shots[1].turn == test.shots[0].turn);
        CHECK(test.shots[2].handedOver);
        CHECK(test.shots[2].player == "Odd");
    }
    SECTION("of a plan they go to a stint of that player") {
        Test plan = planned(2);
        confirm(plan, "2026-05-02T09:00:00.000");
        confirm(plan, "2026-05-02T09:01:00.000");
        hit(plan, 150, 2);
        REQUIRE(moveToPlayer(plan, {plan.shots[0].id}, PlayerAt(1)));
        CHECK(plan.shots[0].player == "Odd");
        const auto turn = plannedTurn(plan, plan.shots[0]);
        REQUIRE(turn);
        CHECK(plan.turns[*turn].player == PlayerAt(1));
        CHECK(plan.turns[*turn].build == plan.shots[0].build);
    }
    CHECK(moveToPlayer(test, {test.shots[0].id}, PlayerAt(7)).error() == CantCorrect::noSuchStint);
}

TEST_CASE("laps that were planned are each player's, and a second player is a factor") {
    test::TestBuilder made;
    for (const char* player : {"Marit", "Odd"})
        for (const char* lap : {"1", "2", "3"}) {
            made.turn("Fern", lap, {150, 152, 151}).turn("Slate", lap, {140, 139, 142});
            for (auto& shot : made.test.shots)
                if (shot.player.empty())
                    shot.player = player;
        }
    made.test.namePlayers();
    REQUIRE(made.test.players.size() == 2);
    made.test.card.plannedRounds = 3;
    made.test.card.primary = {{.metric = Metric::carry}};
    const auto reading = judge::judge({.subject = judge::Case::of(made.test)});
    REQUIRE(reading);
    CHECK(reading->roundsDone == 6);
    CHECK(reading->roundsBeyond == 0);
    CHECK(reading->card.plannedRounds == 6);
    CHECK(!reading->interaction.empty());
    made.test.card.plannedRounds = 2;
    CHECK(judge::Case::of(made.test).roundsBeyond() == 2);
}

TEST_CASE("the reading says what putting shots right did to a verdict") {
    test::TestBuilder made;
    const double drift[] = {0, 1.5, -1, 0.5, 2};
    for (int lap = 0; lap < 5; ++lap) {
        made.turn("Fern", std::to_string(lap + 1), {150 + drift[lap], 151 + drift[lap]});
        made.turn("Slate", std::to_string(lap + 1), {144 - drift[lap], 145 + drift[lap]});
    }
    Test& test = made.test;
    test.card.primary = {{.metric = Metric::carry}};
    test.card.margins[Metric::carry] = 2;
    test.nameShots();
    auto verdict = [](const Test& of) {
        return judge::judge({.subject = judge::Case::of(of)})->average.front().claim.verdict;
    };
    auto saysSo = [](const Test& of) {
        const auto reading = judge::judge({.subject = judge::Case::of(of)});
        const auto remarks = words::remarks(*reading, {});
        return std::ranges::any_of(remarks, [](const auto& r) { return r.code == "late_changes_matter"; });
    };
    const Test before = test;
    // Two shots were another club's after all.
    record::Amendment amendment{"2026-05-02T11:00:00.000", "shots 3, 9: struck with Fern after all", {}};
    for (const std::size_t i : {std::size_t{2}, std::size_t{8}}) {
        amendment.was.push_back(test.shots[i]);
        test.shots[i].readings.measure(Metric::carry, 260);
    }
    test.amendments = {amendment};
    REQUIRE(withoutLateChanges(test));
    CHECK(withoutLateChanges(test)->shots == before.shots);
    REQUIRE(verdict(test) != verdict(before));
    CHECK(saysSo(test));
    CHECK(judge::judge({.subject = judge::Case::of(test)})->average.front().claim.withoutLate->verdict ==
          verdict(before));
    CHECK(!saysSo(before));
    CHECK(!withoutLateChanges(before));
    const auto reading = judge::judge({.subject = judge::Case::of(test)});
    const auto checks = words::checks(*reading);
    const auto said = std::ranges::find(checks, "put_right", &words::Remark::code);
    REQUIRE(said != checks.end());
    CHECK(said->text.find("shots 3, 9: struck with Fern after all.") != std::string::npos);
}

TEST_CASE("a swing to warm up makes nobody warm") {
    Test test = planned(2);
    test.sittings = {{"1", {}, {}}};
    test.shots.push_back({.status = record::ShotStatus::warmUp});
    test.shots.back().player = "Odd";
    test.shots.back().sitting = "1";
    handTo(test, PlayerAt(1));
    CHECK_FALSE(test.progress.warmedUp);
    test.shots.back().status = record::ShotStatus::counted;
    handTo(test, PlayerAt(1));
    CHECK(test.progress.warmedUp);
    handTo(test, PlayerAt(0));
    CHECK_FALSE(test.progress.warmedUp);
    test.sittings.push_back({"2", {}, {}}); // another day is another warm-up
    handTo(test, PlayerAt(1));
    CHECK_FALSE(test.progress.warmedUp);
}

TEST_CASE("a shot that was held back goes to the club that was in hand when it was struck") {
    SECTION("in the laps of a plan") {
        record::Test test = knot::test::planned(2, 4);
        knot::test::strike(test, 2);
        const auto first = inHand(test);
        REQUIRE(first);
        const auto build = first->build;
        // Two more swings with it are held back; the club is changed meanwhile.
        knot::test::strike(test, 1);
        test.shots.pop_back();
        test.turns[*first->turn].ended = true;
        confirm(test, "2026-05-02T10:05:00");
        const auto second = inHand(test);
        REQUIRE(second);
        CHECK(second->build != build);
        Arrival held;
        held.at = "2026-05-02T10:04:00";
        held.timed = false;
        held.readings.measure(Metric::carry, 150);
        held.struckWith = first;
        addShot(test, held);
        CHECK(test.shots.back().build == build);
        CHECK(test.shots.back().turn == test.shots.front().turn);
        held.struckWith.reset();
        addShot(test, held);
        CHECK(test.shots.back().build == second->build);
        CHECK(record::faultsOf(test).empty());
    }
    SECTION("as warm-up where it was one, whatever counts since") {
        record::Test test;
        test.stage = record::Stage::openSitting;
        test.plan.warmUp = 8;
        test.builds = {{.name = "Reed"}, {.name = "Larch"}};
        test.nameClubs();
        takeInHand(test, record::BuildAt(0));
        Arrival held;
        held.at = "2026-05-02T10:04:00";
        held.readings.measure(Metric::carry, 150);
        held.struckWith = inHand(test);
        REQUIRE(held.struckWith);
        CHECK(held.struckWith->isWarmUp);
        confirm(test, "2026-05-02T10:05:00"); // warm enough
        takeInHand(test, record::BuildAt(1));
        REQUIRE(inHand(test));
        CHECK_FALSE(inHand(test)->isWarmUp);
        addShot(test, held);
        CHECK(test.shots.back().status == record::ShotStatus::warmUp);
        CHECK(test.shots.back().build == record::BuildAt(0));
        CHECK(record::faultsOf(test).empty());
    }
    SECTION("where nothing is planned") {
        record::Test test;
        test.stage = record::Stage::openSitting;
        test.plan.warmUp = 0;
        test.builds = {{.name = "Reed"}, {.name = "Larch"}};
        test.nameClubs();
        Arrival held;
        held.at = "2026-05-02T10:04:00";
        held.readings.measure(Metric::carry, 150);
        takeInHand(test, record::BuildAt(0));
        held.struckWith = inHand(test);
        REQUIRE(held.struckWith);
        takeInHand(test, record::BuildAt(1));
        for (int i = 0; i < 3; ++i) {
            held.readId = "link:" + std::to_string(i);
            addShot(test, held);
            CHECK(test.shots.back().build == record::BuildAt(0));
        }
        held.struckWith.reset();
        held.readId = "link:9";
        addShot(test, held);
        CHECK(test.shots.back().build == record::BuildAt(1));
        CHECK(test.shots[0].turn == test.shots[2].turn);
        CHECK(test.shots[2].turn != test.shots[3].turn);
    }
}
