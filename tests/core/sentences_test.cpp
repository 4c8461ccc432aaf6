#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"
#include "core/words/answer.h"
#include "core/words/averages.h"
#include "core/words/decide.h"
#include "core/words/headline.h"
#include "core/words/ledger.h"
#include "core/words/linked_tests.h"
#include "core/words/remarks/remark_level.h"
#include "core/words/remarks/remarks.h"
#include "core/words/struck.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <array>
#include <functional>

using namespace knot;
using knot::test::TestBuilder;

namespace {

judge::Reading readingOf(const std::vector<double>& gaps, record::Want::Kind want = record::Want::Kind::none) {
    TestBuilder builder;
    int round = 0;
    for (const double gap : gaps) {
        const std::string label = std::to_string(++round);
        const std::vector<double> fern{150 + gap, 151 + gap, 149 + gap};
        if (round % 2 == 0)
            builder.turn("Fern", label, fern).turn("Slate", label, {150, 151, 149});
        else
            builder.turn("Slate", label, {150, 151, 149}).turn("Fern", label, fern);
    }
    const record::Outcome carry{.metric = record::Metric::carry};
    builder.test.card.primary = {carry};
    builder.test.card.wants[carry] = {want, 0};
    return *judge::judge({.subject = judge::Case::of(builder.test)});
}

std::string first(const judge::Reading& reading, const record::DisplayUnits& units = {}) {
    return words::sentences(reading, units).front();
}

} // namespace

TEST_CASE("a real gap says who, how far, how sure and whether it is wanted") {
    CHECK(first(readingOf({8, 8.4, 7.8, 8.2, 8.1}, record::Want::Kind::more)) ==
          "Fern carries farther than Slate by 8.1 m (7.8 to 8.4): real, and big enough to matter: better.");
    CHECK(first(readingOf({-8, -8.4, -7.8, -8.2, -8.1}, record::Want::Kind::more)) ==
          "Fern carries shorter than Slate by 8.1 m (7.8 to 8.4): real, and big enough to matter: worse.");
    CHECK(first(readingOf({8, 8.4, 7.8, 8.2, 8.1})).ends_with("big enough to matter."));
}

TEST_CASE("small, absent and unsettled gaps have their own words") {
    CHECK(first(readingOf({0.8, 1.0, 0.9, 0.7, 0.8})) ==
          "Fern carries farther than Slate by 0.8 m (0.7 to 0.9): real, but too small to matter.");
    CHECK(first(readingOf({0.3, -0.3, 0.1, -0.1, 0.1})) ==
          "Carry, Fern against Slate: 0.0 m (−0.2 to 0.2), no gap that matters.");
    const auto open = first(readingOf({6, -4, 5, -3, 1}));
    CHECK(open.find("not settled") != std::string::npos);
    CHECK(open.find("a new test should take about ") != std::string::npos);
    CHECK(open.find("either way") != std::string::npos);
}

TEST_CASE("sentences stand in the user's units") {
    CHECK(first(readingOf({8, 8.4, 7.8, 8.2, 8.1}), {.distance = record::DistanceUnit::yd}).find("8.9 yd") !=
          std::string::npos);
}

TEST_CASE("the ledger puts declared outcomes first and settled before unsettled") {
    const auto* scenario = simulate::scenarioByKey("five-wood");
    const auto test = simulate::testFrom(*scenario);
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    const auto lines = words::ledger(reading, {});
    REQUIRE(lines.size() > 6);
    CHECK(lines[0].role == judge::Role::primary);
    CHECK(lines[0].outcome.metric == record::Metric::carry);
    CHECK(lines[4].role == judge::Role::exploratory);
    bool openSeen = false;
    for (std::size_t i = 4; i < lines.size(); ++i) {
        openSeen = openSeen || lines[i].verdict == judge::Verdict::open;
        CHECK(!(openSeen && lines[i].verdict == judge::Verdict::real));
        CHECK(!record::isStrike(lines[i].outcome.metric));
    }
}

TEST_CASE("one run each is read as bets, with what would make them a finding, and not as a list of refusals") {
    const auto reading = judge::judge({.subject = judge::Case::of(knot::test::loadReference("one_run_each").test)});
    REQUIRE(reading);
    const auto lines = words::oneRunEach(*reading, {});
    REQUIRE(lines.size() >= 4);
    CHECK(lines[0] == "One run each: the clubs and the moment can't be told apart, so these are bets, not findings.");
    CHECK(lines[1].starts_with("A bet on carry: Briar is ahead of Alder "));
    CHECK(lines.back().starts_with("In the 20 minutes there may be, one question: Alder and Briar, "));
    for (const auto& line : lines)
        CHECK(line.find("not settled") == std::string::npos);
    const auto averages = words::averages(*reading, {});
    REQUIRE(!averages.empty());
    CHECK(averages[0].starts_with("Carry: Briar "));
    CHECK(averages[0].find("(10 shots, ± ") != std::string::npos);
    const auto laps = judge::judge({.subject = judge::Case::of(knot::test::loadReference("few_rounds").test)});
    CHECK(words::oneRunEach(*laps, {}).empty());
}

