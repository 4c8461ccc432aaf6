#include "core/judge/bets/choosing.h"
#include "core/judge/gaps/average.h"
#include "core/judge/gaps/families.h"
#include "core/judge/gaps/mixed_model.h"
#include "core/judge/gaps/shuffle.h"
#include "core/judge/gaps/summary.h"
#include "core/judge/gaps/verdict.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"
#include "support/build_test.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <numeric>

using namespace knot;
using namespace knot::judge;
using knot::test::TestBuilder;

TEST_CASE("Holm steps down and never lets a larger p fall below a smaller") {
    CHECK(holm({0.01, 0.04, 0.03}) == std::vector<double>{0.03, 0.06, 0.06});
    CHECK(holm({0.6, 0.9}) == std::vector<double>{1, 1});
    CHECK(holm({}).empty());
}

TEST_CASE("Benjamini and Hochberg step up") {
    const auto adjusted = benjaminiHochberg({0.01, 0.04, 0.03, 0.5});
    CHECK(adjusted[0] == Approx(0.04));
    CHECK(adjusted[1] == Approx(0.16 / 3));
    CHECK(adjusted[2] == Approx(0.16 / 3));
    CHECK(adjusted[3] == 0.5);
}

TEST_CASE("verdicts follow from the three p's") {
    struct Row {
        double p, worthwhile, same;
        Verdict verdict;
    };
    const Row rows[] = {{0.001, 0.01, 0.9, Verdict::real}, {0.001, 0.3, 0.01, Verdict::slight},
                        {0.4, 0.9, 0.01, Verdict::same},   {0.03, 0.2, 0.8, Verdict::realSizeOpen},
                        {0.2, 0.5, 0.4, Verdict::open},    {0.05, 0.025, 0.05, Verdict::open}};
    for (const Row& row : rows) {
        Claim claim{.p = row.p, .pWorthwhile = row.worthwhile, .pSame = row.same};
        claim.pAdjusted = row.p;
        claim.pWorthwhileAdjusted = row.worthwhile;
        claim.pSameAdjusted = row.same;
        decide(claim, 0.05);
        CHECK(claim.verdict == row.verdict);
        claim.cap = Cap::oneTurnEach;
        decide(claim, 0.05);
        CHECK(claim.verdict ==
              (row.verdict == Verdict::open || row.verdict == Verdict::same ? Verdict::open : Verdict::uncontrolled));
        claim.cap = Cap::tooFewShots;
        decide(claim, 0.05);
        CHECK(claim.verdict == Verdict::open);
    }
}

TEST_CASE("unfair and explaining claims stay out of the families") {
    Claim fair{.p = 0.01, .pWorthwhile = 0.02, .pSame = 0.9};
    Claim unfair = fair;
    unfair.cap = Cap::oneTurnEach;
    Claim strike = fair;
    strike.role = Role::explanation;
    Claim missing{};
    adjustFamilies({}, {&fair, &unfair, &strike, &missing});
    CHECK(*fair.pAdjusted == Approx(0.02)); // two in the family: the missing p counts as 1
    CHECK(*unfair.pAdjusted == 0.01);
    CHECK(*strike.pAdjusted == 0.01);
    CHECK(!missing.pAdjusted);
}

TEST_CASE("direction is the card's business") {
    using Kind = record::Want::Kind;
    CHECK(direction(3, {Kind::more, 0}) == Favours::better);
    CHECK(direction(3, {Kind::less, 0}) == Favours::worse);
    CHECK(direction(3, {Kind::none, 0}) == Favours::different);
    CHECK(direction(3, {Kind::near, 10}) == Favours::different); // laps know which is nearer
}

TEST_CASE("Shaffer's steps count only the equalities that can still hold") {
    // Three builds: once one gap is there, the other two can't both be none; four builds: 6, 3, 3, 3, 2, 1.
    CHECK(shaffer({0.01, 0.02, 0.04}, 3) == std::vector{0.03, 0.03, 0.04});
    const auto four = shaffer({0.001, 0.01, 0.011, 0.012, 0.02, 0.5}, 4);
    CHECK(four[0] == Approx(0.006));
    CHECK(four[1] == Approx(0.03));
    CHECK(four[3] == Approx(0.036));
    CHECK(four[4] == Approx(0.04));
    CHECK(four[5] == Approx(0.5));
    CHECK(shaffer({0.03}, 2) == holm({0.03}));
    const std::vector<double> p = {0.2, 0.003, 0.04, 0.6, 0.011, 0.02, 0.3, 0.5, 0.07, 0.9};
    const auto steps = shaffer(p, 5);
    const auto whole = holm(p);
    for (std::size_t i = 0; i < p.size(); ++i)
        CHECK((steps[i] <= whole[i] && steps[i] >= p[i])); // never blunter than Holm
}

