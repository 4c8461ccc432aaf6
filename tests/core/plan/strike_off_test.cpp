// Striking off: laps fixed beforehand, who stays, what is handed over then, and what is judged.
#include "core/bay/strike.h"
#include "core/judge/judge.h"
#include "core/plan/course.h"
#include "core/plan/key_words.h"
#include "core/plan/planner.h"
#include "core/plan/requirements.h"
#include "core/plan/schedule.h"
#include "core/plan/seal.h"
#include "core/plan/strike_off.h"
#include "core/random.h"
#include "core/record/roster.h"
#include "files/test_json.h"

#include <catch2/catch.hpp>

#include <set>

using namespace knot;
using record::BuildAt;
using record::Test;

namespace {

Test planned(std::size_t clubs, int laps) {
    Test test;
    for (std::size_t b = 0; b < clubs; ++b)
        test.builds.push_back({.name = "Club " + std::to_string(b + 1)});
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.primary = {{.metric = record::Metric::carry}};
    test.card.wants[test.card.primary.front()] = {record::Want::Kind::more, 0};
    test.plan.schedule = record::Schedule::strikingOff;
    test.plan.rounds = laps;
    test.plan.turnLength = 2;
    test.plan.warmUp = 0;
    plan::makeCourse(test);
    return test;
}

// Strikes what is planned so far: each club as far as its number says.
void strikePlanned(Test& test, Random& random) {
    while (bay::standOf(test).phase() != bay::Phase::done) {
        if (bay::standOf(test).phase() == bay::Phase::handOver)
            bay::confirm(test, "2026-05-02T10:00:00");
        const BuildAt build = bay::standOf(test).stint()->build;
        bay::Arrival arrival;
        arrival.at = "2026-05-02T10:00:00";
        arrival.readings.measure(record::Metric::carry, 150 + 2.0 * static_cast<double>(build) + random.normal());
        bay::addShot(test, arrival);
    }
}

std::set<BuildAt> clubsInLap(const Test& test, int lap) {
    std::set<BuildAt> clubs;
    for (const auto& turn : test.turns)
        if (turn.round == lap)
            clubs.insert(turn.build);
    return clubs;
}

} // namespace

TEST_CASE("half stay after the third lap and two after the seventh, to the end") {
    CHECK(plan::stayAfter(8, 3) == 4);
    CHECK(plan::stayAfter(5, 3) == 3);
    CHECK(plan::stayAfter(4, 3) == 2);
    CHECK(plan::stayAfter(3, 3) == 2);
    CHECK(plan::stayAfter(4, 7) == 2);
    CHECK(plan::stayAfter(2, 3) == 2);
    Random random(5);
    Test test = planned(8, 12);
    CHECK(test.turns.size() == 24);
    CHECK(plan::cutDue(test) == 3);
    CHECK(test.card.plannedRounds == 12);
    CHECK(bay::standOf(test).rounds == 12); // also those that hang on who stays
    // What is to come is known by number: eight, four and two clubs.
    const auto coming = plan::foreseen(test);
    CHECK(coming.turns.size() == 3 * 8 + 4 * 4 + 5 * 2);
    CHECK(coming.unknownFrom == 24);
    CHECK(plan::minutesOf(test.plan, coming.turns) > plan::minutesOf(test.plan, test.turns));

    CHECK_FALSE(bay::strikeOff(test, {BuildAt(0), BuildAt(1), BuildAt(2), BuildAt(3)})); // nothing is struck yet
    strikePlanned(test, random);
    const auto order = bay::orderSoFar(test);
    REQUIRE(order.size() == 8);
    CHECK(order.front() == BuildAt(7)); // two metres apart, six shots each
    CHECK(order.back() == BuildAt(0));
    const Test before = test;
    CHECK_FALSE(bay::strikeOff(test, {BuildAt(7), BuildAt(6), BuildAt(5)})); // four stay
    CHECK_FALSE(bay::strikeOff(test, {BuildAt(7), BuildAt(6), BuildAt(5), BuildAt(99)}));
    CHECK(test == before);
    REQUIRE(bay::strikeOff(test, {BuildAt(7), BuildAt(6), BuildAt(5), BuildAt(4)}));
    CHECK(record::Roster(test).whyOut(BuildAt(0)) == "after lap 3");
    for (int lap = 4; lap <= 7; ++lap)
        CHECK(clubsInLap(test, lap) == std::set<BuildAt>{BuildAt(4), BuildAt(5), BuildAt(6), BuildAt(7)});
    CHECK(clubsInLap(test, 8).empty());
    CHECK(bay::standOf(test).phase() != bay::Phase::done);

    // Before two are left nothing is judged; the record goes through its file.
    const auto early = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(early.average.empty());
    const auto back = files::readTestJson("t.json", files::testJson(test));
    REQUIRE(back);
    CHECK(back->test.plan == test.plan);
    CHECK(back->test.standings == test.standings);

    strikePlanned(test, random);
    CHECK(plan::cutDue(test) == 7);
    REQUIRE(bay::strikeOff(test, {BuildAt(6), BuildAt(7)}));
    strikePlanned(test, random);
    CHECK_FALSE(plan::cutDue(test));
    CHECK(clubsInLap(test, 12) == std::set<BuildAt>{BuildAt(6), BuildAt(7)});
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    REQUIRE(reading.average.size() == 1);
    CHECK(reading.average.front().rounds == 12); // all their laps
    for (const char* against : {"Club 7", "Club 8"}) {
        Test other = test;
        other.card.baseline = against; // what the last two are set against
        const auto turned = *judge::judge({.subject = judge::Case::of(other)});
        CHECK(turned.builds[turned.average.front().against].name == against);
    }
    CHECK(reading.declared == 1);
    CHECK(reading.roundsDone == 12);
    const auto note = std::ranges::find(reading.checks, "struck_off", &judge::Check::code);
    REQUIRE(note != reading.checks.end());
    CHECK(note->what.find("Club 1 after lap 3") != std::string::npos);
    CHECK(note->what.find("Club 5 after lap 7") != std::string::npos);
    CHECK(std::ranges::find(reading.checks, "missing_turns", &judge::Check::code) == reading.checks.end());
}

