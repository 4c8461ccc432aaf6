#include "core/judge/bets/choosing.h"
#include "core/judge/causes/models.h"
#include "core/judge/gaps/robust.h"
#include "core/judge/shots/forgiveness.h"
#include "core/judge/spreads/consistency.h"
#include "core/judge/spreads/dispersion.h"
#include "core/random.h"
#include "core/simulate/scenarios.h"
#include "core/words/ledger.h"
#include "core/words/remarks/remarks.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

using namespace knot;
using judge::Taken;
using knot::test::TestBuilder;
using record::Mark;
using record::Metric;

namespace {

judge::Column columnOf(const record::Test& test, Metric metric = Metric::carry) {
    return judge::columnOf(test, record::structureOf(test), metric, Taken::counted);
}

bool remarked(const judge::Reading& reading, const std::string& code) {
    const auto all = words::remarks(reading, {});
    return std::ranges::any_of(all, [&](const auto& r) { return r.code == code; });
}

// Five laps of two clubs whose values follow from lap, club and place.
template<typename Value> TestBuilder laps(int count, int length, Value value) {
    TestBuilder builder;
    for (int lap = 0; lap < count; ++lap)
        for (int club = 0; club < 2; ++club) {
            std::vector<double> values;
            for (int place = 0; place < length; ++place)
                values.push_back(value(lap, club, place));
            builder.turn(club == 0 ? "Slate" : "Fern", std::to_string(lap + 1), values);
        }
    return builder;
}

} // namespace

TEST_CASE("spreads of constant, tiny and single samples are defined") {
    struct Row {
        std::vector<double> a, b;
        judge::Cap cap;
    };
    for (const Row& row :
         {Row{{1, 2}, {1, 2, 3}, judge::Cap::tooFewShots}, Row{{1}, {1, 2, 3, 4}, judge::Cap::tooFewShots},
          Row{{5, 5, 5, 5, 5}, {1, 2, 3, 4, 5}, judge::Cap::noVariation}}) {
        TestBuilder builder;
        builder.turn("A", "1", row.a).turn("B", "1", row.b);
        const auto ratio = judge::spreadRatio(columnOf(builder.test), record::BuildAt(1), record::BuildAt(0), 1.25);
        REQUIRE(ratio);
        CHECK(ratio->claim.cap == row.cap);
        CHECK(!ratio->claim.p);
    }
}

TEST_CASE("a spread ratio turns over with its builds and ignores shifts and scales") {
    Random random(5);
    auto make = [&](double shift, double scale) {
        Random same(9);
        return laps(5, 4, [&](int, int club, int) { return shift + scale * (club == 1 ? 2 : 1) * same.normal(); });
    };
    const auto plain = judge::spreadRatio(columnOf(make(0, 1).test), record::BuildAt(1), record::BuildAt(0), 1.25);
    const auto moved = judge::spreadRatio(columnOf(make(1e6, 3).test), record::BuildAt(1), record::BuildAt(0), 1.25);
    const auto turned = judge::spreadRatio(columnOf(make(0, 1).test), record::BuildAt(0), record::BuildAt(1), 1.25);
    CHECK(moved->ratio == Approx(plain->ratio).epsilon(1e-8));
    CHECK(*moved->claim.p == Approx(*plain->claim.p).epsilon(1e-6));
    CHECK(turned->ratio == Approx(1 / plain->ratio));
    CHECK(*turned->claim.p == Approx(*plain->claim.p));
}

