// The same test on another day: whether a gap held, and clubs that met in no test by way of one that met both.
#include "core/judge/days/linked_tests.h"
#include "core/judge/judge.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/words/linked_tests.h"
#include "files/test_json.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using judge::GapFound;
using record::Test;

namespace {

struct Club {
    std::string name;
    double carry = 0;
};

// Six laps of four shots a club; every day shifts all of them alike, and a stint adds its own.
Test dayOf(std::uint64_t seed, const std::vector<Club>& clubs, const std::string& id, const std::string& repeats) {
    Random generator(seed);
    Test test;
    test.id = id;
    test.repeats = repeats;
    test.title = "Day " + id;
    test.card.kind = record::TestKind::shaft;
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.primary = {{.metric = record::Metric::carry}};
    for (const Club& club : clubs)
        test.builds.push_back({.name = club.name});
    const double day = 3 * generator.normal();
    for (int lap = 0; lap < 6; ++lap)
        for (std::size_t place = 0; place < clubs.size(); ++place) {
            const std::size_t b = (place + static_cast<std::size_t>(lap)) % clubs.size();
            const double stint = generator.normal();
            for (int i = 0; i < 4; ++i) {
                record::Shot shot;
                shot.build = record::BuildAt(b);
                shot.round = std::to_string(lap + 1);
                shot.turn = std::to_string(lap * static_cast<int>(clubs.size()) + static_cast<int>(place) + 1);
                shot.sitting = "1";
                shot.readings.measure(record::Metric::carry,
                                      150 + day + clubs[b].carry + stint + 2 * generator.normal());
                test.shots.push_back(shot);
            }
        }
    test.nameShots();
    return test;
}

judge::Reading readWith(const Test& test, const std::vector<Test>& others) {
    return *judge::judge(
        {.subject = judge::Case::of(test), .earlier = {.repeats = judge::gapsOfRepeats(others, test)}});
}

} // namespace

TEST_CASE("a gap that is there holds up on other days, whichever of the tests is in hand and whoever is first in it") {
    const Test first = dayOf(1, {{"Reed", 6}, {"Alder", 0}}, "a", "");
    const Test second = dayOf(2, {{"Alder", 0}, {"Reed", 6}}, "b", "a"); // the other way round
    const Test third = dayOf(3, {{"Reed", 6}, {"Alder", 0}}, "c", "a");
    const Test stranger = dayOf(4, {{"Reed", 60}, {"Alder", 0}}, "d", "");
    const std::vector<Test> all{first, second, third, stranger};
    std::optional<double> pooled;
    for (const Test* inHand : {&first, &second, &third}) {
        const auto reading = readWith(*inHand, all);
        REQUIRE(reading.repeated.size() == 1);
        const auto& one = reading.repeated.front();
        CHECK(one.pooled.sittings == 3);
        CHECK(one.pooled.heldUp == 3);
        CHECK(one.pooled.over == judge::PooledOver::tests);
        const double reedMinusAlder = reading.builds[one.build].name == "Reed" ? one.pooled.pooled : -one.pooled.pooled;
        CHECK(reedMinusAlder == Approx(pooled.value_or(reedMinusAlder)));
        CHECK(std::fabs(reedMinusAlder - 6) < 2);
        pooled = reedMinusAlder;
        const auto sentences = words::heldSentences(reading, {});
        REQUIRE(sentences.size() == 1);
        CHECK(sentences.front().starts_with("The same test on 3 days: "));
        CHECK(sentences.front().find("held up in 3 of 3") != std::string::npos);
    }
    CHECK(readWith(stranger, all).repeated.empty());
}

TEST_CASE("tests that share one club compare two that never met, with the errors of both") {
    const Test first = dayOf(11, {{"Reed", 5}, {"Alder", 0}}, "a", "");
    const Test second = dayOf(12, {{"Larch", -2}, {"Alder", 0}}, "b", "a");
    const auto reading = readWith(second, {first, second});
    CHECK(reading.repeated.empty());
    REQUIRE(reading.byWay.size() == 1);
    const auto& way = reading.byWay.front();
    CHECK(reading.builds[way.build].name == "Larch");
    CHECK(reading.builds[way.via].name == "Alder");
    CHECK(way.other == "Reed");
    const auto one = judge::declaredGaps(reading, {}).front();
    const auto other = judge::gapsOfRepeats({first}, second).front();
    CHECK(way.gap == Approx((one.build.name == "Larch" ? one.gap : -one.gap) -
                            (other.build.name == "Reed" ? other.gap : -other.gap)));
    CHECK(way.ci95.high - way.ci95.low > one.ci95->high - one.ci95->low);
    CHECK(way.ci95.contains(-7));
    CHECK(words::heldSentences(reading, {}).front().find("met in no test. By way of Alder") != std::string::npos);
    // Clubs that met are not led round by a third.
    const Test both = dayOf(13, {{"Larch", -2}, {"Alder", 0}, {"Reed", 5}}, "c", "a");
    CHECK(readWith(both, {first, both}).byWay.empty());
    CHECK(readWith(second, {first, second, both}).byWay.empty());
}

