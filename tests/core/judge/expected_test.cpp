// What was expected beforehand, and what is usual of a club: the order of clubs, and a club that was not hit.
#include "core/judge/judge.h"
#include "core/record/typed/club_names.h"
#include "core/words/remarks/shot_remarks.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::test;
using record::BuildAt;
using record::Metric;

namespace {

judge::Reading readingOf(const record::Test& test, std::vector<judge::UsualBasis> usual = {}) {
    return *judge::judge({.subject = judge::Case::of(test), .earlier = {.usual = std::move(usual)}});
}

std::string said(const judge::Reading& reading, const std::string& code) {
    for (const auto& remark : words::shotRemarks(reading, {}))
        if (remark.code == code)
            return remark.text;
    return {};
}

// Fern ten metres past Slate, Reed like Slate.
record::Test threeClubs() {
    TestBuilder builder;
    for (int lap = 1; lap <= 8; ++lap) {
        const std::string round = std::to_string(lap);
        const double w = 0.1 * (lap % 3);
        builder.turn("Slate", round, {150 + w, 151});
        builder.turn("Fern", round, {160, 161 - w});
        builder.turn("Reed", round, {150.4 - w, 150.9 + 0.1 * (lap % 2)});
    }
    record::Test test = builder.test;
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.primary = {{.kind = record::OutcomeKind::average, .metric = Metric::carry, .shape = {}}};
    test.card.wants[test.card.primary.front()] = {record::Want::Kind::more, 0};
    return test;
}

judge::UsualBasis usualOf(const std::string& club, double mean, std::size_t sittings = 0) {
    return {.club = club, .metric = Metric::carry, .mean = mean, .sd = {}, .sittings = sittings};
}

} // namespace

TEST_CASE("an order of clubs is said in a few letters of each") {
    const std::vector<record::Build> builds = {{.name = "Fern 60"}, {.name = "Fern 70"}, {.name = "Slate, old"}};
    auto order = [&](const char* text) { return record::orderFromText(text, builds); };
    CHECK(order("fern 7 > FERN 6")->front() == "Fern 70");
    CHECK(order(" fern 60 ; fern 70 ")->size() == 2);
    CHECK(order("")->empty());
    CHECK(order(" , ")->empty());
    CHECK(order("slate, old")->front() == "Slate, old"); // a comma of its own
    CHECK(order("fern").error() == "“fern” may be Fern 60 or Fern 70; type a letter more.");
    CHECK(order("reed").error() == "No club on the Clubs page is called “reed”.");
    CHECK(order("fern 6, fern 60").error() == "Fern 60 is named twice.");
    CHECK(*order(record::orderText({"Fern 70", "Fern 60"}).c_str()) == std::vector<std::string>{"Fern 70", "Fern 60"});
}

TEST_CASE("what became of an expected order is counted pair by pair") {
    record::Test test = threeClubs();
    CHECK_FALSE(readingOf(test).expectedOrder);
    test.card.expectedOrder = {"Fern", "Slate", "Reed"};
    auto order = readingOf(test).expectedOrder;
    REQUIRE(order);
    CHECK(order->said.front() == *test.buildIndex("Fern"));
    CHECK(order->asExpected == 2); // Fern before Slate and before Reed
    CHECK(order->otherWay == 0);
    CHECK(order->nothingThatMatters + order->notSettled == 1);

    test.card.expectedOrder = {"Reed", "Slate", "Fern"};
    test.card.expectedBy = "the fitter";
    const auto reading = readingOf(test);
    CHECK(reading.expectedOrder->otherWay == 2);
    CHECK(said(reading, "expected_order")
              .starts_with("Expected by the fitter in carry: Reed, then Slate, then Fern. Of"));
    CHECK(said(reading, "expected_order").find("2 the other way") != std::string::npos);

    SECTION("less may be wanted, and then the order is the other way round") {
        test.card.wants[test.card.primary.front()].kind = record::Want::Kind::less;
        CHECK(readingOf(test).expectedOrder->asExpected == 2);
    }
    SECTION("one club alone is no order, and an outcome without a direction has none") {
        test.card.expectedOrder = {"Reed", "nobody's"};
        CHECK_FALSE(readingOf(test).expectedOrder);
        test.card.expectedOrder = {"Reed", "Fern"};
        test.card.wants.clear();
        CHECK_FALSE(readingOf(test).expectedOrder);
    }
}

