// What lofts and strikes can give a swing: the windows hold what ordinary deliveries give, and the best is the best.
#include "core/flight/run.h"
#include "core/random.h"
#include "core/reach/offer.h"
#include "core/reach/reached.h"
#include "core/reach/window.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using namespace knot::reach;
using flight::HeadKind;

namespace {

double carryOf(const flight::Launch& launch, double wind = 0) {
    return flight::fly(launch, {.windAlong = wind}).carry;
}

} // namespace

TEST_CASE("of ordinary deliveries with a loft that fits them most lie inside, and the loft is one that is sold") {
    Random random(34);
    int inside = 0;
    int inBand = 0;
    constexpr int players = 40;
    constexpr int shots = 5;
    for (int i = 0; i < players; ++i) {
        const Swing swing{.clubSpeed = 36 + 15 * random.uniform(), .attack = -4 + 9 * random.uniform()};
        const Window window = *windowOf(swing);
        const double loft = std::round(2 * window.bestTry().loft) / 2; // clubs come in half degrees
        CHECK((loft >= 8 && loft <= 14));
        const double own = random.normal(); // what this player delivers besides
        const Shares shares(window, {5, 20}, {1000, 5000});
        for (int j = 0; j < shots; ++j) {
            const auto launch = flight::launchOf({.clubSpeed = swing.clubSpeed,
                                                  .dynamicLoft = loft + swing.addedLoft() + own,
                                                  .attack = swing.attack + random.normal(),
                                                  .strikeToe = 8 * random.normal(),
                                                  .strikeHigh = 8 * random.normal()},
                                                 flight::usualHead(HeadKind::driver));
            inside += shares.isInside(launch.launch, launch.spin) ? 1 : 0;
            inBand += window.launch.holds(launch.launch) && window.spin.holds(launch.spin) ? 1 : 0;
        }
    }
    INFO(inside << " inside, " << inBand << " in the bands, of " << players * shots);
    CHECK(inside >= 0.6 * players * shots);
    CHECK(inBand >= 0.5 * players * shots);
}

TEST_CASE("the best loft is within a hundredth of what a finer search finds") {
    for (const double speed : {36.0, 44.0, 52.0})
        for (const double attack : {-3.0, 0.0, 4.0}) {
            const Swing swing{.clubSpeed = speed, .attack = attack};
            double farthest = 0;
            for (double loft = 8; loft <= 14; loft += 0.05)
                farthest = std::max(farthest, tried(swing, loft).distance);
            CHECK(windowOf(swing)->bestTry().distance > 0.999 * farthest);
        }
}

TEST_CASE("slower swings and those that strike down want more loft, firm ground less") {
    const auto best = [](double speed, double attack, Ground ground = Ground::carry) {
        return windowOf({.clubSpeed = speed, .attack = attack}, ground)->bestTry().loft;
    };
    CHECK(best(42, 0) > best(52, 0));
    CHECK(best(50, -3) > best(50, 0));
    CHECK(best(50, 0) > best(50, 4));
    CHECK(best(50, 0, Ground::firm) < best(50, 0));
    CHECK_FALSE(windowOf({.clubSpeed = 10}));
    // A player who adds two degrees wants a club with two less.
    const Swing usual{.clubSpeed = 50};
    CHECK(windowOf({.clubSpeed = 50, .added = usual.addedLoft() + 2})->bestTry().loft ==
          Approx(windowOf(usual)->bestTry().loft - 2).margin(0.26));
}

TEST_CASE("the window says how flat its top is, and the grid what lies between its points") {
    const Window window = *windowOf({.clubSpeed = 47, .attack = 1});
    const double best = window.bestTry().distance;
    CHECK(window.twoDegrees < 0.02 * best);
    CHECK(window.twoDegrees > 0);
    for (const double end : {*window.loft.from, *window.loft.to})
        CHECK(tried({.clubSpeed = 47, .attack = 1}, end).distance >= nearlyAll * best);
    const Shares shares(window, {6, 18}, {1500, 5000});
    for (const Try& one : window.along) {
        CHECK(shares.at(one.launch.launch, one.launch.spin) == Approx(one.distance / best).margin(0.002));
        flight::Launch other = one.launch; // as by another strike
        other.spin += 300;
        CHECK(shares.at(other.launch, other.spin) == Approx(carryOf(other) / best).margin(0.002));
    }
}

