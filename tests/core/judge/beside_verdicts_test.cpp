// What stands beside the verdicts has its rate as well: days that disagree, misses one way, windows, two factors, whose
// doing a difference of the swing is.
#include "core/judge/bets/swept_stints.h"
#include "core/judge/days/earlier.h"
#include "core/judge/days/usual.h"
#include "core/judge/judge.h"
#include "core/random.h"
#include "core/record/text/names.h"
#include "core/words/averages.h"
#include "core/words/ledger.h"
#include "core/words/remarks/remark_level.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "core/words/remarks/swing_remarks.h"
#include "support/build_test.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

using namespace knot;
using judge::BuildAt;
using judge::GapMethod;
using judge::SameSwing;
using judge::Verdict;
using knot::test::TestBuilder;
using record::Metric;

namespace {

judge::Reading readingOf(const record::Test& test) {
    return *judge::judge({.subject = judge::Case::of(test)});
}

record::Outcome carry() {
    return {.metric = Metric::carry};
}

// Laps of two clubs that go first in turn.
template<typename Value> TestBuilder turned(int laps, int shots, Value value) {
    TestBuilder builder;
    for (int lap = 0; lap < laps; ++lap)
        for (const int club : {lap % 2, 1 - lap % 2}) {
            std::vector<double> values;
            for (int i = 0; i < shots; ++i)
                values.push_back(value(lap, club));
            builder.turn(club == 0 ? "Slate" : "Fern", std::to_string(lap + 1), values);
        }
    builder.test.card.primary = {carry()};
    return builder;
}

std::string said(const judge::Reading& reading, const std::string& code) {
    for (const auto& all : {words::remarks(reading, {}), words::shotRemarks(reading, {}), words::sameSwing(reading, {}),
                            words::checks(reading)})
        for (const words::Remark& remark : all)
            if (remark.code == code)
                return remark.text;
    return {};
}

} // namespace

TEST_CASE("where days disagree their gaps decide, and where they agree a verdict speaks of these days") {
    auto over = [](double second) {
        Random random(31);
        auto builder = turned(
            12, 4, [&](int lap, int club) { return 150 + (club == 1 ? (lap < 6 ? 8 : second) : 0) + random.normal(); });
        for (record::Shot& shot : builder.test.shots)
            shot.sitting = std::stoi(shot.round) <= 6 ? "May" : "June";
        return readingOf(builder.test);
    };
    const auto apart = over(3);
    CHECK(apart.average[0].method == GapMethod::days);
    CHECK(*apart.average[0].df == 1);
    CHECK(apart.average[0].gap == Approx(apart.average[0].pooled->pooled));
    CHECK(apart.average[0].claim.verdict == Verdict::open); // two days that lie 5 m apart
    CHECK(words::ledger(apart, {})[0].sentence.find("the days disagree") != std::string::npos);
    CHECK_FALSE(apart.average[0].furtherRounds);

    const auto alike = over(8.1);
    CHECK(alike.average[0].method == GapMethod::rounds);
    CHECK(alike.average[0].claim.verdict == Verdict::real);
    CHECK(words::ledger(alike, {})[0].sentence.find("on these days") != std::string::npos);
}

TEST_CASE("misses go one way only where shots and stints both say so, and never of one run") {
    auto misses = [](int stints, int shots, double lean, double alike) {
        Random random(7);
        TestBuilder builder;
        for (int stint = 0; stint < stints; ++stint) {
            const double own = alike * random.normal();
            for (int club = 0; club < 2; ++club)
                for (int i = 0; i < shots; ++i) {
                    builder.shot(club == 0 ? "Slate" : "Fern", record::ShotStatus::counted, 150 + random.normal());
                    builder.test.shots.back().round = std::to_string(stint);
                    builder.test.shots.back().readings.measure(
                        Metric::side, club == 0 ? 12 * (lean + own + random.normal()) : 12 * random.normal());
                }
        }
        builder.test.card.primary = {carry()};
        return readingOf(builder.test).misses.front();
    };
    const auto steady = misses(6, 5, 1.5, 0);
    REQUIRE(steady.oneWay);
    CHECK(steady.oneWay->p < 0.001);
    CHECK(*words::byLuck(steady) < 0.05);
    const auto inStints = misses(4, 8, 0.6, 1.2); // whole stints go one way, and not all the same
    CHECK(inStints.oneWay->p < *inStints.oneWay->stintsP);
    CHECK(*words::byLuck(inStints) == *inStints.oneWay->stintsP);
    CHECK_FALSE(words::byLuck(misses(1, 14, 2, 0)));
}

