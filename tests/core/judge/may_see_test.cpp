// May it be seen? Of every state that a plan can be in.
#include "core/bay/hand.h"
#include "core/bay/strike.h"
#include "core/judge/days/earlier.h"
#include "core/judge/judge.h"
#include "core/judge/may_see.h"
#include "core/plan/course.h"
#include "core/plan/strike_off.h"
#include "core/words/headline.h"
#include "support/struck.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::test;
using judge::Eyes;
using judge::withheld;
using record::BuildAt;
using record::Sees;
using record::Test;

namespace {

Test begun(std::size_t clubs, int laps, record::Schedule schedule = record::Schedule::rotated) {
    Test test = planned(clubs, laps, schedule);
    test.frozenHash = "of its declaration";
    return test;
}

} // namespace

TEST_CASE("comparisons are withheld from the first shot of a plan to its last") {
    Test test = begun(3, 4);
    CHECK(withheld(test));
    strike(test, 35);
    REQUIRE(withheld(test));
    CHECK(withheld(test)->done == 3);
    CHECK(withheld(test)->planned == 4);
    CHECK(words::standingOf(test, nullptr, {}).text == "lap 4 of 4: go on");
    strike(test, 1);
    CHECK_FALSE(withheld(test));
}

TEST_CASE("what a plan was not made for is shown at once") {
    Test test = begun(2, 4);
    strike(test, 8);
    SECTION("nobody declared it before its shots: a file") {
        test.frozenHash.clear();
    }
    SECTION("a screening") {
        test.stage = record::Stage::screening;
    }
    SECTION("an open sitting") {
        test.stage = record::Stage::openSitting;
    }
    SECTION("looks") {
        test.card.looks = record::Looks::eachRound;
    }
    SECTION("somebody sees comparisons") {
        test.card.visibility.comparisons = Sees::fitter;
    }
    CHECK_FALSE(withheld(test));
}

TEST_CASE("a plan that ends otherwise than it was planned ends") {
    Test test = begun(3, 4);
    strike(test, 20);
    SECTION("a club broke") {
        bay::leaveOut(test, test.shots.back().build);
        strike(test, 1000);
    }
    SECTION("a club was changed") {
        test.progress.nextMark = record::Mark::club;
        strike(test, 1000);
    }
    SECTION("stints were ended") {
        while (bay::standOf(test).stint() != nullptr) {
            if (bay::standOf(test).phase() == bay::Phase::handOver)
                bay::confirm(test, "2026-05-02T10:00:00");
            bay::endStint(test);
        }
    }
    CHECK_FALSE(withheld(test));
}

TEST_CASE("laps of all players are laps of the plan; laps beyond it hide nothing") {
    Test test = begun(2, 2);
    strike(test, 4);
    record::Declared next = test;
    next.players = {{.id = "m", .name = "Marit"}, {.id = "o", .name = "Odd"}};
    REQUIRE(plan::declare(test, next).empty());
    strike(test, 8);
    REQUIRE(withheld(test));
    CHECK(withheld(test)->planned == 4);
    strike(test, 1000);
    REQUIRE_FALSE(withheld(test));
    bay::addRound(test, 9);
    REQUIRE(bay::standOf(test).stint() != nullptr);
    CHECK_FALSE(withheld(test));
}

TEST_CASE("a look is noted once, and each lap is one from there on") {
    Test test = begun(2, 5);
    strike(test, 12);
    judge::look(test, "2026-05-02T10:00:00");
    judge::look(test, "2026-05-02T10:01:00");
    CHECK(test.amendments.size() == 1);
    CHECK(test.card.looks == record::Looks::eachRound);
    CHECK_FALSE(withheld(test));
    CHECK(judge::judge({.subject = judge::Case::of(test)})->level < 0.01);
    Test done = begun(2, 5);
    strike(done, 1000);
    judge::look(done, "2026-05-02T10:00:00"); // costs nothing any more
    CHECK(done.amendments.empty());
    CHECK(done.card.looks == record::Looks::none);
}

TEST_CASE("another test learns nothing from one whose comparisons nobody may see") {
    Test half = begun(2, 5);
    half.players = {{.id = "m", .name = "Marit"}};
    strike(half, 12);
    Test now;
    now.id = "now";
    now.repeats = half.id;
    now.players = half.players;
    CHECK(judge::learntFrom({half}, now).repeats.empty());
    CHECK(judge::learntFrom({half}, now).usual.empty());
    judge::look(half, "2026-05-02T10:00:00");
    CHECK_FALSE(judge::learntFrom({half}, now).repeats.empty());
    CHECK_FALSE(judge::learntFrom({half}, now).usual.empty());
}

TEST_CASE("who may see shots and averages") {
    Test test = begun(2, 2);
    for (const auto& [sees, fitter, player] :
         {std::tuple(Sees::nobody, false, false), {Sees::fitter, true, false}, {Sees::everyone, true, true}}) {
        test.card.visibility = {.shots = sees, .averages = sees};
        CHECK(maySeeShots(test, Eyes::fitter) == fitter);
        CHECK(maySeeShots(test, Eyes::player) == player);
        CHECK(maySeeAverages(test, Eyes::fitter) == fitter);
        CHECK(maySeeAverages(test, Eyes::player) == player);
    }
    test.card.visibility.averages = Sees::nobody;
    test.stage = record::Stage::openSitting;
    CHECK(maySeeAverages(test, Eyes::player));
    CHECK(maySeeTag(test, Eyes::player));
    test.card.blinding = record::Blinding::playerBlind;
    CHECK_FALSE(maySeeTag(test, Eyes::player));
    CHECK(maySeeTag(test, Eyes::fitter));
}
