// Declared outcomes that see more, and the common line: against the references, turned round, and where there is
// little to go by.
#include "core/judge/gaps/common_line.h"
#include "core/judge/gaps/declared_gaps.h"
#include "core/judge/judge.h"
#include "core/record/check.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using namespace knot::test;
using record::BuildAt;
using record::Metric;
using record::OutcomeKind;

namespace {

judge::Column columnIn(const record::Test& test, Metric metric) {
    return judge::columnOf(test, record::structureOf(test), metric, judge::Taken::counted);
}

Metric metricIn(const nlohmann::json& row) {
    return *record::metricFromKey(row.at("metric").get<std::string>());
}

// The case with what the reference row declares on its card.
record::Test declaring(const std::string& name, const nlohmann::json& row, const nlohmann::json& margins) {
    record::Test test = loadReference(name).test;
    test.card.primary = {*record::outcomeFromText("equal:" + row.at("metric").get<std::string>()),
                         *record::outcomeFromText("typical:" + row.at("metric").get<std::string>())};
    test.card.baseline = row.at("against");
    test.card.covariates.clear();
    for (const auto& metric : row.at("covariates"))
        test.card.covariates.push_back(*record::metricFromKey(metric.get<std::string>()));
    for (const auto& [metric, margin] : margins.items())
        test.card.margins[*record::metricFromKey(metric)] = margin;
    return test;
}

std::vector<std::string> differencesIn(const nlohmann::json& reading, const nlohmann::json& row,
                                       const std::string& kind) {
    for (const auto& own : reading.at("average"))
        if (own.value("outcome", "") == kind + ":" + row.at("metric").get<std::string>() &&
            own.at("build") == row.at("build"))
            return differences(row.at(kind), own, 1e-7, kind); // its quantiles at fractional degrees hold nine digits
    return {"no row " + kind};
}

// Two clubs, one after the other in every lap, with a club speed to each carry.
record::Test inOneOrder(int laps, double drift) {
    TestBuilder builder;
    double now = 150;
    for (int lap = 0; lap < laps; ++lap)
        for (const char* club : {"Slate", "Fern"}) {
            std::vector<double> shots;
            for (int i = 0; i < 3; ++i)
                shots.push_back(now + i * drift + std::sin(7.0 * now + i));
            now += 3 * drift;
            builder.turn(club, std::to_string(lap + 1), shots);
        }
    for (auto& shot : builder.test.shots)
        shot.readings.measure(Metric::clubSpeed, 40 + 0.1 * std::cos(*shot.readings.at(Metric::carry)));
    return builder.test;
}

const judge::AverageGap& rowOf(const judge::Reading& reading, OutcomeKind kind) {
    for (const auto& row : reading.average)
        if (row.kind == kind && row.metric == Metric::carry)
            return row;
    FAIL("no such row");
    return reading.average.front();
}

} // namespace

TEST_CASE("at equal delivery and the typical shot agree with the reference") {
    const auto reference = loadJson("methods");
    for (const auto& [name, rows] : reference.at("cases").items())
        for (const auto& row : rows) {
            INFO(name << ", " << row.at("metric") << ", " << row.at("build"));
            const auto reading = readingOf(declaring(name, row, reference.at("margins")));
            for (const char* kind : {"equal", "typical"})
                if (row.contains(kind))
                    for (const auto& line : differencesIn(reading, row, kind))
                        FAIL_CHECK(line);
        }
}