TEST_CASE("one stint is never inside a window, and its share allows for what a stint adds") {
    TestBuilder builder;
    builder.turn("Slate", "1", {150, 151, 152, 149, 150, 151, 150, 149, 152, 151});
    builder.turn("Fern", "1", {155, 157, 154, 156, 155, 157, 154, 156, 155, 157});
    builder.test.card.primary = {carry()};
    builder.test.card.targets = {{.metric = Metric::carry, .build = {}, .low = 145, .high = 155}};
    const auto reading = readingOf(builder.test);
    REQUIRE(reading.targets.size() == 2);
    CHECK(reading.targets[0].oneStint);
    CHECK(reading.targets[0].verdict == judge::AgainstTarget::open);
    CHECK(reading.targets[0].share.share == 1);
    CHECK(reading.targets[0].share.ci95.low < 0.6); // ten of ten shots alone would say 72 %
    CHECK(said(reading, "target").find("in one stint") != std::string::npos);
}

TEST_CASE("two factors with laps as blocks see what laps that lie apart hid") {
    Random random(12);
    auto struck = [&](double extra) {
        TestBuilder builder;
        for (int lap = 0; lap < 6; ++lap) {
            const double moved = 4 * random.normal(); // the day, as it is in that lap
            for (const char* delivery : {"low", "high"})
                for (const int club : {lap % 2, 1 - lap % 2})
                    for (int i = 0; i < 3; ++i) {
                        const bool has = club == 1 && std::string(delivery) == "high";
                        builder.shot(club == 0 ? "Slate" : "Fern", record::ShotStatus::counted,
                                     150 + moved + (has ? extra : 0) + random.normal());
                        builder.test.shots.back().round = std::to_string(lap + 1);
                        builder.test.shots.back().delivery = delivery;
                    }
        }
        builder.test.card.primary = {carry()};
        return readingOf(builder.test);
    };
    const auto there = struck(4);
    REQUIRE(there.interaction.size() == 1);
    REQUIRE(there.interactionInLaps.size() == 1);
    CHECK(there.interactionInLaps[0].value == Approx(there.interaction[0].value).margin(1e-6));
    CHECK(there.interactionInLaps[0].se < 0.6 * there.interaction[0].se);
    CHECK(said(there, "two_factors").starts_with("The gap in carry, Fern against Slate, is "));
    CHECK(said(struck(0), "two_factors").starts_with("Whether the gap in carry, Fern against Slate, is another"));
}

TEST_CASE("a swing that differs is put down to the club as far as the order and what the player knew allow") {
    struct Of {
        bool drawn = false, sealed = false, sameOrder = false;
        int laps = 8;
    };
    auto made = [](const Of& of) {
        Random random(3);
        TestBuilder builder;
        for (int lap = 0; lap < of.laps; ++lap)
            for (const int club : {of.sameOrder ? 0 : lap % 2, of.sameOrder ? 1 : 1 - lap % 2}) {
                builder.turn(club == 0 ? "Slate" : "Fern", std::to_string(lap + 1), {0, 0, 0, 0});
                for (auto shot = builder.test.shots.end() - 4; shot != builder.test.shots.end(); ++shot) {
                    const double speed = 40 + (club == 1 ? 2 : 0) + 0.2 * random.normal();
                    shot->readings.measure(Metric::clubSpeed, speed);
                    shot->readings.measure(Metric::ballSpeed, 1.45 * speed + 0.1 * random.normal());
                    shot->readings.measure(Metric::carry, 150 + 5 * (speed - 40) + random.normal());
                }
            }
        builder.test.card.primary = {carry()};
        if (of.drawn)
            builder.test.turns.push_back({.build = BuildAt(0), .round = 1, .shots = 4});
        if (of.sealed) {
            builder.test.card.blinding = record::Blinding::playerBlind;
            builder.test.seal.commitment = "00";
            builder.test.seal.revealedAt = "2026-11-30T12:00:00Z";
        }
        return readingOf(builder.test);
    };
    using Doing = SameSwing::Doing;
    CHECK(made({.drawn = true, .sealed = true}).sameSwing.front().doing == Doing::club);
    CHECK(made({.drawn = true}).sameSwing.front().doing == Doing::clubOrKnowing);
    CHECK(made({}).sameSwing.front().doing == Doing::clubOrMoment);
    CHECK(made({.sameOrder = true}).sameSwing.front().doing == Doing::clubOrMoment);
    CHECK(made({.laps = 1}).sameSwing.front().doing == Doing::asSeen);

    const auto blind = made({.drawn = true, .sealed = true});
    CHECK(said(blind, "swing_differs").starts_with("Against Slate, Fern has more club speed by 2"));
    CHECK(said(blind, "swing_differs").ends_with("its doing, by way of the swing."));
    const auto lines = words::ledger(blind, {});
    CHECK(lines[0].sentence.find("by way of the swing") != std::string::npos);
    const auto open = made({});
    CHECK(words::ledger(open, {})[0].sentence.find("the swing differed too") != std::string::npos);
    CHECK(said(open, "swing_differs").find("What the ball did may be the swing's doing") != std::string::npos);
}

