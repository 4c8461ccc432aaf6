// What shots say of lies, sleeves by family, and tags in words of one's own.
#include "core/judge/shots/lie_help.h"
#include "core/plan/seal.h"
#include "core/rack/sleeves.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/words/lie.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using namespace knot::test;
using record::BuildAt;
using record::Metric;

namespace {

// Stints with a club that stands at 62°, delivered `off` degrees more upright, each degree starting the ball 0.7° left.
record::Test irons(double off, int stints, std::uint64_t seed = 3) {
    TestBuilder builder;
    for (int stint = 1; stint <= stints; ++stint)
        builder.turn("Iron", std::to_string(stint), {0, 0, 0, 0});
    record::Test test = builder.test;
    Random random(seed);
    double day = 0;
    int i = 0;
    for (record::Shot& shot : test.shots) {
        if (i++ % 4 == 0)
            day = 0.3 * random.normal();
        const double lie = 62 + off + day + 1.0 * random.normal();
        shot.readings.measure(Metric::dynamicLie, lie);
        shot.readings.measure(Metric::launchDirection, -0.7 * (lie - 62 - off) + 0.4 * random.normal());
        shot.readings.measure(Metric::strikeToe, 3 * random.normal());
    }
    test.builds[0].club.head = {.kind = record::PartKind::head, .mass = 268, .loft = 32, .lie = 62};
    return test;
}

} // namespace

TEST_CASE("a club that is delivered more upright than it stands says by how much, and what bending would even it") {
    const auto reading = judge::lieReading(judge::Case::of(irons(1.6, 8)));
    REQUIRE(reading.clubs.size() == 1);
    const auto& help = reading.clubs[0];
    CHECK(help.stands == 62);
    CHECK(help.stints == 8);
    REQUIRE(help.off);
    CHECK(help.off->contains(1.6));
    REQUIRE(help.bend);
    CHECK(*help.bend == Approx(help.delivered - help.stands));
    CHECK(*judge::lieReading(judge::Case::of(irons(4, 8))).clubs[0].bend ==
          judge::mostBent); // never more than heads allow
    CHECK(*judge::lieReading(judge::Case::of(irons(-4, 8))).clubs[0].bend == -judge::mostBent);
    CHECK_FALSE(judge::lieReading(judge::Case::of(irons(0, 8))).clubs[0].bend);
    CHECK_FALSE(judge::lieReading(judge::Case::of(irons(2, 1))).clubs[0].off); // one stint settles nothing

    REQUIRE(reading.slopes.size() == 2);
    CHECK(reading.slopes[0].ci95.contains(-0.7));
    CHECK(reading.slopes[0].isEstablished());
    const auto sentences = words::lieSentences(judge::Case::of(irons(1.6, 8)), reading);
    REQUIRE(sentences.size() == 3);
    CHECK(sentences[0].starts_with("Iron is delivered at 6"));
    CHECK(sentences[0].find("a qualified builder knows") != std::string::npos);
    CHECK(sentences[1].find("left for each degree more upright") != std::string::npos);

    // Clubs of unknown lie and shots without one say nothing.
    record::Test unknown = irons(1, 4);
    unknown.builds[0].club.head.lie.reset();
    CHECK(judge::lieReading(judge::Case::of(unknown)).clubs.empty());
    for (record::Shot& shot : unknown.shots)
        shot.readings.clear(Metric::dynamicLie);
    CHECK(judge::lieReading(judge::Case::of(unknown)).slopes.empty());
    CHECK(judge::lieReading(judge::Case::of({})).clubs.empty());
}

TEST_CASE("the intervals of lies and of what they move hold what is true about as often as they say") {
    int off = 0;
    int slope = 0;
    constexpr int times = 400;
    for (int i = 0; i < times; ++i) {
        const auto reading = judge::lieReading(judge::Case::of(irons(1, 6, 1000 + static_cast<std::uint64_t>(i))));
        off += reading.clubs[0].off->contains(1) ? 1 : 0;
        slope += reading.slopes[0].ci95.contains(-0.7) ? 1 : 0;
    }
    const double error = 4 * std::sqrt(0.95 * 0.05 / times);
    CHECK(std::fabs(off / double{times} - 0.95) < error);
    CHECK(std::fabs(slope / double{times} - 0.95) < error);
}