TEST_CASE("landing areas need four points and some width") {
    TestBuilder builder;
    builder.turn("A", "1", {1, 2, 3}).turn("B", "1", {1, 2, 3, 4, 5, 6, 7});
    for (auto& shot : builder.test.shots)
        shot.readings.measure(Metric::side, 2 * *shot.readings.at(Metric::carry)); // all on one line
    const auto landings = judge::landingsOf(builder.test, record::structureOf(builder.test), judge::Taken::counted);
    CHECK(!judge::landingArea(landings, record::BuildAt(0)));
    const auto line = judge::landingArea(landings, record::BuildAt(1));
    REQUIRE(line);
    CHECK(line->area90 == Approx(0).margin(1e-5));
    CHECK(line->sdMinor == Approx(0).margin(1e-6));
    CHECK(!judge::areaRatio(landings, record::BuildAt(1), record::BuildAt(0), 1.5, 1));
}

TEST_CASE("the long axis of a landing area tilts to the right when far shots go right") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 152, 154, 156, 158});
    int i = 0;
    for (auto& shot : builder.test.shots)
        shot.readings.measure(Metric::side, 2.0 * i + (i % 2 == 0 ? 0.3 : -0.3)), ++i;
    const auto area = judge::landingArea(
        judge::landingsOf(builder.test, record::structureOf(builder.test), judge::Taken::counted), record::BuildAt(0));
    CHECK(area->tilt == Approx(45).margin(3));
}

TEST_CASE("drift is found, and said when it touches a declared outcome") {
    Random random(2);
    int order = 0;
    auto builder = laps(6, 3, [&](int, int, int) { return 150 + 0.4 * ++order + 0.5 * random.normal(); });
    builder.test.card.primary = {*record::outcomeFromText("carry_m")};
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    REQUIRE(reading.drift.size() == 1);
    CHECK(reading.drift[0].value == Approx(0.4).margin(0.1));
    CHECK(remarked(reading, "drift"));
}

TEST_CASE("a club that the player still learns is told from one that differs") {
    Random random(3);
    auto learning =
        laps(8, 3, [&](int lap, int club, int) { return 150 + (club == 1 ? 1.5 * lap : 0) + random.normal(); });
    const auto slope = judge::adaptationGap(columnOf(learning.test), record::BuildAt(1), record::BuildAt(0));
    REQUIRE(slope);
    CHECK(slope->value == Approx(1.5).margin(0.4));
    CHECK(slope->p < 0.001);
    auto settled = laps(8, 3, [&](int, int club, int) { return 150 + (club == 1 ? 5 : 0) + random.normal(); });
    CHECK(judge::adaptationGap(columnOf(settled.test), record::BuildAt(1), record::BuildAt(0))->p > 0.01);
}

TEST_CASE("settling inside the stint is a slope on place") {
    Random random(4);
    const auto builder = laps(6, 5, [&](int, int, int place) { return 150 + 0.8 * place + 0.5 * random.normal(); });
    CHECK(judge::settlingSlope(columnOf(builder.test), record::BuildAt(0))->value == Approx(0.8).margin(0.2));
    TestBuilder single;
    single.turn("A", "1", {1});
    CHECK(!judge::settlingSlope(columnOf(single.test), record::BuildAt(0)));
}

TEST_CASE("a gap that strike height makes is explained by it") {
    const auto test = simulate::testFrom(*simulate::scenarioByKey("high-strike"), {.seed = 7, .rounds = 14});
    const auto equal = judge::equalStrike(test, columnOf(test, Metric::spin), record::BuildAt(1), record::BuildAt(0),
                                          {Metric::strikeHigh}, 400, 1);
    REQUIRE(equal);
    CHECK(equal->asStruck.value < -150);
    CHECK(equal->equal.ci95.contains(0));
    REQUIRE(equal->explainedInterval);
    CHECK(equal->explainedInterval->high < 0);
    CHECK(equal->explained == Approx(equal->asStruck.value - equal->equal.value));
    CHECK(judge::equalStrike(test, columnOf(test, Metric::spin), record::BuildAt(1), record::BuildAt(0),
                             {Metric::strikeHigh}, 400, 1)
              ->explainedInterval->low == equal->explainedInterval->low);
    CHECK(!judge::equalStrike(test, columnOf(test, Metric::spin), record::BuildAt(1), record::BuildAt(0),
                              {Metric::dynamicLie}, 0, 1)); // never read
}

