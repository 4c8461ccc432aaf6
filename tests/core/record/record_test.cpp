#include "core/record/card.h"
#include "core/record/test.h"
#include "core/record/text/number_text.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <limits>

using namespace knot::record;

TEST_CASE("numbers are written with a true minus, grouped thousands and never as NaN") {
    struct Row {
        double value;
        int decimals;
        const char* text;
    };
    const Row rows[] = {{0, 1, "0.0"},
                        {-0.04, 1, "0.0"},
                        {-2.25, 1, "−2.2"},
                        {9999, 0, "9999"},
                        {12345.6, 0, "12\u2009346"},
                        {1234567, 0, "1\u2009234\u2009567"},
                        {-440.3, -1, "−440"},
                        {5749, -2, "5700"},
                        {0.0151, 3, "0.015"},
                        {std::nan(""), 1, "–"},
                        {std::numeric_limits<double>::infinity(), 1, "–"}};
    for (const Row& row : rows)
        CHECK(fixed(row.value, row.decimals) == row.text);
    CHECK(signedFixed(0.01, 1) == "0.0");
    CHECK(signedFixed(3, 1) == "+3.0");
}

TEST_CASE("decimals follow the second digit of the standard error") {
    CHECK(supportedDecimals(1.3, 1) == 1);
    CHECK(supportedDecimals(13, 1) == 0);
    CHECK(supportedDecimals(150, 0) == -1);
    CHECK(supportedDecimals(0.0001, 1) == 1);
    CHECK(supportedDecimals(0, 2) == 2);
    CHECK(supportedDecimals(std::nan(""), 2) == 2);
}

TEST_CASE("probabilities read as people write them") {
    CHECK(probability(0.0004) == "under 0.001");
    CHECK(probability(0.0625) == "0.062");
    CHECK(probability(0.25) == "0.25");
}

TEST_CASE("metrics are shown in the user's units and come back exactly") {
    const MetricFormat yards(Metric::carry, {.speed = SpeedUnit::mph, .distance = DistanceUnit::yd});
    CHECK(yards.withUnit(91.44) == "100.0 yd");
    CHECK(yards.internal(yards.shown(153.2)) == Approx(153.2).epsilon(1e-15));
    CHECK(MetricFormat(Metric::apex, {.distance = DistanceUnit::yd}).withUnit(30.48) == "100.0 ft");
    CHECK(MetricFormat(Metric::clubSpeed, {.speed = SpeedUnit::kmh}).withUnit(10) == "36.0 km/h");
    CHECK(MetricFormat(Metric::launch, {}).withUnit(-1.25) == "−1.2°");
    CHECK(MetricFormat(Metric::smash, {}).withUnit(1.4567) == "1.457");
}

TEST_CASE("every metric of the table has its key, words and a worthwhile gap") {
    for (const Metric metric : allMetrics()) {
        const auto& row = info(metric);
        CHECK(metricFromKey(row.key) == metric);
        CHECK(!row.label.empty());
        CHECK(!row.more.empty());
        CHECK(row.more != row.less);
        CHECK(row.worthwhileGap > 0);
        CHECK(row.repeatability > 0);
        CHECK(row.repeatability <= row.worthwhileGap);
    }
    CHECK(!metricFromKey("carry"));
    CHECK(info(Metric::carry).worthwhileGap == 2.7);
    CHECK(info(Metric::spin).worthwhileGap == 300);
}

TEST_CASE("what can be derived is derived and marked, what was measured stays") {
    Readings readings;
    readings.measure(Metric::ballSpeed, 60);
    readings.measure(Metric::clubSpeed, 40);
    readings.measure(Metric::face, 2);
    deriveMissing(readings);
    CHECK(readings.at(Metric::smash) == 1.5);
    CHECK(readings.derived(Metric::smash));
    CHECK(!readings.has(Metric::faceToPath));
    readings.measure(Metric::smash, 1.4);
    deriveMissing(readings);
    CHECK(readings.at(Metric::smash) == 1.4);
    CHECK(!readings.derived(Metric::smash));

    Readings still;
    still.measure(Metric::ballSpeed, 60);
    still.measure(Metric::clubSpeed, 0);
    deriveMissing(still);
    CHECK(!still.has(Metric::smash));
}

TEST_CASE("outcomes have one written form each") {
    for (const char* text : {"carry_m", "spread:side_m", "area", "share:fairway"})
        CHECK(outcomeText(*outcomeFromText(text)) == text);
    for (const char* text : {"", "carry", "spread:", "spread:area", "share:", "Area"})
        CHECK(!outcomeFromText(text));
}

TEST_CASE("a card wants less spread and less area unless it says otherwise") {
    Card card;
    CHECK(card.want(*outcomeFromText("spread:carry_m")).kind == Want::Kind::less);
    CHECK(card.want(*outcomeFromText("area")).kind == Want::Kind::less);
    CHECK(card.want(*outcomeFromText("carry_m")).kind == Want::Kind::none);
    card.wants[*outcomeFromText("carry_m")] = {Want::Kind::near, 150};
    CHECK(card.want(*outcomeFromText("carry_m")).value == 150);
}

TEST_CASE("counts agree with their nouns") {
    CHECK(counted(1, "lap") == "1 lap");
    CHECK(counted(0, "lap") == "0 laps");
    CHECK(counted(2, "shot was", "shots were") == "2 shots were");
}

TEST_CASE("a club that is renamed stays the one that was said and decided") {
    Test test;
    test.builds = {{.name = "Alder 62"}, {.name = "Reed 53"}};
    test.choices.byFeel = {.tag = "Reed 53", .at = "2026-06-17T10:00:00"};
    test.choices.byNumbers = {.tag = "Alder 62", .at = "2026-06-17T10:01:00"};
    test.decision = {.what = Action::change, .club = "Reed 53"};
    test.nameClubs();
    test.builds[1].name = "Reed 55";
    CHECK(test.nameOf(test.choices.byFeel.tag) == "Reed 55");
    CHECK(test.nameOf(test.choices.byNumbers.tag) == "Alder 62");
    CHECK(test.choices.own.tag.empty());
    CHECK(test.nameOf(test.decision.club) == "Reed 55");
}
