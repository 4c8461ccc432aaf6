#include "core/judge/gaps/average.h"
#include "core/plan/planner.h"
#include "core/plan/schedule.h"
#include "core/plan/screening.h"
#include "core/plan/spreads.h"
#include "core/random.h"
#include "core/statistics/distributions.h"

#include <catch2/catch.hpp>

#include <cmath>

#include <algorithm>
#include <map>
#include <set>

using namespace knot;
using record::Schedule;

namespace {

std::map<int, std::vector<std::size_t>> roundsOf(const std::vector<record::PlannedTurn>& turns) {
    std::map<int, std::vector<std::size_t>> rounds;
    for (const auto& turn : turns)
        rounds[turn.round].push_back(turn.build);
    return rounds;
}

// How often each build follows each other inside rounds.
std::map<std::pair<std::size_t, std::size_t>, int> followings(const std::vector<record::PlannedTurn>& turns) {
    std::map<std::pair<std::size_t, std::size_t>, int> counts;
    for (const auto& [round, order] : roundsOf(turns))
        for (std::size_t i = 1; i < order.size(); ++i)
            ++counts[{order[i - 1], order[i]}];
    return counts;
}

} // namespace

TEST_CASE("Williams rows hold every build once and every following equally often") {
    for (std::size_t builds = 2; builds <= 12; ++builds) {
        const auto rows = plan::williamsRows(builds);
        CHECK(rows.size() == (builds % 2 == 0 ? builds : 2 * builds));
        std::map<std::pair<std::size_t, std::size_t>, int> counts;
        for (const auto& row : rows) {
            CHECK(std::set(row.begin(), row.end()).size() == builds);
            for (std::size_t i = 1; i < row.size(); ++i)
                ++counts[{row[i - 1], row[i]}];
        }
        CHECK(counts.size() == builds * (builds - 1));
        for (const auto& [pair, count] : counts)
            CHECK(count == counts.begin()->second);
    }
}

TEST_CASE("in every schedule each build has one turn a round, and the baseline two in a sandwich") {
    Random random(1);
    for (int i = 0; i < 300; ++i) {
        plan::ScheduleInput in{.schedule = static_cast<Schedule>(random.below(4)), .builds = 2 + random.below(6)};
        in.baseline = random.below(in.builds);
        in.rounds = 1 + static_cast<int>(random.below(9));
        in.turnLength = 1 + static_cast<int>(random.below(6));
        in.seed = random.below(1 << 20);
        const auto made = plan::scheduled(in);
        const auto rounds = roundsOf(made.turns);
        INFO("schedule " << static_cast<int>(in.schedule) << " builds " << in.builds << " rounds " << in.rounds);
        CHECK(rounds.size() == (in.schedule == Schedule::oneRunEach ? 1U : static_cast<std::size_t>(in.rounds)));
        for (const auto& [round, order] : rounds) {
            CHECK(std::set(order.begin(), order.end()).size() == in.builds);
            const bool sandwich = in.schedule == Schedule::sandwich;
            CHECK(order.size() == in.builds + (sandwich ? 1 : 0));
            if (sandwich)
                CHECK((order.front() == in.baseline && order.back() == in.baseline));
        }
        for (const auto& turn : made.turns)
            CHECK(turn.shots == (in.schedule == Schedule::shotByShot ? 1 : in.turnLength));
        CHECK(plan::scheduled(in).turns == made.turns);
        if (made.balanced) {
            const auto counts = followings(made.turns);
            CHECK(counts.size() == in.builds * (in.builds - 1));
            for (const auto& [pair, count] : counts)
                CHECK(count == counts.begin()->second);
        }
    }
}