TEST_CASE("a trend off the line is said to be off it") {
    TestBuilder builder;
    Random random(6);
    const double grams[] = {60, 70, 80};
    for (int lap = 0; lap < 6; ++lap)
        for (int b = 0; b < 3; ++b)
            builder.turn(std::string(1, static_cast<char>('A' + b)), std::to_string(lap),
                         {150 + (b == 1 ? 6 : 0) + random.normal(), 150 + (b == 1 ? 6 : 0) + random.normal()});
    builder.test.extraColumns = {"weight_g"};
    for (auto& shot : builder.test.shots)
        shot.extra = {std::to_string(grams[shot.build])};
    const auto trend = judge::trendAlong(builder.test, columnOf(builder.test), "weight_g");
    REQUIRE(trend);
    CHECK(*trend->fitP < 0.001);
    CHECK(*trend->fitDf1 == 1);
    CHECK(*trend->fitDf2 == 18 - 3 - 6 + 1);
    CHECK(!judge::trendAlong(builder.test, columnOf(builder.test), "length"));
    for (auto& shot : builder.test.shots)
        shot.extra = {"70"};
    CHECK(!judge::trendAlong(builder.test, columnOf(builder.test), "weight_g")); // no spread in the factor
}

TEST_CASE("sign-test intervals need six rounds and hold the median") {
    auto differences = [](std::vector<double> d) {
        TestBuilder builder;
        for (std::size_t r = 0; r < d.size(); ++r)
            builder.turn("A", std::to_string(r), {100, 100}).turn("B", std::to_string(r), {100 + d[r], 100 + d[r]});
        return *judge::medianGap(columnOf(builder.test), record::BuildAt(1), record::BuildAt(0));
    };
    CHECK(!differences({1, 2, 3, 4, 5}).interval);
    const auto six = differences({6, 1, 5, 2, 4, 3});
    CHECK(six.median == Approx(3.5));
    CHECK(six.interval->low == Approx(1));
    CHECK(six.interval->high == Approx(6));
    CHECK(six.interval->level == Approx(1 - 2.0 / 64));
}

TEST_CASE("the set that may be best shrinks to the one that beats all, in the wanted direction") {
    auto make = [](double ahead) {
        TestBuilder builder;
        Random random(8);
        for (int lap = 0; lap < 8; ++lap)
            for (int b = 0; b < 3; ++b) {
                const double mean = 150 + (b == 2 ? ahead : 0);
                builder.turn(std::string(1, static_cast<char>('A' + b)), std::to_string(lap),
                             {mean + random.normal(), mean + random.normal()});
            }
        return builder.test;
    };
    using Kind = record::Want::Kind;
    CHECK(judge::bestSet(columnOf(make(6)), {Kind::more, 0}, 0.05) == std::vector{record::BuildAt(2)});
    CHECK(judge::bestSet(columnOf(make(6)), {Kind::less, 0}, 0.05) ==
          std::vector{record::BuildAt(0), record::BuildAt(1)});
    CHECK(judge::bestSet(columnOf(make(6)), {Kind::near, 156}, 0.05) == std::vector{record::BuildAt(2)});
    CHECK(judge::bestSet(columnOf(make(0)), {Kind::more, 0}, 0.05).size() == 3);
    const auto choices =
        judge::choosing(judge::standings(columnOf(make(6))), {Kind::more, 0}, judge::LossScale::plain, 1, 5, 4000)
            .choosing;
    CHECK(choices[2].chanceBest > 0.99);
    CHECK(choices[2].meanLoss < 0.05);
    CHECK(choices[0].meanLoss > 4);
    double total = 0;
    for (const auto& choice : choices)
        total += choice.chanceBest;
    CHECK(total == Approx(1));
}

