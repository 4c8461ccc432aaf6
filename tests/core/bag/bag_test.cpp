// The bag over sittings: gaps with intervals that cover, holes and doubles that an even bag is seldom told, passing.
#include "core/bag/bag.h"
#include "core/judge/case.h"
#include "core/random.h"
#include "core/words/bag.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using namespace knot::bag;
using record::Metric;

namespace {

/// Free shots of one sitting.
class Sitting {
public:
    explicit Sitting(const std::string& id) {
        m_test.id = id;
        m_test.stage = record::Stage::openSitting;
    }
    Sitting& stint(const std::string& club, const std::vector<double>& carries, const std::string& player = {}) {
        auto at = std::ranges::find(m_test.builds, club, &record::Build::name) - m_test.builds.begin();
        if (static_cast<std::size_t>(at) == m_test.builds.size())
            m_test.builds.push_back({.name = club});
        ++m_stints;
        for (const double carry : carries) {
            record::Shot shot;
            shot.build = record::BuildAt(static_cast<std::size_t>(at));
            shot.turn = std::to_string(m_stints);
            shot.player = player;
            shot.readings.measure(Metric::carry, carry);
            m_test.shots.push_back(shot);
        }
        return *this;
    }
    record::Test done() {
        m_test.nameShots();
        m_test.namePlayers();
        return m_test;
    }
    record::Test& test() { return m_test; }

private:
    record::Test m_test;
    int m_stints = 0;
};

// A bag as it is struck in a number of sittings: what a stint adds, and what a shot does.
std::vector<record::Test> struck(const std::vector<double>& carries, int sittings, Random& random) {
    constexpr double stintSd = 2;
    constexpr double shotSd = 5;
    constexpr int shots = 7;
    std::vector<record::Test> tests;
    for (int s = 0; s < sittings; ++s) {
        Sitting sitting("s" + std::to_string(s));
        const double day = 3 * random.normal();
        for (std::size_t i = 0; i < carries.size(); ++i) {
            const double level = carries[i] + day + stintSd * random.normal();
            std::vector<double> values;
            for (int k = 0; k < shots; ++k)
                values.push_back(level + shotSd * random.normal());
            sitting.stint("Club " + std::string(1, static_cast<char>('A' + i)), values);
        }
        tests.push_back(sitting.done());
    }
    return tests;
}

std::vector<double> even(std::size_t clubs, double step) {
    std::vector<double> carries;
    for (std::size_t i = 0; i < clubs; ++i)
        carries.push_back(210 - step * static_cast<double>(i));
    return carries;
}

} // namespace

TEST_CASE("a gap over sittings and how often a club is outflown agree with R") {
    const auto row = knot::test::loadJson("worth").at("over_sittings");
    std::vector<record::Test> tests;
    for (std::size_t i = 0; i < row.at("gaps").size(); ++i) {
        Sitting sitting(std::to_string(i));
        for (int lap = 0; lap < row.at("laps")[i].get<int>(); ++lap) {
            sitting.stint("Long", {150 + row.at("gaps")[i].get<double>()});
            sitting.stint("Short", {150});
        }
        tests.push_back(sitting.done());
    }
    const Bag bag = bagOf(tests);
    REQUIRE(bag.gaps.size() == 1);
    CHECK(bag.gaps[0].rests == Rests::severalSittings);
    CHECK(bag.gaps[0].sittings == 5);
    CHECK(bag.gaps[0].gap == Approx(row.at("gap").get<double>()).epsilon(1e-10));
    CHECK(bag.gaps[0].ci95->low == Approx(row.at("interval")[0].get<double>()).epsilon(1e-8));
    CHECK(bag.gaps[0].ci95->high == Approx(row.at("interval")[1].get<double>()).epsilon(1e-8));
    const auto passing = knot::test::loadJson("worth").at("outflies");
    const auto met = bagOf({Sitting("all")
                                .stint("Long", passing.at("longer").get<std::vector<double>>())
                                .stint("Short", passing.at("shorter").get<std::vector<double>>())
                                .done()});
    CHECK(*met.gaps[0].outflown == Approx(passing.at("chance").get<double>()).epsilon(1e-12));
}

TEST_CASE("an even bag is told a hole or a double in at most 5 of 100, and intervals cover") {
    Random random(33);
    for (const int sittings : {1, 2, 4}) {
        constexpr int bags = 400;
        int wrong = 0;
        double covered = 0;
        double gaps = 0;
        for (int i = 0; i < bags; ++i) {
            const Bag bag = bagOf(struck(even(11, 11), sittings, random));
            wrong += std::ranges::any_of(bag.gaps, [](const Gap& gap) { return gap.is != Gap::Is::neither; }) ? 1 : 0;
            for (const Gap& gap : bag.gaps) {
                const double truth = 11.0 * (bag.clubs[gap.shorter].name.back() - bag.clubs[gap.longer].name.back());
                covered += gap.ci95->contains(truth) ? 1 : 0;
                ++gaps;
            }
        }
        INFO(sittings << " sittings: " << wrong << " of " << bags << " told, " << 100 * covered / gaps << " covered");
        CHECK(wrong <= 0.05 * bags + 9); // two standard errors
        CHECK(covered / gaps > 0.92);
        CHECK(covered / gaps < (sittings == 1 ? 0.995 : 0.975)); // a club player's stints are wider than these
    }
}

