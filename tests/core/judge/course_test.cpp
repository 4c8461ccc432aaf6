// What the course of a test does to its reading: its plan and looks, late set-asides, guesses, and how to
// choose when not all is settled.
#include "core/judge/bets/choosing.h"
#include "core/judge/causes/models.h"
#include "core/judge/judge.h"
#include "core/judge/spreads/dispersion.h"
#include "core/plan/looks.h"
#include "core/random.h"
#include "core/words/ledger.h"
#include "core/words/remarks/remarks.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <functional>

using namespace knot;
using knot::test::TestBuilder;
using record::Metric;

namespace {

bool says(const std::vector<judge::Check>& checks, const std::string& code) {
    return std::ranges::any_of(checks, [&](const auto& c) { return c.code == code; });
}

// Rotated laps of clubs "A", "B", … with shots about their means.
record::Test rotated(std::size_t clubs, int laps, int length, const std::vector<double>& means, std::uint64_t seed,
                     double sd = 1) {
    TestBuilder builder;
    Random random(seed);
    for (int lap = 0; lap < laps; ++lap)
        for (std::size_t club = 0; club < clubs; ++club) {
            std::vector<double> values;
            for (int i = 0; i < length; ++i)
                values.push_back(means[club] + sd * random.normal());
            builder.turn(std::string(1, static_cast<char>('A' + club)), std::to_string(lap + 1), values);
        }
    builder.test.card.primary = {{.metric = Metric::carry}};
    return builder.test;
}

void addSides(record::Test& test, const std::vector<double>& spread, std::uint64_t seed) {
    Random random(seed);
    for (auto& shot : test.shots)
        shot.readings.measure(Metric::side, spread[shot.build] * random.normal());
}

} // namespace

TEST_CASE("with looks a test is judged at the level of its look, and not before the second lap") {
    record::Test test = rotated(2, 5, 3, {150, 158}, 1);
    test.card.looks = record::Looks::eachRound;
    test.card.plannedRounds = 5;
    const auto looks = plan::lookBoundaries({0.4, 0.6, 0.8, 1}, 0.05);
    const auto whole = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(whole.level == Approx(looks[3].level).epsilon(1e-12));
    CHECK(whole.average[0].shown->level == Approx(1 - looks[3].level));
    test.shots.resize(18);
    const auto early = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(early.roundsDone == 3);
    CHECK(early.level == Approx(looks[1].level).epsilon(1e-12));
    CHECK(early.average[0].shown->level == Approx(1 - looks[1].level));
    CHECK(early.average[0].shown->high > early.average[0].ci95->high);
    CHECK(early.consistency[0].shown->high > early.consistency[0].ci95->high);
    test.shots.resize(6);
    const auto first = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(first.level == 0);
    CHECK(first.average[0].claim.verdict == judge::Verdict::open);
    CHECK(first.average[0].claim.cap.has_value());
    CHECK(says(first.checks, "before_first_look"));
}

TEST_CASE("laps beyond the plan have no level: they are kept and not judged") {
    record::Test test = rotated(2, 7, 3, {150, 151}, 2);
    record::Test planned = test;
    planned.shots.resize(30);
    test.card.plannedRounds = planned.card.plannedRounds = 5;
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.roundsBeyond == 2);
    CHECK(says(reading.checks, "beyond_plan"));
    CHECK(reading.average[0].gap == judge::judge({.subject = judge::Case::of(planned)})->average[0].gap);
    planned.shots.resize(12);
    CHECK(says(judge::judge({.subject = judge::Case::of(planned)})->checks, "unfinished_plan"));
}

TEST_CASE("an open result offers laps of the plan, or a new test, never laps added at will") {
    record::Test test = rotated(2, 4, 3, {150, 150}, 3, 4);
    test.card.margins[Metric::carry] = 1.2;
    auto because = [](const record::Test& t) {
        return words::ledger(*judge::judge({.subject = judge::Case::of(t)}), {}).front().because;
    };
    INFO(words::ledger(*judge::judge({.subject = judge::Case::of(test)}), {}).front().sentence);
    CHECK(because(test).find("a new test should take about ") != std::string::npos);
    test.card.plannedRounds = 60;
    CHECK(because(test).find("more laps should settle it") != std::string::npos);
    test.card.plannedRounds = 5;
    CHECK(because(test).find("the laps left will hardly settle it") != std::string::npos);
}