TEST_CASE("the common line agrees with the reference") {
    const auto reference = loadJson("methods");
    for (const auto& [name, rows] : reference.at("cases").items()) {
        const record::Test test = loadReference(name).test;
        for (const auto& row : rows) {
            if (!row.contains("line"))
                continue;
            INFO(name << ", " << row.at("metric") << ", " << row.at("build"));
            const auto line = judge::commonLine(columnIn(test, metricIn(row)), *test.buildIndex(row.at("build")),
                                                *test.buildIndex(row.at("against")));
            REQUIRE(line);
            const auto& expected = row.at("line");
            CHECK(line->gap.value == Approx(expected.at("gap").get<double>()).epsilon(1e-8));
            CHECK(line->gap.se == Approx(expected.at("se").get<double>()).epsilon(1e-8));
            CHECK(line->gap.df == Approx(expected.at("df").get<double>()).epsilon(1e-8));
            CHECK(line->slopePerStint ==
                  Approx(expected.at("slope_per_stint").get<double>()).epsilon(1e-8).margin(1e-10));
        }
    }
}

TEST_CASE("one order in every lap is judged along a line, where a drift alone makes no gap") {
    const record::Test test = inOneOrder(6, 0.4);
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    const auto& row = rowOf(reading, OutcomeKind::average);
    CHECK(row.method == judge::GapMethod::line);
    CHECK(row.sameOrder);
    CHECK(*row.details.slopePerStint == Approx(1.2).margin(0.2));
    CHECK(row.ci95->contains(0));
    const auto differences = judge::roundDifferences(columnIn(test, Metric::carry), BuildAt(1), BuildAt(0));
    CHECK(judge::meanOf(differences) == Approx(1.2).margin(0.3)); // what laps alone would have called a gap

    SECTION("three laps are too few for a line, and the reading says what they are worth") {
        const auto few = *judge::judge({.subject = judge::Case::of(inOneOrder(3, 0.4))});
        CHECK(rowOf(few, OutcomeKind::average).method == judge::GapMethod::rounds);
        CHECK(rowOf(few, OutcomeKind::average).sameOrder);
        CHECK(std::ranges::any_of(few.checks, [](const auto& check) { return check.code == "same_order"; }));
    }
    SECTION("an order that was drawn beforehand stays with its laps") {
        record::Test drawn = test;
        drawn.turns.push_back({.build = BuildAt(0), .round = 1, .shots = 3});
        CHECK(rowOf(*judge::judge({.subject = judge::Case::of(drawn)}), OutcomeKind::average).method ==
              judge::GapMethod::rounds);
    }
    SECTION("a mark between them, and a night, leave nothing to lay a line through") {
        record::Test parted = test;
        for (std::size_t i = 18; i < parted.shots.size(); ++i)
            parted.shots[i].sitting = "2";
        CHECK(!judge::commonLine(columnIn(parted, Metric::carry), BuildAt(1), BuildAt(0)));
    }
}

TEST_CASE("a declared gap turns with its sides, and follows shift and scale") {
    const auto reference = loadJson("methods");
    const auto& row = reference.at("cases").at("whole_swing").at(0);
    const record::Test test = declaring("whole_swing", row, reference.at("margins"));
    const BuildAt a = *test.buildIndex(row.at("against"));
    const BuildAt b = *test.buildIndex(row.at("build"));
    record::Test moved = test;
    for (auto& shot : moved.shots) {
        if (const auto carry = shot.readings.at(Metric::carry))
            shot.readings.measure(Metric::carry, 3 * *carry - 40);
        if (const auto speed = shot.readings.at(Metric::clubSpeed))
            shot.readings.measure(Metric::clubSpeed, 1000 * *speed + 5); // another unit
    }
    const auto equal = [&](const record::Test& of, BuildAt build, BuildAt against, double margin) {
        return *judge::gapAtEqualDelivery(of, columnIn(of, Metric::carry), build, against, of.card.covariates, margin);
    };
    const auto typical = [&](const record::Test& of, BuildAt build, BuildAt against, double margin) {
        return *judge::gapOfTypicalShot(columnIn(of, Metric::carry), build, against, margin, {});
    };
    for (const auto& gapOf : {std::function(equal), std::function(typical)}) {
        const auto gap = gapOf(test, b, a, 2.7);
        const auto turned = gapOf(test, a, b, 2.7);
        CHECK(turned.gap == Approx(-gap.gap));
        CHECK(*turned.claim.pSame == Approx(*gap.claim.pSame));
        const auto scaled = gapOf(moved, b, a, 3 * 2.7);
        CHECK(scaled.gap == Approx(3 * gap.gap).epsilon(1e-8));
        CHECK(*scaled.se == Approx(3 * *gap.se).epsilon(1e-8));
        CHECK(*scaled.claim.pWorthwhile == Approx(*gap.claim.pWorthwhile).epsilon(1e-8));
    }
}

