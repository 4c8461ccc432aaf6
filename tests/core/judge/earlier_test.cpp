// What a logbook's other tests tell of the one in hand.
#include "core/judge/causes/delivered.h"
#include "core/judge/days/earlier.h"
#include "core/judge/judge.h"
#include "core/random.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using namespace knot::test;
using record::Metric;

namespace {

const record::Player runa{.id = "p1", .name = "Runa"};
const record::Player vigdis{.id = "p2", .name = "Vigdis"};

// Four laps of two shots with as many clubs as effects, by somebody with usual stints.
record::Test testWith(const std::vector<double>& effects, Random& random, const record::Player& player = runa) {
    const auto spreads = plan::usualSpreads(Metric::carry, plan::Level::club);
    TestBuilder builder;
    for (int lap = 0; lap < 4; ++lap)
        for (std::size_t club = 0; club < effects.size(); ++club) {
            const double stint = effects[club] + spreads.sdTurn * random.normal();
            builder.turn(
                "club " + std::to_string(club), std::to_string(lap + 1),
                {150 + stint + spreads.sdShot * random.normal(), 150 + stint + spreads.sdShot * random.normal()});
        }
    builder.test.id = std::to_string(random.bits());
    builder.test.players = {player};
    builder.test.card.kind = record::TestKind::shaft;
    return builder.test;
}

// Tests whose clubs scatter by `tau`, in worthwhile gaps of carry.
std::vector<record::Test> testsWith(std::size_t count, double tau, std::uint64_t seed) {
    Random random(seed);
    std::vector<record::Test> tests;
    for (std::size_t i = 0; i < count; ++i) {
        std::vector<double> effects;
        for (int club = 0; club < 4; ++club)
            effects.push_back(tau * record::info(Metric::carry).worthwhileGap * random.normal());
        tests.push_back(testWith(effects, random));
    }
    return tests;
}

double learntScale(const std::vector<record::Test>& tests) {
    record::Test now;
    now.id = "now";
    now.card.kind = record::TestKind::shaft;
    const auto learnt = judge::learntFrom(tests, now);
    REQUIRE(learnt.gapScales.contains(Metric::carry));
    return learnt.gapScales.at(Metric::carry) / record::info(Metric::carry).worthwhileGap;
}

} // namespace

TEST_CASE("a logbook with many tests of a kind says how far its clubs lie apart") {
    CHECK(learntScale(testsWith(60, 2, 1)) == Approx(2).epsilon(0.15));
    CHECK(learntScale(testsWith(60, 1, 2)) == Approx(1).epsilon(0.25));
    // Alike, or worlds apart: a few tests carry it four times either way, no further.
    CHECK(learntScale(testsWith(60, 0, 3)) < 0.5);
    CHECK(learntScale(testsWith(60, 0, 3)) >= 0.25 * 0.999);
    CHECK(learntScale(testsWith(60, 30, 4)) == Approx(4));
}

TEST_CASE("eight tests of the kind are asked for, and those of another kind say nothing") {
    auto tests = testsWith(8, 1, 5);
    record::Test now;
    now.id = "now";
    now.card.kind = record::TestKind::shaft;
    CHECK(judge::learntFrom(tests, now).gapScales.contains(Metric::carry));
    CHECK_FALSE(judge::learntFrom(tests, now).gapScales.contains(Metric::spin)); // nobody measured it
    tests.back().card.kind = record::TestKind::head;
    CHECK(judge::learntFrom(tests, now).gapScales.empty());
    now.id = tests.front().id; // the one in hand is no evidence about itself
    tests.back().card.kind = record::TestKind::shaft;
    CHECK(judge::learntFrom(tests, now).gapScales.empty());
}

TEST_CASE("clubs hit in one run each share no lap with another, or do: only laps of both speak of gaps") {
    auto tests = testsWith(8, 1, 6);
    for (auto& test : tests)
        for (record::Shot& shot : test.shots)
            shot.delivery = test.builds[shot.build].name;
    record::Test now;
    now.id = "now";
    now.card.kind = record::TestKind::shaft;
    CHECK(judge::learntFrom(tests, now).gapScales.empty());
}

