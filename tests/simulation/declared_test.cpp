// Declared outcomes that see more, orders that were not rotated, and spreads with mishits: their rates by simulation.
#include "core/judge/causes/same_swing.h"
#include "core/judge/causes/variance_shares.h"
#include "core/judge/gaps/average.h"
#include "core/judge/gaps/common_line.h"
#include "core/judge/gaps/declared_gaps.h"
#include "core/judge/judge.h"
#include "core/judge/shots/probability_of_beating.h"
#include "core/judge/spreads/consistency.h"
#include "core/statistics/distributions.h"
#include "simulation/bay.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::Bay;
using knot::test::columnIn;
using knot::test::isFluke;
using knot::test::printRow;
using knot::test::Rate;
using knot::test::repetitions;
using record::BuildAt;
using record::Metric;

TEST_CASE("at equal delivery nothing is claimed too often where the swing makes the whole gap") {
    Random random(41);
    struct Cell {
        const char* name;
        Bay bay;
        std::vector<Metric> covariates;
    };
    const std::vector<Cell> cells = {
        {"nothing explained", {}, {Metric::clubSpeed}},
        {"a half explained", {.explained = 0.5}, {Metric::clubSpeed}},
        {"a half explained, two useless besides",
         {.explained = 0.5},
         {Metric::clubSpeed, Metric::strikeHigh, Metric::attack}},
        {"0.7 explained, the club swung 1 SD faster", {.explained = 0.7, .shift = 1}, {Metric::clubSpeed}},
        {"0.3 explained, 4 laps of 3, 0.5 SD faster",
         {.laps = 4, .stint = 3, .explained = 0.3, .shift = 0.5},
         {Metric::clubSpeed}},
    };
    printRow("at equal delivery, nothing differs | claims (≤ 5) | variance of the gap against as struck");
    for (const Cell& cell : cells) {
        Rate flukes;
        double equal = 0;
        double asStruck = 0;
        for (int i = 0; i < repetitions(1500); ++i) {
            const auto test = cell.bay.strike(random);
            const auto column = columnIn(test);
            const auto row = judge::gapAtEqualDelivery(test, column, BuildAt(1), BuildAt(0), cell.covariates, 0.6);
            flukes.count(isFluke(row));
            equal += row->gap * row->gap;
            const double struck = judge::averageGap(column, BuildAt(1), BuildAt(0), 0.6)->gap -
                                  std::sqrt(cell.bay.explained) * cell.bay.shift;
            asStruck += struck * struck;
        }
        char ratio[16];
        std::snprintf(ratio, sizeof ratio, "%.2f", equal / asStruck);
        printRow(std::string(cell.name) + " | " + flukes.percent() + " | " + ratio);
        INFO(cell.name);
        CHECK(flukes.isAtMost(0.05));
        if (cell.bay.explained >= 0.5)
            CHECK(equal < asStruck);
    }
}

TEST_CASE("the typical shot claims nothing too often, and sees more where there are mishits") {
    Random random(42);
    printRow("typical shot, nothing differs | claims (≤ 5) | variance of the gap against the average");
    for (const double mishits : {0.0, 0.06, 0.12, 0.2}) {
        Rate flukes;
        double typical = 0;
        double average = 0;
        for (int i = 0; i < repetitions(1500); ++i) {
            const auto column = columnIn(Bay{.mishits = mishits}.strike(random));
            const auto row = judge::gapOfTypicalShot(column, BuildAt(1), BuildAt(0), 0.6, {});
            flukes.count(isFluke(row));
            typical += row->gap * row->gap;
            const double struck = judge::averageGap(column, BuildAt(1), BuildAt(0), 0.6)->gap;
            average += struck * struck;
        }
        char ratio[16];
        std::snprintf(ratio, sizeof ratio, "%.2f", typical / average);
        printRow(std::to_string(static_cast<int>(std::lround(100 * mishits))) + " % mishits | " + flukes.percent() +
                 " | " + ratio);
        CHECK(flukes.isAtMost(0.055));
        if (mishits > 0)
            CHECK(typical < average);
    }
}

TEST_CASE("an order that was the same in every lap is judged along a line, one that was tossed for by laps") {
    Random random(43);
    struct Cell {
        const char* name;
        Bay bay;
    };
    const std::vector<Cell> cells = {
        {"8 laps of 3, neighbours alike 0.5", {.laps = 8, .stint = 3, .stintSd = 0, .likeness = 0.5}},
        {"8 laps of 3, a drift of 0.1 a shot", {.laps = 8, .stint = 3, .drift = 0.1}},
        {"12 laps of 2, alike 0.7", {.laps = 12, .stint = 2, .stintSd = 0, .likeness = 0.7}},
    };
    printRow("nothing differs | same order: by laps | along a line (≤ 5) | tossed by a coin, by laps (≤ 5)");
    for (Cell cell : cells) {
        Rate byLaps;
        Rate byLine;
        Rate tossed;
        for (int i = 0; i < repetitions(1500); ++i) {
            cell.bay.order = Bay::Order::same;
            const auto column = columnIn(cell.bay.strike(random));
            const auto row = judge::averageGap(column, BuildAt(1), BuildAt(0), 0.6);
            REQUIRE(row->method == judge::GapMethod::line);
            byLine.count(isFluke(row));
            judge::Column drawn = column;
            drawn.drawn = true; // as if laps took the order out
            byLaps.count(isFluke(judge::averageGap(drawn, BuildAt(1), BuildAt(0), 0.6)));
            cell.bay.order = Bay::Order::coin;
            judge::Column coin = columnIn(cell.bay.strike(random));
            coin.drawn = true;
            tossed.count(isFluke(judge::averageGap(coin, BuildAt(1), BuildAt(0), 0.6)));
        }
        printRow(std::string(cell.name) + " | " + byLaps.percent() + " | " + byLine.percent() + " | " +
                 tossed.percent());
        INFO(cell.name);
        CHECK(byLine.isAtMost(0.055));
        CHECK(tossed.isAtMost(0.055));
    }
}