TEST_CASE("the order of two builds is tossed for every round, never the same in all, and repeats are handed over") {
    std::map<std::size_t, int> begun; // by round: how often the second one opens it
    for (std::uint64_t seed = 1; seed <= 400; ++seed) {
        const auto turns = plan::scheduled({.builds = 2, .rounds = 4, .seed = seed}).turns;
        REQUIRE(turns.size() == 8);
        std::set<std::size_t> openers;
        for (std::size_t i = 0; i < turns.size(); i += 2) {
            CHECK(turns[i].build + turns[i + 1].build == 1);
            openers.insert(turns[i].build);
            begun[i / 2] += static_cast<int>(turns[i].build);
            CHECK(plan::needsHandOver(turns, i) == (i > 0 && turns[i - 1].build == turns[i].build));
        }
        CHECK(openers.size() == 2);
    }
    for (const auto& [round, times] : begun)
        CHECK(std::abs(times - 200) < 50); // five standard errors
}

TEST_CASE("three builds and more change clubs between rounds where that can be had") {
    for (std::uint64_t seed = 1; seed <= 30; ++seed)
        for (const std::size_t builds : {3U, 4U, 5U}) {
            const auto turns = plan::scheduled({.builds = builds, .rounds = 6, .seed = seed}).turns;
            for (std::size_t i = 0; i < turns.size(); ++i)
                CHECK(!plan::needsHandOver(turns, i));
        }
}

TEST_CASE("orders are drawn evenly: every build opens about as often as the others") {
    std::map<std::size_t, int> opened;
    for (std::uint64_t seed = 1; seed <= 600; ++seed)
        ++opened[plan::scheduled({.builds = 3, .rounds = 4, .seed = seed}).turns[0].build];
    for (const auto& [build, times] : opened)
        CHECK(std::abs(times - 200) < 60); // five standard errors
}

TEST_CASE("a slow change is made as seldom as balance allows") {
    // Builds 0 and 1 share a head: changing between them takes five minutes.
    plan::ScheduleInput in{.builds = 4, .rounds = 2, .seed = 5};
    in.changeTimes = {{record::BuildAt(0), record::BuildAt(1), 300}};
    auto slow = [](const std::vector<record::PlannedTurn>& turns) {
        int count = 0;
        for (std::size_t i = 1; i < turns.size(); ++i)
            count += turns[i].build + turns[i - 1].build == 1 ? 1 : 0;
        return count;
    };
    CHECK(slow(plan::scheduled(in).turns) == 0);
    record::Plan plan{.rounds = 1, .turnLength = 2, .changeSeconds = 60, .shotSeconds = 30, .warmUp = 4};
    plan.restEvery = 0;
    plan.changeTimes = {{record::BuildAt(1), record::BuildAt(0), 300}};
    const std::vector<record::PlannedTurn> turns = {
        {record::BuildAt(0), 1, 2}, {record::BuildAt(1), 1, 2}, {record::BuildAt(2), 1, 2}};
    CHECK(plan::swingsOf(plan, turns) == 10);
    CHECK(plan::minutesOf(plan, turns) == Approx((10 * 30 + 60 + 300 + 60) / 60.0));
    plan.restEvery = 5;
    plan.restSeconds = 120;
    CHECK(plan::minutesOf(plan, turns) == Approx((10 * 30 + 60 + 300 + 60 + 120) / 60.0));
}

TEST_CASE("the best plan for the time is at least as good as every other that fits") {
    const plan::Question question{.sdTurn = 1.5, .sdShot = 5, .gap = 4, .alpha = 0.05 / 2, .builds = 3};
    const plan::Pace pace{.changeSeconds = 90, .shotSeconds = 30, .warmUp = 8, .restEvery = 25};
    const auto best = plan::bestIn(45, question, pace);
    REQUIRE(best);
    CHECK(best->minutes <= 45);
    for (int length = 1; length <= 12; ++length)
        for (int rounds = 2; plan::minutesFor(question, pace, rounds, length) <= 45; ++rounds)
            CHECK(plan::optionOf(question, pace, rounds, length).power <= best->power + 1e-9);
    CHECK(!plan::bestIn(5, question, pace));
}

