// A test run in the bay: where it stands after each thing done, and what each thing changes.
#include "core/bay/hand.h"
#include "core/bay/lay.h"
#include "core/bay/said.h"
#include "core/bay/strike.h"
#include "core/judge/judge.h"
#include "core/plan/course.h"
#include "core/plan/schedule.h"
#include "core/record/structure.h"
#include "files/csv_writer.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using namespace knot::bay;
using record::Metric;
using record::SetAsideWhen;
using record::Shot;
using record::ShotStatus;

namespace {

record::Test planned(int rounds = 2, int length = 2, int warmUp = 0) {
    record::Test test;
    test.builds = {{"Fern", "", "", "", {}}, {"Slate", "", "", "", {}}, {"Birch", "", "", "", {}}};
    test.plan.rounds = rounds;
    test.plan.turnLength = length;
    test.plan.warmUp = warmUp;
    plan::makeCourse(test);
    return test;
}

// Times of one morning, a minute apart.
std::string minute(int n) {
    char text[32];
    std::snprintf(text, sizeof text, "2026-05-02T%02d:%02d:00.000", 9 + n / 60, n % 60);
    return text;
}

struct Bay {
    record::Test test;
    int clock = 0;
    std::string now() { return minute(++clock); }
    From hit(double carry = 150) {
        record::Readings readings;
        readings.measure(Metric::carry, carry);
        return addShot(test, {readings, now(), "link:" + std::to_string(++ids), {}});
    }
    From miss() { return addShot(test, {{}, now(), "link:" + std::to_string(++ids), "no ball"}); }
    bool hand() { return confirm(test, now()); }
    Stand stand() const { return standOf(test); }
    // The stint that is due or in hand; a test fails where there is none.
    PlannedStint due() const {
        const Stand now = stand();
        REQUIRE(now.stint() != nullptr);
        return *now.stint();
    }
    Free inHand() const {
        const Stand now = stand();
        REQUIRE(now.as<Free>() != nullptr);
        return *now.as<Free>();
    }
    bool isConfirmed() const {
        const Stand now = stand();
        REQUIRE(now.as<Striking>() != nullptr);
        return now.as<Striking>()->confirmed;
    }
    // Sets the shot at a place aside before its number showed, or counts it again.
    bool call(std::size_t shot) {
        return changeStatus(test, test.shots[shot].id, ShotStatus::setAside, Moment::beforeNumber, "thin").has_value();
    }
    bool countAgain(std::size_t shot) {
        return changeStatus(test, test.shots[shot].id, ShotStatus::counted, Moment::afterNumber).has_value();
    }
    int ids = 0;
};

std::vector<std::string> turnsOf(const record::Test& test) {
    std::vector<std::string> turns;
    for (const auto& shot : test.shots)
        turns.push_back(shot.turn);
    return turns;
}

} // namespace

TEST_CASE("a plan is struck from its warm-up to its last shot") {
    Bay bay{planned(2, 2, 3)};
    CHECK(bay.stand().phase() == Phase::warmUp);
    bay.hit();
    bay.hit();
    CHECK(bay.stand().warmUp == 2);
    CHECK(bay.hand());
    CHECK(bay.stand().phase() == Phase::handOver);
    bay.hit(); // still warming up: no club of the test was handed over
    CHECK(bay.stand().phase() == Phase::handOver);
    CHECK(bay.stand().warmUp == 3);
    for (std::size_t turn = 0; turn < 6; ++turn) {
        CHECK(bay.due().turn == turn);
        CHECK(bay.due().build == bay.test.turns[turn].build);
        CHECK(bay.hand());
        CHECK(!bay.hand()); // once is enough
        CHECK(bay.stand().phase() == Phase::striking);
        bay.hit();
        CHECK(bay.due().shot == 2);
        bay.hit();
    }
    CHECK(bay.stand().phase() == Phase::done);
    CHECK(bay.stand().swings == 15);
    bay.hit(); // kept, and not part of it
    CHECK(bay.test.shots.back().status == ShotStatus::warmUp);
    CHECK(std::ranges::count_if(bay.test.shots, [](const Shot& s) { return s.status == ShotStatus::counted; }) == 12);
    const auto structure = record::structureOf(bay.test);
    CHECK(structure.rounds.size() == 2);
    for (std::size_t i = 0; i < bay.test.shots.size(); ++i)
        if (bay.test.shots[i].status == ShotStatus::counted) {
            const auto turn = *plannedTurn(bay.test, bay.test.shots[i]);
            CHECK(bay.test.shots[i].build == bay.test.turns[turn].build);
            CHECK(bay.test.shots[i].round == std::to_string(bay.test.turns[turn].round));
        }
}

