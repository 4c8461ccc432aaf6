// The small landing in the Bay: there once shots have come down, and only where the sheet lets averages be seen.
#include "app/hands.h"
#include "app/support.h"

#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;

TEST_CASE("the Bay shows where the last shots came down, where the sheet lets averages be seen") {
    Bench bench;
    knot::test::Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier); // I want to hit
    hands.press(Qt::Key_Return);
    auto* landing = bench.find<QWidget>("landingSketch");
    CHECK_FALSE(landing->isVisible()); // nothing has come down
    auto strike = [&](double carry, double side) {
        record::Readings readings;
        readings.measure(record::Metric::carry, carry);
        readings.measure(record::Metric::side, side);
        bench.session.bay().arrive({{readings, {}, "test:" + std::to_string(bench.session.test().shots.size()), {}}});
    };
    for (int i = 0; i < 4; ++i)
        strike(150 + i, i - 2);
    REQUIRE(eventually([&] { return landing->isVisible(); }));
    CHECK(landing->accessibleName().contains("came down"));
    bench.window->resize(1280, 800);
    landing->grab();
}

TEST_CASE("the Bay shows no landing of a test whose averages nobody is to see, and one where the fitter may") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().front().id)); // half struck
    bench.window->showPage(app::PageId::bay);
    auto* landing = bench.find<QWidget>("landingSketch");
    REQUIRE(bench.session.test().card.visibility.averages == record::Sees::nobody);
    CHECK_FALSE(landing->isVisible());
    bench.session.declaring().change(
        "who sees averages", [](record::Declared& test) { test.card.visibility.averages = record::Sees::fitter; });
    CHECK(eventually([&] { return landing->isVisible(); }));
}