TEST_CASE("who is nearer to a wanted value needs the difference and the middle both") {
    auto nearer = [](double own, double other, double wanted) {
        TestBuilder made;
        const double noise[] = {0.2, -0.3, 0.1, 0.4, -0.2, -0.1};
        for (int lap = 0; lap < 6; ++lap)
            made.turn("Alder", std::to_string(lap), {other + noise[lap], other - noise[(lap + 2) % 6]})
                .turn("Briar", std::to_string(lap), {own - noise[(lap + 1) % 6], own + noise[(lap + 3) % 6]});
        return nearerOf(columnOf(made.test, record::structureOf(made.test), Metric::carry, Taken::counted), BuildAt(1),
                        BuildAt(0), wanted);
    };
    CHECK(nearer(155, 152, 160).buildBeats < 0.01);
    CHECK(nearer(155, 152, 140).againstBeats < 0.01);
    const auto between = nearer(155, 152, 153.5); // one to either side: they differ, and neither is nearer
    CHECK(std::min(between.buildBeats, between.againstBeats) > 0.05);
    const auto astride = nearer(163, 152, 160); // on either side of it, and one is nearer
    CHECK(astride.buildBeats < 0.01);
}

TEST_CASE("exact shuffles count every arrangement and always the observed one") {
    const auto labels = shuffleLabels({4, 5, 6}, {1, 2, 3}, 1);
    CHECK(labels.exact);
    CHECK(labels.arrangements == 20);
    CHECK(labels.p == Approx(2.0 / 20));
    const auto flips = flipSigns({1, 2, 3}, 1);
    CHECK(flips.arrangements == 8);
    CHECK(flips.p == Approx(0.25));
    CHECK(flipSigns({0.1, 0.1, 0.1, -0.1}, 1).p == Approx(10.0 / 16)); // ties count
    CHECK(flipSigns({5}, 1).p == 1);
    CHECK(shuffleLabels({3}, {3}, 1).p == 1);
    CHECK(std::accumulate(flips.histogram.begin(), flips.histogram.end(), 0U) == 8);
}

TEST_CASE("drawn shuffles are repeatable, near the exact value, and blind to the order of shots") {
    Random random(7);
    std::vector<double> a;
    std::vector<double> b;
    for (int i = 0; i < 30; ++i) {
        a.push_back(random.normal());
        b.push_back(random.normal() + 0.4);
    }
    const auto first = shuffleLabels(b, a, 99);
    CHECK(!first.exact);
    CHECK(shuffleLabels(b, a, 99).p == first.p);
    std::ranges::reverse(a);
    CHECK(shuffleLabels(b, a, 99).p == first.p);
    // Drawn signs come near the paired t of the same differences.
    std::vector<double> differences;
    for (int i = 0; i < 24; ++i)
        differences.push_back(random.normal() + 0.3);
    const auto drawn = flipSigns(differences, 5);
    const double t = meanOf(differences) / (standardDeviation(differences) / std::sqrt(24.0));
    CHECK(!drawn.exact);
    CHECK(drawn.p == Approx(statistics::studentTwoSided(t, 23)).margin(0.03));
}

TEST_CASE("summaries of small and constant samples are defined") {
    TestBuilder builder;
    builder.turn("A", "1", {5}).turn("B", "1", {2, 2, 2}).turn("A", "2", {7, 9});
    const auto structure = record::structureOf(builder.test);
    const auto column = columnOf(builder.test, structure, record::Metric::carry, Taken::counted);
    const auto a = *summarise(column, record::BuildAt(0));
    CHECK(a.n == 3);
    CHECK(a.turns == 2);
    CHECK(a.mean == Approx(7));
    CHECK(a.median == 7);
    CHECK(*a.withinTurnSd == Approx(std::sqrt(2.0)));
    CHECK(a.ci95->low == Approx(6.5 - 12.7062047364 * 1.5).epsilon(1e-9)); // turn means 5 and 8
    const auto b = *summarise(column, record::BuildAt(1));
    CHECK(*b.sd == 0);
    CHECK(b.mad == 0);
    CHECK(b.intervalFromShots);
    CHECK(statistics::trimmedMeanOf({100, 1, 2, 3, -50}, 0.2) == 2);
    CHECK(statistics::medianOf({3, 1}) == 2);
}