TEST_CASE("a sealed day tells nothing, and which test is repeated goes with it into its file") {
    const Test first = dayOf(21, {{"Reed", 6}, {"Alder", 0}}, "a", "");
    Test second = dayOf(22, {{"Reed", 6}, {"Alder", 0}}, "b", "a");
    second.seal = {.commitment = "ab", .box = "cd", .sealedAt = "2026-05-01T09:00"};
    CHECK(judge::gapsOfRepeats({second}, first).empty());
    const auto back = files::readTestJson("b.json", files::testJson(second));
    REQUIRE(back);
    CHECK(back->test.repeats == "a");
    CHECK(judge::gapsOfRepeats({dayOf(1, {{"Reed", 0}}, "", "")}, dayOf(2, {{"Reed", 0}}, "", "")).empty());
}

TEST_CASE("the interval by way of a club holds the truth about as often as it says") {
    int inside = 0;
    constexpr int trials = 300;
    for (int i = 0; i < trials; ++i) {
        const auto seed = static_cast<std::uint64_t>(1000 + 2 * i);
        const Test first = dayOf(seed, {{"Reed", 5}, {"Alder", 0}}, "a", "");
        const Test second = dayOf(seed + 1, {{"Larch", -2}, {"Alder", 0}}, "b", "a");
        judge::JudgeRequest request{.subject = judge::Case::of(second), .depth = judge::JudgeRequest::Depth::verdicts};
        const auto way = judge::byWayIn(*judge::judge(request), judge::gapsOfRepeats({first}, second));
        REQUIRE(way.size() == 1);
        inside += way.front().ci95.contains(-7) ? 1 : 0;
    }
    CHECK(inside >= 0.91 * trials);
    CHECK(inside <= 0.99 * trials);
}

namespace {

// A reading of one declared gap between clubs of these names.
judge::Reading gapBetween(const char* build, const char* against, double gap, double se, double df, bool isSame) {
    judge::Reading reading;
    reading.builds = {{.name = against, .id = {}}, {.name = build, .id = {}}};
    judge::AverageGap row{.build = record::BuildAt(1), .against = record::BuildAt(0)};
    row.gap = gap;
    row.se = se;
    row.df = df;
    row.ci95 = judge::Interval{gap - 2 * se, gap + 2 * se, 0.95};
    row.ci90 = judge::Interval{gap - 1.8 * se, gap + 1.8 * se, 0.90};
    row.margin = 3;
    row.claim.role = judge::Role::primary;
    row.claim.verdict = isSame ? judge::Verdict::same : judge::Verdict::open;
    reading.average = {row};
    return reading;
}

} // namespace

TEST_CASE("a day that found no difference holds up no difference, whichever club came first in it") {
    const auto here = gapBetween("Reed", "Alder", 0.4, 0.8, 6, false);
    for (const bool isTurned : {false, true}) {
        const auto day =
            isTurned ? gapBetween("Alder", "Reed", -0.2, 0.7, 6, true) : gapBetween("Reed", "Alder", 0.2, 0.7, 6, true);
        const auto repeated = judge::repeatedIn(here, judge::declaredGaps(day, "a day"));
        REQUIRE(repeated.size() == 1);
        CHECK(repeated.front().pooled.heldUp == 2);
        CHECK(repeated.front().pooled.pooled > 0.2);
        CHECK(repeated.front().pooled.pooled < 0.4);
    }
}

TEST_CASE("by way of a third club the degrees of freedom are Satterthwaite's") {
    const auto here = gapBetween("Reed", "Alder", 4, 1, 4, false);
    const auto day = gapBetween("Larch", "Alder", 1, 2, 10, false);
    const auto found = judge::byWayIn(here, judge::declaredGaps(day, "a day"));
    REQUIRE(found.size() == 1);
    CHECK(found.front().gap == Approx(3));
    const double df = 25.0 / (1 / 4.0 + 16 / 10.0);
    CHECK((found.front().ci95.high - found.front().ci95.low) / 2 ==
          Approx(statistics::studentQuantile(0.975, df) * std::sqrt(5.0)));
}

TEST_CASE("a test of two sittings that disagree is held together with others by what its sittings say") {
    auto here = gapBetween("Reed", "Alder", 5, 0.5, 11, false);
    here.average.front().pooled = judge::SittingsPooled{.pooled = 5, .se = 5.5, .ci95 = {-60, 70, 0.95}, .sittings = 2};
    const auto own = judge::declaredGaps(here, {});
    REQUIRE(own.size() == 1);
    CHECK(own.front().se == 5.5);
    CHECK(own.front().df == 1);
}
