// A course that has begun follows what is declared after: clubs and players that join, and that go.
#include "core/bay/strike.h"
#include "core/judge/judge.h"
#include "core/plan/course.h"
#include "core/plan/strike_off.h"
#include "core/record/carry.h"
#include "core/record/check.h"
#include "core/record/roster.h"
#include "core/words/decide.h"
#include "core/words/remarks/remarks.h"
#include "support/struck.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <set>

using namespace knot;
using namespace knot::test;
using record::BuildAt;
using record::Declared;
using record::PlannedAt;
using record::Test;

namespace {

std::string add(Test& test, const std::string& name) {
    Declared next = test;
    next.builds.push_back({.name = name});
    return plan::declare(test, next);
}

std::string remove(Test& test, const std::string& name) {
    Declared next = test;
    std::erase_if(next.builds, [&](const record::Build& build) { return build.name == name; });
    return plan::declare(test, next);
}

std::set<int> lapsOf(const Test& test, const std::string& name) {
    std::set<int> laps;
    for (const auto& turn : test.turns)
        if (test.builds[turn.build].name == name)
            laps.insert(turn.round);
    return laps;
}

std::vector<std::string> codes(const judge::Reading& reading) {
    std::vector<std::string> all;
    for (const judge::Check& check : reading.checks)
        all.push_back(check.code);
    return all;
}

bool has(const std::vector<std::string>& list, const char* one) {
    return std::ranges::find(list, one) != list.end();
}

} // namespace

TEST_CASE("a club joins the laps that were not begun, and what was struck keeps its stints") {
    Test test = planned(2, 5);
    strike(test, 5);
    const auto shots = test.shots;
    const auto begun = std::vector(test.turns.begin(), test.turns.begin() + 2);
    REQUIRE(add(test, "Larch").empty());
    CHECK(lapsOf(test, "Larch") == std::set<int>{2, 3, 4, 5});
    CHECK(test.turns.size() == 14);
    CHECK(test.shots == shots);
    for (std::size_t i = 0; i < begun.size(); ++i)
        CHECK(test.turns[i].build == begun[i].build);
    CHECK(record::faultsOf(test).empty());
    std::set<std::string> labels;
    for (PlannedAt turn; turn < test.turns.size(); ++turn) {
        CHECK(labels.insert(turnLabel(test, turn)).second);
        if (turn > 0)
            CHECK((test.turns[turn].build != test.turns[turn - 1].build || test.turns[turn].build < BuildAt(2)));
    }
    strike(test, 1000);
    CHECK(bay::standOf(test).phase() == bay::Phase::done);
    CHECK(test.shots.size() == 14 * 3);
    // It holds no lap up that it was not in.
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.roundsDone == 5);
    CHECK_FALSE(has(codes(reading), "missing_turns"));
}

TEST_CASE("a club that comes too late is refused in a sentence, and one that was struck does not go") {
    Test test = planned(2, 2);
    strike(test, 7); // the first of the second lap
    const Test before = test;
    CHECK(add(test, "Larch") == "Every lap was begun, so Larch can't join this test any more; a test like this one "
                                "(Ctrl+L) takes it in.");
    CHECK(test == before);
    CHECK(remove(test, "A") == "Shots were struck with A, so it stays; strike it off instead.");
    CHECK(test == before);

    Test runs = planned(2, 1, record::Schedule::oneRunEach);
    strike(runs, 4);
    CHECK(add(runs, "Larch").empty()); // at the end of the run
    CHECK(runs.builds[runs.turns.back().build].name == "Larch");

    Test sandwich = planned(3, 3, record::Schedule::sandwich);
    strike(sandwich, 1);
    REQUIRE(add(sandwich, "Larch").empty());
    for (std::size_t i = 0; i < sandwich.turns.size(); ++i) {
        const bool first = i == 0 || sandwich.turns[i - 1].round != sandwich.turns[i].round;
        const bool last = i + 1 == sandwich.turns.size() || sandwich.turns[i + 1].round != sandwich.turns[i].round;
        if (first || last)
            CHECK(sandwich.turns[i].build == sandwich.baselineIndex());
    }
}