TEST_CASE("a hole and a double are found over some sittings, and said") {
    Random random(7);
    int holes = 0;
    int twins = 0;
    constexpr int bags = 100;
    for (int i = 0; i < bags; ++i) {
        const Bag bag = bagOf(struck({210, 198, 186, 164, 152, 150, 138, 126}, 6, random), {}, 12.0);
        for (const Gap& gap : bag.gaps) {
            holes += gap.is == Gap::Is::hole && bag.clubs[gap.longer].name == "Club C" ? 1 : 0;
            twins += gap.is == Gap::Is::twin ? 1 : 0;
        }
    }
    INFO(holes << " holes and " << twins << " doubles of " << bags);
    CHECK(holes > 70);
    CHECK(twins > 15); // two clubs 2 m apart are hard to tell from two that are 6 m apart
    const Bag bag = bagOf(
        {Sitting("one").stint("A", {200, 201, 199}).stint("B", {150, 151}).stint("C", {149, 150}).done()}, {}, 12.0);
    const auto said = words::bagSentences(bag, {});
    CHECK(said[0].starts_with("There is a hole between A and B: 50 m ("));
    CHECK(said[0].ends_with("), on one sitting."));
    CHECK(said.back().starts_with("Held against a step of 12 m"));
    CHECK(*bag.gaps[1].outflown == Approx(0.125)); // of four pairs one is a tie
    CHECK(std::ranges::none_of(said, [](const auto& one) { return one.starts_with("C outflies B"); }));
}

TEST_CASE("clubs that never met are held against each other by way of one that met both") {
    const Bag bag = bagOf({Sitting("one").stint("A", {200, 202}).stint("B", {190, 191}).done(),
                           Sitting("two").stint("A", {210, 209}).stint("C", {180, 184}).done()});
    REQUIRE(bag.clubs.size() == 3);
    CHECK(bag.gaps[0].rests == Rests::oneSitting);
    const Gap& way = bag.gaps[1];
    CHECK(way.rests == Rests::byAnother);
    CHECK(bag.clubs[way.longer].name == "B");
    CHECK(way.gap == Approx((190.5 - 201) + (209.5 - 182)));
    CHECK(way.ci95->high - way.ci95->low > bag.gaps[0].ci95->high - bag.gaps[0].ci95->low);
    CHECK_FALSE(way.outflown);
    const Bag apart = bagOf({Sitting("one").stint("A", {200}).done(), Sitting("two").stint("B", {180}).done()});
    CHECK(apart.gaps[0].rests == Rests::averages);
    CHECK_FALSE(apart.gaps[0].ci95);
    CHECK(apart.gaps[0].is == Gap::Is::neither);
}

TEST_CASE("stints are told by what was struck when, and the delivery is the player's own") {
    record::Test file = Sitting("one").stint("A", {200, 202}).stint("B", {180}).stint("A", {210}).done();
    for (record::Shot& shot : file.shots)
        shot.turn.clear(); // as files have it
    const Bag bag = bagOf({file});
    CHECK(bag.clubs[0].sittings[0].stints.size() == 2);
    CHECK(bag.clubs[0].carry == Approx((201 + 210) / 2.0));
    record::Test two = Sitting("two")
                           .stint("A", {100, 101, 102}, "Odd")
                           .stint("A", {140, 141}, "Marit")
                           .stint("B", {90}, "Marit")
                           .done();
    for (record::Shot& shot : two.shots)
        shot.delivery = shot.player == "Odd" ? "low" : "full";
    CHECK(bagOf({two}, "Marit").clubs.size() == 2);
    CHECK(bagOf({two}, "Marit").clubs[0].carry == Approx(140.5));
}

TEST_CASE("a bag is one player's, of free shots, and holds what was decided for") {
    record::Test both =
        Sitting("one").stint("A", {200}, "Odd").stint("A", {230}, "Marit").stint("B", {180}, "Odd").done();
    CHECK(bagOf({both}, "Odd").clubs[0].carry == 200);
    CHECK(bagOf({both}, "Marit").clubs.size() == 1);
    // Shafts in one head are rivals and no bag, until one is decided for.
    Sitting rivals("two");
    rivals.stint("7-iron Reed", {150, 151}).stint("7-iron Fern", {152, 153});
    rivals.test().stage = record::Stage::screening;
    record::Test test = rivals.done();
    CHECK(bagOf({test}).clubs.empty());
    test.decision = {.what = record::Action::change, .club = "7-iron Fern"};
    REQUIRE(bagOf({test}).clubs.size() == 1);
    CHECK(bagOf({test}).clubs[0].name == "7-iron Fern");
    CHECK(bagOf({}).clubs.empty());
}

TEST_CASE("wind and cold take from a club's own carry what the flight model says") {
    Club club{.name = "A", .sittings = {}, .carry = 150};
    CHECK_FALSE(carryIn(club, {.windAlong = -6}));
    club.launch = flight::Launch{.ballSpeed = 54, .launch = 17, .spin = 6500};
    CHECK(*carryIn(club, {}) == Approx(150));
    CHECK(*carryIn(club, {.windAlong = -6}) ==
          Approx(150 * flight::fly(*club.launch, {.windAlong = -6}).carry / flight::fly(*club.launch).carry)
              .margin(0.01));
    CHECK(*carryIn(club, {.windAlong = -6}) < 135);
}
