// A chart of one's own: whatever its units, marks and order, and what it can't be.
#include "files/window_chart.h"

#include <catch2/catch.hpp>

using namespace knot;
using flight::HeadKind;

TEST_CASE("the chart that ships reads as a chart of one's own does") {
    const std::string text = reach::chartText(reach::usualChart().rows);
    REQUIRE(files::looksLikeChart(text));
    CHECK(files::readChart("own.csv", text)->rows == reach::usualChart().rows);
    CHECK(files::readChart("own.csv", text)->name == "own.csv");
}

TEST_CASE("a chart in miles, feet and commas, with open ends and columns left out") {
    const std::string text =
        "Kind;Ball speed from (mph);Ball speed to (mph);Descent from;Height from (ft);Height to (ft)\n"
        "Iron;100;110;45,5;80;\n\niron;110;120;;;105\n";
    REQUIRE(files::looksLikeChart(text));
    const auto chart = files::readChart("shop.csv", text);
    REQUIRE(chart);
    REQUIRE(chart->rows.size() == 2);
    const auto wanted = chart->at(HeadKind::iron, 105 * 0.44704);
    REQUIRE(wanted);
    CHECK(wanted->descent == reach::Band{45.5, std::nullopt});
    CHECK(*wanted->height.from == Approx(80 * 0.3048));
    CHECK_FALSE(wanted->height.to);
    CHECK(wanted->launch.isOpen());
    CHECK_FALSE(chart->at(HeadKind::driver, 47));
}

TEST_CASE("what is no chart is none, and what can't be read says where") {
    CHECK_FALSE(files::looksLikeChart("Club,Ball speed,Launch\nFern,60,12\n"));
    CHECK_FALSE(files::looksLikeChart(""));
    const std::string heads = "kind,ball_speed_from_ms,ball_speed_to_ms,launch_from_deg\n";
    CHECK(files::sentence(files::readChart("c.csv", heads + "putter,10,20,1\n").error()).find("driver, wood") !=
          std::string::npos);
    CHECK(files::sentence(files::readChart("c.csv", heads + "iron,50,60,high\n").error()).find("line 2") !=
          std::string::npos);
    CHECK(!files::readChart("c.csv", heads + "iron,60,50,12\n"));
    CHECK(!files::readChart("c.csv", heads));
}
