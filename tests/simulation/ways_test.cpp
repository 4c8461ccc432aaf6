// What a plan promises against what comes of it, for each way to spend the swings; and that none claims too often.
#include "core/bay/strike.h"
#include "core/judge/gaps/declared_gaps.h"
#include "core/plan/course.h"
#include "core/plan/looks.h"
#include "core/plan/power.h"
#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/plan/ways.h"
#include "core/record/roster.h"
#include "simulation/bay.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <array>
#include <cmath>

using namespace knot;
using knot::test::Bay;
using knot::test::columnIn;
using knot::test::printRow;
using knot::test::Rate;
using knot::test::repetitions;
using record::BuildAt;
using record::Metric;

namespace {

constexpr std::array levels = {0.05, 0.0167, 0.0042};

using Gap = std::optional<judge::AverageGap>;

Gap asStruck(const Bay& bay, Random& random) {
    return judge::averageGap(columnIn(bay.strike(random)), BuildAt(1), BuildAt(0), 0.6);
}

Gap atEqual(const Bay& bay, Random& random) {
    const auto test = bay.strike(random);
    return judge::gapAtEqualDelivery(test, columnIn(test), BuildAt(1), BuildAt(0), {Metric::clubSpeed}, 0.6);
}

Gap typical(const Bay& bay, Random& random) {
    return judge::gapOfTypicalShot(columnIn(bay.strike(random)), BuildAt(1), BuildAt(0), 0.6, {});
}

// Laps of two days, each with a middle of its own, which laps take out.
Gap inTwoSittings(const Bay& bay, Random& random) {
    Bay both = bay;
    both.laps *= 2;
    return asStruck(both, random);
}

using Judged = Gap (*)(const Bay&, Random&);

std::string cell(double value) {
    char text[16];
    std::snprintf(text, sizeof text, "%.1f", 100 * value);
    return text;
}

} // namespace

TEST_CASE("what a plan promises comes true within two in a hundred, by every way") {
    struct Cell {
        const char* name;
        Bay bay;
        Judged judged;
        double varShot = 1; ///< what the plan takes shots to scatter by
        int days = 1;
    };
    const std::vector<Cell> cells = {
        {"as struck, 8 laps of 5", {.laps = 8, .stint = 5, .gap = 0.8}, asStruck},
        {"as struck, 8 laps of 3", {.laps = 8, .stint = 3, .gap = 0.9}, asStruck},
        {"as struck, 16 laps of 1", {.laps = 16, .stint = 1, .gap = 0.9}, asStruck},
        {"as struck, 12 laps of 2", {.laps = 12, .stint = 2, .gap = 0.8}, asStruck},
        {"at equal delivery, 0.3 explained, 8 laps of 4",
         {.laps = 8, .stint = 4, .gap = 0.8, .explained = 0.3},
         atEqual,
         0.7},
        {"at equal delivery, 0.5 explained, 8 laps of 4",
         {.laps = 8, .stint = 4, .gap = 0.8, .explained = 0.5},
         atEqual,
         0.5},
        {"at equal delivery, 0.7 explained, 8 laps of 3",
         {.laps = 8, .stint = 3, .gap = 0.8, .explained = 0.7},
         atEqual,
         0.3},
        {"the typical shot, no mishits, 8 laps of 5", {.laps = 8, .stint = 5, .gap = 0.8}, typical},
        {"two sittings of 6 laps of 2", {.laps = 6, .stint = 2, .gap = 0.8}, inTwoSittings, 1, 2},
    };
    printRow("way | planned | came true");
    Random random(61);
    for (const Cell& one : cells) {
        const plan::PairPlan pair{.varTurn = one.bay.stintSd * one.bay.stintSd,
                                  .varShot = one.varShot,
                                  .rounds = static_cast<double>(one.bay.laps),
                                  .turnLength = static_cast<double>(one.bay.stint)};
        const double planned =
            plan::powerFor(pair.standardError() / std::sqrt(one.days), one.days * pair.df(), one.bay.gap, 0.05);
        Rate seen;
        const int trials = repetitions(2500);
        for (int i = 0; i < trials; ++i) {
            const Gap row = one.judged(one.bay, random);
            seen.count(row && row->claim.p && *row->claim.p < 0.05 && row->gap > 0);
        }
        printRow(std::string(one.name) + " | " + cell(planned) + " | " + seen.percent());
        INFO(one.name << ": planned " << planned << ", came true " << seen.share());
        CHECK(std::fabs(seen.share() - planned) < 0.02 + 3 * std::sqrt(planned * (1 - planned) / trials));
    }
}

