// What a plan is said to be worth, against what choosing by it gains.
#include "core/judge/gaps/average.h"
#include "core/plan/worth.h"
#include "core/record/structure.h"
#include "simulation/bay.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

using namespace knot;
using knot::test::columnIn;
using knot::test::printRow;
using knot::test::Rate;
using knot::test::repetitions;
using knot::test::Trial;
using record::BuildAt;

namespace {

struct Cell {
    std::size_t clubs;
    int laps, stint;
    double tau = 0.6; ///< that is assumed, in shot SDs
};

constexpr std::array cells = {Cell{2, 5, 2}, Cell{3, 5, 2}, Cell{3, 8, 3}, Cell{5, 4, 3}, Cell{3, 1, 3}};

Trial trialOf(const Cell& cell, std::vector<double> gaps) {
    return {.builds = cell.clubs,
            .rounds = cell.laps,
            .turnLength = cell.stint,
            .gaps = std::move(gaps),
            .oneRunEach = cell.laps == 1};
}

std::size_t bestLooking(const judge::Column& column) {
    std::vector<double> means;
    for (const auto& build : column.builds)
        means.push_back(statistics::meanOf(build.turnMeans()));
    return static_cast<std::size_t>(std::ranges::max_element(means) - means.begin());
}

plan::Choosing choosingOf(const Cell& cell) {
    const plan::Spreads spreads{.sdTurn = Trial{}.sdTurn, .sdShot = 1};
    const record::Outcome carry{.metric = record::Metric::carry, .shape = {}};
    return {.tau = cell.tau,
            .errors = std::vector<double>(cell.clubs, plan::errorOf(carry, spreads, cell.laps, cell.stint))};
}

std::string percent(double share) {
    char text[16];
    std::snprintf(text, sizeof text, "%.1f", 100 * share);
    return text;
}

} // namespace

TEST_CASE("choosing by a plan gains what the plan is said to be worth") {
    printRow("clubs, laps of | said, of 100 | gained | where clubs lie half as far apart | twice as far");
    Random random(20261201);
    for (const Cell& cell : cells) {
        const double said = plan::worthOf(choosingOf(cell)).share;
        const double greatest = plan::worthOf(choosingOf(cell)).toBeHad / cell.tau;
        std::array<double, 3> gained{};
        const int trials = repetitions(4000);
        for (std::size_t world = 0; world < 3; ++world) {
            const double tau = cell.tau * std::array{1.0, 0.5, 2.0}[world];
            for (int i = 0; i < trials; ++i) {
                std::vector<double> gaps;
                for (std::size_t b = 0; b < cell.clubs; ++b)
                    gaps.push_back(tau * random.normal());
                const auto struck = trialOf(cell, gaps).strike(random);
                gained[world] += gaps[bestLooking(columnIn(struck))] / (tau * greatest * trials);
            }
        }
        printRow(std::to_string(cell.clubs) + ", " + std::to_string(cell.laps) + " of " + std::to_string(cell.stint) +
                 " | " + percent(said) + " | " + percent(gained[0]) + " | " + percent(gained[1]) + " | " +
                 percent(gained[2]));
        const double luck = 4 / greatest / std::sqrt(trials); // of the gain of one test, four standard errors
        CHECK(std::fabs(gained[0] - said) < 0.02 + luck);
        CHECK(gained[1] < said);
        CHECK(gained[2] > said);
    }
}

TEST_CASE("of a hundred futures as many are chosen rightly and proved as was said") {
    printRow("clubs, laps of | proved, said | came | chosen rightly, said | came");
    Random random(20261202);
    for (const Cell& cell : cells) {
        const double gap = 0.8;
        const plan::Choosing choosing = choosingOf(cell);
        const bool isRun = cell.laps == 1;
        const double said =
            isRun ? 0 : plan::chanceToProve(std::sqrt(2.0) * choosing.errors.front(), cell.laps - 1, gap, 0.05);
        const plan::Futures futures = plan::futuresOf(choosing.errors, gap, said);
        Rate proved;
        Rate chosen;
        const int trials = repetitions(3000);
        for (int i = 0; i < trials; ++i) {
            std::vector<double> gaps(cell.clubs, 0.0);
            const std::size_t better = static_cast<std::size_t>(i) % cell.clubs;
            gaps[better] = gap;
            const judge::Column column = columnIn(trialOf(cell, gaps).strike(random));
            chosen.count(bestLooking(column) == better);
            const auto row = judge::averageGap(column, BuildAt(better), BuildAt((better + 1) % cell.clubs), 0.6);
            proved.count(!isRun && row && row->gap > 0 && row->claim.p && *row->claim.p < 0.05);
        }
        printRow(std::to_string(cell.clubs) + ", " + std::to_string(cell.laps) + " of " + std::to_string(cell.stint) +
                 " | " + percent(futures.proved) + " | " + proved.percent() + " | " +
                 percent(futures.proved + futures.chosen) + " | " + chosen.percent());
        const double luck = 2 / std::sqrt(trials);
        CHECK(std::fabs(chosen.share() - futures.proved - futures.chosen) < 0.02 + luck);
        CHECK(std::fabs(proved.share() - futures.proved) < 0.02 + luck);
    }
}

TEST_CASE("stopping when a plan is worth enough claims no more often than it may") {
    printRow("nothing differs, stopped at a worth of | laps | claimed, of 100");
    Random random(20261203);
    for (const double enough : {0.5, 0.7, 0.8}) {
        Cell cell{2, 2, 3};
        while (plan::worthOf(choosingOf(cell)).share < enough)
            ++cell.laps;
        Rate flukes;
        for (int i = 0; i < repetitions(3000); ++i)
            flukes.count(test::isFluke(
                judge::averageGap(columnIn(trialOf(cell, {}).strike(random)), BuildAt(1), BuildAt(0), 0.6)));
        printRow(percent(enough) + " | " + std::to_string(cell.laps) + " | " + flukes.percent());
        CHECK(flukes.isAtMost(0.05));
    }
}
