// What single shots, calls, words and models of flight tell beside the verdicts.
#include "core/judge/columns.h"
#include "core/judge/days/usual.h"
#include "core/judge/flown.h"
#include "core/statistics/distributions.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::test;
using record::BuildAt;
using record::Call;
using record::Metric;

TEST_CASE("missing readings are counted for each club, and said where they are uneven") {
    record::Test test = flownTest();
    int fern = 0;
    for (auto& shot : test.shots) {
        shot.readings.measure(Metric::strikeToe, 1);
        shot.readings.measure(Metric::strikeHigh, 0);
        if (test.builds[shot.build].name == "Fern" && ++fern <= 8) {
            shot.readings.clear(Metric::carry);
            shot.readings.measure(Metric::strikeToe, 14);
        }
    }
    const auto reading = readingOfTest(test);
    const auto* carry = rowOf(reading.unread, Metric::carry);
    REQUIRE(carry != nullptr);
    CHECK(carry->ofBuild.unread == 8);
    CHECK(carry->ofBuild.n == 20);
    CHECK(carry->ofBuild.offMiddle == 8);
    CHECK(carry->ofAgainst.unread == 0);
    CHECK(carry->p == Approx(0.0032763).epsilon(1e-4)); // Fisher's exact test of 8 in 20 against 0 in 20
    CHECK(rowOf(reading.unread, Metric::spin) == nullptr);
    CHECK(isSaid(reading, "unread_differs", "8 of 20 shots with Fern and on 0 of 20 with Slate, all of them off the"));
    CHECK(!isSaid(readingOfTest(flownTest()), "unread_differs"));
}

TEST_CASE("calls before the number are counted apart and change no verdict") {
    record::Test test = flownTest();
    const auto before = readingOfTest(test);
    CHECK(before.called.empty());
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        test.shots[i].call = i % 4 == 0 ? Call::bad : i % 4 == 1 ? Call::soSo : Call::good;
    const auto reading = readingOfTest(test);
    CHECK(reading.average.front().gap == before.average.front().gap);
    REQUIRE(reading.called.size() == 2);
    CHECK(reading.called[0].bad.hits == 5);
    CHECK(reading.called[0].bad.n == 20);
    CHECK(reading.called[0].soSo == 5);
    CHECK(reading.called[0].good == 10);
    double gap = 0;
    for (const auto& shot : test.shots)
        if (shot.call == Call::bad)
            gap += *shot.readings.at(Metric::carry) / 5 * (test.builds[shot.build].name == "Fern" ? 1 : -1);
    const auto bad = std::ranges::find_if(
        reading.calledGaps, [](const auto& row) { return row.metric == Metric::carry && row.call == Call::bad; });
    REQUIRE(bad != reading.calledGaps.end());
    CHECK(bad->gap == Approx(gap));
    CHECK(bad->ci95->contains(gap));
    CHECK(bad->nBuild == 5);
    REQUIRE(reading.callAgreement);
    CHECK(reading.callAgreement->nSmash == 40);
}

TEST_CASE("a caller who knows agrees with what was measured, one who guesses does not") {
    record::Test test = flownTest();
    for (auto& shot : test.shots) {
        const double smash = *shot.readings.at(Metric::smash);
        shot.call = smash < 1.377 ? Call::bad : smash < 1.382 ? Call::soSo : Call::good;
    }
    CHECK(*readingOfTest(test).callAgreement->withSmash > 0.6);
    for (auto& shot : test.shots)
        shot.call = shot.call == Call::bad ? Call::good : shot.call == Call::good ? Call::bad : Call::soSo;
    CHECK(*readingOfTest(test).callAgreement->withSmash < -0.6);
}

