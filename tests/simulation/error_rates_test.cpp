// What the program calls real is real at the error rate it states: checked by simulation. Rates may
// exceed their bound by four Monte-Carlo standard errors.
#include "core/judge/bets/choosing.h"
#include "core/judge/columns.h"
#include "core/plan/looks.h"
#include "core/plan/planner.h"
#include "core/plan/power.h"
#include "core/statistics/distributions.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <array>
#include <cmath>

using namespace knot;
using knot::test::claimsDifference;
using knot::test::printRow;
using knot::test::Rate;
using knot::test::repetitions;
using knot::test::Trial;
using record::Metric;

namespace {

judge::Reading verdictsOf(const record::Test& test) {
    return *judge::judge({.subject = judge::Case::of(test), .depth = judge::JudgeRequest::Depth::verdicts});
}

struct Cell {
    const char* name;
    Trial trial;
};

// Builds 2–5, rounds 3–8, turns of 1–5, turn SD 0–1, unequal SDs, missing readings.
std::vector<Cell> grid() {
    return {{"2 builds, 3 laps of 5, turn SD 0", {.builds = 2, .rounds = 3, .turnLength = 5, .sdTurn = 0}},
            {"2 builds, 3 laps of 3, turn SD 1", {.builds = 2, .rounds = 3, .turnLength = 3, .sdTurn = 1}},
            {"2 builds, 8 laps of 1", {.builds = 2, .rounds = 8, .turnLength = 1, .sdTurn = 0.5}},
            {"3 builds, 5 laps of 3, turn SD 0.5", {.builds = 3, .rounds = 5, .turnLength = 3, .sdTurn = 0.5}},
            {"3 builds, 5 laps of 3, one 2.2 times as wide",
             {.builds = 3, .rounds = 5, .turnLength = 3, .sdTurn = 0.5, .widest = 2.2}},
            {"4 builds, 6 laps of 4, a tenth missing",
             {.builds = 4, .rounds = 6, .turnLength = 4, .sdTurn = 0.5, .missing = 0.1}},
            {"5 builds, 8 laps of 2, turn SD 1", {.builds = 5, .rounds = 8, .turnLength = 2, .sdTurn = 1}},
            {"5 builds, 5 laps of 3, one 1.6 times as wide",
             {.builds = 5, .rounds = 5, .turnLength = 3, .sdTurn = 0.5, .widest = 1.6}},
            {"3 builds, 6 laps of 3, heavy tails",
             {.builds = 3, .rounds = 6, .turnLength = 3, .sdTurn = 0.5, .tails = Trial::Tails::heavy}}};
}

const std::vector<Metric> threeOutcomes{Metric::carry, Metric::ballSpeed, Metric::spin};

} // namespace

TEST_CASE("where nothing differs, a family claims a difference in at most 5 of 100 tests") {
    Random random(11);
    printRow("nothing differs | any claim, 3 outcomes (≤ 5) | 95 % intervals cover (95)");
    for (Cell cell : grid()) {
        cell.trial.metrics = threeOutcomes;
        Rate any;
        Rate covered;
        for (int i = 0; i < repetitions(1200); ++i) {
            const auto reading = verdictsOf(cell.trial.strike(random));
            bool claimed = false;
            for (const auto& row : reading.average) {
                claimed = claimed || claimsDifference(row.claim.verdict);
                if (row.ci95)
                    covered.count(row.ci95->contains(0));
            }
            any.count(claimed);
        }
        printRow(std::string(cell.name) + " | " + any.percent() + " | " + covered.percent());
        INFO(cell.name);
        CHECK(any.isAtMost(0.05));
        CHECK(covered.isAtLeast(0.95));
        CHECK(covered.isAtMost(0.965));
    }
}