TEST_CASE("what is known of a record as it was struck parts runs where another delivery was asked for") {
    record::Test test;
    test.builds = {{.name = "Oak"}, {.name = "Elm"}};
    for (int lap = 0; lap < 2; ++lap)
        for (const char* delivery : {"stock", "low"})
            for (std::size_t club = 0; club < 2; ++club)
                for (int i = 0; i < 2; ++i) {
                    record::Shot shot{.build = record::BuildAt(delivery[0] == 's' ? club : 1 - club)};
                    shot.delivery = delivery;
                    shot.readings.measure(record::Metric::carry, 150);
                    test.shots.push_back(shot);
                }
    CHECK(words::runsOf(test).size() == 8);
    std::string facts;
    for (const auto& fact : words::struckFacts(test))
        facts += fact + "\n";
    CHECK(facts.find("2 clubs, 4 runs each.") != std::string::npos);
    CHECK(facts.find("4 whole laps") != std::string::npos);
    CHECK(facts.find("2 deliveries: stock and low.") != std::string::npos);
}

TEST_CASE("one is the best, and that is settled, beyond 99 times in 100") {
    judge::Reading reading;
    reading.builds = {{.name = "Reed", .id = {}}, {.name = "Alder", .id = {}}};
    judge::BestOf best;
    best.outcome = {.metric = record::Metric::carry, .shape = {}};
    reading.best = {best};
    for (const auto& [chance, isSettled] : {std::pair{0.95, false}, std::pair{0.989, false}, std::pair{0.995, true}}) {
        reading.bestBets = {{.build = record::BuildAt(0), .chance = chance},
                            {.build = record::BuildAt(1), .chance = 1 - chance}};
        const auto pictures = words::bestPictures(reading, {});
        REQUIRE(pictures.size() == 1);
        CHECK(pictures.front().isSettled == isSettled);
    }
}

TEST_CASE("a headline is of what was declared; what was seen unasked is called so, wherever it stands") {
    auto reading = readingOf({8, 8.4, 7.8, 8.2, 8.1});
    CHECK(words::headlineOf(reading, {}).text == "Fern carries farther: real");
    for (auto& row : reading.average)
        row.claim.role = judge::Role::exploratory;
    CHECK(words::headlineOf(reading, {}).text == "seen, unasked: Fern carries farther");
    CHECK(words::headlineOf(reading, {}).verdict == judge::Verdict::open);
    CHECK(words::sentences(reading, {}).front().starts_with("Also seen, unasked: Fern carries farther than Slate"));
    CHECK(words::briefSentences(reading, {}).front().starts_with("Also seen, unasked: "));
    // Beside something declared that is open it is no headline at all.
    auto open = readingOf({6, -4, 5, -3, 1});
    auto seen = reading.average.front();
    seen.metric = record::Metric::ballSpeed;
    open.average.push_back(seen);
    CHECK(words::headlineOf(open, {}).text == "nothing settled yet");
}

TEST_CASE("one club is called the best only where two-sided claims say so") {
    auto says = [](const judge::Reading& reading, const std::string& what) {
        return std::ranges::any_of(words::remarks(reading, {}), [&](const words::Remark& remark) {
            return remark.code == "best_set" && remark.text.find(what) != std::string::npos;
        });
    };
    auto reading = readingOf({8, 8.4, 7.8, 8.2, 8.1}, record::Want::Kind::more);
    const record::Outcome carry{.metric = record::Metric::carry};
    reading.best = {{.outcome = carry, .set = {reading.average.front().build}, .choosing = {}}};
    CHECK_FALSE(says(reading, "Best in"));       // of two the ledger has said it
    reading.builds.push_back({.name = "Ochre"}); // whom nobody was measured against
    CHECK_FALSE(says(reading, "Best in"));
    reading.average.push_back(reading.average.front());
    reading.average.back().against = record::BuildAt(2);
    CHECK(says(reading, "Best in carry: Fern."));
    reading.average.back().claim.verdict = judge::Verdict::open;
    CHECK_FALSE(says(reading, "best"));
}