TEST_CASE("a club that was not hit is met by what is usual of it, as a bet") {
    record::Test test = threeClubs();
    test.card.comparison = record::Comparison::againstBaseline;
    test.builds.push_back({.name = "Own club"});
    test.card.baseline = "Own club";
    CHECK(readingOf(test).usualBets.empty());
    const auto reading = readingOf(test, {usualOf("Own club", 150, 4)});
    REQUIRE(reading.usualBets.size() == 3);
    const auto& fern = reading.usualBets[*test.buildIndex("Fern")];
    CHECK(fern.against == *test.buildIndex("Own club"));
    CHECK(fern.expected > 1);
    CHECK(fern.expected < 10.5); // drawn toward nothing
    CHECK(fern.ahead > 0.7);
    CHECK(fern.low80 < fern.expected);
    CHECK(fern.expected < fern.high80);
    CHECK(said(reading, "usual_bet").find("never a finding") != std::string::npos);
    for (const auto& row : reading.average)
        CHECK(row.against != *test.buildIndex("Own club")); // no verdict comes of it

    SECTION("the farther the usual number, the surer; many sittings make it surer than one") {
        CHECK(readingOf(test, {usualOf("Own club", 140, 4)}).usualBets[1].ahead > fern.ahead);
        CHECK(readingOf(test, {usualOf("Own club", 150, 1)}).usualBets[1].ahead < fern.ahead);
        CHECK(readingOf(test, {usualOf("Own club", 150, 1)}).usualBets[1].sd > fern.sd);
    }
    SECTION("shifted with everything, it stays as it was") {
        for (auto& shot : test.shots)
            shot.readings.measure(Metric::carry, *shot.readings.at(Metric::carry) + 20);
        const auto moved = readingOf(test, {usualOf("Own club", 170, 4)}).usualBets[1];
        CHECK(moved.expected == Approx(fern.expected).epsilon(1e-9));
        CHECK(moved.ahead == Approx(fern.ahead).epsilon(1e-9));
    }
    SECTION("its kind stands for its name, its name goes first") {
        test.builds.back().club.head.volume = 440;
        const auto byKind = readingOf(test, {usualOf("Driver", 120), usualOf("iron", 10)});
        REQUIRE(byKind.usualBets.size() == 3);
        CHECK(byKind.usualBets[0].usual == Approx(120));
        const auto byName = readingOf(test, {usualOf("driver", 120, 9), usualOf("Own club", 150)});
        CHECK(byName.usualBets[0].usual == Approx(150));
    }
    SECTION("a sealed test tells nothing by it, and one that was hit needs none") {
        record::Test sealed = test;
        sealed.seal.commitment = "0";
        CHECK(readingOf(sealed, {usualOf("Own club", 150)}).usualBets.empty());
        test.card.baseline = "Slate";
        CHECK(readingOf(test, {usualOf("Slate", 150)}).usualBets.empty());
    }
}

TEST_CASE("what was expected is of the others against the baseline, and of nobody while the seal is closed") {
    record::Test test = threeClubs();
    test.card.baseline = "Slate";
    test.card.expectations = {{Metric::carry, record::Expectation::up}};
    const auto open = readingOf(test);
    REQUIRE(open.expected.size() == 2); // not Reed against Fern
    for (const auto& one : open.expected)
        CHECK(one.against == open.baseline);
    test.seal = {.commitment = "0", .box = "1"};
    CHECK(readingOf(test).expected.empty());
}