TEST_CASE("no gap that matters is said of a gap as large as the margin in at most 5 of 100") {
    Random random(12);
    printRow("true gap = margin | “same” or “slight” (≤ 5) | “real” (≤ 2.5)");
    for (Cell cell : grid()) {
        cell.trial.gaps.assign(cell.trial.builds, cell.trial.margin);
        cell.trial.gaps[0] = 0;
        Rate tooSmall;
        Rate tooLarge;
        for (int i = 0; i < repetitions(1200); ++i) {
            bool small = false;
            bool large = false;
            for (const auto& row : verdictsOf(cell.trial.strike(random)).average) {
                small =
                    small || row.claim.verdict == judge::Verdict::same || row.claim.verdict == judge::Verdict::slight;
                large = large || row.claim.verdict == judge::Verdict::real;
            }
            tooSmall.count(small);
            tooLarge.count(large);
        }
        printRow(std::string(cell.name) + " | " + tooSmall.percent() + " | " + tooLarge.percent());
        INFO(cell.name);
        CHECK(tooSmall.isAtMost(0.05));
        CHECK(tooLarge.isAtMost(0.025));
    }
}

TEST_CASE("spreads and areas that are alike are called different in at most 5 of 100") {
    Random random(13);
    printRow("spreads alike | claims on spread (≤ 5) | covers (95) | claims on area (≤ 5) | covers (95)");
    struct Row {
        const char* name;
        Trial trial;
    };
    const Row rows[] = {{"5 laps of 3", {.rounds = 5, .turnLength = 3}},
                        {"8 laps of 4, turn SD 1", {.rounds = 8, .turnLength = 4, .sdTurn = 1}},
                        {"12 laps of 1", {.rounds = 12, .turnLength = 1, .sdTurn = 0, .sdRound = 0}},
                        {"8 laps of 3, heavy tails", {.rounds = 8, .turnLength = 3, .tails = Trial::Tails::heavy}}};
    for (Row row : rows) {
        row.trial.metrics = {Metric::carry, Metric::side};
        Rate spread;
        Rate spreadCovered;
        Rate area;
        Rate areaCovered;
        for (int i = 0; i < repetitions(1500); ++i) {
            auto test = row.trial.strike(random);
            test.card.primary = {*record::outcomeFromText("spread:carry_m")};
            const auto reading = verdictsOf(test);
            const auto& s = reading.consistency.front();
            spread.count(claimsDifference(s.claim.verdict));
            if (s.ci95)
                spreadCovered.count(s.ci95->contains(1));
            test.card.primary = {*record::outcomeFromText("area")};
            const auto areas = verdictsOf(test).areas;
            area.count(claimsDifference(areas.front().claim.verdict));
            if (areas.front().ci95)
                areaCovered.count(areas.front().ci95->contains(1));
        }
        printRow(std::string(row.name) + " | " + spread.percent() + " | " + spreadCovered.percent() + " | " +
                 area.percent() + " | " + areaCovered.percent());
        INFO(row.name);
        CHECK(spread.isAtMost(0.06));
        CHECK(spreadCovered.isAtLeast(0.94));
        CHECK(area.isAtMost(0.08));
        CHECK(areaCovered.isAtLeast(0.92));
    }
}

TEST_CASE("looking after every lap keeps the whole test at 5 of 100") {
    Random random(14);
    printRow("looks after each lap from the second | stopped with a claim, nothing differs (≤ 5)");
    for (const int planned : {5, 8}) {
        std::vector<double> information;
        for (int lap = 2; lap <= planned; ++lap)
            information.push_back(static_cast<double>(lap) / planned);
        const auto looks = plan::lookBoundaries(information, 0.05);
        Trial trial{.builds = 3, .rounds = planned, .turnLength = 3};
        Rate claimed;
        for (int i = 0; i < repetitions(2000); ++i) {
            const auto whole = trial.strike(random);
            bool any = false;
            for (std::size_t look = 0; look < looks.size() && !any; ++look) {
                record::Test part = whole;
                part.shots.resize((look + 2) * trial.builds * 3);
                part.card.alpha = looks[look].level;
                for (const auto& row : verdictsOf(part).average)
                    any = any || claimsDifference(row.claim.verdict);
            }
            claimed.count(any);
        }
        printRow("3 builds, " + std::to_string(planned) + " laps of 3 | " + claimed.percent());
        CHECK(claimed.isAtMost(0.05));
    }
}

