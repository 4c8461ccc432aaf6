#pragma once

#include "core/record/roster.h"

#include <optional>
#include <vector>

namespace knot::plan {

/// Striking off, for "which of several" (judgement §27): after the third lap half of the clubs stay, after the seventh
/// two, to the end. The laps are fixed beforehand, so that the two that are left are judged by the paired t on all
/// their laps at plain α.
inline constexpr int firstCut = 3, secondCut = 7;

/// Whether clubs of a test go so: of one player, or where some went already, and of three clubs or more; else its laps
/// are rotated ones.
bool strikesOff(const record::Test& test);

/// The fewest laps in which so many clubs come down to two, with one lap to be judged on at the end.
int fewestLaps(std::size_t clubs);

/// How many clubs stay when `lap` laps are struck with so many in.
std::size_t stayAfter(std::size_t clubs, int lap);

/// The lap after which clubs go next, for a test whose planned laps are all there is so far; nothing where none go.
std::optional<int> cutDue(const record::Test& test);

/// The laps planned for the clubs that are left once some went: up to the next cut, or to the end. Orders drawn from
/// the plan's seed. Changes nothing else.
void planAfterCut(record::Test& test);
/// The same for all clubs that are in, up to the last lap of the plan.
void planToTheEnd(record::Test& test);

/// The plan with the laps to come, as far as they can be known: how many clubs, not which. Where nobody knows yet who
/// stays their turns stand from `unknownFrom` on with any of the clubs left.
struct Foreseen {
    std::vector<record::PlannedTurn> turns;
    std::optional<std::size_t> unknownFrom;
};
Foreseen foreseen(const record::Test& test);

} // namespace knot::plan
