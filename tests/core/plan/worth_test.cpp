// What a plan is worth: how much better one chooses by it (judgement §29).
#include "core/plan/worth.h"
#include "core/plan/worth_ways.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <limits>

using namespace knot;
using knot::test::TestBuilder;
using plan::Choosing;
using record::Metric;
using record::Outcome;
using record::OutcomeKind;

namespace {

constexpr double never = std::numeric_limits<double>::infinity();

record::Test three(record::Schedule schedule = record::Schedule::rotated) {
    record::Test test;
    test.builds = {{.name = "Ash"}, {.name = "Briar"}, {.name = "Cedar"}};
    test.card.kind = record::TestKind::shaft;
    test.card.primary = {{.metric = Metric::carry, .shape = {}}};
    test.plan.schedule = schedule;
    test.plan.rounds = 5;
    test.plan.turnLength = 2;
    return test;
}

constexpr plan::Spreads club{.sdTurn = 1.8, .sdShot = 6};

} // namespace

TEST_CASE("worth, and chances to choose and to prove, agree with the reference") {
    for (const auto& row : knot::test::loadJson("worth").at("worth")) {
        const Outcome carry{.metric = Metric::carry, .shape = {}};
        const plan::Spreads spreads{.sdTurn = row.at("sd_stint"), .sdShot = row.at("sd_shot")};
        const int laps = row.at("laps");
        const double error = plan::errorOf(carry, spreads, laps, row.at("shots_a_stint").get<int>());
        const Choosing choosing{.tau = row.at("tau"),
                                .errors = std::vector<double>(row.at("clubs").get<std::size_t>(), error)};
        const plan::Worth worth = plan::worthOf(choosing);
        CHECK(worth.share == Approx(row.at("share").get<double>()).epsilon(1e-8));
        CHECK(worth.toBeHad == Approx(row.at("to_be_had").get<double>()).epsilon(1e-8));
        CHECK(worth.had == Approx(row.at("had").get<double>()).epsilon(1e-8));
        CHECK(worth.lost == Approx(row.at("lost").get<double>()).epsilon(1e-8));
        const double proven = plan::chanceToProve(std::sqrt(2.0) * error, laps - 1, row.at("gap"), row.at("alpha"));
        CHECK(proven == Approx(row.at("proven").get<double>()).epsilon(1e-7));
        const plan::Futures futures = plan::futuresOf(choosing.errors, row.at("gap"), proven);
        CHECK(futures.proved + futures.chosen == Approx(row.at("chosen").get<double>()).epsilon(1e-7));
        CHECK(futures.proved + futures.chosen + futures.wrong == Approx(1));
    }
}

TEST_CASE("clubs that are seen unequally well are worth what the better seen ones let one gain") {
    // Of two clubs of which one is never hit, one is taken where it looks good: the mean of a normal value above 0.
    const plan::Worth half = plan::worthOf({.tau = 2, .errors = {1, never}});
    CHECK(half.had == Approx(4 / std::sqrt(5) / std::sqrt(2 * M_PI)).epsilon(1e-9));
    CHECK(half.toBeHad == Approx(2 / std::sqrt(M_PI)).epsilon(1e-9));
    CHECK(plan::worthOf({.tau = 2, .errors = {never, never, never}}).share == 0);
    CHECK(plan::worthOf({.tau = 2, .errors = {1e-9, 1e-9, 1e-9, 1e-9}}).share == Approx(1));
    CHECK(plan::worthOf({.tau = 2, .errors = {1}}).toBeHad == 0);
    // As alike as makes no difference, the closed form and the integral agree.
    CHECK(plan::worthOf({.tau = 2, .errors = {1, 1, 1 + 1e-9}}).had ==
          Approx(plan::worthOf({.tau = 2, .errors = {1, 1, 1}}).had).epsilon(1e-8));
}

TEST_CASE("of clubs wanted near a value the nearest is worth having, and more is had the better they are seen") {
    auto share = [](double error) {
        return plan::worthNearValue({.tau = 2, .errors = std::vector<double>(3, error)}).share;
    };
    CHECK(share(1e-6) == Approx(1));
    CHECK(share(never) == 0);
    CHECK(share(1) > share(2));
    CHECK(share(2) > share(4));
    // The nearest of two: E min |z| of two is √(2/π)(2 − √2) of one SD.
    CHECK(plan::worthNearValue({.tau = 1, .errors = {1, 1}}).toBeHad ==
          Approx(std::sqrt(2 / M_PI) * (std::sqrt(2) - 1)).margin(0.02));
}

TEST_CASE("striking off gets at least what rotating all does in as many swings, and what its laps say") {
    const double ofLap = 4;
    const plan::Worth off = plan::worthStrikingOff(2.7, 5, ofLap, 12);
    const auto all = [&](int laps) {
        return plan::worthOf({.tau = 2.7, .errors = std::vector<double>(5, ofLap / std::sqrt(laps))}).share;
    };
    // 3 laps of five, 4 of three and 5 of two are 37 stints: seven laps of five and two more.
    CHECK(off.share > all(7));
    CHECK(off.share < all(12));
    CHECK(
        plan::worthStrikingOff(2.7, 2, ofLap, 6).share ==
        Approx(plan::worthOf({.tau = 2.7, .errors = std::vector<double>(2, ofLap / std::sqrt(6))}).share).margin(0.03));
}

