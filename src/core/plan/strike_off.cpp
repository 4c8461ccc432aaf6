#include "core/plan/strike_off.h"

#include "core/plan/schedule.h"
#include "core/record/carry.h"

#include <algorithm>

namespace knot::plan {

namespace {

using record::BuildAt;
using record::PlannedTurn;
using record::Roster;
using record::Test;

int lapsPlanned(const Test& test) {
    int laps = 0;
    for (const PlannedTurn& turn : test.turns)
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
        record::addTurn(test.turns, turn);
    }
}

} // namespace

bool strikesOff(const Test& test) {
    return test.plan.schedule == record::Schedule::strikingOff && test.builds.size() > 2 &&
           (test.players.size() < 2 || Roster(test).isAnyStruckOff());
}

int fewestLaps(std::size_t clubs) {
    return clubs <= 2 ? 1 : stayAfter(clubs, firstCut) == 2 ? firstCut + 1 : secondCut + 1;
}

std::size_t stayAfter(std::size_t clubs, int lap) {
    if (clubs <= 2)
        return clubs;
    return lap < secondCut ? std::max<std::size_t>(2, (clubs + 1) / 2) : 2;
}

std::optional<int> cutDue(const Test& test) {
    const int laps = lapsPlanned(test);
    if (!strikesOff(test) || laps == 0 || laps >= test.plan.rounds || Roster(test).left().size() <= 2)
        return std::nullopt;
    return laps;
}

void planAfterCut(Test& test) {
    const int laps = lapsPlanned(test);
    const auto left = Roster(test).left();
    if (left.size() >= 2 && laps < test.plan.rounds)
        addLaps(test, left, laps, lapsUntilCut(test.plan, left.size(), laps));
}

void planToTheEnd(Test& test) {
    const auto left = Roster(test).left();
    if (const int laps = lapsPlanned(test); left.size() >= 2 && laps < test.plan.rounds)
        addLaps(test, left, laps, test.plan.rounds);
}

Foreseen foreseen(const Test& test) {
    Test whole = record::headOf(test);
    std::optional<std::size_t> unknownFrom;
    while (const auto lap = cutDue(whole)) {
        if (!unknownFrom)
            unknownFrom = whole.turns.size();
        const auto left = Roster(whole).left();
        for (std::size_t i = stayAfter(left.size(), *lap); i < left.size(); ++i)
            setStanding(whole, left[i], record::Standing::What::struckOff, *lap + 1, "?");
        planAfterCut(whole);
    }
    return {whole.turns, unknownFrom};
}

} // namespace knot::plan