TEST_CASE("misses fall into a table about the aim, and a one-way miss is told from chance") {
    record::Test test = flownTest();
    test.card.aim = record::Aim{.carry = 150, .side = 5};
    for (std::size_t i = 0; i < test.shots.size(); ++i) {
        test.shots[i].readings.measure(Metric::side, i % 5 == 0 ? 5 : -9);
        test.shots[i].readings.measure(Metric::carry, i % 2 == 0 ? 140 : 151);
    }
    const auto reading = readingOfTest(test);
    REQUIRE(reading.misses.size() == 2);
    const auto& slate = reading.misses[0];
    CHECK(slate.aimed);
    CHECK(slate.n == 20);
    std::size_t all = 0;
    for (const auto& side : slate.table)
        for (const std::size_t count : side)
            all += count;
    CHECK(all == slate.n);
    CHECK(slate.table[0][0] + slate.table[1][0] + slate.table[2][0] == 10); // short
    REQUIRE(slate.oneWay);
    CHECK(slate.oneWay->side == record::Side::left);
    CHECK(slate.oneWay->count == slate.oneWay->of);
    CHECK(slate.oneWay->p == Approx(2 * std::pow(0.5, static_cast<double>(slate.oneWay->of))));
    CHECK(isSaid(reading, "one_way", "to the left"));

    SECTION("the distance from the aim is a number like any other, wanted less") {
        REQUIRE(reading.averageOf(Metric::miss, BuildAt(1), BuildAt(0)) != nullptr);
        CHECK(reading.card.want({.kind = record::OutcomeKind::average, .metric = Metric::miss, .shape = {}}).kind ==
              record::Want::Kind::less);
        double sum = 0;
        for (const auto& shot : test.shots)
            if (shot.build == BuildAt(0))
                sum += std::hypot(*shot.readings.at(Metric::side) - 5, *shot.readings.at(Metric::carry) - 150) / 20;
        CHECK(reading.summaryOf(Metric::miss, BuildAt(0))->mean == Approx(sum));
        CHECK(test.shots.front().readings.at(Metric::miss) == std::nullopt); // the record keeps what was measured
    }
    SECTION("without an aim there is no such number") {
        test.card.aim.reset();
        CHECK(readingOfTest(test).summaryOf(Metric::miss, BuildAt(0)) == nullptr);
        CHECK(!readingOfTest(test).misses[0].aimed);
    }
}

TEST_CASE("flyers are few spins at no less speed, of the club's own usual") {
    record::Test test = flownTest();
    std::size_t first = test.shots.size();
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (test.builds[test.shots[i].build].name == "Fern" && *test.shots[i].readings.at(Metric::ballSpeed) > 53.2)
            first = std::min(first, i);
    REQUIRE(first < test.shots.size());
    test.shots[first].readings.measure(Metric::spin, 2500);
    test.nameShots();
    const auto reading = readingOfTest(test);
    const auto& fern = reading.misses[1];
    REQUIRE(fern.flyers);
    CHECK(fern.flyers->hits == 1);
    CHECK(fern.flyerShots == std::vector{test.shots[first].id});
    test.shots[first].readings.measure(Metric::ballSpeed, 40); // a slow ball spins less, and that is no flyer
    CHECK(readingOfTest(test).misses[1].flyers->hits == 0);
}

TEST_CASE("how often a shot passes another is counted over all pairs") {
    TestBuilder builder;
    builder.turn("Slate", "1", {10, 20}).turn("Fern", "1", {15, 20, 30});
    const auto reading = readingOfTest(builder.test);
    REQUIRE(reading.beats.size() == 1);
    CHECK(reading.beats[0].chance == Approx((2 + 0.5 + 2) / 6)); // 15>10, 20>10, 20=20, 30>both
    CHECK(!reading.beats[0].ci95);
    const auto flown = readingOfTest(flownTest());
    const auto* carry = rowOf(flown.beats, Metric::carry);
    CHECK(carry->ci95->contains(carry->chance));
}