TEST_CASE("two clubs, and plans that end before a cut, are rotated laps") {
    const Test two = planned(2, 6);
    CHECK(two.turns.size() == 12);
    CHECK_FALSE(plan::cutDue(two));
    CHECK_FALSE(plan::foreseen(two).unknownFrom);
    const Test brief = planned(4, 3);
    CHECK(brief.turns.size() == 12);
    CHECK_FALSE(plan::cutDue(brief));
    CHECK(planned(4, 2).turns.size() == 8);
    // One comparison, whoever is left: not six.
    Test rotated = planned(4, 12);
    const double own = plan::levelOfOne(rotated);
    rotated.plan.schedule = record::Schedule::rotated;
    CHECK(own == Approx(6 * plan::levelOfOne(rotated)));
}

TEST_CASE("who was struck off under a tag stays so after the reveal; with several players nobody goes") {
    Random random(6);
    const auto sealed = plan::sealed(planned(4, 8), plan::newKeyWords(), "2026-05-02T09:00:00", "");
    REQUIRE(sealed);
    Test test = *sealed;
    strikePlanned(test, random);
    REQUIRE(bay::strikeOff(test, {BuildAt(1), BuildAt(3)}));
    strikePlanned(test, random);
    const auto blind = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(blind.average.size() == 1);
    const auto known = plan::revealedByHand(test, {"Club 1", "Club 2", "Club 3", "Club 4"}, "2026-05-02T12:00:00");
    REQUIRE(known);
    CHECK(record::Roster(*known).whyOut(BuildAt(0)) == "after lap 3");
    CHECK(record::Roster(*known).isIn(BuildAt(1)));
    CHECK(judge::judge({.subject = judge::Case::of(*known)})->average.size() == 1);

    Test two = planned(4, 8);
    two.players = {{.id = "a", .name = "Marit"}, {.id = "b", .name = "Odd"}};
    plan::makeCourse(two);
    CHECK(two.turns.size() == 2 * 4 * 8);
    CHECK_FALSE(plan::cutDue(two));
}

TEST_CASE("after each cut another order is drawn") {
    // Of many plans, the laps after the first cut must not always begin as the first laps did.
    int alike = 0;
    constexpr int times = 20;
    for (int seed = 1; seed <= times; ++seed) {
        Random random(static_cast<std::uint64_t>(seed));
        Test test = planned(8, 12);
        test.plan.seed = static_cast<std::uint64_t>(seed);
        plan::makeCourse(test);
        strikePlanned(test, random);
        REQUIRE(bay::strikeOff(test, {BuildAt(0), BuildAt(1), BuildAt(2), BuildAt(3)}));
        strikePlanned(test, random);
        REQUIRE(bay::strikeOff(test, {BuildAt(0), BuildAt(1)}));
        std::vector<int> first;
        std::vector<int> second;
        for (const auto& turn : test.turns)
            if (turn.round > 7)
                second.push_back(static_cast<int>(static_cast<std::size_t>(turn.build)));
        Test fresh = planned(2, 5);
        fresh.plan.seed = test.plan.seed;
        plan::makeCourse(fresh);
        for (const auto& turn : fresh.turns)
            first.push_back(static_cast<int>(static_cast<std::size_t>(turn.build)));
        alike += first == second ? 1 : 0;
    }
    CHECK(alike < times / 2);
}