TEST_CASE("spreads as average distances keep their rate with mishits, and cover their own ratio") {
    Random random(44);
    printRow("spreads, 8 laps of 4 | claims where alike (≤ 5) | covers its own ratio (95) | Bonett's claims");
    struct Cell {
        const char* name;
        Bay bay;
    };
    for (const Cell& cell : {Cell{"no mishits", {.laps = 8, .stint = 4}},
                             Cell{"a tenth with both", {.laps = 8, .stint = 4, .mishits = 0.1}},
                             Cell{"a tenth with one alone", {.laps = 8, .stint = 4, .mishitsMore = 0.1}}}) {
        // What the ratio of average distances comes to, from many shots.
        double own = 0;
        double other = 0;
        for (int i = 0; i < 3000; ++i)
            if (const auto row = judge::spreadRatio(columnIn(cell.bay.strike(random)), BuildAt(1), BuildAt(0), 1.25)) {
                own += row->distanceBuild;
                other += row->distanceAgainst;
            }
        const double truth = own / other;
        Rate claims;
        Rate covers;
        Rate bonett;
        for (int i = 0; i < repetitions(1500); ++i) {
            const auto row = judge::spreadRatio(columnIn(cell.bay.strike(random)), BuildAt(1), BuildAt(0), 1.25);
            REQUIRE(row->method == judge::SpreadMethod::distance);
            claims.count(*row->claim.p < 0.05);
            covers.count(row->ci95->contains(truth));
            bonett.count(row->sds->p && *row->sds->p < 0.05);
        }
        printRow(std::string(cell.name) + " | " + (cell.bay.mishitsMore > 0 ? "–" : claims.percent()) + " | " +
                 covers.percent() + " | " + bonett.percent());
        INFO(cell.name);
        if (cell.bay.mishitsMore == 0)
            CHECK(claims.isAtMost(0.055));
        CHECK(covers.isAtLeast(0.92));
    }
}

TEST_CASE("the same swing is said, and a differing one, no more often than they may be") {
    Random random(45);
    printRow("delivery of club speed, 8 laps of 4 | “differs” (≤ 5) | “the same” at a gap of the margin (≤ 5)");
    Rate differs;
    Rate same;
    const double margin = record::info(Metric::clubSpeed).worthwhileGap;
    for (int i = 0; i < repetitions(1500); ++i) {
        auto verdictAt = [&](double shift) {
            const auto test = Bay{.laps = 8, .stint = 4, .shift = shift}.strike(random);
            auto reading =
                *judge::judge({.subject = judge::Case::of(test), .depth = judge::JudgeRequest::Depth::verdicts});
            std::erase_if(reading.average, [](const auto& row) { return row.metric != Metric::clubSpeed; });
            return judge::sameSwings(test, reading).front().verdict;
        };
        differs.count(verdictAt(0) == judge::SameSwing::Verdict::differs);
        same.count(verdictAt(margin) == judge::SameSwing::Verdict::same);
    }
    printRow("one thing delivered | " + differs.percent() + " | " + same.percent());
    CHECK(differs.isAtMost(0.05));
    CHECK(same.isAtMost(0.05));
}

TEST_CASE("rough intervals cover about as often as they say") {
    Random random(46);
    printRow("rough intervals, times covered (95) | shots that pass | club's share of the scatter");
    for (const int laps : {6, 12}) {
        Rate passes;
        Rate share;
        // What the club's share comes to, from much longer tests of the same bay.
        const Bay bay{.laps = laps, .stint = 4, .explained = 0.5};
        double truth = 0;
        constexpr int longTests = 30;
        auto clubShare = [](const record::Test& test, bool isResampled) {
            const judge::JudgeRequest request{.subject = judge::Case::of(test)};
            const auto whose = judge::whoseDoing(request, columnIn(test), isResampled);
            return whose->shares.back();
        };
        for (int i = 0; i < longTests; ++i) {
            Bay longer = bay;
            longer.laps = 200;
            truth += clubShare(longer.strike(random), false).share / longTests;
        }
        for (int i = 0; i < repetitions(200); ++i) {
            auto test = bay.strike(random);
            const auto reading =
                judge::judge({.subject = judge::Case::of(test), .depth = judge::JudgeRequest::Depth::verdicts});
            const auto beats = judge::beatsOf({.subject = judge::Case::of(test)}, columnIn(test), *reading);
            passes.count(beats.front().ci95->contains(0.5));
            share.count(clubShare(test, true).ci95->contains(truth));
        }
        printRow(std::to_string(laps) + " laps of 4 | " + passes.percent() + " | " + share.percent());
        CHECK(passes.isAtLeast(0.93));
        CHECK(share.isAtLeast(0.7));
    }
}