TEST_CASE("ten shots lie as far apart as stints and shots make them") {
    TestBuilder builder;
    builder.turn("Slate", "1", {10, 12, 14}).turn("Slate", "2", {30, 32, 34}).turn("Fern", "1", {1, 2, 4});
    const auto reading = readingOfTest(builder.test);
    const auto slate = std::ranges::find(reading.tenShots, BuildAt(0), &judge::TenShots::build);
    REQUIRE(slate != reading.tenShots.end());
    const double shots = 16.0 / 4;         // squares inside stints over their degrees
    const double stints = 200 - shots / 3; // variance of 12 and 32 less what shots add
    CHECK(slate->range == Approx(3.078 * std::sqrt(shots + stints)));
}

TEST_CASE("what was said: repeated blind marks, gaps, what goes with it, and the club before") {
    record::Test test = flownTest();
    test.card.primary = {{.kind = record::OutcomeKind::average, .metric = Metric::carry, .shape = {}}};
    int stint = 0;
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        test.shots[i].turn = "s" + std::to_string(i / 4);
    for (std::size_t i = 0; i < test.shots.size(); i += 4, ++stint) {
        record::Feel feel{.turn = test.shots[i].turn, .build = test.shots[i].build};
        const bool fern = test.builds[feel.build].name == "Fern";
        feel.scores[0] = (fern ? 7 : 3) + stint % 2;
        if (stint > 0 && test.shots[i].build != test.shots[i - 1].build) {
            feel.versus = fern ? record::Versus::better : record::Versus::worse;
            feel.against = test.shots[i - 1].turn;
        }
        test.feels.push_back(feel);
    }
    auto reading = readingOfTest(test);
    CHECK(reading.feelLikeness.empty()); // who knows the club marks the name
    REQUIRE(reading.feelGaps.size() == 1);
    CHECK(reading.feelGaps[0].gap == Approx(4).margin(0.5));
    CHECK(reading.feelGaps[0].stints == 10);
    REQUIRE(reading.versus.size() == 1);
    CHECK(reading.versus[0].build == BuildAt(1));
    CHECK(reading.versus[0].better == reading.versus[0].better + reading.versus[0].worse); // said both ways, one claim
    CHECK(reading.versus[0].p == Approx(2 * std::pow(0.5, static_cast<double>(reading.versus[0].better))));
    REQUIRE(reading.feelRanks.size() == 1);
    CHECK(reading.feelRanks[0].stints == 10);
    test.card.blinding = record::Blinding::playerBlind;
    reading = readingOfTest(test);
    REQUIRE(reading.feelLikeness.size() == 1);
    CHECK(reading.feelLikeness[0].icc > 0.8);
}

TEST_CASE("what became of what was expected follows from the verdict") {
    TestBuilder builder;
    for (int lap = 1; lap <= 8; ++lap) {
        const double w = 0.1 * (lap % 3);
        builder.turn(lap % 2 == 0 ? "Fern" : "Slate", std::to_string(lap), {});
        builder.turn("Slate", std::to_string(lap), {150 + w, 151}).turn("Fern", std::to_string(lap), {160, 161 - w});
    }
    using record::Expectation;
    auto found = [&](Expectation said, Metric metric) {
        builder.test.card.expectations = {{metric, said}};
        const auto reading = readingOfTest(builder.test);
        return reading.expected.empty() ? std::nullopt : std::optional(reading.expected.front().found);
    };
    using Found = judge::Expected::Found;
    CHECK(found(Expectation::up, Metric::carry) == Found::asExpected);
    CHECK(found(Expectation::down, Metric::carry) == Found::otherWay);
    CHECK(found(Expectation::noChange, Metric::carry) == Found::otherWay);
    CHECK(!found(Expectation::up, Metric::spin));
    for (auto& shot : builder.test.shots)
        shot.readings.measure(Metric::carry, 150 + 0.01 * static_cast<double>(static_cast<int>(shot.id) % 7) +
                                                 std::fmod(*shot.readings.at(Metric::carry), 1.0));
    CHECK(found(Expectation::noChange, Metric::carry) == Found::asExpected);
    CHECK(found(Expectation::up, Metric::carry) == Found::nothingThatMatters);
}