TEST_CASE("the set that may be best leaves the best build out in at most 5 of 100") {
    Random random(15);
    printRow("set that may be best | best left out (≤ 5) | builds in the set");
    for (const double ahead : {0.0, 0.5, 1.5}) {
        Trial trial{.builds = 4, .rounds = 6, .turnLength = 3};
        trial.gaps = {0, 0, 0, ahead};
        Rate missed;
        double size = 0;
        const int n = repetitions(800);
        for (int i = 0; i < n; ++i) {
            const auto test = trial.strike(random);
            const auto column = judge::columnOf(test, record::structureOf(test), Metric::carry, judge::Taken::counted);
            const auto set = judge::bestSet(column, {.kind = record::Want::Kind::more}, 0.05);
            missed.count(std::ranges::find(set, std::size_t{3}) == set.end());
            size += static_cast<double>(set.size()) / n;
        }
        char text[64];
        std::snprintf(text, sizeof text, "%.1f shot SD ahead | %s | %.1f of 4", ahead, missed.percent().c_str(), size);
        printRow(text);
        CHECK(missed.isAtMost(0.05));
    }
}

TEST_CASE("planned power is achieved by the judge that will do the judging") {
    Random random(16);
    printRow("planned against achieved power | planned | achieved");
    for (const int rounds : {5, 8}) {
        Trial trial{.builds = 2, .rounds = rounds, .turnLength = 3, .sdTurn = 0.4};
        trial.gaps = {0, 1.2};
        const double planned = plan::powerToSee(
            {.varTurn = 0.16, .varShot = 1, .rounds = static_cast<double>(rounds), .turnLength = 3}, 1.2, 0.05);
        Rate seen;
        for (int i = 0; i < repetitions(1500); ++i) {
            const auto reading = verdictsOf(trial.strike(random));
            const auto& claim = reading.average.front().claim;
            seen.count(*claim.p < 0.05);
        }
        char text[80];
        std::snprintf(text, sizeof text, "2 builds, %d laps of 3 | %.1f | %s", rounds, 100 * planned,
                      seen.percent().c_str());
        printRow(text);
        CHECK(seen.isAtMost(planned));
        CHECK(seen.isAtLeast(planned));
    }
}

TEST_CASE("the planner's power for a family, and for saying that there is no gap, is achieved by the judge") {
    Random random(18);
    printRow("3 builds, 6 laps of 3, one declared outcome | planned | achieved");
    Trial trial{.builds = 3, .rounds = 6, .turnLength = 3, .sdTurn = 0.4, .margin = 1.3};
    trial.gaps = {0, 0, 1.3};
    const plan::Question question{.sdTurn = 0.4, .sdShot = 1, .gap = 1.3, .alpha = 0.05 / 2, .builds = 3};
    const auto planned = plan::optionOf(question, {}, 6, 3);
    Rate seen;
    Rate same;
    for (int i = 0; i < repetitions(1500); ++i) {
        auto test = trial.strike(random);
        test.card.primary = {{.metric = Metric::carry}};
        for (const auto& row : verdictsOf(test).average) {
            const auto& claim = row.claim;
            if (row.build == 2)
                seen.count(*claim.pAdjusted < 0.05);
            else
                same.count(*claim.pSameAdjusted < 0.05);
        }
    }
    char text[80];
    std::snprintf(text, sizeof text, "the gap is seen | %.1f | %s", 100 * planned.power, seen.percent().c_str());
    printRow(text);
    std::snprintf(text, sizeof text, "no gap is called none | %.1f | %s", 100 * planned.powerSame,
                  same.percent().c_str());
    printRow(text);
    // Holm gives away a little less than the plan's α/m, so that more is achieved than planned.
    CHECK(seen.isAtLeast(planned.power));
    CHECK(seen.isAtMost(planned.power + 0.1));
    CHECK(same.isAtLeast(planned.powerSame));
    CHECK(same.isAtMost(planned.powerSame + 0.1));
}

