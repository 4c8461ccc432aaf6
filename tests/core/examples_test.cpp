// Examples of the demo logbook read as they were made.
#include "core/judge/judge.h"
#include "core/simulate/examples.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using record::Metric;

TEST_CASE("the example of iron lofts reads as it was made: the stronger one is faster and comes down flatter") {
    const auto examples = simulate::examples();
    const auto irons = std::ranges::find(examples, "How strong may the seven be?", &record::Test::title);
    REQUIRE(irons != examples.end());
    CHECK(irons->builds[0].club.head.loft == 31.0);
    CHECK(irons->builds[1].club.head.loft == 28.0);
    const auto reading = *judge::judge({.subject = judge::Case::of(*irons)});
    auto gap = [&](Metric metric) {
        const auto found = std::ranges::find(reading.average, metric, &judge::AverageGap::metric);
        REQUIRE(found != reading.average.end());
        REQUIRE(found->ci95);
        return *found->ci95;
    };
    CHECK(gap(Metric::ballSpeed).low < 0.03 * 37); // what was put in
    CHECK(gap(Metric::ballSpeed).high > 0.03 * 37);
    CHECK(gap(Metric::dynamicLoft).low < -2.6);
    CHECK(gap(Metric::dynamicLoft).high > -2.6);
    CHECK(gap(Metric::descent).high < 0);
    CHECK(gap(Metric::carry).low > 0);
}