TEST_CASE("forgiveness finds the loss away from the best strike, and the worst fifth its gap") {
    TestBuilder builder(Metric::ballSpeed);
    Random random(10);
    for (int lap = 0; lap < 8; ++lap)
        for (const char* club : {"A", "B"}) {
            builder.turn(club, std::to_string(lap), {0, 0, 0, 0});
            for (std::size_t i = builder.test.shots.size() - 4; i < builder.test.shots.size(); ++i) {
                auto& r = builder.test.shots[i].readings;
                const double toe = 8 * random.normal();
                const double high = 3 + 8 * random.normal();
                r.measure(Metric::strikeToe, toe);
                r.measure(Metric::strikeHigh, high);
                const double loss = (club[0] == 'B' ? 0.2 : 0.05) * std::hypot(toe, high - 3);
                r.measure(Metric::ballSpeed, 60 - loss + 0.1 * random.normal());
                r.measure(Metric::carry, 150 - 3 * loss);
            }
        }
    const auto a = judge::forgivenessOf(builder.test, columnOf(builder.test, Metric::ballSpeed), record::BuildAt(0));
    const auto b = judge::forgivenessOf(builder.test, columnOf(builder.test, Metric::ballSpeed), record::BuildAt(1));
    CHECK(a->lossPerMm == Approx(0.05).margin(0.02));
    CHECK(b->lossPerMm == Approx(0.2).margin(0.03));
    const auto worst = judge::worstFifthGap(columnOf(builder.test), record::BuildAt(1), record::BuildAt(0), 1);
    CHECK(worst->gap < -3);
    CHECK(worst->ci95.high < 0);
    TestBuilder few;
    few.turn("A", "1", {1, 2}).turn("B", "1", {1, 2});
    CHECK(!judge::worstFifthGap(columnOf(few.test), record::BuildAt(1), record::BuildAt(0), 1));
    CHECK(!judge::forgivenessOf(few.test, columnOf(few.test), record::BuildAt(0)));
}

TEST_CASE("windows are judged on turn means") {
    const auto builder =
        laps(6, 3, [](int lap, int club, int place) { return (club == 0 ? 150 : 170) + 0.2 * lap + 0.3 * place; });
    const auto column = columnOf(builder.test);
    CHECK(judge::againstTarget(column, record::BuildAt(0), 145, 155).verdict == judge::AgainstTarget::inside);
    CHECK(judge::againstTarget(column, record::BuildAt(0), 160, 165).verdict == judge::AgainstTarget::below);
    CHECK(judge::againstTarget(column, record::BuildAt(1), 160, 165).verdict == judge::AgainstTarget::above);
    CHECK(judge::againstTarget(column, record::BuildAt(0), 150.5, 151).verdict == judge::AgainstTarget::open);
    CHECK(judge::againstTarget(column, record::BuildAt(0), 145, 155).share.share == 1);
}

TEST_CASE("shapes hold what lies in them") {
    using Kind = record::Shape::Kind;
    const record::Shape fairway{Kind::fairway, "lane", 1, 0, 20, 0};
    CHECK(fairway.holds(11, 500));
    CHECK(!fairway.holds(-9.5, 100));
    const record::Shape ellipse{Kind::ellipse, "green", 0, 150, 20, 10};
    CHECK(ellipse.holds(0, 155));
    CHECK(!ellipse.holds(9, 154));
    CHECK(record::Shape{Kind::rectangle, "green", 0, 150, 20, 10}.holds(9, 154));
}

