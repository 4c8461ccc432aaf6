// Putting the record right: shots to another club, stints split and joined, numbers that were typed.
#include "core/bay/correct.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/bay/stand.h"
#include "core/bay/strike.h"
#include "core/plan/course.h"
#include "core/plan/schedule.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

using namespace knot;
using namespace knot::bay;
using record::BuildAt;
using record::Metric;
using record::ShotId;

namespace {

record::Test sitting() {
    record::Test test;
    test.stage = record::Stage::openSitting;
    test.builds = {{.name = "Fern"}, {.name = "Reed"}, {.name = "Alder"}};
    test.plan.warmUp = 0;
    return test;
}

void strike(record::Test& test) {
    Arrival arrival{.at = "2026-05-02T09:00:00", .readId = {}, .reason = {}};
    arrival.readings.measure(Metric::carry, 150 + static_cast<double>(test.shots.size()));
    addShot(test, arrival);
}

void hit(record::Test& test, std::size_t club, int shots) {
    takeInHand(test, BuildAt(club));
    for (int i = 0; i < shots; ++i)
        strike(test);
}

// "0a 0a | 1b": club and stint of each shot, a bar where one was handed over.
std::string drawn(const record::Test& test) {
    std::string text;
    for (const auto& shot : test.shots) {
        text += shot.handedOver ? (text.empty() ? "" : "| ") : "";
        text += std::to_string(std::size_t{shot.build}) + shot.turn + " ";
    }
    return text;
}

Shots ids(const record::Test& test, std::initializer_list<std::size_t> places) {
    Shots all;
    for (const std::size_t at : places)
        all.insert(test.shots[at].id);
    return all;
}

} // namespace

TEST_CASE("a shot under the wrong club goes to the stint of the right one beside it, or makes one") {
    auto test = sitting();
    hit(test, 0, 3);
    hit(test, 1, 3);
    REQUIRE(drawn(test) == "01 01 01 | 12 12 12 ");
    SECTION("the club was changed one shot later") {
        CHECK(*moveToClub(test, ids(test, {3}), BuildAt(0)) == 3);
        CHECK(drawn(test) == "01 01 01 01 | 12 12 ");
    }
    SECTION("or one shot earlier") {
        CHECK(*moveToClub(test, ids(test, {2}), BuildAt(1)) == 2);
        CHECK(drawn(test) == "01 01 | 12 12 12 12 ");
    }
    SECTION("in the middle it cuts the stint") {
        CHECK(*moveToClub(test, ids(test, {1}), BuildAt(2)) == 1);
        CHECK(drawn(test) == "01 | 24 | 03 | 12 12 12 ");
    }
    SECTION("several at once, of two stints") {
        CHECK(*moveToClub(test, ids(test, {2, 3}), BuildAt(2)) == 2);
        CHECK(drawn(test) == "01 01 | 23 23 | 12 12 ");
    }
    SECTION("a whole stint takes along what was said of it") {
        setFeel(test, {.turn = "2", .build = BuildAt(1), .words = "dull"});
        REQUIRE(moveToClub(test, ids(test, {3, 4, 5}), BuildAt(2)));
        CHECK(test.shots[5].build == 2);
        CHECK(test.feels.front().build == 2);
    }
    SECTION("to where it is nothing happens") {
        const auto before = test;
        CHECK(*moveToClub(test, ids(test, {0}), BuildAt(0)) == 6);
        CHECK(test == before);
    }
    SECTION("what is not there is refused, and nothing is half done") {
        const auto before = test;
        CHECK(moveToClub(test, {ShotId{1}, ShotId{99}}, BuildAt(1)).error() == CantCorrect::noSuchShot);
        CHECK(moveToClub(test, ids(test, {0}), BuildAt(7)).error() == CantCorrect::noSuchStint);
        CHECK(test == before);
    }
}