TEST_CASE("a mixed model without turn variance is least squares, and refuses what it can't fit") {
    Design design;
    std::vector<double> y;
    std::vector<std::size_t> turns;
    Random random(3);
    for (std::size_t i = 0; i < 24; ++i) {
        design.addRow({1.0, static_cast<double>(i % 2)});
        // Shots that alternate around the mean inside a turn: less than no turn variance.
        y.push_back(static_cast<double>(i % 2) * 3 + ((i / 2) % 2 == 0 ? 1 : -1) + 0.01 * random.normal());
        turns.push_back(i / 4);
    }
    const auto model = MixedModel::fit(design, y, turns);
    REQUIRE(model);
    CHECK(model->method() == ModelMethod::blocks);
    const auto gap = model->coefficient(1);
    CHECK(gap->value == Approx(3).margin(0.02));
    CHECK(gap->df == 22);

    Design twice;
    for (int i = 0; i < 10; ++i)
        twice.addRow({1.0, 1.0});
    CHECK(!MixedModel::fit(twice, std::vector<double>(10, 1.0), std::vector<std::size_t>(10, 0)));
    Design thin;
    thin.addRow({1.0});
    CHECK(!MixedModel::fit(thin, {1.0}, {0}));
    Design plain;
    for (int i = 0; i < 6; ++i)
        plain.addRow({1.0});
    CHECK(!MixedModel::fit(plain, {1, 2, NAN, 4, 5, 6}, {0, 0, 1, 1, 2, 2}));
    const auto constant = MixedModel::fit(plain, std::vector<double>(6, 4.0), {0, 0, 1, 1, 2, 2});
    REQUIRE(constant);
    CHECK(constant->varShot() == 0);
    CHECK(!constant->coefficient(0));
}

TEST_CASE("the order of builds and of rows inside a turn does not reach the verdicts") {
    auto reference = knot::test::loadReference("rotated_turns");
    const auto before = knot::test::readingOf(reference.test);
    record::Test mixed = reference.test;
    const auto structure = record::structureOf(mixed);
    for (const auto& turn : structure.turns)
        std::swap(mixed.shots[turn.shots.front()], mixed.shots[turn.shots.back()]);
    std::ranges::reverse(mixed.builds);
    for (auto& shot : mixed.shots)
        shot.build = record::BuildAt(mixed.builds.size() - 1 - shot.build);
    const auto after = knot::test::readingOf(mixed);
    for (const auto& row : before.at("average")) {
        const auto twin = std::ranges::find_if(after.at("average"), [&](const auto& other) {
            return other.at("metric") == row.at("metric") && other.at("build") == row.at("build");
        });
        REQUIRE(twin != after.at("average").end());
        for (const auto& line : knot::test::differences(row, *twin, 1e-8, "permuted"))
            FAIL_CHECK(line);
    }
}

TEST_CASE("shifting and scaling a metric moves the gap and nothing else") {
    auto reference = knot::test::loadReference("few_rounds");
    const auto before = *judge::judge({.subject = judge::Case::of(reference.test)});
    record::Test scaled = reference.test;
    for (auto& shot : scaled.shots)
        if (const auto carry = shot.readings.at(record::Metric::carry))
            shot.readings.measure(record::Metric::carry, *carry * 3 + 1000);
    scaled.card.margins[record::Metric::carry] *= 3;
    const auto after = *judge::judge({.subject = judge::Case::of(scaled)});
    const auto& a = *before.averageOf(record::Metric::carry, record::BuildAt(0), record::BuildAt(1));
    const auto& b = *after.averageOf(record::Metric::carry, record::BuildAt(0), record::BuildAt(1));
    CHECK(b.gap == Approx(3 * a.gap).epsilon(1e-10));
    CHECK(*b.claim.p == Approx(*a.claim.p).epsilon(1e-9));
    CHECK(*b.claim.pSame == Approx(*a.claim.pSame).epsilon(1e-9));
    CHECK(b.claim.verdict == a.claim.verdict);
    CHECK(*b.varTurn == Approx(9 * *a.varTurn).epsilon(1e-4));
}

TEST_CASE("work that is called off gives no reading") {
    const auto reference = knot::test::loadReference("few_rounds");
    CHECK(!judge::judge({.subject = judge::Case::of(reference.test), .seed = 1, .cancelled = [] { return true; }}));
}

TEST_CASE("luck with guesses is that of each stint until every club was named once") {
    TestBuilder builder;
    for (const char* lap : {"1", "2"})
        builder.turn("Fern", lap, {150, 151}).turn("Slate", lap, {149, 150}).turn("Birch", lap, {148, 152});
    record::Test test = builder.test;
    // Three clubs, two of them guessed, both right: luck names each of three, not the two that were said.
    test.guesses = {{.build = *test.buildIndex("Fern"), .said = "Fern", .turn = {}},
                    {.build = *test.buildIndex("Slate"), .said = "Slate", .turn = {}}};
    const auto guesses = judge::judge({.subject = judge::Case::of(test)})->guesses;
    REQUIRE(guesses);
    CHECK(guesses->right == 2);
    CHECK_FALSE(guesses->matching);
    CHECK(guesses->builds == 3);
    CHECK(guesses->p == Approx(1.0 / 9));
    test.guesses.push_back({.build = *test.buildIndex("Birch"), .said = "Birch", .turn = {}});
    CHECK(judge::judge({.subject = judge::Case::of(test)})->guesses->matching);
    CHECK(judge::judge({.subject = judge::Case::of(test)})->guesses->p == Approx(1.0 / 6));
}