TEST_CASE("no way claims too often where nothing differs, at the levels of one, three and twelve comparisons") {
    struct Cell {
        const char* name;
        Bay bay;
        Judged judged;
    };
    // Two clubs as plans have them: who goes first is tossed for every lap. Strictly by turns, neighbours that are
    // alike across laps would make 7 of the 5.
    const std::vector<Cell> cells = {
        {"short stints: 12 laps of 1", {.laps = 12, .stint = 1, .order = Bay::Order::coin}, asStruck},
        {"short stints: 8 laps of 2, neighbours alike 0.5",
         {.laps = 8, .stint = 2, .likeness = 0.5, .order = Bay::Order::coin},
         asStruck},
        {"equal: 3 laps of 5, nothing explained", {.laps = 3, .stint = 5}, atEqual},
        {"equal: 8 laps of 3, 0.3 explained", {.laps = 8, .stint = 3, .explained = 0.3}, atEqual},
        {"equal: 8 laps of 3, 0.7 explained, swung 1 SD faster",
         {.laps = 8, .stint = 3, .explained = 0.7, .shift = 1},
         atEqual},
        {"typical: 6 laps of 5, 6 % mishits", {.laps = 6, .stint = 5, .mishits = 0.06}, typical},
        {"typical: 8 laps of 3, 20 % mishits", {.laps = 8, .stint = 3, .mishits = 0.2}, typical},
    };
    printRow("nothing differs | at 5 | at 1.67 | at 0.42");
    Random random(62);
    for (const Cell& one : cells) {
        std::array<Rate, levels.size()> flukes;
        for (int i = 0; i < repetitions(1500); ++i) {
            const Gap row = one.judged(one.bay, random);
            for (std::size_t level = 0; level < levels.size(); ++level)
                flukes[level].count(row && row->claim.p && *row->claim.p < levels[level]);
        }
        printRow(std::string(one.name) + " | " + flukes[0].percent() + " | " + flukes[1].percent() + " | " +
                 flukes[2].percent());
        INFO(one.name);
        for (std::size_t level = 0; level < levels.size(); ++level)
            CHECK(flukes[level].isAtMost(1.12 * levels[level])); // as many as the designs' own simulations gave
    }
}

TEST_CASE("looks after short stints claim as the plan says, and not too often where nothing differs") {
    constexpr int laps = 12;
    record::Card card;
    card.looks = record::Looks::eachRound;
    card.plannedRounds = laps;
    std::array<double, laps + 1> at{};
    for (int lap = 2; lap <= laps; ++lap)
        at[static_cast<std::size_t>(lap)] = plan::levelAt(card, static_cast<std::size_t>(lap));
    printRow("looks, 12 laps | stint | true gap | claims | planned | laps hit | planned");
    Random random(63);
    for (const int stint : {1, 2, 5})
        for (const double gap : {0.0, 0.9}) {
            const Bay bay{.laps = laps, .stint = stint, .gap = gap};
            Rate claims;
            double hit = 0;
            const int trials = repetitions(400);
            for (int i = 0; i < trials; ++i) {
                const auto test = bay.strike(random);
                int lap = 2;
                bool claimed = false;
                for (; lap <= laps && !claimed; ++lap) {
                    record::Test done = test;
                    std::erase_if(done.shots, [&](const record::Shot& shot) { return std::stoi(shot.round) >= lap; });
                    const auto row = judge::averageGap(columnIn(done), BuildAt(1), BuildAt(0), 0.6);
                    claimed = row && row->claim.p && *row->claim.p < at[static_cast<std::size_t>(lap)];
                }
                claims.count(claimed);
                hit += (lap - 1.0) / trials;
            }
            const plan::Question question{.sdTurn = bay.stintSd, .sdShot = 1, .gap = gap > 0 ? gap : 1, .alpha = 0.05};
            const auto planned = plan::withLooks(question, laps, stint, gap > 0 ? 1 : 0, 20000);
            printRow(std::to_string(stint) + " | " + cell(gap / 100) + " | " + claims.percent() + " | " +
                     cell(planned.chance) + " | " + cell(hit / 100) + " | " + cell(planned.meanLaps / 100));
            INFO("stint " << stint << ", gap " << gap << ": " << claims.share() << " against " << planned.chance);
            const double error = std::sqrt(std::max(planned.chance * (1 - planned.chance), 0.01) / trials);
            CHECK(std::fabs(claims.share() - planned.chance) < 0.02 + 3 * error);
            if (gap == 0)
                CHECK(claims.isAtMost(0.05));
            CHECK(std::fabs(hit - planned.meanLaps) < 0.5);
        }
}

namespace {

/// Several clubs on a plan that strikes off, in units of the shot SD.
struct Several {
    std::vector<double> truth;
    int laps = 12, stint = 2;
    double stintSd = 0.5;
    double widest = 1;   ///< SD of the first club's shots against the others'
    bool isSkew = false; ///< shots fall short by an exponential
    bool strikes = true; ///< else all are hit to the end

