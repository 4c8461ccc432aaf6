#include "core/bay/stand.h"

#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/record/roster.h"

#include <algorithm>

namespace knot::bay {
namespace {

using record::Shot;
using record::ShotStatus;
using record::Test;

bool inSitting(const Test& test, const Shot& shot) {
    return !test.sittings.empty() && shot.sitting == test.sittings.back().label;
}

// What was struck in the sitting in hand, whatever the plan says.
void countSwings(const Test& test, const Tally& tally, Stand& stand) {
    stand.swings = static_cast<int>(tally.swings());
    stand.warmUp = static_cast<int>(tally.warmUp());
    const std::string player = playerInHand(test);
    std::size_t rested = test.shots.size() - tally.swings();
    while (!player.empty() && rested > 0 && inSitting(test, test.shots[rested - 1]))
        --rested; // others hit in between
    for (const auto& event : test.events)
        if (event.kind == record::EventKind::rest || event.kind == record::EventKind::stop)
            rested = std::clamp(event.afterShots, rested, test.shots.size());
    stand.sinceRest =
        static_cast<int>(std::count_if(test.shots.begin() + static_cast<std::ptrdiff_t>(rested), test.shots.end(),
                                       [&](const Shot& shot) { return player.empty() || shot.player == player; }));
    stand.warmUpPlanned = test.plan.warmUp;
}

bool isAlone(const Test& test) {
    return test.card.alone && test.stage == record::Stage::test;
}

// The club that was taken up last; where that one was struck off or is gone, the last one that is in, or the first
// where nothing was struck with the one that is gone or any other.
std::optional<BuildAt> freeClub(const Test& test) {
    const record::Roster roster(test);
    if (test.progress.inHand < test.builds.size() && roster.isIn(test.progress.inHand))
        return test.progress.inHand;
    const auto left = roster.left();
    if (left.empty())
        return std::nullopt;
    return test.progress.inHand == record::nowhere && test.shots.empty() ? left.front() : left.back();
}

// A sitting that was begun here, until somebody is warm; one that has counted shots is.
bool isWarmingUp(const Test& test, const Tally& tally) {
    return !test.progress.warmedUp && test.plan.warmUp > 0 && tally.swings() == tally.warmUp();
}

Free standFree(const Test& test, const Tally& tally) {
    Free free{.build = freeClub(test), .warmingUp = isWarmingUp(test, tally)};
    if (test.progress.handOverNext || !free.build || free.warmingUp)
        return free;
    const std::string player = playerInHand(test);
    for (auto shot = test.shots.rbegin();
         shot != test.shots.rend() && shot->build == *free.build && inSitting(test, *shot) &&
         shot->status != ShotStatus::warmUp && (player.empty() || shot->player == player);
         ++shot) {
        ++free.shot;
        if (shot->handedOver || shot->mark != record::Mark::none)
            break;
    }
    return free;
}

// The clubs of a lap that come from `turn` on: alone they are still in the bag.
std::vector<BuildAt> clubsFrom(const Test& test, PlannedAt turn) {
    std::vector<BuildAt> clubs;
    const auto& turns = test.turns;
    for (std::size_t i = turn; i < turns.size() && turns[i].round == turns[turn].round; ++i)
        clubs.push_back(turns[i].build);
    std::ranges::sort(clubs);
    clubs.erase(std::unique(clubs.begin(), clubs.end()), clubs.end());
    return clubs;
}

PlannedStint stintAt(const Test& test, const std::vector<int>& filled, PlannedAt turn) {
    const auto& turns = test.turns;
    PlannedStint stint{
        .turn = turn, .build = turns[turn].build, .player = turns[turn].player, .round = turns[turn].round};
    stint.anotherPlayer = test.players.size() > 1 && stint.player != test.progress.player;
    stint.shots = wantedShots(test, turn);
    stint.shot = std::min(filled[turn] + 1, stint.shots);
    stint.drawn = isAlone(test);
    stint.anew = !stint.drawn && plan::needsHandOver(turns, turn);
    if (stint.drawn)
        stint.inBag = clubsFrom(test, turn);
    for (std::size_t next = turn + 1; next < turns.size() && !stint.next; ++next)
        if (!turns[next].ended)
            stint.next = turns[next].build;
    return stint;
}

} // namespace

int wantedShots(const Test& test, PlannedAt turn) {
    const bool untilGood = test.card.setAsideRule == record::SetAsideRule::untilGood && test.card.goodShots > 0;
    return std::max(1, untilGood ? test.card.goodShots : test.turns[turn].shots);
}

const PlannedStint* Stand::stint() const {
    if (const auto* warm = as<WarmUp>())
        return &warm->first;
    if (const auto* due = as<HandOver>())
        return &due->stint;
    if (const auto* striking = as<Striking>())
        return &striking->stint;
    const auto* unnamed = as<NameTag>();
    return unnamed != nullptr ? &unnamed->stint : nullptr;
}

Stand standOf(const Test& test) {
    return standOf(test, Tally(test));
}

Stand standOf(const Test& test, const Tally& tally) {
    Stand stand;
    countSwings(test, tally, stand);
    if (test.stage != record::Stage::test) {
        stand.at = standFree(test, tally);
        return stand;
    }
    const auto& turns = test.turns;
    if (turns.empty())
        return stand;
    stand.rounds = std::ranges::max_element(turns, {}, &record::PlannedTurn::round)->round;
    if (plan::strikesOff(test)) // also those that hang on who stays
        stand.rounds = std::max(stand.rounds, test.plan.rounds);
    const auto& filled = tally.filled();
    PlannedAt turn;
    while (turn < turns.size() && (turns[turn].ended || filled[turn] >= wantedShots(test, turn)))
        ++turn;
    if (isAlone(test) && test.progress.confirmed > 0)
        for (PlannedAt before(static_cast<std::size_t>(test.progress.named)); before < turn; ++before)
            if (filled[before] > 0) {
                stand.at = NameTag{stintAt(test, filled, before)};
                return stand;
            }
    if (turn == turns.size()) {
        stand.at = Done{};
        return stand;
    }
    const bool confirmed = static_cast<std::size_t>(test.progress.confirmed) > turn;
    PlannedStint stint = stintAt(test, filled, turn);
    if (!test.progress.warmedUp && test.plan.warmUp > 0 && !stint.anotherPlayer)
        stand.at = WarmUp{std::move(stint)};
    else if (confirmed || tally.struck(turn) > 0)
        stand.at = Striking{std::move(stint), confirmed};
    else
        stand.at = HandOver{std::move(stint)};
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