TEST_CASE("what is built in is no difference of the swing") {
    auto lofts = [](std::optional<double> slate, std::optional<double> fern, double delivered) {
        Random random(5);
        TestBuilder builder(Metric::dynamicLoft);
        for (int lap = 0; lap < 8; ++lap)
            for (const int club : {lap % 2, 1 - lap % 2}) {
                std::vector<double> values;
                for (int i = 0; i < 4; ++i)
                    values.push_back(14 + (club == 1 ? delivered : 0) + 0.3 * random.normal());
                builder.turn(club == 0 ? "Slate" : "Fern", std::to_string(lap + 1), values);
            }
        builder.test.card.kind = record::TestKind::loft;
        builder.test.builds[0].club.head.loft = slate;
        builder.test.builds[1].club.head.loft = fern;
        return readingOf(builder.test).sameSwing.front();
    };
    const auto same = lofts(9.0, 11.0, 2.0);
    CHECK(same.verdict == SameSwing::Verdict::same);
    CHECK(*same.builtIn == 2);
    CHECK(same.gap == Approx(0).margin(0.3));
    const auto less = lofts(9.0, 11.0, 0.2); // two degrees more of loft, and hardly more delivered
    CHECK(less.verdict == SameSwing::Verdict::differs);
    CHECK(less.gap == Approx(-1.8).margin(0.3));
    CHECK(lofts({}, {}, 2.0).verdict == SameSwing::Verdict::open); // nobody knows what is built in
}

TEST_CASE("a gap at equal delivery that hangs on the delivery says so") {
    auto slopes = [](double own) {
        Random random(17);
        TestBuilder builder;
        for (int lap = 0; lap < 6; ++lap)
            for (const int club : {lap % 2, 1 - lap % 2}) {
                builder.turn(club == 0 ? "Slate" : "Fern", std::to_string(lap + 1), {0, 0, 0, 0});
                for (auto shot = builder.test.shots.end() - 4; shot != builder.test.shots.end(); ++shot) {
                    const double strike = random.normal();
                    shot->readings.measure(Metric::strikeHigh, strike);
                    shot->readings.measure(Metric::carry, 150 + (club == 1 ? own : 2) * strike + 0.5 * random.normal());
                }
            }
        builder.test.card.primary = {*record::outcomeFromText("equal:carry_m")};
        builder.test.card.covariates = {Metric::strikeHigh};
        return readingOf(builder.test);
    };
    CHECK(said(slopes(5), "hangs_on_delivery").starts_with("The gap in carry at equal delivery, Fern against Slate"));
    CHECK(said(slopes(2), "hangs_on_delivery").empty());
}

TEST_CASE("what warming up usually adds is learned from a player's own first stints") {
    const plan::Spreads usual{.sdTurn = 2, .sdShot = 6};
    auto sittings = [&](double first, int count) {
        std::vector<judge::Column> all;
        for (int sitting = 0; sitting < count; ++sitting) {
            judge::Column column{.metric = Metric::carry, .builds = {{}, {}}};
            for (std::size_t stint = 0; stint < 6; ++stint) {
                judge::TurnValues turn{.turn = record::TurnAt(stint), .round = record::RoundAt(stint / 2)};
                turn.swings = 1.5 + 4 * static_cast<double>(stint);
                turn.values.assign(4, 150 + (stint == 0 ? (sitting % 2 == 0 ? first : -first) : 0));
                column.builds[BuildAt(stint % 2)].turns.push_back(std::move(turn));
            }
            all.push_back(std::move(column));
        }
        return all;
    };
    const double table = judge::warmUpOf(usual);
    CHECK(table == Approx(3)); // half a shot SD
    CHECK(judge::warmUpOf(usual, sittings(12, 12)) > 2 * table);
    CHECK(judge::warmUpOf(usual, sittings(0, 12)) < table);
    CHECK(judge::warmUpOf(usual, sittings(0, 100)) > 0);
}