TEST_CASE("a missed read is hit again, a called mishit as the sheet says") {
    Bay bay{planned()};
    bay.hand();
    bay.hand();
    CHECK(bay.stand().phase() == Phase::striking);
    bay.miss();
    CHECK(bay.due().shot == 1);
    const From thin = bay.hit();
    CHECK(bay.due().shot == 2);
    CHECK(bay.call(thin));
    CHECK(bay.due().shot == 1);
    bay.test.card.replaceSetAside = false;
    CHECK(bay.due().shot == 2);
    CHECK(bay.countAgain(thin));
    CHECK(bay.test.shots[thin].reason.empty());
    CHECK(bay.due().shot == 2);
    bay.test.card.setAsideRule = record::SetAsideRule::untilGood;
    bay.test.card.goodShots = 4;
    CHECK(bay.due().shots == 4);
}

TEST_CASE("a shot before the hand-over was confirmed asks whose it was") {
    Bay bay{planned()};
    bay.hand(); // the sitting; there is no warm-up
    bay.hand();
    bay.hit();
    bay.hit();
    CHECK(bay.stand().phase() == Phase::handOver);
    bay.hit();
    CHECK(bay.stand().phase() == Phase::striking);
    CHECK(!bay.isConfirmed());
    CHECK(bay.due().turn == 1U);
    SECTION("the next club's") {
        CHECK(bay.hand());
        CHECK(bay.isConfirmed());
        CHECK(bay.due().shot == 2);
    }
    SECTION("still the last one's") {
        CHECK(stillLast(bay.test) == From{2});
        CHECK(bay.stand().phase() == Phase::handOver);
        CHECK(turnsOf(bay.test) == std::vector<std::string>{"1", "1", "1"});
        CHECK(bay.test.shots[2].build == bay.test.shots[0].build);
        CHECK(!stillLast(bay.test));
    }
}

TEST_CASE("a shot that comes late goes to the stint it was struck in, in its order") {
    Bay bay{planned()};
    bay.hand();
    bay.hand();
    bay.hit();
    const auto struckAt = bay.now();
    bay.hit();
    bay.hand();
    bay.hit();
    record::Readings late;
    late.measure(Metric::carry, 99);
    const From from = addShot(bay.test, {late, struckAt, "link:late", {}});
    CHECK(from == 1);
    CHECK(turnsOf(bay.test) == std::vector<std::string>{"1", "1", "1", "2"});
    CHECK(bay.test.shots[1].readings.at(Metric::carry) == 99);
    CHECK(std::ranges::count_if(bay.test.shots, &Shot::handedOver) == 2);
    const auto outOfOrder = addShot(bay.test, {late, minute(0), "link:first", {}});
    CHECK(outOfOrder == 0);
    CHECK(bay.test.shots[0].handedOver);
    CHECK(!bay.test.shots[1].handedOver);
}

TEST_CASE("two sources that read one swing make one shot; one source's repeat is known") {
    Bay bay{planned()};
    bay.hand();
    bay.hand();
    record::Readings ball;
    ball.measure(Metric::ballSpeed, 60);
    record::Readings flight;
    flight.measure(Metric::ballSpeed, 61);
    flight.measure(Metric::carry, 150);
    addShot(bay.test, {ball, "2026-05-02T10:00:00.000", "link:a", {}});
    addShot(bay.test, {flight, "2026-05-02T10:00:03.000", "folder:b", {}});
    REQUIRE(bay.test.shots.size() == 1);
    CHECK(bay.test.shots[0].readings.at(Metric::ballSpeed) == 60);
    CHECK(bay.test.shots[0].readings.at(Metric::carry) == 150);
    addShot(bay.test, {flight, "2026-05-02T10:00:20.000", "folder:c", {}});
    CHECK(bay.test.shots.size() == 2);
    CHECK(isKnown(bay.test, "link:a"));
    CHECK(!isKnown(bay.test, "link:b"));
    CHECK(!isKnown(bay.test, ""));
    beginSitting(bay.test, "2026-05-03T09:00:00");
    CHECK(!isKnown(bay.test, "link:a")); // devices that number from 1 each day
}