TEST_CASE("what can't be known at equal delivery is not claimed") {
    auto rowFrom = [](const record::Test& test) {
        return judge::gapAtEqualDelivery(test, columnIn(test, Metric::carry), BuildAt(1), BuildAt(0),
                                         {Metric::clubSpeed}, 2.7);
    };
    SECTION("no covariate was read") {
        TestBuilder builder;
        builder.turn("Slate", "1", {150, 151}).turn("Fern", "1", {152, 153});
        CHECK(!rowFrom(builder.test));
    }
    SECTION("the covariate never varies") {
        record::Test test = inOneOrder(6, 0);
        for (auto& shot : test.shots)
            shot.readings.measure(Metric::clubSpeed, 40);
        CHECK(rowFrom(test)->claim.cap == judge::Cap::noVariation);
        CHECK(!rowFrom(test)->claim.p);
    }
    SECTION("stints of one shot have no slope inside them") {
        TestBuilder builder;
        for (int lap = 1; lap <= 5; ++lap)
            builder.turn("Slate", std::to_string(lap), {150.0 + lap}).turn("Fern", std::to_string(lap), {152.0 - lap});
        for (auto& shot : builder.test.shots)
            shot.readings.measure(Metric::clubSpeed, *shot.readings.at(Metric::carry) / 4);
        CHECK(rowFrom(builder.test)->claim.cap.has_value());
        CHECK(!rowFrom(builder.test)->claim.p);
    }
    SECTION("one run each stays unfair") {
        TestBuilder builder;
        builder.turn("Slate", "", {150, 152, 149, 151, 153}).turn("Fern", "", {155, 158, 154, 157, 156});
        for (auto& shot : builder.test.shots)
            shot.readings.measure(Metric::clubSpeed, 40 + std::sin(*shot.readings.at(Metric::carry)));
        CHECK(rowFrom(builder.test)->claim.cap == judge::Cap::oneTurnEach);
        CHECK(!rowFrom(builder.test)->claim.p);
    }
}

TEST_CASE("one wild shot moves the average and hardly the typical shot, which still counts it") {
    TestBuilder builder;
    for (int lap = 0; lap < 6; ++lap) {
        const double wobble = 0.3 * (lap % 3);
        builder.turn("Slate", std::to_string(lap + 1), {150 + wobble, 151, 149, 150.5, 149.5 - wobble});
        builder.turn("Fern", std::to_string(lap + 1),
                     {154, 155 - wobble, 153, lap == 2 ? 90.0 : 154.5, 153.5 + wobble});
    }
    builder.test.card.primary = {*record::outcomeFromText("typical:carry_m")};
    builder.test.card.wants[{.kind = OutcomeKind::average, .metric = Metric::carry, .shape = {}}] = {
        record::Want::Kind::more, 0};
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    const auto& typical = rowOf(reading, OutcomeKind::typical);
    CHECK(typical.gap == Approx(4).margin(0.5));
    CHECK(typical.claim.verdict == judge::Verdict::real);
    CHECK(typical.claim.favours == judge::Favours::better); // by what is wanted of the average
    CHECK(rowOf(reading, OutcomeKind::average).gap < 2.5);
    CHECK(typical.details.mishitsBuild->hits == 1);
    CHECK(typical.details.mishitsAgainst->hits == 0);
}