TEST_CASE("a share in a shape is compared lap by lap and counted by turns") {
    Random random(12);
    TestBuilder builder;
    for (int lap = 0; lap < 10; ++lap)
        for (const char* club : {"A", "B"}) {
            builder.turn(club, std::to_string(lap), {150, 150, 150, 150});
            for (std::size_t i = builder.test.shots.size() - 4; i < builder.test.shots.size(); ++i) {
                builder.test.shots[i].readings.measure(Metric::carry, 150 + 4 * random.normal());
                builder.test.shots[i].readings.measure(Metric::side, (club[0] == 'A' ? 4 : 16) * random.normal());
            }
        }
    builder.test.card.shapes = {{record::Shape::Kind::fairway, "lane", 0, 0, 20, 0}};
    builder.test.card.primary = {*record::outcomeFromText("share:lane")};
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    REQUIRE(reading.shareGaps.size() == 1);
    CHECK(reading.shareGaps[0].gap.claim.verdict == judge::Verdict::real);
    CHECK(reading.shareGaps[0].gap.claim.favours == judge::Favours::worse);
    REQUIRE(reading.shapeShares.size() == 2);
    CHECK(reading.shapeShares[0].counted.ci95.contains(0.9876)); // P(|z| ≤ 2.5)
    CHECK(*reading.shapeShares[0].fitted == Approx(0.9876).margin(0.03));
    CHECK(words::ledger(reading, {}).front().sentence.find("lands in lane less often than A by") != std::string::npos);
    // An ellipse that holds half of a round normal: radius 1.1774 SD.
    const auto landings = judge::landingsOf(builder.test, record::structureOf(builder.test), judge::Taken::counted);
    const auto area = *judge::landingArea(landings, record::BuildAt(0));
    const record::Shape half{
        record::Shape::Kind::ellipse, "half", area.centreSide, area.centreCarry, 2 * 1.1774 * 4, 2 * 1.1774 * 4};
    CHECK(*judge::fittedShare(landings, record::BuildAt(0), half) == Approx(0.5).margin(0.12));
}

TEST_CASE("when shots are set aside by their numbers, verdicts come from all that were read") {
    auto builder = laps(6, 4, [](int lap, int club, int place) {
        return 150 + (club == 1 ? 5 : 0) + 0.4 * ((lap * 5 + place * 3 + club) % 4);
    });
    for (std::size_t i = 4; i < builder.test.shots.size(); i += 8) {
        builder.test.shots[i].readings.measure(Metric::carry, 120 + static_cast<double>(i));
        builder.test.shots[i].status = record::ShotStatus::setAside;
    }
    const auto called = *judge::judge({.subject = judge::Case::of(builder.test)});
    builder.test.card.setAsideRule = record::SetAsideRule::bestAndWorst;
    const auto byNumbers = *judge::judge({.subject = judge::Case::of(builder.test)});
    CHECK(byNumbers.average[0].gap == Approx(called.average[0].claim.otherSide->estimate));
    CHECK(byNumbers.average[0].claim.otherSide->estimate == Approx(called.average[0].gap));
}

TEST_CASE("several sittings are pooled, and it is said in how many the gap held up") {
    Random random(14);
    auto builder = laps(12, 3, [&](int, int club, int) { return 150 + (club == 1 ? 6 : 0) + random.normal(); });
    for (std::size_t i = 0; i < builder.test.shots.size(); ++i)
        builder.test.shots[i].sitting = i < 24 ? "May" : i < 48 ? "June" : "July";
    builder.test.card.primary = {*record::outcomeFromText("carry_m")};
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    const auto& pooled = reading.average[0].pooled;
    REQUIRE(pooled);
    CHECK(pooled->sittings == 3);
    CHECK(pooled->heldUp == 3);
    CHECK(pooled->pooled == Approx(6).margin(0.8));
    CHECK(remarked(reading, "sittings"));
}