TEST_CASE("alone, the tag is entered after the stint and the lap takes what is left") {
    Bay bay{planned(2, 2)};
    bay.test.card.alone = true;
    bay.hand();
    bay.hand();
    CHECK(bay.due().drawn);
    CHECK(bay.due().inBag.size() == 3);
    bay.hit();
    CHECK(isUnnamed(bay.test, bay.test.shots[0]));
    CHECK(withoutUnnamed(bay.test).shots.empty());
    CHECK(files::shotCsv(bay.test).find("tag not entered") != std::string::npos);
    bay.hit();
    CHECK(bay.stand().phase() == Phase::nameTag);
    const record::BuildAt last = bay.test.turns[2].build;
    CHECK(nameTag(bay.test, last) == From{0});
    CHECK(bay.test.shots[0].build == last);
    CHECK(!isUnnamed(bay.test, bay.test.shots[0]));
    CHECK(bay.stand().phase() == Phase::handOver);
    CHECK(std::ranges::count(bay.due().inBag, last) == 0);
    bay.hand();
    bay.hit();
    bay.hit();
    CHECK(!nameTag(bay.test, last)); // this lap has had it
    const record::BuildAt second = bay.due().inBag.front();
    CHECK(nameTag(bay.test, second));
    bay.hand();
    bay.hit();
    bay.hit();
    CHECK(bay.due().inBag.size() == 1);
    CHECK(nameTag(bay.test, bay.due().inBag.front()));
    std::vector<int> had(3);
    for (const auto& shot : bay.test.shots)
        ++had[shot.build];
    CHECK(had == std::vector<int>{2, 2, 2});
}

TEST_CASE("another visit begins anew and no lap is judged twice") {
    Bay bay{planned(2, 1, 2)};
    bay.hand();
    bay.hand();
    for (int i = 0; i < 4; ++i) { // the first lap and one stint of the second
        bay.hit();
        bay.hand();
    }
    CHECK(!isAnotherVisit(bay.test, bay.now()));
    CHECK(isAnotherVisit(bay.test, "2026-05-03T09:00:00"));
    beginSitting(bay.test, "2026-05-03T09:00:00");
    CHECK(bay.stand().phase() == Phase::warmUp);
    CHECK(bay.stand().swings == 0);
    CHECK(bay.test.sittings.size() == 2);
    beginSitting(bay.test, "2026-05-03T19:00:00");
    CHECK(bay.test.sittings.back().label == "2026-05-03, 2");
    confirm(bay.test, "2026-05-03T19:00:01");
    CHECK(bay.stand().phase() == Phase::handOver);
    CHECK(bay.due().turn == 4U);
    for (int i = 0; i < 2; ++i) {
        confirm(bay.test, "2026-05-03T19:00:02");
        record::Readings readings;
        readings.measure(Metric::carry, 150);
        addShot(bay.test, {readings, "2026-05-03T19:0" + std::to_string(i + 1) + ":00", "", {}});
    }
    CHECK(bay.stand().phase() == Phase::done);
    CHECK(judge::judge({.subject = judge::Case::of(bay.test)})->roundsBeyond == 0);
}

TEST_CASE("rests, stops and swings are counted for the sitting") {
    Bay bay{planned()};
    bay.hand();
    bay.hand();
    bay.hit();
    bay.hit();
    CHECK(bay.stand().sinceRest == 2);
    addEvent(bay.test, record::EventKind::note, bay.now(), "windy");
    CHECK(bay.stand().sinceRest == 2);
    addEvent(bay.test, record::EventKind::rest, bay.now(), "");
    CHECK(bay.stand().sinceRest == 0);
    bay.hit();
    CHECK(bay.stand().sinceRest == 1);
    CHECK(bay.stand().swings == 3);
}

