// What must not change, or must change in one way, when a test is changed in a known way; and each
// reading speaks of the record's own shots and clubs.
#include "core/judge/bets/choosing.h"
#include "core/judge/bets/leads.h"
#include "core/judge/judge.h"
#include "core/plan/looks.h"
#include "core/random.h"
#include "core/record/roster.h"
#include "core/words/ledger.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <functional>

using namespace knot;
using knot::test::TestBuilder;
using record::BuildAt;
using record::Metric;
using record::ShotStatus;

namespace {

record::Test threeClubs(std::uint64_t seed, int laps = 5, int length = 3) {
    TestBuilder builder;
    Random random(seed);
    for (int lap = 0; lap < laps; ++lap)
        for (int club = 0; club < 3; ++club) {
            std::vector<double> values;
            for (int i = 0; i < length; ++i)
                values.push_back(150 + 2.5 * club + 0.5 * lap + random.normal());
            builder.turn(std::string(1, static_cast<char>('A' + club)), std::to_string(lap + 1), values);
        }
    builder.test.card.primary = {{.metric = Metric::carry},
                                 {.kind = record::OutcomeKind::spread, .metric = Metric::carry}};
    builder.test.card.comparison = record::Comparison::whichOfThese;
    builder.test.nameShots();
    return builder.test;
}

judge::Reading read(const record::Test& test) {
    return *judge::judge({.subject = judge::Case::of(test)});
}

// The row about two clubs of these names, with the sign that makes it `build` minus `against`.
struct Row {
    double gap = 0, p = 1;
    judge::Verdict verdict = judge::Verdict::open;
};

Row rowOf(const judge::Reading& reading, const std::string& build, const std::string& against) {
    for (const auto& row : reading.average)
        for (const double sign : {1.0, -1.0}) {
            const auto& a = reading.builds[sign > 0 ? row.build : row.against].name;
            const auto& b = reading.builds[sign > 0 ? row.against : row.build].name;
            if (a == build && b == against)
                return {sign * row.gap, *row.claim.pAdjusted, row.claim.verdict};
        }
    FAIL("no row");
    return {};
}

void expectSame(const judge::Reading& a, const judge::Reading& b) {
    for (const auto& [build, against] : {std::pair{"B", "A"}, std::pair{"C", "A"}, std::pair{"C", "B"}}) {
        const Row one = rowOf(a, build, against);
        const Row two = rowOf(b, build, against);
        CHECK(one.gap == Approx(two.gap).margin(1e-9));
        CHECK(one.p == Approx(two.p).epsilon(1e-7));
        CHECK(one.verdict == two.verdict);
    }
}

} // namespace

TEST_CASE("a shift of all shots leaves every gap and verdict") {
    auto test = threeClubs(1);
    const auto before = read(test);
    for (auto& shot : test.shots)
        shot.readings.measure(Metric::carry, *shot.readings.at(Metric::carry) + 1000);
    expectSame(before, read(test));
}

TEST_CASE("the order of the clubs on the rack leaves every gap and verdict") {
    const auto test = threeClubs(2);
    auto turned = test;
    std::rotate(turned.builds.begin(), turned.builds.begin() + 1, turned.builds.end());
    for (auto& shot : turned.shots)
        shot.build = BuildAt((shot.build + 2) % 3);
    turned.card.baseline = "A";
    expectSame(read(test), read(turned));
}

TEST_CASE("two clubs that change names change the sign of their gap") {
    const auto test = threeClubs(3);
    auto swapped = test;
    std::swap(swapped.builds[0], swapped.builds[1]);
    const Row before = rowOf(read(test), "B", "A");
    const Row after = rowOf(read(swapped), "B", "A");
    CHECK(after.gap == Approx(-before.gap));
    CHECK(after.p == Approx(before.p));
    CHECK(after.verdict == before.verdict);
}

