#include "core/bay/stand.h"

#include "core/plan/schedule.h"

#include <algorithm>
#include <charconv>

namespace knot::bay {
namespace {

using record::Metric;
using record::Shot;
using record::ShotStatus;
using record::Test;

bool fills(const record::Card& card, const Shot& shot) {
    if (!isRead(shot) || shot.status == ShotStatus::warmUp)
        return false;
    return shot.status == ShotStatus::counted ||
           (card.setAsideRule != record::SetAsideRule::untilGood && !card.replaceSetAside);
}

bool inSitting(const Test& test, const Shot& shot) {
    return !test.sittings.empty() && shot.sitting == test.sittings.back().label;
}

// What each planned turn holds, in one walk over the shots: this is asked at every shot.
struct Tally {
    std::vector<int> filled; ///< shots that fill it
    std::vector<int> struck; ///< in the sitting in hand, all but warm-up
};

Tally tallyOf(const Test& test) {
    Tally tally{std::vector<int>(test.plan.turns.size()), std::vector<int>(test.plan.turns.size())};
    for (const Shot& shot : test.shots) {
        if (shot.status == ShotStatus::warmUp)
            continue;
        const auto turn = plannedTurn(test, shot);
        if (!turn)
            continue;
        tally.struck[*turn] += inSitting(test, shot) ? 1 : 0;
        tally.filled[*turn] += fills(test.card, shot) ? 1 : 0;
    }
    return tally;
}

// What was struck in the sitting in hand, whatever the plan says.
void countSwings(const Test& test, Stand& stand) {
    std::size_t first = test.shots.size();
    for (std::size_t i = test.shots.size(); i-- > 0 && inSitting(test, test.shots[i]);) {
        first = i;
        ++stand.swings;
        stand.warmUp += test.shots[i].status == ShotStatus::warmUp ? 1 : 0;
    }
    std::size_t rested = first;
    for (const auto& event : test.events)
        if (event.kind != record::EventKind::note)
            rested = std::clamp(event.afterShots, rested, test.shots.size());
    stand.sinceRest = static_cast<int>(test.shots.size() - rested);
    stand.warmUpPlanned = test.plan.warmUp;
}

bool isAlone(const Test& test) {
    return test.card.alone && test.stage == record::Stage::test;
}

void standFree(const Test& test, Stand& stand) {
    stand.phase = Phase::free;
    stand.build = test.progress.inHand;
    stand.shots = 0;
    if (test.progress.handOverNext)
        return;
    for (auto shot = test.shots.rbegin();
         shot != test.shots.rend() && shot->build == stand.build && inSitting(test, *shot); ++shot) {
        ++stand.shot;
        if (shot->handedOver || shot->mark != record::Mark::none)
            break;
    }
}

// The clubs of a lap that come from `turn` on: alone they are still in the bag.
std::vector<std::size_t> clubsFrom(const Test& test, std::size_t turn) {
    std::vector<std::size_t> clubs;
    for (std::size_t i = turn; i < test.plan.turns.size() && test.plan.turns[i].round == test.plan.turns[turn].round;
         ++i)
        clubs.push_back(test.plan.turns[i].build);
    std::ranges::sort(clubs);
    clubs.erase(std::unique(clubs.begin(), clubs.end()), clubs.end());
    return clubs;
}

void placeTurn(const Test& test, const std::vector<int>& filled, std::size_t turn, Stand& stand) {
    const auto& turns = test.plan.turns;
    stand.turn = turn;
    stand.build = turns[turn].build;
    stand.round = turns[turn].round;
    stand.shots = wantedShots(test, turn);
    stand.shot = std::min(filled[turn] + 1, stand.shots);
    stand.drawn = isAlone(test);
    stand.anew = !stand.drawn && plan::needsHandOver(turns, turn);
    if (stand.drawn)
        stand.inBag = clubsFrom(test, turn);
    for (std::size_t next = turn + 1; next < turns.size() && !stand.next; ++next)
        if (!turns[next].ended)
            stand.next = turns[next].build;
}

} // namespace

std::string turnLabel(std::size_t turn) {
    return std::to_string(turn + 1);
}

std::optional<std::size_t> plannedTurn(const Test& test, const Shot& shot) {
    std::size_t number = 0;
    const char* const end = shot.turn.data() + shot.turn.size();
    const auto read = std::from_chars(shot.turn.data(), end, number);
    if (read.ec != std::errc() || read.ptr != end || number == 0 || number > test.plan.turns.size())
        return std::nullopt;
    return number - 1;
}

bool isRead(const Shot& shot) {
    return std::ranges::any_of(record::allMetrics(),
                               [&](Metric metric) { return !record::isStrike(metric) && shot.readings.has(metric); });
}

int wantedShots(const Test& test, std::size_t turn) {
    const bool untilGood = test.card.setAsideRule == record::SetAsideRule::untilGood && test.card.goodShots > 0;
    return std::max(1, untilGood ? test.card.goodShots : test.plan.turns[turn].shots);
}

std::vector<int> filledTurns(const Test& test) {
    return tallyOf(test).filled;
}

Stand standOf(const Test& test) {
    Stand stand;
    countSwings(test, stand);
    if (test.stage != record::Stage::test) {
        standFree(test, stand);
        return stand;
    }
    const auto& turns = test.plan.turns;
    if (turns.empty())
        return stand;
    stand.rounds = std::ranges::max_element(turns, {}, &record::PlannedTurn::round)->round;
    const auto [filled, struck] = tallyOf(test);
    std::size_t turn = 0;
    while (turn < turns.size() && (turns[turn].ended || filled[turn] >= wantedShots(test, turn)))
        ++turn;
    const auto named = static_cast<std::size_t>(test.progress.named);
    if (isAlone(test) && test.progress.confirmed > 0)
        for (std::size_t before = named; before < turn; ++before)
            if (filled[before] > 0) {
                placeTurn(test, filled, before, stand);
                stand.phase = Phase::nameTag;
                return stand;
            }
    if (turn == turns.size()) {
        stand.phase = Phase::done;
        stand.round = stand.rounds;
        stand.build = turns.back().build;
        return stand;
    }
    placeTurn(test, filled, turn, stand);
    stand.confirmed = static_cast<std::size_t>(test.progress.confirmed) > turn;
    if (test.sittings.empty() || (!test.progress.warmedUp && test.plan.warmUp > 0))
        stand.phase = Phase::warmUp;
    else
        stand.phase = stand.confirmed || struck[turn] > 0 ? Phase::striking : Phase::handOver;
    return stand;
}

bool isUnnamed(const Test& test, const Shot& shot) {
    if (!isAlone(test) || test.progress.confirmed == 0 || shot.status == ShotStatus::warmUp)
        return false;
    const auto turn = plannedTurn(test, shot);
    return turn && *turn >= static_cast<std::size_t>(test.progress.named);
}

Test withoutUnnamed(Test test) {
    if (isAlone(test) && test.progress.confirmed > 0) {
        const Test before = test;
        std::erase_if(test.shots, [&](const Shot& shot) { return isUnnamed(before, shot); });
    }
    return test;
}

} // namespace knot::bay