TEST_CASE("deliveries are pooled as sittings are, and one lap with each is no fair test") {
    for (const int laps : {1, 3}) {
        INFO(laps);
        Random random(16);
        TestBuilder builder;
        for (const char* delivery : {"usual", "high"})
            for (int lap = 0; lap < laps; ++lap)
                for (const int club : {lap % 2, 1 - lap % 2}) {
                    builder.turn(club == 1 ? "B" : "A", std::to_string(lap + 1), {});
                    for (int i = 0; i < 4; ++i) {
                        builder.shot(club == 1 ? "B" : "A", record::ShotStatus::counted,
                                     150 + 6.0 * club + 0.3 * random.normal());
                        builder.test.shots.back().delivery = delivery;
                        builder.test.shots.back().round = std::to_string(lap + 1);
                    }
                }
        builder.test.card.primary = {*record::outcomeFromText("carry_m")};
        const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
        CHECK((reading.average[0].claim.cap == judge::Cap::onePerDelivery) == (laps == 1));
        CHECK((reading.average[0].claim.verdict == judge::Verdict::real) == (laps == 3));
        CHECK(reading.card.factorColumn == "delivery");
        CHECK(reading.average[0].pooled.has_value() == (laps == 3));
        if (const auto& pooled = reading.average[0].pooled) {
            CHECK(pooled->over == judge::PooledOver::deliveries);
            CHECK(pooled->sittings == 2);
            CHECK(pooled->heldUp == 2);
        }
    }
}

TEST_CASE("clubs that were hit with different deliveries share no lap") {
    auto builder = laps(4, 3, [](int lap, int club, int place) { return 150 + 5 * club + 0.1 * (lap + place % 2); });
    for (auto& shot : builder.test.shots)
        shot.delivery = shot.build == record::BuildAt(0) ? "usual" : "high";
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    CHECK(reading.average[0].claim.cap == judge::Cap::tooFewRounds);
    CHECK(reading.average[0].claim.verdict == judge::Verdict::open);
}

TEST_CASE("a planned lap with two deliveries in it is one lap of the plan") {
    auto builder = laps(4, 4, [](int lap, int club, int place) { return 150 + 5 * club + 0.1 * (lap + place % 2); });
    for (std::size_t i = 0; i < builder.test.shots.size(); ++i)
        builder.test.shots[i].delivery = i % 4 < 2 ? "low" : "high";
    builder.test.card.plannedRounds = 4;
    CHECK(judge::Case::of(builder.test).roundsBeyond() == 0);
    builder.test.card.plannedRounds = 3;
    CHECK(judge::Case::of(builder.test).roundsBeyond() == 2); // the fourth lap, low and high
}

TEST_CASE("more laps cost less than they save only where something is open") {
    Random random(15);
    auto builder = laps(5, 3, [&](int, int club, int) { return 150 + 0.3 * club + 3 * random.normal(); });
    const auto best = judge::choosing(judge::standings(columnOf(builder.test)), {record::Want::Kind::more, 0},
                                      judge::LossScale::plain, 1, 10, 8000);
    CHECK(best.lossNow > 0.02);
    CHECK(best.lossAfter < best.lossNow);
    CHECK(best.lossAfter > 0);
}

TEST_CASE("the same request gives the same reading bit for bit") {
    const auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    CHECK(knot::test::readingOf(test).dump() == knot::test::readingOf(test).dump());
}

TEST_CASE("numbers that move together are one finding") {
    const auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    const bool together = std::ranges::any_of(reading.findings, [](const auto& finding) {
        auto holds = [&](Metric metric) {
            return std::ranges::any_of(finding, [&](const auto& o) { return o.metric == metric; });
        };
        return holds(Metric::carry) && holds(Metric::ballSpeed) && holds(Metric::total);
    });
    CHECK(together);
}

TEST_CASE("a verdict that hangs on one shot names it") {
    auto builder = laps(5, 3, [](int lap, int club, int place) {
        return 150 + (club == 1 ? 4.2 : 0) + 0.3 * ((lap * 7 + place * 3) % 5);
    });
    builder.test.card.primary = {*record::outcomeFromText("carry_m")};
    builder.test.shots[5].readings.measure(Metric::carry, 130); // one of Fern's, far short
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    const bool named =
        std::ranges::any_of(reading.average[0].claim.influence, [](const auto& i) { return i.number == 6; });
    CHECK(named);
    CHECK(reading.average[0].claim.verdict != judge::Verdict::real);
}