TEST_CASE("warm-up swings anywhere change nothing but their count") {
    const auto test = threeClubs(4);
    auto warm = test;
    record::Shot swing;
    swing.status = ShotStatus::warmUp;
    swing.readings.measure(Metric::carry, 90);
    for (const std::size_t at : {0U, 1U, 20U})
        warm.shots.insert(warm.shots.begin() + at, swing);
    warm.nameShots();
    expectSame(read(test), read(warm));
    CHECK(read(warm).builds[0].warmUp == 3);
}

TEST_CASE("shots beyond the plan change nothing but the word about them") {
    auto test = threeClubs(5, 6);
    test.card.plannedRounds = 4;
    auto byHand = test;
    byHand.shots.resize(4 * 9);
    const auto all = read(test);
    expectSame(all, read(byHand));
    CHECK(all.roundsBeyond == 2);
    CHECK(read(byHand).roundsBeyond == 0);
}

TEST_CASE("sentences number shots as the record does, also after a lap beyond the plan in the middle") {
    // Club A has its second lap, beyond the plan of one, before B and C have their first.
    TestBuilder builder;
    builder.turn("A", "1", {150, 151, 149, 150}).turn("B", "1", {152, 151, 153, 152});
    builder.turn("A", "2", {150, 151, 149, 150}).turn("C", "1", {154, 155, 153, 154});
    record::Test test = builder.test;
    test.card.plannedRounds = 1;
    test.shots[13].status = ShotStatus::setAside;
    test.shots[13].setAsideWhen = record::SetAsideWhen::afterNumber;
    test.nameShots();
    const auto reading = read(test);
    REQUIRE(reading.lateSetAsides.size() == 1);
    CHECK(reading.lateSetAsides[0].number == 14);
    CHECK(reading.lateSetAsides[0].shot == test.shots[13].id);
    const auto checks = words::checks(reading);
    const auto said = std::ranges::find(checks, "late_set_asides", &words::Remark::code);
    REQUIRE(said != checks.end());
    CHECK(said->text.find("number 14") != std::string::npos);
}

TEST_CASE("luck's odds of guesses count the record's clubs, not the successors of changed ones") {
    auto test = threeClubs(6);
    test.guesses = {{BuildAt(0), "A", "1"}, {BuildAt(1), "B", "2"}, {BuildAt(2), "C", "3"}};
    const double before = read(test).guesses->p;
    test.shots[20].mark = record::Mark::club;
    const auto reading = read(test);
    CHECK(reading.builds.size() == 4);
    CHECK(reading.guesses->builds == 3);
    CHECK(reading.guesses->p == Approx(before));
}

TEST_CASE("set-asides are weighed in every kind of outcome, within the same family") {
    auto test = threeClubs(7, 6, 4);
    test.card.comparison = record::Comparison::againstBaseline;
    // One shot set aside that is like all others: no gap and no p may move but by that shot.
    test.shots[4].status = ShotStatus::setAside;
    const auto reading = read(test);
    for (const auto& row : reading.average) {
        REQUIRE(row.claim.otherSide);
        CHECK(row.claim.otherSide->estimate == Approx(row.gap).margin(1));
    }
    for (const auto& row : reading.consistency)
        REQUIRE(row.claim.otherSide);
    // Counting it gives just what the test without the set-aside gives.
    test.shots[4].status = ShotStatus::counted;
    const auto counted = read(test);
    for (std::size_t i = 0; i < counted.average.size(); ++i) {
        CHECK(counted.average[i].gap == Approx(reading.average[i].claim.otherSide->estimate));
        CHECK(counted.average[i].claim.verdict == reading.average[i].claim.otherSide->verdict);
        CHECK(counted.consistency[i].ratio == Approx(reading.consistency[i].claim.otherSide->estimate));
        CHECK(counted.consistency[i].claim.verdict == reading.consistency[i].claim.otherSide->verdict);
    }
    CHECK(!counted.average[0].claim.otherSide);
}