TEST_CASE("a club that was not struck goes with its stints, and comes back where it stood") {
    Test test = planned(3, 4);
    Test hit = test;
    strike(hit, 1);
    const std::string unhit = hit.builds[hit.turns[2].build].name;
    Test without = hit;
    REQUIRE(remove(without, unhit).empty());
    CHECK(lapsOf(without, unhit).empty());
    CHECK(without.turns.size() == 8);
    CHECK(record::faultsOf(without).empty());
    const Test before = record::headOf(without);
    strike(without, 3);
    Test alone = hit;
    strike(alone, 3);
    record::carry(without, before, record::headOf(hit));
    CHECK(without.turns == alone.turns);
    CHECK(without.builds == hit.builds);
}

TEST_CASE("a changed club is one club: laps stay whole, and the words agree") {
    Test test = planned(2, 6);
    strike(test, 18);
    Test unmarked = test;
    test.progress.nextMark = record::Mark::club;
    strike(test, 1000);
    strike(unmarked, 1000);
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.builds.size() == 3);
    CHECK(reading.clubs == 2);
    CHECK(reading.roundsDone == 6);
    CHECK_FALSE(has(codes(reading), "missing_turns"));
    CHECK_FALSE(has(codes(reading), "unfinished_plan"));
    CHECK(words::fairnessLine(test, reading).starts_with("36 shots with 2 clubs in 6 laps"));
    CHECK_FALSE(words::isOnBet(test, &reading));
    // A mark that no shot follows changes nothing.
    Test after = unmarked;
    after.progress.nextMark = record::Mark::club;
    CHECK(words::sentences(*judge::judge({.subject = judge::Case::of(after)}), {}) ==
          words::sentences(*judge::judge({.subject = judge::Case::of(unmarked)}), {}));
    // What was wanted of the club is wanted of it after the change.
    test.card.targets = {{record::Metric::carry, test.builds[1].who(), 150, 160}};
    std::size_t windows = 0;
    const auto aimed = *judge::judge({.subject = judge::Case::of(test)});
    for (const auto& target : aimed.targets)
        windows += judge::Case::of(test).clubOf(target.build) == BuildAt(1) ? 1 : 0;
    const bool isOfSecond = judge::Case::of(test).clubOf(BuildAt(2)) == BuildAt(1);
    CHECK(windows == (isOfSecond ? 2 : 1));
}

TEST_CASE("a club that was left out holds no lap up") {
    Test test = planned(3, 6);
    strike(test, 20);
    const BuildAt broken = test.shots.back().build;
    bay::leaveOut(test, broken);
    strike(test, 1000);
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.roundsDone == 6);
    CHECK_FALSE(has(codes(reading), "unfinished_plan"));
    CHECK_FALSE(record::Roster(test).isIn(broken));
    CHECK_FALSE(record::Roster(test).isStruckOff(broken));
    // One more lap is of those that are left; put back, of all.
    REQUIRE(bay::addRound(test, 3));
    CHECK_FALSE(lapsOf(test, test.builds[broken].name).contains(7));
    setStanding(test, broken, record::Standing::What::putBack, 8);
    REQUIRE(bay::addRound(test, 3));
    CHECK(lapsOf(test, test.builds[broken].name).contains(8));
    CHECK(record::Roster(test).isIn(broken, 8));
    CHECK_FALSE(record::Roster(test).isIn(broken, 7));
}