TEST_CASE("spreads and usual numbers are the player's own, from their own shots of tests with others") {
    Random random(7);
    std::vector<record::Test> tests;
    for (int i = 0; i < 4; ++i) {
        tests.push_back(testWith({0, 0}, random));
        tests.back().players = {runa, vigdis};
        for (std::size_t shot = 0; shot < tests.back().shots.size(); ++shot)
            tests.back().shots[shot].player = "Runa";
        auto guest = tests.back().shots;
        for (record::Shot& shot : guest) {
            shot.player = "Vigdis";
            shot.readings.measure(Metric::carry, *shot.readings.at(Metric::carry) * 3 - 400);
            tests.back().shots.push_back(shot);
        }
    }
    record::Test now;
    now.id = "now";
    now.players = {runa};
    const auto runas = judge::learntFrom(tests, now);
    now.players = {vigdis};
    const auto vigdiss = judge::learntFrom(tests, now);
    REQUIRE((runas.own.contains(Metric::carry) && vigdiss.own.contains(Metric::carry)));
    CHECK(vigdiss.own.at(Metric::carry).sdShot == Approx(3 * runas.own.at(Metric::carry).sdShot));
    REQUIRE(runas.usual.size() == 2);
    CHECK(runas.usual[0].sittings == 4);
    CHECK(vigdiss.usual[0].mean == Approx(3 * runas.usual[0].mean - 400));
    now.players.clear();
    CHECK(judge::learntFrom(tests, now).own.empty());
}

TEST_CASE("a bet says that it rests on earlier tests of the kind") {
    Random random(8);
    const auto tests = testsWith(20, 3, 9);
    auto test = testWith({0, 4}, random);
    test.card.primary = {*record::outcomeFromText("carry_m")};
    judge::JudgeRequest request{.subject = judge::Case::of(test)};
    const auto plain = *judge::judge(request);
    request.earlier = judge::learntFrom(tests, test);
    const auto learnt = *judge::judge(request);
    REQUIRE((plain.bets.size() == 1 && learnt.bets.size() == 1));
    CHECK(std::fabs(learnt.bets[0].expected) > std::fabs(plain.bets[0].expected)); // wider clubs, less held back
    CHECK(plain.average[0].claim.p == learnt.average[0].claim.p);                  // no verdict moves
    auto says = [](const judge::Reading& reading) {
        for (const auto& remark : words::remarks(reading, {}))
            if (remark.text.find("earlier tests of this kind") != std::string::npos)
                return true;
        return false;
    };
    CHECK(says(learnt));
    CHECK_FALSE(says(plain));
}

TEST_CASE("the step between clubs is that of the player's own bag where it is known") {
    using judge::UsualBasis;
    const std::vector<UsualBasis> bag = {
        {.club = "9", .metric = Metric::carry, .mean = 121, .sittings = 2},
        {.club = "8", .metric = Metric::carry, .mean = 131, .sittings = 1},
        {.club = "7", .metric = Metric::carry, .mean = 144},
        {.club = "7", .metric = Metric::carry, .mean = 300}, // typed, after what was struck
        {.club = "7", .metric = Metric::spin, .mean = 6300}};
    CHECK(*judge::bagStep(bag, 132) == Approx(11.5)); // 10 to the shorter, 13 to the longer one
    CHECK(*judge::bagStep(bag, 200) == Approx(13));
    CHECK(*judge::bagStep(bag, 50) == Approx(10));
    CHECK_FALSE(judge::bagStep({bag.begin(), bag.begin() + 2}, 130));
    // Two names for one club are one step less, not a step of nothing.
    auto twice = bag;
    twice.push_back({.club = "8 old", .metric = Metric::carry, .mean = 131.5});
    CHECK(*judge::bagStep(twice, 132) == Approx(11.5));
}