TEST_CASE("a club breaks, time runs out, a lap is added") {
    Bay bay{planned(3, 2)};
    bay.hand();
    bay.hand();
    bay.hit();
    SECTION("a stint is cut short") {
        CHECK(endStint(bay.test));
        CHECK(bay.due().turn == 1U);
        CHECK(bay.stand().phase() == Phase::handOver);
    }
    SECTION("a club is left out") {
        const record::BuildAt broken = bay.due().build;
        leaveOut(bay.test, broken);
        CHECK(bay.due().turn == 1U);
        for (int i = 0; i < 6; ++i) {
            bay.hand();
            CHECK(bay.due().build != broken);
            bay.hit();
            bay.hit();
        }
        CHECK(bay.stand().phase() == Phase::done);
        addRound(bay.test, 5);
        CHECK(bay.test.turns.size() == 11);
        CHECK(std::none_of(bay.test.turns.end() - 2, bay.test.turns.end(),
                           [&](const auto& turn) { return turn.build == broken; }));
    }
    SECTION("it ends here") {
        endHere(bay.test);
        CHECK(bay.stand().phase() == Phase::done);
        CHECK(!endStint(bay.test));
        addRound(bay.test, 5); // and goes on after all
        CHECK(bay.stand().phase() == Phase::handOver);
        CHECK(bay.due().round == 4);
        CHECK(bay.test.turns.size() == 12);
    }
}

TEST_CASE("an open sitting needs nothing: any club, any time") {
    Bay bay;
    bay.test.stage = record::Stage::openSitting;
    bay.test.builds = {{"own club", "", "", "", {}}, {"Larch", "", "", "", {}}};
    CHECK(bay.stand().phase() == Phase::free);
    bay.test.plan.warmUp = 0;
    bay.hit();
    bay.hit();
    CHECK(bay.inHand().shot == 3);
    takeInHand(bay.test, record::BuildAt(1));
    CHECK(bay.inHand().shot == 1);
    bay.hit();
    takeInHand(bay.test, record::BuildAt(0));
    bay.hit();
    CHECK(bay.hand()); // put down and taken up again
    bay.hit();
    CHECK(turnsOf(bay.test) == std::vector<std::string>{"1", "1", "2", "3", "4"});
    CHECK(record::structureOf(bay.test).turns.size() == 4);
    takeInHand(bay.test, record::BuildAt(7));
    CHECK(bay.test.progress.inHand == 0);
}

TEST_CASE("a mark falls on the next shot; feels and guesses stay with their stint") {
    Bay bay{planned()};
    bay.hand();
    bay.hand();
    CHECK(!lastStint(bay.test));
    bay.hit();
    bay.test.progress.nextMark = record::Mark::club;
    bay.hit();
    bay.hand();
    bay.hit();
    CHECK(bay.test.shots[1].mark == record::Mark::club);
    CHECK(bay.test.shots[2].mark == record::Mark::none);
    const auto stint = *lastStint(bay.test);
    CHECK(stint.turn == "2");
    auto feel = feelOf(bay.test, stint);
    CHECK(feel.isEmpty());
    feel.scores[0] = 8;
    setFeel(bay.test, feel);
    CHECK(feelOf(bay.test, stint) == feel);
    feel.scores[0] = 0;
    setFeel(bay.test, feel);
    CHECK(bay.test.feels.empty());
    setGuess(bay.test, {stint.build, "Alder 62", stint.turn});
    setGuess(bay.test, {stint.build, "Reed 53", stint.turn});
    CHECK(bay.test.guesses.size() == 1);
    CHECK(guessOf(bay.test, stint) == "Reed 53");
    setGuess(bay.test, {stint.build, "", stint.turn});
    CHECK(bay.test.guesses.empty());
}