TEST_CASE("a declared outcome that nobody measured still counts in its family") {
    record::Test test = rotated(2, 6, 3, {150, 152}, 4);
    const auto alone = *judge::judge({.subject = judge::Case::of(test)});
    test.card.primary.push_back({.metric = Metric::spin});
    const auto two = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(*two.average[0].claim.pAdjusted == Approx(std::min(1.0, 2 * *alone.average[0].claim.p)).epsilon(1e-12));
}

TEST_CASE("guesses are scored against luck, once all are named or stint by stint") {
    record::Test test = rotated(3, 3, 2, {150, 150, 150}, 5);
    CHECK(!judge::judge({.subject = judge::Case::of(test)})->guesses);
    test.guesses = {{record::BuildAt(0), "A", ""}, {record::BuildAt(1), "C", ""}, {record::BuildAt(2), "B", ""}};
    auto score = *judge::judge({.subject = judge::Case::of(test)})->guesses;
    CHECK(score.matching);
    CHECK(score.right == 1);
    CHECK(score.p == Approx(4.0 / 6)); // of the six ways to hand out three names, four have a match
    test.guesses.clear();
    for (int stint = 1; stint <= 3; ++stint)
        for (record::BuildAt club; club < 3; ++club)
            test.guesses.push_back({club, std::string(1, static_cast<char>('A' + club)), std::to_string(stint)});
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(!reading.guesses->matching);
    CHECK(reading.guesses->p == Approx(std::pow(1.0 / 3, 9)));
    const auto remarks = words::remarks(reading, {});
    const auto said = std::ranges::find(remarks, "guesses", &words::Remark::code);
    REQUIRE(said != remarks.end());
    CHECK(said->text.find("could tell") != std::string::npos);
    CHECK(said->severity == judge::Severity::caution);
}

TEST_CASE("shots set aside after their number was seen are flagged late") {
    record::Test test = rotated(2, 4, 3, {150, 150}, 6);
    for (const std::size_t i : {2U, 9U}) {
        test.shots[i].status = record::ShotStatus::setAside;
        test.shots[i].setAsideWhen = record::SetAsideWhen::called;
    }
    CHECK(!says(judge::judge({.subject = judge::Case::of(test)})->checks, "late_set_asides"));
    test.shots[9].setAsideWhen = record::SetAsideWhen::afterReveal;
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    REQUIRE(reading.lateSetAsides.size() == 1);
    CHECK(reading.lateSetAsides[0].number == 10);
    const auto checks = words::checks(reading);
    const auto said = std::ranges::find(checks, "late_set_asides", &words::Remark::code);
    REQUIRE(said != checks.end());
    CHECK(said->text.find("number 10") != std::string::npos);
}

TEST_CASE("amendments of a frozen sheet stand in the reading") {
    record::Test test = rotated(2, 4, 3, {150, 150}, 7);
    test.amendments = {{"2026-05-02T10:00", "one lap fewer, it got dark"}};
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.amendments.size() == 1);
    CHECK(says(reading.checks, "amended"));
}

TEST_CASE("priorities are taken in their order, and a worthwhile gap decides when to pass on") {
    // C carries farthest by a hair, B is far straighter: by carry alone C, by carry then side B.
    record::Test test = rotated(3, 8, 3, {150, 158, 158.6}, 8, 0.4);
    addSides(test, {3, 3, 3}, 9);
    for (auto& shot : test.shots)
        shot.readings.measure(Metric::side, *shot.readings.at(Metric::side) * 0.1 + (shot.build == 1 ? 1 : 9));
    const record::Outcome carry{.metric = Metric::carry};
    const record::Outcome side{.metric = Metric::side};
    test.card.primary = {carry, side};
    test.card.wants[carry] = {record::Want::Kind::more, 0};
    test.card.wants[side] = {record::Want::Kind::near, 0};
    auto winner = [](const judge::Reading& reading) {
        return std::ranges::max_element(reading.byPriority, {}, &judge::PriorityChoice::chanceBest)->build;
    };
    CHECK(winner(*judge::judge({.subject = judge::Case::of(test)})) == 1);
    test.card.margins[Metric::carry] = 0.05;
    const auto strict = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(winner(strict) == 2);
    double total = 0;
    for (const auto& choice : strict.byPriority)
        total += choice.chanceBest;
    CHECK(total == Approx(1));
}

