// The bet, whose doing and the same swing: against the references, and where there is little to go by.
#include "core/judge/bets/bet.h"
#include "core/judge/bets/choosing.h"
#include "core/judge/causes/same_swing.h"
#include "core/judge/causes/variance_shares.h"
#include "core/judge/judge.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using namespace knot::test;
using judge::BetOnPair;
using record::Metric;

namespace {

const nlohmann::json& rowOf(const nlohmann::json& rows, const nlohmann::json& metric, const nlohmann::json& build) {
    for (const auto& row : rows)
        if (row.at("metric") == metric && row.at("build") == build)
            return row;
    FAIL("no row of " << metric << ", " << build);
    return rows;
}

judge::Column columnIn(const record::Test& test, Metric metric = Metric::carry) {
    return judge::columnOf(test, record::structureOf(test), metric, judge::Taken::counted);
}

judge::BetPrior usualPrior(Metric metric = Metric::carry) {
    return {.usual = plan::usualSpreads(metric, plan::Level::club), .scale = record::info(metric).worthwhileGap};
}

} // namespace

TEST_CASE("bets agree with the reference in closed form, chances of best by draws") {
    const auto reference = loadJson("bet");
    for (const auto& [name, metrics] : reference.at("cases").items()) {
        const auto reading = readingOf(loadReference(name).test);
        for (const auto& expected : metrics) {
            INFO(name << ", " << expected.at("metric"));
            for (const auto& bet : expected.at("bets")) {
                const auto& own = rowOf(reading.at("bets"), expected.at("metric"), bet.at("build"));
                CHECK(own.at("against") == expected.at("against"));
                for (const char* number : {"ahead", "expected", "sd"})
                    CHECK(own.at(number).get<double>() == Approx(bet.at(number).get<double>()).epsilon(1e-8));
            }
            for (const auto& best : expected.at("best")) {
                const auto& own = rowOf(reading.at("best_bet"), expected.at("metric"), best.at("build"));
                CHECK(own.at("chance").get<double>() == Approx(best.at("chance").get<double>()).margin(0.01));
            }
        }
    }
}

TEST_CASE("more laps leave less lying, and what is left now is what the bet says of its best") {
    TestBuilder builder;
    for (const char* lap : {"1", "2", "3"}) {
        builder.turn("Ash", lap, {150, 153, 149}).turn("Briar", lap, {152, 150, 154});
        builder.turn("Cedar", lap, {149, 155, 151});
    }
    const record::Want more{.kind = record::Want::Kind::more};
    const auto bet = *judge::Bet::of(columnIn(builder.test), usualPrior());
    const auto further = [&](std::size_t laps, const record::Want& want = {record::Want::Kind::more}) {
        return bet.further(want, usualPrior().usual, laps, 3, 7, 20000);
    };
    const auto five = further(5);
    double least = 1e9;
    for (const judge::BestBet& best : bet.best(more, 1))
        least = std::min(least, best.loss);
    CHECK(five.now == Approx(least).epsilon(0.15)); // each drawn by itself
    CHECK(five.after < five.now);
    CHECK(further(20).after < five.after);
    CHECK(further(100000).after < 0.01);
    CHECK(five.after > 0);
    // Turned about, less is wanted of the same clubs: as open as before.
    CHECK(further(5, {record::Want::Kind::less}).now > 0);
}

TEST_CASE("whose doing agrees with the reference") {
    const auto reference = loadReference("whole_swing");
    const auto reading = readingOf(reference.test);
    for (const auto& expected : reference.expected.at("whose_doing")) {
        const nlohmann::json* own = nullptr;
        for (const auto& row : reading.at("whose_doing"))
            if (row.at("metric") == expected.at("metric"))
                own = &row;
        REQUIRE(own != nullptr);
        for (const auto& line : differences(expected, *own, 1e-8, expected.at("metric").get<std::string>()))
            FAIL_CHECK(line);
    }
}

TEST_CASE("spreads as average distance agree with the reference, and the SDs stand beside them") {
    const auto reference = loadJson("methods");
    for (const auto& [name, rows] : reference.at("cases").items()) {
        const auto reading = readingOf(loadReference(name).test);
        for (const auto& expected : rows) {
            if (!expected.contains("distance"))
                continue;
            INFO(name << ", " << expected.at("metric") << ", " << expected.at("build"));
            const nlohmann::json* own = nullptr;
            bool sds = false;
            for (const auto& row : reading.at("consistency"))
                if (row.at("metric") == expected.at("metric") && row.at("build") == expected.at("build")) {
                    own = row.at("method") == "distance" ? &row : own;
                    sds = sds || row.at("method") == "bonett";
                }
            REQUIRE(own != nullptr);
            CHECK(sds);
            for (const auto& line : differences(expected.at("distance"), *own, 1e-8, name))
                FAIL_CHECK(line);
        }
    }
}