TEST_CASE("under a rule by numbers the word is about leaving the set-aside shots out") {
    TestBuilder builder;
    Random random(8);
    for (int lap = 0; lap < 6; ++lap)
        for (int club = 0; club < 2; ++club) {
            std::vector<double> values;
            for (int i = 0; i < 4; ++i)
                values.push_back(150 + 5 * club + 0.3 * random.normal());
            builder.turn(club == 0 ? "A" : "B", std::to_string(lap + 1), values);
        }
    auto test = builder.test;
    test.card.primary = {{.metric = Metric::carry}};
    for (std::size_t i = 4; i < test.shots.size(); i += 8) {
        test.shots[i].readings.measure(Metric::carry, 120 + static_cast<double>(i));
        test.shots[i].status = ShotStatus::setAside;
    }
    auto saying = [](const judge::Reading& reading) {
        const auto remarks = words::remarks(reading, {});
        const auto at = std::ranges::find(remarks, "set_asides_matter", &words::Remark::code);
        return at == remarks.end() ? std::string() : at->text;
    };
    CHECK(saying(read(test)).starts_with("With the set-aside shots counted, "));
    test.card.setAsideRule = record::SetAsideRule::byNumbers;
    CHECK(saying(read(test)).starts_with("Without the set-aside shots, "));
}

TEST_CASE("a second opinion stands on the shots of its gap, also where the player changed") {
    // One run each before the mark and one of B after it: only the first stretch holds both.
    TestBuilder builder;
    builder.turn("A", "1", {150, 151, 149, 150.5}).turn("B", "1", {150.2, 150.8, 149.4, 150.1});
    builder.turn("B", "2", {180, 181, 179, 180});
    auto test = builder.test;
    test.shots[8].mark = record::Mark::player;
    const auto reading = read(test);
    REQUIRE(reading.average.size() == 1);
    const auto& row = reading.average[0];
    CHECK(std::fabs(row.gap) < 1);
    const auto* yuen = std::get_if<judge::YuenTest>(&row.opinion);
    REQUIRE(yuen != nullptr);
    CHECK(std::fabs(yuen->gap) < 1);
    REQUIRE(row.shuffle);
    CHECK(row.shuffle->p > 0.2);
}

TEST_CASE("a lap is taken out once for each club, however many stints it had there") {
    // Sandwiches: the own club opens and closes each lap, and all drift by 10 a lap.
    TestBuilder builder;
    for (int lap = 0; lap < 6; ++lap) {
        const double drift = 10.0 * lap + 0.01 * (lap % 3);
        builder.turn("Own", std::to_string(lap + 1), {100 + drift});
        builder.turn("New", std::to_string(lap + 1), {103 + drift});
        builder.turn("Own", std::to_string(lap + 1), {100 + drift});
    }
    const auto column =
        judge::columnOf(builder.test, record::structureOf(builder.test), Metric::carry, judge::Taken::counted);
    for (const auto& standing : judge::standings(column))
        CHECK(standing.effect.se < 0.1);
    // A club twice and another missing is no whole lap.
    TestBuilder odd;
    for (int lap = 0; lap < 5; ++lap) {
        odd.turn("A", std::to_string(lap + 1), {100.0 + 10 * lap});
        odd.turn(lap == 2 ? "A" : "B", std::to_string(lap + 1), {102.0 + 10 * lap});
    }
    const auto other = judge::columnOf(odd.test, record::structureOf(odd.test), Metric::carry, judge::Taken::counted);
    const auto standings = judge::standings(other);
    REQUIRE(standings.size() == 2);
    CHECK(standings[1].effect.value - standings[0].effect.value == Approx(2).margin(6));
}

TEST_CASE("what a ball speed means in carry is said in the user's units") {
    auto test = threeClubs(9);
    Random random(10);
    for (auto& shot : test.shots)
        shot.readings.measure(Metric::ballSpeed,
                              60 + (*shot.readings.at(Metric::carry) - 150) / 3 + 0.01 * random.normal());
    test.card.primary = {{.kind = record::OutcomeKind::spread, .metric = Metric::ballSpeed}};
    auto saying = [&](const record::DisplayUnits& units) {
        const auto remarks = words::shotRemarks(read(test), units);
        const auto at = std::ranges::find(remarks, "speed_in_carry", &words::Remark::code);
        REQUIRE(at != remarks.end());
        return at->text;
    };
    CHECK(saying({}).starts_with("Inside stints 1 m/s of ball speed went with 3.0 m of carry ("));
    CHECK(saying({.speed = record::SpeedUnit::mph, .distance = record::DistanceUnit::yd})
              .starts_with("Inside stints 1 mph of ball speed went with 1.5 yd of carry ("));
}