TEST_CASE("a device's file finds its places by time: warm-up left out, missed reads as gaps") {
    const auto test = planned(3, 3, 4);
    std::vector<Shot> struck;
    double at = 0;
    auto strike = [&] {
        Shot shot;
        char text[32];
        std::snprintf(text, sizeof text, "2026-05-02T%02d:%02d:%02d", 9 + static_cast<int>(at) / 3600,
                      static_cast<int>(at) / 60 % 60, static_cast<int>(at) % 60);
        shot.takenAt = text;
        shot.readings.measure(Metric::carry, 150);
        struck.push_back(shot);
    };
    for (int i = 0; i < 4; ++i, at += 22)
        strike();
    at += 150;
    for (const auto& turn : test.turns) {
        for (int i = 0; i < turn.shots; ++i, at += 30 + 4 * ((i * 7) % 3))
            strike();
        at += 95;
    }
    const auto whole = struck;
    struck.erase(struck.begin() + 4 + 4); // the second shot of the second stint was not read
    Laying laying(test.plan, test.turns, struck);
    auto totals = laying.totals();
    CHECK(totals.planned == 27);
    CHECK(totals.leftOut == 4);
    CHECK(totals.laid == 26);
    CHECK(totals.gaps == 1);
    CHECK(totals.beyond == 0);
    REQUIRE(laying.lines().size() > 8);
    CHECK(!laying.lines()[8].shot);
    const auto laid = laying.applied(test, "2026-05-02");
    CHECK(laid.shots.size() == 31);
    CHECK(laid.shots[3].status == ShotStatus::warmUp);
    CHECK(!isRead(laid.shots[8]));
    CHECK(laid.shots[8].turn == "2");
    CHECK(standOf(laid).phase() == Phase::striking); // the missed one is still to be hit
    SECTION("a shift by hand, and back") {
        laying.addGap(4);
        CHECK(laying.totals().gaps == 2);
        CHECK(laying.totals().beyond == 1);
        laying.removeGap(4);
        CHECK(laying.totals().beyond == 0);
        laying.toggle(0);
        CHECK(laying.totals().leftOut == 3);
        laying.removeGap(0); // a shot is no gap
        CHECK(laying.lines().size() == 31);
    }
    SECTION("a pace that has nothing to do with the plan leaves the order as it is") {
        auto even = whole;
        for (std::size_t i = 0; i < even.size(); ++i) {
            char text[32];
            std::snprintf(text, sizeof text, "2026-05-02T09:%02d:%02d", static_cast<int>(i) / 2, i % 2 == 0 ? 0 : 25);
            even[i].takenAt = text;
        }
        const Laying quick(test.plan, test.turns, even);
        CHECK(quick.totals().leftOut == 4);
        CHECK(quick.totals().laid == 27);
    }
    SECTION("without times, one after another") {
        auto bare = whole;
        for (auto& shot : bare)
            shot.takenAt = {};
        const Laying plain(test.plan, test.turns, bare);
        CHECK(plain.totals().laid == 27);
        CHECK(plain.totals().beyond == 4);
    }
    SECTION("a file that ends early leaves the rest open") {
        auto first = whole;
        first.resize(4 + 9);
        const Laying part(test.plan, test.turns, first);
        CHECK(part.totals().laid == 9);
        CHECK(part.totals().empty == 18);
        CHECK(standOf(part.applied(test, "s")).stint()->turn == 3U);
    }
}

TEST_CASE("who is in front so far goes by what is wanted, and a stint counts once however many its shots are") {
    knot::test::TestBuilder builder;
    builder.turn("A", "1", {150, 150, 150}).turn("B", "1", {160}).turn("A", "2", {150});
    record::Test test = builder.test;
    const record::Outcome carry{.metric = record::Metric::carry, .shape = {}};
    test.card.primary = {carry};
    using Order = std::vector<record::BuildAt>;
    const Order first{record::BuildAt(0), record::BuildAt(1)};
    const Order second{record::BuildAt(1), record::BuildAt(0)};
    CHECK(bay::orderSoFar(test) == second); // nothing wanted: more
    for (const auto& [want, order] : {std::pair{record::Want{record::Want::Kind::more, 0}, second},
                                      std::pair{record::Want{record::Want::Kind::less, 0}, first},
                                      std::pair{record::Want{record::Want::Kind::near, 151}, first},
                                      std::pair{record::Want{record::Want::Kind::near, 170}, second}}) {
        test.card.wants[carry] = want;
        CHECK(bay::orderSoFar(test) == order);
    }
}