TEST_CASE("a bet knows the same whatever is added, turned round or swapped") {
    const auto test = loadReference("rotated_turns").test;
    const auto column = columnIn(test);
    const auto bet = judge::Bet::of(column, usualPrior());
    REQUIRE(bet);
    const record::BuildAt a(0);
    const record::BuildAt b(1);
    const auto plain = bet->pair(b, a, {}, 1);
    const auto swapped = bet->pair(a, b, {}, 1);
    CHECK(swapped.expected == Approx(-plain.expected));
    CHECK(swapped.ahead == Approx(1 - plain.ahead));
    CHECK(swapped.low80 == Approx(-plain.high80));
    CHECK(bet->pair(b, a, {record::Want::Kind::less, 0}, 1).ahead == Approx(1 - plain.ahead));
    CHECK(plain.low80 < plain.expected);
    CHECK(plain.expected < plain.high80);

    auto shifted = column;
    auto scaled = column;
    for (std::size_t i = 0; i < column.builds.size(); ++i)
        for (std::size_t t = 0; t < column.builds[i].turns.size(); ++t)
            for (std::size_t v = 0; v < column.builds[i].turns[t].values.size(); ++v) {
                shifted.builds[i].turns[t].values[v] += 1e5;
                scaled.builds[i].turns[t].values[v] *= 3;
            }
    CHECK(judge::Bet::of(shifted, usualPrior())->pair(b, a, {}, 1).expected == Approx(plain.expected).epsilon(1e-6));
    auto wide = usualPrior();
    wide.usual.sdShot *= 3;
    wide.usual.sdTurn *= 3;
    wide.scale *= 3;
    const auto tripled = judge::Bet::of(scaled, wide)->pair(b, a, {}, 1);
    CHECK(tripled.expected == Approx(3 * plain.expected));
    CHECK(tripled.ahead == Approx(plain.ahead));
    // Bit for bit the same again.
    const auto again = judge::Bet::of(column, usualPrior())->best({}, 7);
    const auto once = bet->best({}, 7);
    for (std::size_t i = 0; i < once.size(); ++i) {
        CHECK(once[i].chance == again[i].chance);
        CHECK(once[i].loss == again[i].loss);
    }
}

TEST_CASE("what looks best of several is expected to be less than it looks") {
    TestBuilder made;
    made.turn("Alder", "", {150, 151, 149}).turn("Briar", "", {158, 159, 157}).turn("Cedar", "", {150, 149, 151});
    const auto bet = judge::Bet::of(columnIn(made.test), usualPrior());
    REQUIRE(bet);
    const auto row = bet->pair(record::BuildAt(1), record::BuildAt(0), {}, 1);
    CHECK(row.expected > 0);
    CHECK(row.expected < 8 - 2);
    CHECK(row.ahead < 0.97); // one run each
    // A wanted value: whoever is nearer to it.
    const auto nearer = bet->best({record::Want::Kind::near, 150}, 3);
    CHECK(nearer[1].chance < nearer[0].chance);
    const auto farther = bet->best({record::Want::Kind::near, 170}, 3);
    CHECK(farther[1].chance > 0.5);
    CHECK(bet->pair(record::BuildAt(1), record::BuildAt(0), {record::Want::Kind::near, 170}, 3).ahead > 0.5);
}

TEST_CASE("of two clubs chance and loss are those that draws come to") {
    const auto test = loadReference("few_rounds").test;
    const auto bet = judge::Bet::of(columnIn(test), usualPrior());
    REQUIRE(bet);
    const auto exact = bet->best({record::Want::Kind::more, 0}, 1);
    const auto row = bet->pair(record::BuildAt(1), record::BuildAt(0), {}, 1);
    REQUIRE(exact.size() == 2);
    CHECK(exact[0].chance + exact[1].chance == Approx(1));
    CHECK(exact[1].chance == Approx(row.ahead));
    CHECK(exact[0].loss - exact[1].loss == Approx(row.expected));
    const auto fewer = bet->best({record::Want::Kind::less, 0}, 1);
    CHECK(fewer[0].chance == Approx(exact[1].chance));
    CHECK(fewer[0].loss == Approx(exact[1].loss));
    // Near a value far above both is the same as more, by draws.
    const auto drawn = bet->best({record::Want::Kind::near, 1000}, 5);
    CHECK(drawn[1].chance == Approx(exact[1].chance).margin(0.01));
    CHECK(drawn[0].loss == Approx(exact[0].loss).margin(0.1));
}

