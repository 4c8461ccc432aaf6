#include "core/plan/strike_off.h"

#include "core/plan/schedule.h"

#include <algorithm>

namespace knot::plan {

namespace {

using record::BuildAt;
using record::PlannedTurn;
using record::Test;

int lapsPlanned(const Test& test) {
    int laps = 0;
    for (const PlannedTurn& turn : test.plan.turns)
        laps = std::max(laps, turn.round);
    return laps;
}

// Where the laps end that are hit by as many clubs.
int lapsUntilCut(const record::Plan& plan, std::size_t clubs, int lapsDone) {
    if (clubs <= 2)
        return plan.rounds;
    return std::min(plan.rounds, lapsDone < firstCut ? firstCut : std::max(secondCut, lapsDone + 1));
}

void addLaps(Test& test, const std::vector<BuildAt>& clubs, int from, int to) {
    const auto order = scheduled({.schedule = record::Schedule::rotated,
                                  .builds = clubs.size(),
                                  .rounds = to - from,
                                  .turnLength = test.plan.turnLength,
                                  .seed = test.plan.seed + static_cast<std::uint64_t>(from),
                                  .changeTimes = {},
                                  .changeSeconds = test.plan.changeSeconds});
    for (PlannedTurn turn : order.turns) {
        turn.build = clubs[turn.build];
        turn.round += from;
        test.plan.turns.push_back(turn);
    }
}

} // namespace

bool strikesOff(const Test& test) {
    return test.plan.schedule == record::Schedule::strikingOff && test.builds.size() > 2 && test.players.size() < 2;
}

std::vector<BuildAt> clubsLeft(const Test& test) {
    std::vector<BuildAt> left;
    for (BuildAt build; build < test.builds.size(); ++build)
        if (test.builds[build].struckOff.empty())
            left.push_back(build);
    return left;
}

std::size_t stayAfter(std::size_t clubs, int lap) {
    if (clubs <= 2)
        return clubs;
    return lap < secondCut ? std::max<std::size_t>(2, (clubs + 1) / 2) : 2;
}

std::optional<int> cutDue(const Test& test) {
    const int laps = lapsPlanned(test);
    if (!strikesOff(test) || laps == 0 || laps >= test.plan.rounds || clubsLeft(test).size() <= 2)
        return std::nullopt;
    return laps;
}

void planAfterCut(Test& test) {
    const int laps = lapsPlanned(test);
    const auto left = clubsLeft(test);
    if (left.size() >= 2 && laps < test.plan.rounds)
        addLaps(test, left, laps, lapsUntilCut(test.plan, left.size(), laps));
}

Foreseen foreseen(const Test& test) {
    Test whole = test;
    std::optional<std::size_t> unknownFrom;
    while (const auto lap = cutDue(whole)) {
        if (!unknownFrom)
            unknownFrom = whole.plan.turns.size();
        auto left = clubsLeft(whole);
        for (std::size_t i = stayAfter(left.size(), *lap); i < left.size(); ++i)
            whole.builds[left[i]].struckOff = "?";
        planAfterCut(whole);
    }
    return {whole.plan, unknownFrom};
}

} // namespace knot::plan