TEST_CASE("one run each and a t-test per number would have called luck real far more often") {
    Random random(17);
    printRow("one run of 7 each, turn SD 0.5, nothing differs | says “real” at 5 % | ours claims");
    Trial trial{.builds = 2, .rounds = 7, .turnLength = 1, .sdTurn = 0.5, .oneRunEach = true};
    trial.metrics = {Metric::carry, Metric::ballSpeed, Metric::spin, Metric::launch, Metric::side, Metric::apex};
    Rate single;
    Rate anyOfSix;
    Rate ours;
    for (int i = 0; i < repetitions(2000); ++i) {
        const auto reading = verdictsOf(trial.strike(random));
        bool any = false;
        bool claimed = false;
        for (const auto& row : reading.average) {
            any = any || *row.claim.p < 0.05;
            claimed = claimed || claimsDifference(row.claim.verdict);
        }
        single.count(*reading.average.front().claim.p < 0.05);
        anyOfSix.count(any);
        ours.count(claimed);
    }
    printRow("one number | " + single.percent() + " | " + ours.percent());
    printRow("at least one of six | " + anyOfSix.percent() + " | " + ours.percent());
    CHECK(single.share() > 0.15);
    CHECK(anyOfSix.share() > 0.6);
    CHECK(ours.share() == 0);
}

namespace {

/// Two clubs that go first in turn over several sittings, with a gap that is another each day.
record::Test overDays(int sittings, int laps, double byDay, Random& random) {
    record::Test test;
    test.builds = {{.name = "A"}, {.name = "B"}};
    test.card.primary = {{.metric = record::Metric::carry}};
    test.card.margins[record::Metric::carry] = 0.6;
    for (int sitting = 0; sitting < sittings; ++sitting) {
        const double today = byDay * random.normal();
        for (int lap = 0; lap < laps; ++lap)
            for (std::size_t place = 0, first = static_cast<std::size_t>(lap + sitting) % 2; place < 2; ++place) {
                const std::size_t build = place == 0 ? first : 1 - first;
                const double own = 0.4 * random.normal();
                for (int i = 0; i < 4; ++i) {
                    record::Shot shot{.build = record::BuildAt(build), .handedOver = i == 0};
                    shot.sitting = std::to_string(sitting);
                    shot.round = std::to_string(lap);
                    shot.readings.measure(record::Metric::carry,
                                          100 + own + (build == 1 ? today : 0) + random.normal());
                    test.shots.push_back(std::move(shot));
                }
            }
    }
    return test;
}

} // namespace

TEST_CASE("a gap pooled over sittings covers, and days that disagree claim less") {
    Random random(20261204);
    printRow("sittings of laps | pooled interval covers (95) | where they agree, called to disagree (10) | claims of "
             "no gap, "
             "the same every day (5) | apart by .3 and .6 from day to day");
    for (const auto& [sittings, laps] :
         {std::pair(2, 3), std::pair(2, 8), std::pair(3, 4), std::pair(4, 3), std::pair(4, 10)}) {
        Rate covers;
        Rate disagree;
        Rate claims;
        std::array<Rate, 2> apart;
        for (int i = 0; i < repetitions(250); ++i) {
            auto rowOf = [&, sittings = sittings, laps = laps](double byDay) {
                return judge::judge({.subject = judge::Case::of(overDays(sittings, laps, byDay, random)),
                                     .depth = judge::JudgeRequest::Depth::verdicts})
                    ->average.front();
            };
            const auto row = rowOf(0);
            REQUIRE(row.pooled);
            covers.count(row.pooled->ci95.contains(0));
            disagree.count(row.pooled->fP < 0.1);
            claims.count(claimsDifference(row.claim.verdict));
            apart[0].count(claimsDifference(rowOf(0.3).claim.verdict));
            apart[1].count(claimsDifference(rowOf(0.6).claim.verdict));
        }
        printRow(std::to_string(sittings) + " of " + std::to_string(laps) + " | " + covers.percent() + " | " +
                 disagree.percent() + " | " + claims.percent() + " | " + apart[0].percent() + ", " +
                 apart[1].percent());
        CHECK(covers.isAtLeast(0.94));
        CHECK(covers.isAtMost(0.96));
        CHECK(disagree.isAtMost(0.1));
        CHECK(claims.isAtMost(0.055));
    }
}