TEST_CASE("a first stint far from what is usual is asked about") {
    record::Test test = flownTest();
    test.players = {{.name = "Marit Aasgaard"}};
    test.players[0].usual = {{.club = "Slate", .carry = 185.0, .ballSpeed = 52.5, .launch = {}, .spin = {}}};
    const auto reading = readingOfTest(test);
    const auto* carry = rowOf(reading.usual, Metric::carry);
    REQUIRE(carry != nullptr);
    CHECK(carry->outside());
    CHECK(isSaid(reading, "unlike_usual", "of carry under what is usual"));
    CHECK(!rowOf(reading.usual, Metric::ballSpeed)->outside());
    CHECK(rowOf(reading.usual, Metric::spin) == nullptr);

    SECTION("earlier sittings go before what was typed, and vary as they did") {
        std::vector<record::Test> earlier(3, test);
        for (std::size_t i = 0; i < earlier.size(); ++i)
            for (auto& shot : earlier[i].shots)
                shot.readings.measure(Metric::carry, 160 + static_cast<double>(i));
        const auto bases = judge::usualStruck(earlier, "Marit Aasgaard");
        const auto basis = std::ranges::find_if(
            bases, [](const auto& one) { return one.club == "Slate" && one.metric == Metric::carry; });
        REQUIRE(basis != bases.end());
        CHECK(basis->mean == Approx(161));
        CHECK(*basis->sd == Approx(1));
        CHECK(basis->sittings == 3);
        const auto again = *judge::judge({.subject = judge::Case::of(test), .earlier = {.usual = bases}});
        CHECK(rowOf(again.usual, Metric::carry)->usual == Approx(161));
        CHECK(judge::usualStruck(earlier, "Odd Farstad").empty());
    }
}

TEST_CASE("the side that costs makes a shape of its own, wanted less") {
    record::Test test = flownTest();
    test.players = {{.name = "Marit Aasgaard", .costs = record::Side::left}};
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        test.shots[i].readings.measure(Metric::side, i % 4 == 0 ? -14 : 3);
    const auto reading = readingOfTest(test);
    REQUIRE(reading.shapeShares.size() == 2);
    CHECK(reading.shapeShares[0].counted.share == Approx(0.25));
    CHECK(*reading.shapeShares[0].fitted > 0);
    REQUIRE(reading.shareGaps.size() == 1);
    CHECK(reading.card.want({.kind = record::OutcomeKind::share, .shape = reading.shareGaps[0].shape}).kind ==
          record::Want::Kind::less);
}

TEST_CASE("bets are given again with what was assumed halved and doubled") {
    const auto reading = readingOfTest(flownTest());
    const auto* bet = rowOf(reading.bets, Metric::carry);
    CHECK(std::fabs(bet->halved.expected) < std::fabs(bet->expected));
    CHECK(std::fabs(bet->doubled.expected) > std::fabs(bet->expected));
}

TEST_CASE("one club, one shot and equal names of nothing make nothing up") {
    TestBuilder one;
    one.turn("Slate", "", {150});
    const auto single = readingOfTest(one.test);
    CHECK(single.beats.empty());
    CHECK(single.tenShots.empty());
    CHECK(single.parts.empty());
    CHECK(single.unread.empty());
    one.turn("Fern", "", {150});
    const auto two = readingOfTest(one.test);
    CHECK(two.beats.size() == 1);
    CHECK(two.beats[0].chance == Approx(0.5));
    record::Test constant = flownTest();
    for (auto& shot : constant.shots)
        for (const Metric metric : {Metric::carry, Metric::side, Metric::spin, Metric::ballSpeed})
            shot.readings.measure(metric, 50);
    const auto steady = readingOfTest(constant);
    CHECK(rowOf(steady.beats, Metric::carry)->chance == Approx(0.5));
    CHECK(!steady.misses[0].flyers);
}