TEST_CASE("a plan's worth grows with laps and days, and three shots each are judged by the same rule") {
    const record::Test test = three();
    const Outcome carry = test.card.primary.front();
    const double tau = plan::scaleOf(test, carry);
    CHECK(tau == record::info(Metric::carry).worthwhileGap);
    const auto planned = plan::worthOfPlan(test, carry, club, tau);
    const auto hand = plan::worthByHand(test, carry, club, tau);
    CHECK(hand.worth.share < planned.worth.share);
    CHECK(hand.futures.proved == 0); // one run each proves nothing
    CHECK(hand.futures.wrong > planned.futures.wrong);
    CHECK(planned.worth.share < plan::worthOfPlan(test, carry, club, tau, 6).worth.share);
    CHECK(plan::worthOfPlan(test, carry, club, tau, 10).worth.share ==
          Approx(plan::worthOfPlan(test, carry, club, tau, 5, 2).worth.share));
    CHECK(plan::worthOfPlan(test, carry, club, tau, 0).worth.share == 0);
    CHECK(plan::worthOfPlan(test, carry, club, tau, 0).futures.wrong == Approx(2.0 / 3));
    const auto runs = plan::worthOfPlan(three(record::Schedule::oneRunEach), carry, club, tau);
    CHECK(runs.futures.proved == 0);
    CHECK(runs.worth.share < hand.worth.share); // two shots each
    record::Test kinds = three();
    kinds.builds = {{.name = "driver"}, {.name = "7 iron"}, {.name = "3w"}};
    CHECK(plan::scaleOf(kinds, carry) == 8 * tau);
    CHECK(plan::scaleOf(kinds, carry, 1.5) == 1.5);
}

TEST_CASE("spreads, areas and shares have a worth too, by what stints tell of them") {
    record::Test test = three();
    test.plan.turnLength = 4;
    const Outcome spread{.kind = OutcomeKind::spread, .metric = Metric::side, .shape = {}};
    const Outcome area{.kind = OutcomeKind::area, .shape = {}};
    const Outcome share{.kind = OutcomeKind::share, .shape = "fairway"};
    for (const Outcome& outcome : {spread, area, share}) {
        const double tau = plan::scaleOf(test, outcome);
        const double now = plan::worthOfPlan(test, outcome, club, tau).worth.share;
        CHECK(now > plan::worthByHand(test, outcome, club, tau).worth.share);
        CHECK(now < plan::worthOfPlan(test, outcome, club, tau, 10).worth.share);
        CHECK(now < 1);
    }
    CHECK(plan::scaleOf(test, spread) == Approx(std::log(test.card.sdRatioMargin)));
    // Single shots say nothing of a spread.
    CHECK(plan::errorOf(spread, club, 10, 1) == never);
    CHECK(plan::worthOfPlan(
              [&] {
                  record::Test single = test;
                  single.plan.turnLength = 1;
                  return single;
              }(),
              spread, club, 0.3)
              .worth.share == 0);
    // The planner's own variance of ln s at twenty degrees of freedom: 1 / (2 (ν − 3)).
    CHECK(plan::errorOf(spread, club, 10, 3) == Approx(std::sqrt(1.0 / 34)).epsilon(0.03));
}

TEST_CASE("what was struck is worth what its stints say, club by club") {
    TestBuilder builder;
    builder.turn("Ash", "", {150, 152, 151}).turn("Briar", "", {156, 158, 157}).turn("Cedar", "", {150, 149, 151});
    const Outcome carry{.metric = Metric::carry, .shape = {}};
    const double once = plan::worthStruck(builder.test, carry, club, 2.7).share;
    CHECK(once == Approx(plan::worthByHand(three(), carry, club, 2.7).worth.share));
    builder.turn("Briar", "", {156, 158, 157});
    const double again = plan::worthStruck(builder.test, carry, club, 2.7).share;
    CHECK(again > once); // A B C B
    for (record::Shot& shot : builder.test.shots)
        if (shot.build == record::BuildAt(2))
            shot.status = record::ShotStatus::setAside;
    // A club without a shot that counts is not chosen among.
    CHECK(plan::worthStruck(builder.test, carry, club, 2.7).toBeHad ==
          Approx(plan::worthOf({.tau = 2.7, .errors = {1, 1}}).toBeHad));
}

TEST_CASE("in the same minutes the best stints get most, and more minutes more") {
    const record::Test test = three();
    plan::WorthOf of{.test = test,
                     .outcome = test.card.primary.front(),
                     .struck = club,
                     .tau = 2.7,
                     .pace = {.changeSeconds = 40, .warmUp = 8, .restEvery = 25},
                     .turnLength = 2,
                     .equal = plan::atEqualDelivery(club)};
    double before = 0;
    for (const double minutes : {20.0, 30.0, 45.0, 60.0, 120.0}) {
        const auto planned = plan::mostWorth(plan::Way::asPlanned, of, minutes);
        const auto best = plan::mostWorth(plan::Way::shortStints, of, minutes);
        const auto equal = plan::mostWorth(plan::Way::equalDelivery, of, minutes);
        REQUIRE((planned && best && equal));
        CHECK(planned->minutes <= minutes);
        CHECK(best->worth.share >= planned->worth.share);
        CHECK(equal->worth.share > planned->worth.share);
        CHECK(best->worth.share > before);
        before = best->worth.share;
    }
    CHECK(!plan::mostWorth(plan::Way::asPlanned, of, 3));
    const auto enough = plan::toGet(0.75, plan::Way::shortStints, of);
    REQUIRE(enough);
    CHECK(enough->worth.share >= 0.75);
    CHECK(plan::mostWorth(plan::Way::shortStints, of, enough->minutes - 1)->worth.share < 0.75);
    CHECK(!plan::toGet(0.999, plan::Way::shortStints, of));
}