TEST_CASE("where there is little to go by, a bet is a modest one and never nonsense") {
    TestBuilder one;
    one.turn("Alder", "", {150});
    CHECK(!judge::Bet::of(columnIn(one.test), usualPrior()));
    one.turn("Briar", "", {160});
    const auto two = judge::Bet::of(columnIn(one.test), usualPrior());
    REQUIRE(two);
    const auto row = two->pair(record::BuildAt(1), record::BuildAt(0), {}, 1);
    CHECK(row.expected > 0);
    CHECK(row.expected < 5);
    CHECK(std::isfinite(row.sd));
    TestBuilder constant;
    constant.turn("Alder", "1", {150, 150}).turn("Briar", "1", {150, 150});
    const auto same = judge::Bet::of(columnIn(constant.test), usualPrior());
    REQUIRE(same);
    CHECK(same->pair(record::BuildAt(1), record::BuildAt(0), {}, 1).expected == Approx(0).margin(1e-9));
    CHECK(same->pair(record::BuildAt(1), record::BuildAt(0), {}, 1).ahead == Approx(0.5));
    // In laps of their own there is nothing between them.
    TestBuilder apart;
    apart.turn("Alder", "1", {150, 151}).turn("Briar", "2", {170, 171});
    const auto nothing = judge::Bet::of(columnIn(apart.test), usualPrior());
    REQUIRE(nothing);
    CHECK(std::isfinite(nothing->pair(record::BuildAt(1), record::BuildAt(0), {}, 1).expected));
}

TEST_CASE("whose doing leaves out what is missing, and says nothing from too little") {
    auto reference = loadReference("whole_swing").test;
    for (std::size_t i = 0; i < reference.shots.size(); i += 2)
        reference.shots[i].readings.clear(Metric::attack);
    const auto request = judge::JudgeRequest{.subject = judge::Case::of(reference)};
    const auto column =
        judge::columnOf(request.subject.test(), request.subject.structure(), Metric::carry, judge::Taken::counted);
    const auto whose = judge::whoseDoing(request, column);
    REQUIRE(whose);
    CHECK(whose->leftOut == std::vector{Metric::attack});
    double sum = whose->rest;
    for (const auto& part : whose->shares) {
        CHECK(part.cause != "attack_deg");
        sum += part.share;
    }
    CHECK(sum == Approx(1));
    TestBuilder little;
    little.turn("Alder", "1", {150, 151}).turn("Briar", "1", {152, 153});
    const auto few = judge::JudgeRequest{.subject = judge::Case::of(little.test)};
    CHECK(!judge::whoseDoing(few, columnIn(little.test)));
}

TEST_CASE("the same swing: differs, the same, or as it was seen in one run") {
    auto delivered = [](double speedGap, bool oneRun) {
        TestBuilder made(Metric::clubSpeed);
        const double noise[] = {0.1, -0.1, 0.05, -0.05, 0.0, 0.08};
        if (oneRun)
            made.turn("Alder", "", {40, 40.1, 39.9}).turn("Briar", "", {40 + speedGap, 40.1 + speedGap});
        else
            for (int lap = 0; lap < 6; ++lap)
                made.turn("Alder", std::to_string(lap), {40 + noise[lap], 40.1})
                    .turn("Briar", std::to_string(lap), {40 + speedGap, 40.1 + speedGap - noise[lap]});
        return judge::judge({.subject = judge::Case::of(made.test)})->sameSwing;
    };
    using Verdict = judge::SameSwing::Verdict;
    REQUIRE(delivered(3, false).size() == 1);
    CHECK(delivered(3, false)[0].verdict == Verdict::differs);
    CHECK(delivered(0, false)[0].verdict == Verdict::same);
    CHECK(!delivered(0, false)[0].asSeen);
    CHECK(delivered(3, true)[0].verdict == Verdict::open);
    CHECK(delivered(3, true)[0].asSeen);
    CHECK(delivered(3, true)[0].gap == Approx(3.05));
}

TEST_CASE("what a wrong choice costs in spread stays a number that somebody can use, however few the shots") {
    // Of three clubs, two degrees of freedom each: the mean of such ratios themselves has no end.
    std::vector<judge::Standing> standings;
    for (std::size_t b = 0; b < 3; ++b)
        standings.push_back(
            {.build = record::BuildAt(b), .effect = {0.1 * static_cast<double>(b), 0.6, 2}, .turns = 3});
    const record::Want less{record::Want::Kind::less, 0};
    for (const std::uint64_t seed : {1U, 2U, 3U}) {
        const auto best = judge::choosing(standings, less, judge::LossScale::ratio, seed);
        REQUIRE(best.choosing.size() == 3);
        for (const auto& choice : best.choosing) {
            CHECK(choice.meanLoss > 0);
            CHECK(choice.meanLoss < 3);
        }
        CHECK(best.lossAfter < best.lossNow);
    }
}