TEST_CASE("what is said of shots is said of each player and delivery, and nothing of it is a claim") {
    Random random(23);
    TestBuilder builder;
    for (int lap = 0; lap < 4; ++lap)
        for (const char* player : {"Runa", "Vigdis"})
            for (const int club : {lap % 2, 1 - lap % 2})
                for (int i = 0; i < 4; ++i) {
                    const bool isRuna = std::string(player) == "Runa";
                    builder.shot(club == 0 ? "Slate" : "Fern", record::ShotStatus::counted,
                                 (isRuna ? 150 : 200) + 8 * club + random.normal());
                    builder.test.shots.back().player = player;
                    builder.test.shots.back().round = std::to_string(lap + 1);
                    builder.test.shots.back().readings.measure(Metric::side, 8 * random.normal());
                }
    builder.test.card.primary = {carry()};
    const auto reading = readingOf(builder.test);
    REQUIRE(reading.bySetting.size() == 2);
    CHECK(reading.bySetting[0].name == "Runa");
    CHECK(reading.bySetting[0].reading.summaryOf(Metric::carry, BuildAt(0))->mean == Approx(150).margin(1));
    CHECK(reading.bySetting[1].reading.summaryOf(Metric::carry, BuildAt(0))->mean == Approx(200).margin(1));
    CHECK(reading.bySetting[0].reading.summaryOf(Metric::carry, BuildAt(0))->n == 16);
    CHECK(reading.average[0].claim.verdict == Verdict::real); // of all together, inside each player's laps
    for (const judge::OfSetting& setting : reading.bySetting)
        for (const judge::AverageGap& row : setting.reading.average) {
            CHECK((row.claim.verdict == Verdict::uncontrolled || row.claim.verdict == Verdict::open));
            CHECK(row.claim.cap == judge::Cap::partOfAll);
        }
    const auto lines = words::averages(reading, {});
    CHECK(lines[0].starts_with("Carry, Runa: "));
    CHECK(lines[1].starts_with("Carry, Vigdis: "));
    CHECK(said(reading, "ten_shots").starts_with("Runa: From the longest"));
    const auto all = words::shotRemarks(reading, {});
    CHECK(std::ranges::count(all, "beats", &words::Remark::code) == 2);
    // Numbers stay those of the record.
    const auto* last = reading.bySetting[1].reading.summaryOf(Metric::carry, BuildAt(1));
    CHECK(builder.test.shots[last->maxShot - 1].readings.at(Metric::carry) == last->max);
    SECTION("with deliveries besides, each of both") {
        for (std::size_t i = 0; i < builder.test.shots.size(); ++i)
            builder.test.shots[i].delivery = i < 32 ? "low" : "high";
        const auto both = readingOf(builder.test);
        REQUIRE(both.bySetting.size() == 4);
        CHECK(both.bySetting[0].name == "Runa, low");
    }
}