TEST_CASE("set-asides that change a verdict are flagged") {
    auto builder = laps(6, 4, [](int lap, int club, int place) {
        return 150 + (club == 1 ? 5 : 0) + 0.4 * ((lap * 5 + place * 3 + club) % 4);
    });
    builder.test.card.primary = {*record::outcomeFromText("carry_m")};
    for (std::size_t i = 4; i < builder.test.shots.size(); i += 8) {
        builder.test.shots[i].readings.measure(Metric::carry, 120 + static_cast<double>(i));
        builder.test.shots[i].status = record::ShotStatus::setAside;
    }
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    REQUIRE(reading.average.size() == 1);
    REQUIRE(reading.average[0].claim.otherSide);
    CHECK(reading.average[0].claim.otherSide->changes);
    CHECK(remarked(reading, "set_asides_matter"));
    CHECK(reading.setAsideShares[1].hits == 6);
}

TEST_CASE("a changed club is a successor, never pooled with what came before") {
    auto builder = laps(6, 3, [](int lap, int club, int place) { return 150 + club + 0.1 * lap + 0.2 * place; });
    for (std::size_t i = 0; i < builder.test.shots.size(); ++i)
        if (builder.test.shots[i].build == 1 && builder.test.shots[i].round == "4" && builder.test.shots[i].handedOver)
            builder.test.shots[i].mark = Mark::club;
    const auto subject = judge::Case::of(builder.test);
    REQUIRE(subject.test().builds.size() == 3);
    CHECK(subject.test().builds[2].name == "Fern, changed");
    CHECK(subject.clubs() == 2);
    CHECK(subject.clubOf(record::BuildAt(2)) == record::BuildAt(1));
    const auto reading = *judge::judge({.subject = subject});
    CHECK(reading.builds[1].counted == 9);
    CHECK(reading.builds[2].counted == 9);
    CHECK(reading.average.size() == 2);
}

TEST_CASE("nothing is compared across a change of the player") {
    // The clubs meet before and after: gaps are taken within, whatever the change did to both.
    auto builder = laps(6, 2, [](int lap, int club, int place) {
        return 150 + 3 * club + (lap >= 3 ? 40 : 0) + 0.1 * ((lap + place) % 3);
    });
    builder.test.shots[12].mark = Mark::player;
    auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    CHECK(reading.average[0].gap == Approx(3).margin(0.2));
    CHECK(reading.average[0].rounds == 6);
    // One club before, the other after: no common ground.
    TestBuilder apart;
    apart.turn("A", "1", {150, 151, 152}).turn("B", "1", {160, 161, 162});
    apart.test.shots[3].mark = Mark::player;
    reading = *judge::judge({.subject = judge::Case::of(apart.test)});
    CHECK(reading.average[0].claim.cap == judge::Cap::markBetween);
    CHECK(reading.average[0].claim.verdict == judge::Verdict::open);
}

TEST_CASE("a next player or another delivery is no drift") {
    Random random(17);
    TestBuilder builder;
    for (const char* player : {"Runa", "Vigdis"})
        for (int lap = 0; lap < 4; ++lap)
            for (int club = 0; club < 2; ++club) {
                builder.turn(club == 1 ? "B" : "A", std::to_string(lap + 1), {});
                for (int i = 0; i < 3; ++i) {
                    builder.shot(club == 1 ? "B" : "A", record::ShotStatus::counted,
                                 (player[0] == 'R' ? 150.0 : 190.0) + random.normal());
                    builder.test.shots.back().player = player;
                    builder.test.shots.back().round = std::to_string(lap + 1);
                }
            }
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    REQUIRE(reading.drift.size() == 1);
    CHECK(std::fabs(reading.drift.front().value) < 0.15);
    CHECK_FALSE(remarked(reading, "drift"));
}