TEST_CASE("means that move together do so when priorities are weighed") {
    // The second outcome repeats the first, so weighing both in turn can't change who comes first.
    record::Test test = rotated(3, 5, 3, {150, 151, 150.5}, 10, 2);
    for (auto& shot : test.shots)
        shot.readings.measure(Metric::total, *shot.readings.at(Metric::carry));
    const auto column = [&](Metric metric) {
        return judge::columnOf(test, record::structureOf(test), metric, judge::Taken::counted);
    };
    const record::Want more{record::Want::Kind::more, 0};
    const auto carry = judge::standings(column(Metric::carry));
    const auto total = judge::standings(column(Metric::total));
    const auto once = judge::choosingByPriority({{more, 0, carry}}, 1);
    const auto twice = judge::choosingByPriority({{more, 50, carry}, {more, 0, total}}, 1);
    REQUIRE(once.size() == 3);
    for (std::size_t i = 0; i < once.size(); ++i)
        CHECK(twice[i].chanceBest == once[i].chanceBest);
    CHECK(judge::choosingByPriority({}, 1).empty());
}

TEST_CASE("the narrowest spread and the smallest area can be chosen, and have their set") {
    record::Test test = rotated(3, 8, 4, {150, 150, 150}, 11);
    addSides(test, {8, 8, 2}, 12);
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.primary = {{.kind = record::OutcomeKind::spread, .metric = Metric::side},
                         {.kind = record::OutcomeKind::area}};
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    REQUIRE(reading.best.size() == 2);
    for (const auto& best : reading.best) {
        CHECK(best.set == std::vector{record::BuildAt(2)});
        CHECK(best.choosing[2].chanceBest > 0.95); // surer than clubs that usually differ by the margin let one be
        CHECK(best.choosing[0].meanLoss > 0.8);    // nearly twice as wide, shrunk
    }
}

TEST_CASE("a wanted value is a window of the worthwhile gap to either side") {
    record::Test test = rotated(2, 6, 3, {150, 155}, 13, 0.5);
    test.card.targets = {{Metric::carry, "", 150, 150}};
    const auto reading = *judge::judge({.subject = judge::Case::of(test)});
    CHECK(reading.targets[0].verdict == judge::AgainstTarget::inside);
    CHECK(reading.targets[1].verdict == judge::AgainstTarget::above);
    CHECK(reading.targets[0].share.share > 0.9);
}

TEST_CASE("settling differs between clubs where it does, and late shots differ from early ones") {
    TestBuilder builder;
    Random random(14);
    for (int lap = 0; lap < 6; ++lap)
        for (int club = 0; club < 2; ++club) {
            std::vector<double> values;
            for (int place = 0; place < 5; ++place)
                values.push_back(150 + (club == 1 ? 1.5 * place : 0) + 0.4 * random.normal());
            builder.turn(club == 0 ? "A" : "B", std::to_string(lap), values);
        }
    const auto column =
        judge::columnOf(builder.test, record::structureOf(builder.test), Metric::carry, judge::Taken::counted);
    const auto gap = judge::settlingGap(column, record::BuildAt(1), record::BuildAt(0));
    REQUIRE(gap);
    CHECK(gap->value == Approx(1.5).margin(0.3));
    CHECK(gap->p < 0.001);
    // The two halves of five are places 1–2 and 4–5: three places apart.
    CHECK(judge::lateInTurn(column, record::BuildAt(1))->value == Approx(4.5).margin(0.5));
    CHECK(judge::lateInTurn(column, record::BuildAt(0))->p > 0.01);
    TestBuilder single;
    single.turn("A", "1", {1, 2}).turn("B", "1", {3});
    const auto few =
        judge::columnOf(single.test, record::structureOf(single.test), Metric::carry, judge::Taken::counted);
    CHECK(!judge::lateInTurn(few, record::BuildAt(0)));
    CHECK(!judge::settlingGap(few, record::BuildAt(1), record::BuildAt(0)));
}