TEST_CASE("going back to a favourite makes no laps: a bet that knows of both goes, and what two goes usually are") {
    auto struck = [](double again) {
        TestBuilder builder;
        builder.turn("Ash", "", {150, 152, 151, 149, 153}).turn("Briar", "", {156, 158, 155, 157, 159});
        builder.turn("Cedar", "", {148, 150, 149, 151, 147});
        builder.turn("Briar", "", {156 + again, 158 + again, 155 + again, 157 + again, 159 + again});
        builder.test.card.primary = {carry()};
        return readingOf(builder.test);
    };
    const auto reading = struck(-2);
    REQUIRE(reading.again.size() == 1);
    CHECK(reading.again[0].gap == Approx(-2));
    CHECK(reading.singleRuns == std::vector{Metric::carry});
    const auto run = words::oneRun(reading, {});
    REQUIRE(run);
    CHECK(run->opening.starts_with("Hit as it came, not in laps"));
    REQUIRE(run->again.size() == 1);
    CHECK(
        run->again[0].starts_with("Briar again: 2.0 m less carry than in its first go; two goes of one club usually"));
    CHECK(words::oneRun(struck(-40), {})->again[0].ends_with(", these farther."));
    for (const std::string& line : words::sentences(reading, {}))
        CHECK(line.find("lacks") == std::string::npos);
    // Two goes that lie far apart say that stints move this player.
    auto ahead = [](const judge::Reading& of) {
        const auto at = std::ranges::find_if(of.bets, [](const auto& bet) { return bet.build == BuildAt(1); });
        return at->ahead;
    };
    CHECK(ahead(reading) > 0.7);
    CHECK(ahead(struck(-12)) < ahead(reading));

    SECTION("two that met in two laps are compared by laps") {
        TestBuilder laps;
        for (int lap = 0; lap < 3; ++lap)
            laps.turn(lap % 2 == 0 ? "Ash" : "Briar", std::to_string(lap), {150, 151, 152})
                .turn(lap % 2 == 0 ? "Briar" : "Ash", std::to_string(lap), {155, 157, 156});
        laps.turn("Cedar", "3", {148, 150, 149});
        laps.test.card.primary = {carry()};
        const auto of = readingOf(laps.test);
        CHECK(of.singleRuns.empty());
        CHECK_FALSE(words::oneRun(of, {}));
    }
}

TEST_CASE("a tip and a changed club are shown before and after, with what was noted of them") {
    TestBuilder builder;
    builder.turn("Ash", "", {150, 152, 151}).turn("Briar", "", {156, 158, 157}).turn("Briar", "", {150, 151, 152});
    builder.turn("Ash", "", {160, 162, 161});
    builder.test.card.primary = {carry()};
    auto& test = builder.test;
    test.shots[6].mark = record::Mark::club;
    test.shots[9].mark = record::Mark::player;
    test.events = {{.kind = record::EventKind::note, .afterShots = 9, .text = "slower takeaway"},
                   {.kind = record::EventKind::note, .afterShots = 6, .text = "one degree weaker"},
                   {.kind = record::EventKind::note, .afterShots = 4, .text = "wind got up"}};
    const auto reading = readingOf(test);
    REQUIRE(reading.again.size() == 2);
    using After = judge::Again::After;
    CHECK(reading.again[0].after == After::playerChanged);
    CHECK(reading.again[0].gap == Approx(10));
    CHECK(reading.again[0].words == "slower takeaway");
    CHECK(reading.again[1].after == After::clubChanged);
    CHECK(reading.again[1].build == BuildAt(2));
    CHECK(reading.again[1].before == BuildAt(1));
    CHECK(reading.again[1].words == "one degree weaker");
    const auto run = words::oneRun(reading, {});
    REQUIRE(run);
    REQUIRE(run->again.size() == 2);
    CHECK(
        run->again[0].starts_with("Ash after the player's change (“slower takeaway”): 10.0 m more carry than before"));
    CHECK(run->again[1].starts_with("Briar after it was changed (“one degree weaker”): 6.0 m less carry than before"));
}

TEST_CASE("of a club alone a tip is shown before and after, and its stints without one are no goes back to it") {
    TestBuilder builder;
    builder.turn("Ash", "1", {150, 152, 151}).turn("Ash", "2", {151, 150, 152}).turn("Ash", "3", {160, 162, 161});
    CHECK(readingOf(builder.test).again.empty());
    builder.test.shots[6].mark = record::Mark::player;
    builder.test.events = {{.kind = record::EventKind::note, .afterShots = 6, .text = "ball forward"}};
    const auto reading = readingOf(builder.test);
    REQUIRE(reading.again.size() == 1);
    CHECK(reading.again[0].gap == Approx(10));
    const auto said = words::shotRemarks(reading, {});
    const auto at = std::ranges::find(said, "changed", &words::Remark::code);
    REQUIRE(at != said.end());
    CHECK(at->text.starts_with("Ash after the player's change (“ball forward”): 10.0 m more carry than before"));
}