TEST_CASE("the tests behind remarks are one family") {
    judge::Reading reading;
    CHECK(words::remarkLevel(reading) < 0);
    for (int i = 0; i < 19; ++i)
        reading.feelGaps.push_back({.p = 0.04 + 0.05 * i});
    CHECK(words::remarkLevel(reading) < 0); // one of nineteen under 0.05 is what luck does
    reading.feelGaps.push_back({.p = 0.002});
    CHECK(words::remarkLevel(reading) == 0.002);
    reading.feelGaps.push_back({.p = 0.003});
    CHECK(words::remarkLevel(reading) == 0.003);
    reading.feelRanks.push_back({.stints = 7, .rho = 0.9}); // over few stints it is no test
    CHECK(words::remarkLevel(reading) == 0.003);
}

TEST_CASE("a gap over days that is not settled holds up nowhere, and is not said to have failed") {
    judge::SittingsPooled pooled{.sittings = 3, .heldUp = 0};
    pooled.ci95 = {-1, 4, 0.95};
    CHECK(words::heldUpText(pooled).empty());
    pooled.ci95 = {1, 4, 0.95};
    pooled.heldUp = 2;
    CHECK(words::heldUpText(pooled) == "; it held up in 2 of 3");
}

TEST_CASE("a reading answers what was asked first, in a sentence an outcome") {
    auto answers = [](const record::Test& test) {
        std::vector<std::string> texts;
        for (const words::Answer& one : words::answersOf(*judge::judge({.subject = judge::Case::of(test)}), {}))
            texts.push_back(one.text);
        return texts;
    };
    using knot::test::TestBuilder;
    auto laps = [](double gap, int count, bool isThree = false) {
        TestBuilder builder;
        for (int lap = 0; lap < count; ++lap) {
            const double level = 150 + (lap % 2 == 0 ? 1.0 : -1.0);
            const std::string round = std::to_string(lap + 1);
            const std::array<std::function<void()>, 3> stints = {
                [&] {
                    builder.turn("Ash", round, {level, level + 1, level - 1});
                },
                [&] {
                    const double apart = gap + (isThree ? 0.2 * (lap % 3) : 0); // never the same in each lap
                    builder.turn("Briar", round, {level + apart + 0.2, level + apart + 1, level + apart - 1});
                },
                [&] {
                    builder.turn("Cedar", round, {level + 0.1, level - 0.4, level + 0.6});
                }};
            for (std::size_t i = 0; i < (isThree ? 3 : 2); ++i)
                stints.at(isThree ? (i + static_cast<std::size_t>(lap)) % 3 : i)();
        }
        builder.test.card.baseline = "Ash";
        builder.test.card.primary = {{.metric = record::Metric::carry, .shape = {}}};
        builder.test.card.wants[{.metric = record::Metric::carry, .shape = {}}] = {record::Want::Kind::more, 0};
        return builder.test;
    };
    CHECK(answers(laps(8, 6)) == std::vector<std::string>{"Briar carries farther than Ash: 8.2 m, real and enough."});
    CHECK(answers(laps(-8, 6)) == std::vector<std::string>{"Ash is ahead of Briar in carry: 7.8 m, real and enough."});
    const auto shorter = judge::judge({.subject = judge::Case::of(laps(-8, 6))});
    CHECK(words::reasonFor(laps(-8, 6), *shorter, judge::BuildAt(0), {}) == "it is ahead of Briar in carry, by 7.8 m");
    CHECK(words::reasonFor(laps(-8, 6), *shorter, judge::BuildAt(1), {}).empty());
    CHECK(answers(laps(0, 6)) == std::vector<std::string>{"Carry: no gap that matters between Briar and Ash."});
    const auto three = answers(laps(8, 6, true));
    REQUIRE(three.size() == 1);
    CHECK(three[0].starts_with("Briar carries farther than "));
    CHECK(three[0].ends_with(" m, real and enough.")); // that it is the best needs no more words
    record::Test open = laps(1.5, 2);
    REQUIRE(answers(open).size() == 1);
    CHECK(answers(open)[0].starts_with("Carry: not settled; Briar is ahead "));
    CHECK(answers(open)[0].ends_with(" in 100."));
    open.card.primary.clear();
    REQUIRE(answers(open).size() == 1);
    CHECK(answers(open)[0].starts_with("Carry, unasked: Briar is ahead "));
    CHECK(answers(open)[0].ends_with(" in 100, on 2 laps."));
    REQUIRE(answers(laps(1, 1)).size() == 1);
    CHECK(answers(laps(1, 1))[0].starts_with("Carry: not settled; Briar is ahead "));
    TestBuilder alone;
    alone.turn("Ash", "1", {150, 151, 152}).turn("Ash", "2", {150, 151, 152});
    CHECK(answers(alone.test).empty());
}