TEST_CASE("few turns are shuffled in every way there is") {
    // Two builds of four turns: 70 ways, so the p is a multiple of 1/70 and repeats for any seed.
    record::Test test = rotated(2, 4, 3, {150, 150}, 15);
    addSides(test, {2, 9}, 16);
    const auto landings = judge::landingsOf(test, record::structureOf(test), judge::Taken::counted);
    const auto one = judge::areaRatio(landings, record::BuildAt(1), record::BuildAt(0), 1.5, 1);
    const auto two = judge::areaRatio(landings, record::BuildAt(1), record::BuildAt(0), 1.5, 2);
    REQUIRE(one->shuffleP);
    CHECK(*one->shuffleP == *two->shuffleP);
    CHECK(std::fabs(*one->shuffleP * 70 - std::round(*one->shuffleP * 70)) < 1e-9);
    CHECK(*one->shuffleP >= 1.0 / 70);
}

TEST_CASE("the user's unit does not reach a verdict") {
    for (std::uint64_t seed = 1; seed <= 8; ++seed) {
        record::Test metres = rotated(3, 5, 3, {150, 151, 154}, seed);
        addSides(metres, {2, 4, 3}, seed + 50);
        record::Test yards = metres;
        constexpr double perMetre = 1.0936133;
        for (const Metric metric : {Metric::carry, Metric::side}) {
            yards.card.margins[metric] = metres.card.margin(metric) * perMetre;
            for (auto& shot : yards.shots)
                shot.readings.measure(metric, *shot.readings.at(metric) * perMetre);
        }
        const auto a = *judge::judge({.subject = judge::Case::of(metres)});
        const auto b = *judge::judge({.subject = judge::Case::of(yards)});
        REQUIRE(a.average.size() == b.average.size());
        for (std::size_t i = 0; i < a.average.size(); ++i) {
            CHECK(a.average[i].claim.verdict == b.average[i].claim.verdict);
            CHECK(*b.average[i].claim.pWorthwhile == Approx(*a.average[i].claim.pWorthwhile).epsilon(1e-8));
        }
        for (std::size_t i = 0; i < a.consistency.size(); ++i)
            CHECK(*b.consistency[i].claim.p == Approx(*a.consistency[i].claim.p).epsilon(1e-8));
        for (std::size_t i = 0; i < a.areas.size(); ++i) {
            CHECK(b.areas[i].ratio == Approx(a.areas[i].ratio).epsilon(1e-9));
            CHECK(*b.areas[i].claim.p == Approx(*a.areas[i].claim.p).epsilon(1e-8));
            CHECK(b.areas[i].claim.verdict == a.areas[i].claim.verdict);
        }
    }
}

TEST_CASE("landing areas of hostile records are defined and say why they are not judged") {
    struct Row {
        const char* what;
        std::function<void(record::Test&)> spoil;
    };
    const std::vector<Row> rows = {
        {"no side at all",
         [](record::Test& t) {
             for (auto& s : t.shots)
                 s.readings.clear(Metric::side);
         }},
        {"three points of one build",
         [](record::Test& t) {
             int left = 3;
             for (auto& s : t.shots)
                 if (s.build == 1 && left-- <= 0)
                     s.readings.clear(Metric::side);
         }},
        {"all on one line",
         [](record::Test& t) {
             for (auto& s : t.shots)
                 s.readings.measure(Metric::side, 0);
         }},
        {"one far away", [](record::Test& t) { t.shots[3].readings.measure(Metric::side, 1e6); }},
        {"a common offset",
         [](record::Test& t) {
             for (auto& s : t.shots)
                 s.readings.measure(Metric::side, *s.readings.at(Metric::side) + 1e9);
         }},
        {"not a number", [](record::Test& t) { t.shots[3].readings.measure(Metric::side, std::nan("")); }},
        {"missing from two rounds",
         [](record::Test& t) {
             for (auto& s : t.shots)
                 if (s.build == 1 && (s.round == "2" || s.round == "3"))
                     s.status = record::ShotStatus::setAside;
         }},
    };
    for (const Row& row : rows) {
        INFO(row.what);
        record::Test test = rotated(2, 5, 3, {150, 150}, 17);
        addSides(test, {3, 3}, 18);
        row.spoil(test);
        const auto reading = *judge::judge({.subject = judge::Case::of(test)});
        for (const auto& area : reading.areas) {
            CHECK(std::isfinite(area.ratio));
            CHECK((area.claim.p.has_value() || area.claim.cap.has_value()));
            if (area.claim.p)
                CHECK(std::isfinite(*area.claim.p));
        }
        for (const auto& line : words::sentences(reading, {}))
            CHECK(line.find("nan") == std::string::npos);
    }
}
