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

// The club that was taken up last, or, where that one was struck off, the last one that is in.
std::optional<BuildAt> freeClub(const Test& test) {
    auto isIn = [&](std::size_t build) { return build < test.builds.size() && test.builds[build].struckOff.empty(); };
    if (isIn(test.progress.inHand))
        return test.progress.inHand;
    for (std::size_t build = test.builds.size(); build-- > 0;)
        if (isIn(build))
            return BuildAt(build);
    return std::nullopt;
}

Free standFree(const Test& test) {
    Free free{.build = freeClub(test)};
    if (test.progress.handOverNext || !free.build)
        return free;
    for (auto shot = test.shots.rbegin();
         shot != test.shots.rend() && shot->build == *free.build && inSitting(test, *shot); ++shot) {
        ++free.shot;
        if (shot->handedOver || shot->mark != record::Mark::none)
            break;
    }
    return free;
}

// The clubs of a lap that come from `turn` on: alone they are still in the bag.
std::vector<BuildAt> clubsFrom(const Test& test, PlannedAt turn) {
    std::vector<BuildAt> clubs;
    const auto& turns = test.plan.turns;
    for (std::size_t i = turn; i < turns.size() && turns[i].round == turns[turn].round; ++i)
        clubs.push_back(turns[i].build);
    std::ranges::sort(clubs);
    clubs.erase(std::unique(clubs.begin(), clubs.end()), clubs.end());
    return clubs;
}

PlannedStint stintAt(const Test& test, const std::vector<int>& filled, PlannedAt turn) {
    const auto& turns = test.plan.turns;
    PlannedStint stint{.turn = turn, .build = turns[turn].build, .round = turns[turn].round};
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

std::string turnLabel(PlannedAt turn) {
    return std::to_string(turn + 1);
}

std::optional<PlannedAt> plannedTurn(const Test& test, const Shot& shot) {
    std::size_t number = 0;
    const char* const end = shot.turn.data() + shot.turn.size();
    const auto read = std::from_chars(shot.turn.data(), end, number);
    if (read.ec != std::errc() || read.ptr != end || number == 0 || number > test.plan.turns.size())
        return std::nullopt;
    return PlannedAt(number - 1);
}

bool isRead(const Shot& shot) {
    return std::ranges::any_of(record::allMetrics(),
                               [&](Metric metric) { return !record::isStrike(metric) && shot.readings.has(metric); });
}

int wantedShots(const Test& test, PlannedAt turn) {
    const bool untilGood = test.card.setAsideRule == record::SetAsideRule::untilGood && test.card.goodShots > 0;
    return std::max(1, untilGood ? test.card.goodShots : test.plan.turns[turn].shots);
}

std::vector<int> filledTurns(const Test& test) {
    return tallyOf(test).filled;
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
    Stand stand;
    countSwings(test, stand);
    if (test.stage != record::Stage::test) {
        stand.at = standFree(test);
        return stand;
    }
    const auto& turns = test.plan.turns;
    if (turns.empty())
        return stand;
    stand.rounds = std::ranges::max_element(turns, {}, &record::PlannedTurn::round)->round;
    const auto [filled, struck] = tallyOf(test);
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
    if (!test.progress.warmedUp && test.plan.warmUp > 0)
        stand.at = WarmUp{std::move(stint)};
    else if (confirmed || struck[turn] > 0)
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