TEST_CASE("a screening gives leads and no verdict, ranked by what is wanted") {
    auto test = threeClubs(11, 1, 6);
    test.stage = record::Stage::screening;
    test.card.primary = {{.metric = Metric::carry}};
    const auto reading = read(test);
    for (const auto& row : reading.average)
        CHECK((row.claim.verdict == judge::Verdict::uncontrolled || row.claim.verdict == judge::Verdict::open));
    CHECK(std::ranges::find(reading.checks, "leads_only", &judge::Check::code) != reading.checks.end());
    auto order = [&] {
        std::string names;
        for (const auto& lead : judge::leads(judge::Case::of(test)))
            names += test.builds[lead.club].name;
        return names;
    };
    CHECK(order() == "CBA");
    test.card.wants[{.metric = Metric::carry}] = {record::Want::Kind::less, 0};
    CHECK(order() == "ABC");
    test.card.wants[{.metric = Metric::carry}] = {record::Want::Kind::near, 152.6};
    CHECK(order().front() == 'B');
    // By spread, not by the mean of the same number.
    test.card.primary = {{.kind = record::OutcomeKind::spread, .metric = Metric::carry}};
    for (auto& shot : test.shots)
        shot.readings.measure(Metric::carry,
                              150 + (*shot.readings.at(Metric::carry) - 150) * (shot.build == 0 ? 9.0 : 1.0));
    CHECK(order().back() == 'A');
    setStanding(test, record::BuildAt(2), record::Standing::What::struckOff, 1, "too low");
    CHECK(order().size() == 2);
}

TEST_CASE("each of several players with a lap alone is no fair test, with two laps each it is") {
    for (const std::size_t laps : {1, 3}) {
        record::Test test;
        test.builds = {{.name = "A"}, {.name = "B"}};
        Random random(12);
        for (const char* player : {"Runa", "Vigdis"})
            for (std::size_t lap = 0; lap < laps; ++lap)
                for (const std::size_t club : {lap % 2, 1 - lap % 2})
                    for (int i = 0; i < 4; ++i) {
                        record::Shot shot;
                        shot.build = BuildAt(club);
                        shot.player = player;
                        shot.round = std::to_string(lap + 1);
                        shot.readings.measure(Metric::carry,
                                              150 + 8.0 * static_cast<double>(club) + 0.2 * random.normal());
                        test.shots.push_back(shot);
                    }
        const auto reading = read(test);
        INFO(laps);
        CHECK((reading.average[0].claim.cap == judge::Cap::onePerPlayer) == (laps == 1));
        CHECK((reading.average[0].claim.verdict == judge::Verdict::real) == (laps == 3));
    }
}

TEST_CASE("boundaries of looks are there over everything that can be asked for") {
    for (const double alpha : {0.001, 0.005, 0.05, 0.2})
        for (const int rounds : {2, 5, 60, 200, 1000}) {
            std::vector<double> information;
            for (int done = 2; done <= rounds; ++done)
                information.push_back(static_cast<double>(done) / rounds);
            const auto looks = plan::lookBoundaries(information, alpha);
            INFO(alpha << " " << rounds);
            REQUIRE(looks.size() == information.size());
            for (std::size_t i = 0; i < looks.size(); ++i) {
                CHECK(std::isfinite(looks[i].z));
                CHECK(looks[i].level >= 0);
                CHECK(looks[i].level <= 0.75 * alpha * 1.0001);
                if (i > 0 && looks[i - 1].z < 6) // beyond it is rounding that is spent
                    CHECK(looks[i].z < looks[i - 1].z + 1e-6);
            }
        }
}