TEST_CASE("of a plan a shot goes to the stint of its club in the same lap") {
    record::Test test;
    test.builds = {{.name = "Fern"}, {.name = "Reed"}};
    test.plan.rounds = 2;
    test.plan.turnLength = 2;
    test.plan.warmUp = 0;
    plan::makeCourse(test);
    for (int i = 0; i < 8; ++i) {
        confirm(test, "2026-05-02T09:00:00");
        strike(test);
    }
    REQUIRE(test.shots.size() == 8);
    const auto second = test.shots[2];
    const BuildAt first = test.shots[0].build;
    REQUIRE(second.build != first);
    REQUIRE(moveToClub(test, {second.id}, first));
    CHECK(test.shots[2].turn == test.shots[0].turn);
    CHECK(test.shots[2].round == "1");
    CHECK(test.shots[3].handedOver);             // now the first of its stint
    CHECK(standOf(test).phase() != Phase::done); // one of the other is missing
    CHECK(splitStint(test, test.shots[1].id).error() == CantCorrect::noSuchStint);
}

TEST_CASE("a stint is split where the club was taken up anew, and joined again") {
    auto test = sitting();
    hit(test, 0, 4);
    hit(test, 1, 1);
    const auto before = test;
    CHECK(*splitStint(test, test.shots[2].id) == 2);
    CHECK(drawn(test) == "01 01 | 03 03 | 12 ");
    CHECK(splitStint(test, test.shots[2].id).error() == CantCorrect::sameStint);
    CHECK(*joinStint(test, test.shots[2].id) == 2);
    CHECK(test == before);
    CHECK(joinStint(test, test.shots[1].id).error() == CantCorrect::sameStint);
    CHECK(joinStint(test, test.shots[4].id).error() == CantCorrect::otherClub);
    CHECK(splitStint(test, test.shots[0].id).error() == CantCorrect::otherClub);
    CHECK(splitStint(test, ShotId{77}).error() == CantCorrect::noSuchShot);
}

TEST_CASE("a typed number is put right or blanked, and what hangs on it follows; a read one stays") {
    auto test = sitting();
    hit(test, 0, 1);
    const auto id = test.shots[0].id;
    REQUIRE(setReading(test, id, Metric::clubSpeed, 40));
    REQUIRE(setReading(test, id, Metric::ballSpeed, 60));
    CHECK(test.shots[0].readings.at(Metric::smash) == Approx(1.5));
    REQUIRE(setReading(test, id, Metric::ballSpeed, 56));
    CHECK(test.shots[0].readings.at(Metric::smash) == Approx(1.4));
    REQUIRE(setReading(test, id, Metric::ballSpeed, std::nullopt));
    CHECK(!test.shots[0].readings.has(Metric::smash));
    CHECK(test.shots[0].readings.at(Metric::carry) == 150);
    test.shots[0].readId = "link:7";
    CHECK(setReading(test, id, Metric::carry, 151).error() == CantCorrect::notTyped);
    CHECK(setReading(test, ShotId{9}, Metric::carry, 151).error() == CantCorrect::noSuchShot);
}

TEST_CASE("whatever is corrected, every shot keeps its place, its number and one stint") {
    CHECK(rc::check("corrections", [] {
        auto test = sitting();
        for (int i = *rc::gen::inRange(1, 6); i > 0; --i)
            hit(test, *rc::gen::inRange<std::size_t>(0, 3), *rc::gen::inRange(1, 4));
        const auto before = test;
        for (int i = *rc::gen::inRange(1, 8); i > 0; --i) {
            const auto at = *rc::gen::inRange<std::size_t>(0, test.shots.size());
            const auto now = test;
            const int what = *rc::gen::inRange(0, 3);
            const auto done = what == 0   ? moveToClub(test, {test.shots[at].id, test.shots.back().id},
                                                       BuildAt(*rc::gen::inRange<std::size_t>(0, 3)))
                              : what == 1 ? splitStint(test, test.shots[at].id)
                                          : joinStint(test, test.shots[at].id);
            if (!done)
                RC_ASSERT(test == now);
            else // nothing before what it names has changed
                for (std::size_t k = 0; k < std::min(*done, test.shots.size()); ++k)
                    RC_ASSERT(test.shots[k] == now.shots[k]);
        }
        for (std::size_t i = 0; i < test.shots.size(); ++i) {
            RC_ASSERT(test.shots[i].id == before.shots[i].id);
            RC_ASSERT(test.shots[i].readings == before.shots[i].readings);
            if (i == 0)
                continue;
            const auto& last = test.shots[i - 1];
            const bool oneStint = last.turn == test.shots[i].turn;
            if (oneStint)
                RC_ASSERT(last.build == test.shots[i].build);
            RC_ASSERT(oneStint != test.shots[i].handedOver);
        }
    }));
}