TEST_CASE("how alike neighbouring shots are is learned from a player's own stints") {
    auto column = [](double alike, std::size_t stints) {
        Random random(7);
        judge::Column made{.metric = Metric::carry, .builds = {{}, {}}};
        for (std::size_t stint = 0; stint < stints; ++stint) {
            judge::TurnValues turn{.turn = record::TurnAt(stint)};
            double before = random.normal();
            for (int shot = 0; shot < 6; ++shot)
                turn.values.push_back(before = alike * before + std::sqrt(1 - alike * alike) * random.normal());
            made.builds[BuildAt(stint % 2)].turns.push_back(std::move(turn));
        }
        return made;
    };
    const judge::Column none = column(0, 200);
    const judge::Column much = column(0.5, 200);
    const judge::Column few = column(0.5, 1);
    CHECK(judge::neighboursIn({&none}).alike < 0.15);
    CHECK(judge::neighboursIn({&much}).alike > 0.4);
    CHECK(judge::neighboursIn({&much, &much}).pairs == Approx(8 + 2000 * 0.25)); // short stints tell less
    CHECK(judge::neighboursIn({}).alike == 0.1);
    // What the logbook tells outweighs one short run.
    const auto known = judge::neighboursIn({&none}, {});
    CHECK(judge::neighboursIn({&few}, known).alike < judge::neighboursIn({&few}).alike);
}

TEST_CASE("the order of weight is counted over the numbers, with how often luck does as well") {
    TestBuilder builder;
    const double weights[] = {50, 60, 70, 80};
    for (int lap = 0; lap < 3; ++lap)
        for (int club = 0; club < 4; ++club)
            builder.turn(std::string(1, static_cast<char>('A' + club)), std::to_string(lap),
                         {150.0 - 3 * club, 151.0 - 3 * club});
    for (std::size_t i = 0; i < builder.test.shots.size(); ++i) {
        const auto club = static_cast<double>(std::size_t{builder.test.shots[i].build});
        builder.test.shots[i].readings.measure(Metric::ballSpeed, 60 + 0.5 * club);
        builder.test.shots[i].readings.measure(Metric::spin, club == 1 ? 3000 : 2500 + club);
    }
    for (std::size_t b = 0; b < 4; ++b) {
        auto& club = builder.test.builds[b].club;
        club.length = 1140;
        club.head.mass = 200;
        club.grip.mass = 50;
        club.shaft.mass = weights[b];
    }
    builder.test.card.primary = {carry()};
    const auto reading = readingOf(builder.test);
    REQUIRE(reading.weightOrder);
    CHECK(reading.weightOrder->of == 3);
    CHECK(reading.weightOrder->numbers == 2);
    CHECK(reading.weightOrder->p == Approx(2.0 / 24));
    CHECK(said(reading, "weight_order") == "In 2 of 3 numbers the clubs' order is that of their weight, one way or the "
                                           "other; luck does that 8 times in 100.");
    builder.test.builds[2].club.shaft.mass.reset();
    CHECK_FALSE(readingOf(builder.test).weightOrder);
}

TEST_CASE("of a weight between two that were tested the line says what it would be, and of none beyond them") {
    Random random(41);
    TestBuilder builder;
    const double weights[] = {50, 60, 80};
    for (int lap = 0; lap < 5; ++lap)
        for (int club = 0; club < 3; ++club)
            builder.turn(std::string(1, static_cast<char>('A' + club)), std::to_string(lap),
                         {160 - 0.2 * weights[club] + 0.3 * random.normal(), 160 - 0.2 * weights[club]});
    for (std::size_t b = 0; b < 3; ++b)
        builder.test.builds[b].club.shaft.mass = weights[b];
    builder.test.card.primary = {carry()};
    builder.test.card.trendColumn = "club:shaft_g";
    const auto reading = readingOf(builder.test);
    REQUIRE(reading.trend.size() == 1);
    CHECK(reading.trend[0].low == 60);
    CHECK(reading.trend[0].high == 80);
    CHECK(said(reading, "trend").find("On it a club at 70 g, half-way between two of them, would have 2.0 m (") !=
          std::string::npos);
}

TEST_CASE("without a wish sides are ranked by how near they lie to the line") {
    TestBuilder builder(Metric::side);
    builder.turn("Ash", "1", {-9, -8, -10}).turn("Briar", "1", {2, 3, 1}).turn("Cedar", "1", {6, 5, 7});
    const auto lines = words::averages(readingOf(builder.test), {});
    REQUIRE(lines.size() == 1);
    CHECK(lines[0].starts_with("Side: Briar 2.0 m"));
    CHECK(lines[0].find("Cedar") < lines[0].find("Ash"));
    builder.test.card.aim = record::Aim{.side = -9};
    CHECK(words::averages(readingOf(builder.test), {})[0].find("Ash") <
          words::averages(readingOf(builder.test), {})[0].find("Briar"));
}