TEST_CASE("a sleeve's setting brings its angles by the family of the head") {
    const auto& rows = rack::usualSleeves();
    CHECK(rack::sleeveOf(rows, "Tarn 5", "+1")->loft == 1);
    CHECK(rack::sleeveOf(rows, "tarn 3", "u")->lie == 1.5);
    CHECK_FALSE(rack::sleeveOf(rows, "Fell 5", "+1"));
    CHECK_FALSE(rack::sleeveOf(rows, "Tarn 5", "Z9"));
    std::string reason;
    CHECK(*rack::sleeveTableFrom(rack::sleeveTableText(rows), reason) == rows);
    CHECK_FALSE(rack::sleeveTableFrom("Tarn, N, 0, zero, 0\n", reason));
    CHECK(reason == "Line 1: 'zero' is not a number.");
}

TEST_CASE("tags may be words of one's own, and what lacks is filled up, none twice") {
    CHECK(plan::tagWords(3, {"Red", " Blue ", "Red"}) == std::vector<std::string>{"Red", "Blue", "Fern"});
    CHECK(plan::tagWords(2, {"Slate", "", "Fern", "Third"}) == std::vector<std::string>{"Slate", "Fern"});
    record::Test test;
    test.builds = {{.name = "Red"}, {.name = "Yew"}};
    test.plan.tagWords = {"Red"};
    CHECK(plan::whyNotSealed(test) == "“Red” is a club and a tag; a tag must tell nothing. Type another word for it.");
    test.builds[0].name = "Oak";
    CHECK(plan::whyNotSealed(test).empty());
}

TEST_CASE(
    "half a degree is the least that is bent for, and a slope has as many degrees as shots less stints less one") {
    auto delivered = [](double off) {
        TestBuilder builder;
        for (int stint = 1; stint <= 4; ++stint)
            builder.turn("Iron", std::to_string(stint), {0, 0, 0});
        int i = 0;
        for (record::Shot& shot : builder.test.shots) {
            const double lie = 62 + off + 0.02 * std::sin(1.3 * ++i);
            shot.readings.measure(Metric::dynamicLie, lie);
            shot.readings.measure(Metric::strikeToe, 2 * lie + std::cos(2.1 * i));
        }
        builder.test.builds[0].club.head = {.kind = record::PartKind::head, .mass = 268, .loft = 32, .lie = 62};
        return builder.test;
    };
    const auto slight = judge::lieReading(judge::Case::of(delivered(0.4)));
    CHECK_FALSE(slight.clubs[0].off->contains(0)); // surely off, and not worth a bend
    CHECK_FALSE(slight.clubs[0].bend);
    CHECK(judge::lieReading(judge::Case::of(delivered(0.6))).clubs[0].bend);

    const record::Test test = delivered(0.6);
    double xx = 0, xy = 0, yy = 0;
    for (std::size_t stint = 0; stint < 4; ++stint) {
        double x[3], y[3], meanX = 0, meanY = 0;
        for (std::size_t i = 0; i < 3; ++i) {
            x[i] = *test.shots[3 * stint + i].readings.at(Metric::dynamicLie);
            y[i] = *test.shots[3 * stint + i].readings.at(Metric::strikeToe);
            meanX += x[i] / 3;
            meanY += y[i] / 3;
        }
        for (std::size_t i = 0; i < 3; ++i) {
            xx += (x[i] - meanX) * (x[i] - meanX);
            xy += (x[i] - meanX) * (y[i] - meanY);
            yy += (y[i] - meanY) * (y[i] - meanY);
        }
    }
    const double df = 12 - 4 - 1;
    const double half = statistics::studentQuantile(0.975, df) * std::sqrt((yy - xy * xy / xx) / df / xx);
    const auto reading = judge::lieReading(judge::Case::of(test));
    REQUIRE(reading.slopes.size() == 1);
    CHECK((reading.slopes[0].ci95.high - reading.slopes[0].ci95.low) / 2 == Approx(half).epsilon(1e-6));
}