TEST_CASE(
    "where clubs are struck off who is broken does not stay, a changed one is judged, a late player brings none back") {
    Test test = planned(4, 8, record::Schedule::strikingOff);
    test.card.comparison = record::Comparison::whichOfThese;
    SECTION("the best one broke") {
        strike(test, 14);
        bay::leaveOut(test, BuildAt(3));
        strike(test, 1000);
        REQUIRE(plan::cutDue(test) == 3);
        CHECK(bay::orderSoFar(test) == std::vector{BuildAt(2), BuildAt(1), BuildAt(0)});
        CHECK_FALSE(bay::strikeOff(test, {BuildAt(3), BuildAt(2)}));
        REQUIRE(bay::strikeOff(test, {BuildAt(2), BuildAt(1)}));
        strike(test, 1000);
        CHECK(judge::judge({.subject = judge::Case::of(test)})->average.size() == 1);
        CHECK(lapsOf(test, "D") == std::set<int>{1, 2, 3});
    }
    SECTION("two broke, and the rest goes on") {
        strike(test, 2);
        bay::leaveOut(test, BuildAt(3));
        bay::leaveOut(test, BuildAt(0));
        strike(test, 1000);
        CHECK(bay::standOf(test).phase() == bay::Phase::done);
        CHECK(lapsOf(test, "B").size() == 8);
        CHECK_FALSE(plan::cutDue(test));
    }
    SECTION("one of the last two was changed") {
        strike(test, 1000);
        REQUIRE(bay::strikeOff(test, {BuildAt(2), BuildAt(3)}));
        strike(test, 9);
        test.progress.nextMark = record::Mark::club;
        strike(test, 1000);
        const auto reading = *judge::judge({.subject = judge::Case::of(test)});
        REQUIRE(reading.average.size() == 2); // before the change and after it
        const auto subject = judge::Case::of(test);
        for (const auto& row : reading.average)
            CHECK(std::set{subject.clubOf(row.build), subject.clubOf(row.against)} == std::set{BuildAt(2), BuildAt(3)});
    }
    SECTION("a second player after the cut") {
        strike(test, 1000);
        REQUIRE(bay::strikeOff(test, {BuildAt(2), BuildAt(3)}));
        Declared next = test;
        next.players = {{.id = "m", .name = "Marit"}, {.id = "o", .name = "Odd"}};
        const std::size_t turns = test.turns.size();
        REQUIRE(plan::declare(test, next).empty());
        CHECK(test.turns.size() == turns + 2 * 8);
        for (const auto& turn : test.turns)
            if (turn.player > 0)
                CHECK((turn.build == BuildAt(2) || turn.build == BuildAt(3)));
        CHECK(judge::judge({.subject = judge::Case::of(test)})->average.size() == 1);
    }
    SECTION("a second player before a cut: laps are rotated, all of them") {
        strike(test, 2);
        Declared next = test;
        next.players = {{.id = "m", .name = "Marit"}, {.id = "o", .name = "Odd"}};
        REQUIRE(plan::declare(test, next).empty());
        CHECK(test.turns.size() == 2 * 4 * 8);
    }
    SECTION("the baseline is what the other is set against") {
        test.card.baseline = test.builds[2].who();
        strike(test, 1000);
        REQUIRE(bay::strikeOff(test, {BuildAt(2), BuildAt(3)}));
        CHECK(judge::judge({.subject = judge::Case::of(test)})->average.front().against == BuildAt(2));
        test.card.baseline = test.builds[3].who();
        CHECK(judge::judge({.subject = judge::Case::of(test)})->average.front().against == BuildAt(3));
    }
}

TEST_CASE("a plan that ends before two are left is judged all the same, as picked from all pairs") {
    CHECK(plan::fewestLaps(3) == 4);
    CHECK(plan::fewestLaps(4) == 4);
    CHECK(plan::fewestLaps(5) == 8);
    CHECK(plan::fewestLaps(12) == 8);
    Test test = planned(6, 5, record::Schedule::strikingOff);
    test.card.comparison = record::Comparison::whichOfThese;
    strike(test, 1000);
    REQUIRE(plan::cutDue(test) == 3);
    REQUIRE(bay::strikeOff(test, {BuildAt(5), BuildAt(4), BuildAt(3)}));
    strike(test, 1000);
    CHECK_FALSE(plan::cutDue(test));
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.average.size() == 3);
    CHECK(reading.declared == 15); // the pairs of six clubs
    CHECK(has(codes(reading), "ended_before_two"));
}