TEST_CASE("a bag of one's own is what a gap is told in") {
    Random random(18);
    auto test = testWith({0, 12}, random);
    test.card.primary = {*record::outcomeFromText("carry_m")};
    judge::JudgeRequest request{.subject = judge::Case::of(test)};
    const auto says = [&](const std::string& words) {
        for (const auto& remark : words::shotRemarks(*judge::judge(request), {}))
            if (remark.text.find(words) != std::string::npos)
                return true;
        return false;
    };
    CHECK(says("of the step from club to club"));
    request.earlier.usual = {{.club = "9", .metric = Metric::carry, .mean = 130},
                             {.club = "8", .metric = Metric::carry, .mean = 142},
                             {.club = "7", .metric = Metric::carry, .mean = 155}};
    CHECK(says("of the step between clubs of their own bag"));
}

TEST_CASE("tests that say nothing teach nothing, and no number that is none") {
    record::Test now;
    now.id = "now";
    now.card.kind = record::TestKind::shaft;
    now.players = {runa};
    CHECK(judge::learntFrom({}, now).gapScales.empty());
    record::Test bare; // no club, no shot, nobody
    CHECK(judge::learntFrom(std::vector<record::Test>(12, bare), now).gapScales.empty());
    // One shot with one club; equal readings; one stint each: eight of each, and nothing infinite.
    Random random(19);
    for (const int kind : {0, 1, 2}) {
        std::vector<record::Test> tests;
        for (int i = 0; i < 8; ++i) {
            TestBuilder builder;
            if (kind == 0)
                builder.turn("A", "1", {150});
            for (int lap = 0; kind > 0 && lap < (kind == 1 ? 3 : 1); ++lap)
                for (const char* club : {"A", "B"})
                    builder.turn(club, std::to_string(lap + 1), {150, kind == 1 ? 150 : 151 + random.normal()});
            builder.test.id = std::to_string(i);
            builder.test.players = {runa};
            builder.test.card.kind = record::TestKind::shaft;
            tests.push_back(builder.test);
        }
        INFO(kind);
        const auto learnt = judge::learntFrom(tests, now);
        CHECK(learnt.gapScales.contains(Metric::carry) == (kind > 0));
        for (const auto& [metric, scale] : learnt.gapScales)
            CHECK((std::isfinite(scale) && scale > 0));
        for (const auto& [metric, spreads] : learnt.own)
            CHECK((std::isfinite(spreads.sdShot) && spreads.sdShot > 0));
    }
}

TEST_CASE("how a club was delivered is told of what was read, by delivery, whatever is missing") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 151}).turn("B", "1", {152});
    CHECK(judge::deliveredBy(builder.test, record::structureOf(builder.test)).empty()); // no loft, no attack
    for (std::size_t i = 0; i < 2; ++i) {
        builder.test.shots[i].readings.measure(Metric::dynamicLoft, 20 + static_cast<double>(i));
        builder.test.shots[i].delivery = i == 0 ? "low" : "high";
    }
    auto rows = judge::deliveredBy(builder.test, record::structureOf(builder.test));
    REQUIRE(rows.size() == 2);
    CHECK(rows[0].delivery == "low");
    CHECK(*rows[1].dynamicLoft == Approx(21));
    CHECK_FALSE(rows[0].attack);
    CHECK_FALSE(rows[0].twoMore);
    builder.test.shots[0].readings.measure(Metric::clubSpeed, 38);
    builder.test.shots[0].readings.measure(Metric::ballSpeed, 54);
    builder.test.shots[0].readings.measure(Metric::launch, 16);
    builder.test.shots[0].readings.measure(Metric::spin, 5200);
    rows = judge::deliveredBy(builder.test, record::structureOf(builder.test));
    REQUIRE(rows[0].twoMore);
    CHECK(rows[0].twoMore->launch > 0.5); // two degrees of loft launch higher and spin more
    CHECK(rows[0].twoMore->spin > 100);
    CHECK(std::isfinite(rows[0].twoMore->carry));
}