TEST_CASE("calls agree with strikes where good ones were struck near the middle") {
    record::Test test = flownTest();
    for (std::size_t i = 0; i < test.shots.size(); ++i) {
        test.shots[i].call = i % 2 == 0 ? Call::good : Call::bad;
        test.shots[i].readings.measure(Metric::strikeToe, i % 2 == 0 ? 1 + 0.01 * static_cast<double>(i) : -12);
        test.shots[i].readings.measure(Metric::strikeHigh, i % 4 < 2 ? 1 : -1);
    }
    const auto agreement = readingOfTest(test).callAgreement;
    REQUIRE(agreement);
    CHECK(*agreement->withStrike > 0.6);
    for (auto& shot : test.shots)
        shot.call = shot.call == Call::good ? Call::bad : Call::good;
    CHECK(*readingOfTest(test).callAgreement->withStrike < -0.6);
}

TEST_CASE("what is usual from n sittings is foreseen with the error of their mean") {
    record::Test test = flownTest();
    const auto structure = record::structureOf(test);
    const auto column = judge::columnOf(test, structure, Metric::carry, {});
    const judge::UsualBasis basis{.club = "Slate", .metric = Metric::carry, .mean = 160, .sd = 2.0, .sittings = 5};
    const plan::Spreads usual{.sdTurn = 3, .sdShot = 6};
    const auto found = judge::againstUsual(basis, column, *test.buildIndex("Slate"), usual);
    REQUIRE(found);
    const double ofDays = 2.0 * 2.0 * (1 + 1 / 5.0);
    const double variance = ofDays + 36.0 / 4;
    const double df = variance * variance / (ofDays * ofDays / 4);
    CHECK((found->prediction.high - found->prediction.low) / 2 ==
          Approx(statistics::studentQuantile(0.975, df) * std::sqrt(variance)));
    SECTION("one sitting knows its mean no better than a stint, and several numbers are one family") {
        const judge::UsualBasis once{.club = "Slate", .metric = Metric::carry, .mean = 160, .sittings = 1};
        const auto wide = judge::againstUsual(once, column, *test.buildIndex("Slate"), usual, 1 - 0.05 / 4);
        CHECK((wide->prediction.high - wide->prediction.low) / 2 ==
              Approx(statistics::studentQuantile(1 - 0.05 / 8, 6) * std::sqrt(2 * 9 + 36.0 / 4)));
    }
}

TEST_CASE("parts of a gap need two thirds of the shots, five laps for an interval, and count lead at the head") {
    record::Test test = flownTest();
    const auto without = [&](std::size_t every, Metric metric) {
        record::Test less = test;
        for (std::size_t i = 0; i < less.shots.size(); ++i)
            if (i % every == 0)
                less.shots[i].readings.clear(metric);
        return readingOfTest(less);
    };
    CHECK(rowOf(without(4, Metric::side).parts, Metric::side) != nullptr); // three of four
    CHECK(rowOf(without(2, Metric::side).parts, Metric::side) == nullptr); // one of two
    CHECK(rowOf(without(2, Metric::side).parts, Metric::carry) != nullptr);

    record::Test four = test;
    std::erase_if(four.shots, [](const record::Shot& shot) { return shot.round == "5"; });
    const auto ofFour = readingOfTest(four);
    const auto* carry = rowOf(ofFour.parts, Metric::carry);
    REQUIRE(carry != nullptr);
    CHECK_FALSE(carry->restInterval);
    CHECK(rowOf(readingOfTest(test).parts, Metric::carry)->restInterval);

    for (record::Build& build : test.builds)
        build.club.head = {.kind = record::PartKind::head, .mass = 250};
    CHECK_FALSE(rowOf(readingOfTest(test).parts, Metric::carry)->ofMass);
    test.builds[*test.buildIndex("Fern")].club.lead = 6;
    const auto leaded = readingOfTest(test);
    const auto* heavier = rowOf(leaded.parts, Metric::carry);
    REQUIRE(heavier->ofMass);
    CHECK(std::fabs(*heavier->ofMass->head) == Approx(6));
}