    record::Test run(Random& random) const {
        record::Test test;
        for (std::size_t b = 0; b < truth.size(); ++b)
            test.builds.push_back({.name = std::string(1, static_cast<char>('A' + b))});
        test.card.comparison = record::Comparison::whichOfThese;
        test.card.primary = {{.metric = Metric::carry}};
        test.card.wants[test.card.primary.front()] = {record::Want::Kind::more, 0};
        test.card.margins[Metric::carry] = 0.6;
        test.plan = {.schedule = strikes ? record::Schedule::strikingOff : record::Schedule::rotated,
                     .rounds = laps,
                     .turnLength = stint,
                     .seed = random.bits(),
                     .changeTimes = {},
                     .warmUp = 0,
                     .tagWords = {}};
        plan::makeCourse(test);
        std::size_t struck = 0;
        for (;;) {
            double turn = 0;
            for (; struck < test.turns.size(); ++struck) {
                const record::PlannedTurn& due = test.turns[struck];
                turn = stintSd * random.normal();
                for (int i = 0; i < due.shots; ++i) {
                    const double spread = due.build == BuildAt(0) ? widest : 1;
                    const double noise = isSkew ? 1 + std::log(1 - random.uniform()) : random.normal();
                    record::Shot shot{.build = due.build, .handedOver = i == 0};
                    shot.round = std::to_string(due.round);
                    shot.turn = std::to_string(struck);
                    shot.sitting = "1";
                    shot.readings.measure(Metric::carry, 100 + truth[due.build] + turn + spread * noise);
                    test.shots.push_back(std::move(shot));
                }
            }
            const auto lap = plan::cutDue(test);
            if (!lap)
                break;
            const auto order = bay::orderSoFar(test);
            for (std::size_t i = plan::stayAfter(order.size(), *lap); i < order.size(); ++i)
                setStanding(test, order[i], record::Standing::What::struckOff, *lap + 1);
            plan::planAfterCut(test);
        }
        test.nameShots();
        return test;
    }
};

} // namespace

TEST_CASE(
    "of the two that are left after striking off nothing is claimed too often, and the best is among them oftener") {
    const std::vector<double> equal(8, 0.0);
    const std::vector<double> twoAhead = {1, 1, 0, 0, 0, 0, 0, 0};
    struct Cell {
        const char* name;
        Several bay;
    };
    const std::vector<Cell> cells = {{"eight alike", {.truth = equal}},
                                     {"two alike and far ahead", {.truth = twoAhead}},
                                     {"eight alike, one twice as wide", {.truth = equal, .widest = 2}},
                                     {"two alike and ahead, skew shots", {.truth = twoAhead, .isSkew = true}},
                                     {"four alike, 8 laps", {.truth = std::vector<double>(4, 0.0), .laps = 8}}};
    printRow("striking off | claims of the last two where they are alike, at 5 | at 1.67 | at 0.42");
    Random random(64);
    for (const Cell& one : cells) {
        std::array<Rate, levels.size()> flukes;
        for (int i = 0; i < repetitions(700); ++i) {
            const auto test = one.bay.run(random);
            const auto left = record::Roster(test).left();
            if (left.size() != 2 || one.bay.truth[left[0]] != one.bay.truth[left[1]])
                continue; // the ones that differ are no flukes
            const auto row = judge::averageGap(columnIn(test), left[1], left[0], 0.6);
            for (std::size_t level = 0; level < levels.size(); ++level)
                flukes[level].count(row && row->claim.p && *row->claim.p < levels[level]);
        }
        printRow(std::string(one.name) + " | " + flukes[0].percent() + " | " + flukes[1].percent() + " | " +
                 flukes[2].percent());
        INFO(one.name);
        for (std::size_t level = 0; level < levels.size(); ++level)
            CHECK(flukes[level].isAtMost(1.12 * levels[level]));
    }
    // The same number of swings: 50 stints of two with striking off, hardly six laps of all eight.
    const std::vector<double> ahead = {0.8, 0.4, 0.2, 0, 0, -0.2, -0.4, -0.8};
    printRow("eight clubs, 100 swings | the best is chosen | the first two told apart");
    for (const bool strikes : {false, true}) {
        Rate chosen;
        Rate apart;
        for (int i = 0; i < repetitions(500); ++i) {
            const Several bay{.truth = ahead, .laps = strikes ? 12 : 6, .strikes = strikes};
            const auto test = bay.run(random);
            const auto order = bay::orderSoFar(test);
            chosen.count(order.front() == BuildAt(0));
            const auto row = judge::averageGap(columnIn(test), order[0], order[1], 0.6);
            const double level = strikes ? 0.05 : 0.05 / 28; // one comparison, or every pair of eight
            apart.count(row && row->claim.p && *row->claim.p < level);
        }
        printRow(std::string(strikes ? "striking off, 12 laps" : "all to the end, 6 laps") + " | " + chosen.percent() +
                 " | " + apart.percent());
        if (strikes)
            CHECK(apart.share() > 0.1);
        else
            CHECK(apart.share() < 0.1);
    }
}