TEST_CASE("what it takes to see a gap, or to say there is none, is the fewest rounds that do") {
    const plan::Question question{.sdTurn = 1, .sdShot = 4, .gap = 4, .alpha = 0.05, .builds = 2};
    for (const int length : {1, 3, 5}) {
        const auto see = plan::toSee(question, {}, length);
        REQUIRE(see);
        CHECK(see->power >= 0.8);
        CHECK(plan::optionOf(question, {}, see->rounds - 1, length).power < 0.8);
        const auto same = plan::toSaySame(question, {}, length);
        REQUIRE(same);
        CHECK(same->powerSame >= 0.8);
        CHECK(plan::optionOf(question, {}, same->rounds - 1, length).powerSame < 0.8);
    }
    plan::Question tiny = question;
    tiny.gap = 0.1;
    CHECK(!plan::toSee(tiny, {}, 3));
    CHECK(!plan::toSaySame(tiny, {}, 3));
}

TEST_CASE("three shots each see a gap of three standard deviations and twelvefold spreads") {
    const plan::Question question{.sdShot = 1};
    CHECK(plan::gapSeenByRuns(question, 3) == Approx(3.07).margin(0.02));
    CHECK(plan::gapSeenByRuns(question, 10) == Approx(1.32).margin(0.02));
    CHECK(plan::gapSeenByRuns({.sdTurn = 0.5, .sdShot = 1}, 3) == Approx(3.07 * std::sqrt(1 + 3 * 0.25)).margin(0.03));
    // A plain test of runs takes shots for all the error there is: without a stint's part it errs 5 times in 100, with
    // one more often, and with more clubs again.
    CHECK(plan::falseAlarmsOfRuns({.sdTurn = 0, .sdShot = 1}, 3) == Approx(0.05));
    CHECK(plan::falseAlarmsOfRuns({.sdTurn = 0, .sdShot = 1, .builds = 3}, 3) == Approx(1 - 0.95 * 0.95));
    const double crying = plan::falseAlarmsOfRuns({.sdTurn = 0.5, .sdShot = 1}, 3);
    CHECK(crying == Approx(statistics::studentTwoSided(2.7764451 / std::sqrt(1.75), 4)).epsilon(1e-6));
    CHECK(plan::falseAlarmsOfRuns({.sdTurn = 0.5, .sdShot = 1}, 10) > crying);
    CHECK(plan::spreadSeenByRuns(3) == Approx(12.3).margin(0.3));
    CHECK(plan::spreadSeenByRuns(10) == Approx(2.7).margin(0.05));
    CHECK(*plan::spreadSeen(8, 4, 0.05) > 1.4);
    CHECK(*plan::spreadSeen(16, 4, 0.05) < *plan::spreadSeen(8, 4, 0.05));
    CHECK(!plan::spreadSeen(4, 1, 0.05));
    CHECK(!plan::areaSeen(3, 5, 0.05));
    CHECK(*plan::areaSeen(8, 4, 0.05) > 1.5);
}

TEST_CASE("screening drops the best the more often, the less steady the player and the fewer are kept") {
    const std::vector<int> six(6, 5);
    auto risk = [&](std::size_t kept, plan::Level level) {
        const auto spread = plan::usualSpreads(record::Metric::carry, level);
        return plan::riskOfDroppingBest(six, kept, 2.7, spread.sdTurn, spread.sdShot);
    };
    const double steady = risk(2, plan::Level::steady);
    const double club = risk(2, plan::Level::club);
    const double occasional = risk(2, plan::Level::occasional);
    INFO(steady << " " << club << " " << occasional);
    CHECK((0 < steady && steady < club && club < occasional && occasional < 4.0 / 6));
    CHECK(risk(3, plan::Level::club) < club);
    CHECK(risk(6, plan::Level::club) == 0);
    CHECK(plan::riskOfDroppingBest({}, 2, 1, 1, 1) == 0);
    // Shots that say nothing keep the best by luck alone.
    CHECK(plan::riskOfDroppingBest(six, 2, 1, 1000, 1) == Approx(4.0 / 6).margin(0.02));
    CHECK(risk(2, plan::Level::club) == club);
}

TEST_CASE("shot by shot a turn is one shot, whatever the stint's length was") {
    record::Plan plan{.turnLength = 4};
    CHECK(plan::shotsATurn(plan) == 4);
    plan.schedule = record::Schedule::shotByShot;
    CHECK(plan::shotsATurn(plan) == 1);
}