TEST_CASE("what is hit at a green stops there, and a headwind takes no more than is said") {
    for (const auto& [kind, speed, run] :
         {std::tuple(HeadKind::wood, 62.0, 20.0), {HeadKind::iron, 52.0, 12.0}, {HeadKind::wedge, 40.0, 6.0}}) {
        const Wanted wanted = *wantedAt(kind, speed);
        const flight::Launch low{.ballSpeed = speed, .launch = *wanted.launch.from, .spin = *wanted.spin.from};
        const flight::Launch high{.ballSpeed = speed, .launch = *wanted.launch.to, .spin = *wanted.spin.to};
        constexpr double rounding = 2.5; // of launch and spin, in metres of run
        CHECK(flight::runAfter(flight::fly(low)).length() < run + rounding);
        const double lost = 1 - carryOf(low, -6) / carryOf(low);
        CHECK(1 - carryOf(high, -6) / carryOf(high) < 1.3 * lost + 0.02);
        CHECK(flight::fly(low).apex == Approx(*wanted.height.from).margin(1.5));
        CHECK(flight::fly(high).descent == Approx(*wanted.descent.to).margin(1.5));
        CHECK(wantedAt(kind, speed, {}, Ground::soft)->launch.from <= wanted.launch.from);
    }
    CHECK_FALSE(wantedAt(HeadKind::wood, 30)); // nothing that is sold stops
    CHECK(wantedAt(HeadKind::driver, 62)->descent.isOpen());
}

TEST_CASE("the club speed is found that gives a ball speed") {
    const Swing swing{.clubSpeed = *clubSpeedFor(HeadKind::driver, 62, 1), .attack = 1};
    CHECK(tried(swing, 11).launch.ballSpeed == Approx(62));
    CHECK_FALSE(clubSpeedFor(HeadKind::driver, 200, 0));
}

TEST_CASE("the chart that ships has every kind, and its rows hold their own speeds and no others") {
    const Chart& chart = usualChart();
    CHECK(chart.at(HeadKind::driver, 62)->launch.from);
    CHECK(chart.at(HeadKind::wedge, 36)->descent.from);
    CHECK_FALSE(chart.at(HeadKind::driver, 20));
    for (const Chart::Row& row : chart.rows) {
        CHECK(chart.at(row.kind, row.ballSpeedFrom) == row.wanted);
        CHECK(chart.at(row.kind, row.ballSpeedTo) != row.wanted);
        for (const auto band : {&Wanted::launch, &Wanted::spin, &Wanted::height, &Wanted::descent})
            CHECK(((row.wanted.*band).isOpen() || (row.wanted.*band).from < (row.wanted.*band).to));
    }
}

TEST_CASE("what is missing to the best of this ball speed is its parts, and nothing is missing to the best") {
    const Swing swing{.clubSpeed = 46, .attack = 1};
    const Try best = bestOf(swing);
    const Means atBest{.launch = best.launch, .carry = best.distance, .attack = 1, .clubSpeed = 46};
    const Reached there = *reachedBy(atBest);
    CHECK(there.withBallSpeed == Approx(best.distance).margin(0.8));
    CHECK(*there.withClubSpeed == Approx(best.distance).margin(1e-6));
    Means low = atBest; // a low strike: less launch, more spin, less ball speed
    low.launch.launch -= 3;
    low.launch.spin += 900;
    low.launch.ballSpeed -= 2;
    low.carry = carryOf(low.launch) + 4; // a monitor or an air that adds four metres to all
    const Reached short_ = *reachedBy(low);
    CHECK(short_.withBallSpeed - low.carry == Approx(short_.byLaunch + short_.bySpin));
    CHECK(short_.byLaunch > 0);
    CHECK(short_.byEfficiency > 0);
    CHECK(*short_.withClubSpeed == Approx(best.distance + 4).margin(1e-6));
    CHECK(short_.perBallSpeed > 2);
    CHECK(short_.perBallSpeed < 6);
    const auto lofted = [](double loft) {
        return flight::launchOf({.clubSpeed = 46, .dynamicLoft = loft, .attack = 1},
                                flight::usualHead(HeadKind::driver));
    };
    CHECK(reachedBy({.launch = lofted(11), .carry = 190, .attack = 1, .clubSpeed = 46})->twoDegreesMore ==
          Approx(carryOf(lofted(13)) - carryOf(lofted(11))).margin(0.01));
    CHECK_FALSE(reachedBy({.launch = {.ballSpeed = 200, .launch = 12, .spin = 2500}, .carry = 300}));
}
