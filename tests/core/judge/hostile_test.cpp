#include "core/words/ledger.h"
#include "core/words/remarks/remarks.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <limits>

using namespace knot;
using judge::Cap;
using judge::Verdict;
using knot::test::TestBuilder;
using record::ShotStatus;

namespace {

judge::Reading readingOf(const TestBuilder& builder) {
    return *judge::judge({.subject = judge::Case::of(builder.test)});
}

bool hasCheck(const judge::Reading& reading, const std::string& code) {
    for (const auto& check : reading.checks)
        if (check.code == code)
            return true;
    return false;
}

// No number that a user could meet may be anything but finite, and no sentence may show one.
void requireSound(const judge::Reading& reading) {
    for (const auto& row : reading.average) {
        CHECK(std::isfinite(row.gap));
        for (const auto& value : {row.se, row.df, row.claim.p, row.claim.pWorthwhile, row.claim.pSame, row.bound})
            if (value)
                CHECK(std::isfinite(*value));
        if (!row.claim.p)
            CHECK(row.claim.cap.has_value());
    }
    for (const auto& line : words::sentences(reading, {})) {
        CHECK(line.find("nan") == std::string::npos);
        CHECK(line.find("inf") == std::string::npos);
        CHECK(line.ends_with("."));
    }
}

} // namespace

TEST_CASE("no shots, one build and no readings are said, not judged") {
    const auto empty = readingOf(TestBuilder());
    CHECK(hasCheck(empty, "no_shots"));
    CHECK(empty.average.empty());

    TestBuilder one;
    one.turn("A", "1", {1, 2, 3});
    CHECK(hasCheck(readingOf(one), "one_build"));
    CHECK(readingOf(one).average.empty());

    TestBuilder blank;
    blank.shot("A", ShotStatus::counted, {}).shot("B", ShotStatus::counted, {});
    CHECK(hasCheck(readingOf(blank), "no_readings"));
    CHECK(readingOf(blank).metrics.empty());
}

TEST_CASE("a single shot against a run is open for too few shots") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 152, 151}).turn("B", "1", {160});
    const auto reading = readingOf(builder);
    REQUIRE(reading.average.size() == 1);
    CHECK(reading.average[0].claim.verdict == Verdict::open);
    CHECK(reading.average[0].claim.cap == Cap::tooFewShots);
    CHECK(reading.average[0].gap == Approx(9));
    CHECK(hasCheck(reading, "too_few_shots"));
    requireSound(reading);
}

TEST_CASE("readings that do not vary give a gap without a p") {
    TestBuilder builder;
    for (const char* round : {"1", "2", "3"})
        builder.turn("A", round, {150, 150}).turn("B", round, {160, 160});
    const auto reading = readingOf(builder);
    CHECK(reading.average[0].claim.cap == Cap::noVariation);
    CHECK(reading.average[0].claim.verdict == Verdict::open);
    CHECK(reading.average[0].gap == Approx(10));
    CHECK(!reading.average[0].ci95);
    requireSound(reading);
}

TEST_CASE("all of one club before the other is not a fair test, however many turns it has") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 151, 152}).turn("A", "2", {150, 151, 153});
    builder.turn("B", "1", {170, 171, 172}).turn("B", "2", {170, 172, 171});
    const auto reading = readingOf(builder);
    CHECK(reading.average[0].claim.cap == Cap::separatedTurns);
    CHECK(reading.average[0].method == judge::GapMethod::welch);
    CHECK(reading.average[0].claim.verdict == Verdict::uncontrolled);
    CHECK(hasCheck(reading, "separated_turns"));
}

TEST_CASE("clubs that never met in a round have no known error") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 151, 152})
        .turn("B", "2", {160, 161})
        .turn("A", "3", {150, 150})
        .turn("B", "4", {162, 160});
    const auto reading = readingOf(builder);
    CHECK(reading.average[0].claim.cap == Cap::tooFewRounds);
    CHECK(!reading.average[0].claim.p);
    requireSound(reading);
}

TEST_CASE("an even p_same on one run each stays open") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 150.1, 149.9, 150, 150.05}).turn("B", "1", {150, 150.1, 149.9, 150.02, 150});
    const auto reading = readingOf(builder);
    const auto& row = reading.average[0];
    CHECK(*row.claim.pSameAdjusted < 0.05);
    CHECK(row.claim.verdict == Verdict::open);
}

TEST_CASE("hostile values give a defined result and a reason") {
    const double huge = 1e6;
    for (const auto& last : {std::vector<double>{150, huge}, {150, -huge}, {1e9, 1e9 + 1}, {150, 150}}) {
        TestBuilder builder;
        for (const char* round : {"1", "2"})
            builder.turn("A", round, {149, 151, 150.5}).turn("B", round, {152, 150, 151});
        builder.turn("A", "3", {150, 151}).turn("B", "3", last);
        requireSound(readingOf(builder));
    }
}

TEST_CASE("readings that are not finite count as no reading") {
    TestBuilder builder;
    builder.turn("A", "1", {150, 151, std::nan("")})
        .turn("B", "1", {152, std::numeric_limits<double>::infinity(), 153});
    const auto reading = readingOf(builder);
    CHECK(reading.average[0].shotsBuild == 2);
    requireSound(reading);
}

TEST_CASE("a large common offset does not reach the result") {
    auto make = [](double offset) {
        TestBuilder builder;
        const std::vector<std::vector<double>> a{{0.1, 1.2, -0.4}, {0.9, 0.2, 0.3}, {-0.5, 0.4, 0.8}};
        for (std::size_t r = 0; r < a.size(); ++r) {
            auto shifted = [&](double more) {
                std::vector<double> v = a[r];
                for (std::size_t i = 0; i < v.size(); ++i)
                    v[i] += offset + more * (1 + 0.1 * static_cast<double>(i * r));
                return v;
            };
            builder.turn("A", std::to_string(r), shifted(0)).turn("B", std::to_string(r), shifted(2));
        }
        return readingOf(builder).average[0];
    };
    const auto plain = make(0);
    const auto far = make(1e9);
    CHECK(far.gap == Approx(plain.gap).epsilon(1e-6));
    CHECK(*far.se == Approx(*plain.se).epsilon(1e-5));
}

TEST_CASE("a club missing from some rounds is compared over the rounds that hold both") {
    TestBuilder builder;
    for (const char* round : {"1", "2", "3", "4"}) {
        builder.turn("A", round, {150, 151 + 0.3 * round[0]});
        if (round[0] != '2')
            builder.turn("B", round, {152, 153});
    }
    const auto reading = readingOf(builder);
    CHECK(reading.average[0].rounds == 3);
    CHECK(*reading.average[0].df == 2);
    CHECK(hasCheck(reading, "missing_turns"));
}