TEST_CASE("the shot that a verdict hangs on is found for spreads, shares and declared gaps too") {
    TestBuilder builder;
    for (int lap = 0; lap < 6; ++lap) {
        const double w = 0.2 * lap;
        builder.turn("Slate", std::to_string(lap + 1), {150 + w, 151 - w, 149});
        builder.turn("Fern", std::to_string(lap + 1), {150 + w, 151, lap == 3 ? 96.0 : 149 - w});
    }
    for (auto& shot : builder.test.shots)
        shot.readings.measure(Metric::side, 8 * std::sin(3 * *shot.readings.at(Metric::carry)));
    builder.test.card.shapes = {{.name = "strip", .width = 14}};
    for (const char* outcome : {"spread:carry_m", "share:strip", "carry_m", "typical:carry_m"})
        builder.test.card.primary.push_back(*record::outcomeFromText(outcome));
    const auto reading = *judge::judge({.subject = judge::Case::of(builder.test)});
    auto differsFrom = [&](std::size_t shot, const auto& claimOf, const judge::Claim& claim) {
        record::Test rest = builder.test;
        rest.shots.erase(rest.shots.begin() + static_cast<std::ptrdiff_t>(shot));
        return claimOf(*judge::judge({.subject = judge::Case::of(rest)})).verdict != claim.verdict;
    };
    auto agrees = [&](const auto& claimOf) {
        const judge::Claim& claim = claimOf(reading);
        for (std::size_t i = 0; i < builder.test.shots.size(); ++i) {
            const bool named =
                std::ranges::any_of(claim.influence, [&](const auto& one) { return one.number == i + 1; });
            INFO("shot " << i + 1);
            CHECK(named == differsFrom(i, claimOf, claim));
        }
    };
    agrees([](const judge::Reading& of) -> const judge::Claim& { return of.consistency.front().claim; });
    agrees([](const judge::Reading& of) -> const judge::Claim& { return of.shareGaps.front().gap.claim; });
    agrees([](const judge::Reading& of) -> const judge::Claim& { return rowOf(of, OutcomeKind::average).claim; });
    agrees([](const judge::Reading& of) -> const judge::Claim& { return rowOf(of, OutcomeKind::typical).claim; });
}

TEST_CASE("an outcome at equal delivery needs what is held equal, and nothing that the ball made") {
    record::Card card;
    card.primary = {*record::outcomeFromText("equal:carry_m")};
    CHECK(record::faultsOf(card).size() == 1);
    card.covariates = {Metric::clubSpeed, Metric::strikeHigh};
    CHECK(record::faultsOf(card).empty());
    card.covariates = {Metric::ballSpeed};
    CHECK(record::faultsOf(card).front().find("ball speed") != std::string::npos);
    CHECK(record::outcomeText(card.primary.front()) == "equal:carry_m");
    CHECK(record::outcomeText(*record::outcomeFromText("typical:spin_rpm")) == "typical:spin_rpm");
    CHECK(!record::outcomeFromText("equal:nothing"));
}

TEST_CASE("at equal delivery three shots a covariate are asked for") {
    for (const int laps : {3, 4}) {
        TestBuilder builder;
        for (int lap = 1; lap <= laps; ++lap)
            builder.turn("Slate", std::to_string(lap), {150.0 + lap, 152})
                .turn("Fern", std::to_string(lap), {155, 151.0});
        int i = 0;
        for (auto& shot : builder.test.shots) {
            shot.readings.measure(Metric::clubSpeed, 40 + std::sin(1.7 * ++i));
            shot.readings.measure(Metric::strikeHigh, 3 * std::cos(2.9 * i));
        }
        const auto row = judge::gapAtEqualDelivery(builder.test, columnIn(builder.test, Metric::carry), BuildAt(1),
                                                   BuildAt(0), {Metric::clubSpeed, Metric::strikeHigh}, 2.7);
        REQUIRE(row);
        // Twelve shots less six stints and two slopes leave four; sixteen leave six.
        CHECK((row->claim.cap == judge::Cap::tooFewShots) == (laps == 3));
    }
}
