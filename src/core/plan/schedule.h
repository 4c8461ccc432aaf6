#pragma once

#include "core/record/test.h"

#include <cstdint>
#include <vector>

namespace knot::plan {

/// The rows of a Williams design (1949) for `builds` ≥ 2: each build once a row; over all rows every
/// build follows every other equally often. As many rows as builds when even, twice as many when odd.
std::vector<std::vector<std::size_t>> williamsRows(std::size_t builds);

/// What a schedule is made of. `baseline` opens and closes each round of a sandwich.
struct ScheduleInput {
    record::Schedule schedule = record::Schedule::rotated;
    std::size_t builds = 2, baseline = 0;
    int rounds = 5, turnLength = 3;
    std::uint64_t seed = 1;
    /// Seconds for a change between two builds; where absent the plan's usual time.
    std::vector<record::ChangeTime> changeTimes;
    double changeSeconds = 90;
};

struct ScheduledTurns {
    std::vector<record::PlannedTurn> turns;
    /// Every build follows every other equally often inside rounds.
    bool balanced = false;
};

/// The turns of a schedule (judgement §10): rounds in which every build has one turn. The order
/// of two builds is tossed anew for every round; more follow rows of a Williams design as far as whole designs fit into
/// the rounds, then random orders. Where it can be had no build closes a round and opens the next. Among equally good
/// orders the one with the least changing time is taken. One run each is a single round; shot by shot has turns of one.
/// builds ≥ 2, rounds ≥ 1, turnLength ≥ 1; the same seed gives the same turns.
ScheduledTurns scheduled(const ScheduleInput& input);

/// The turns of the first player as another has them: every club is the next one of so many, so that players
/// meet the clubs in different orders, and each order is as balanced as the first.
/// A sandwich stays as it is: its baseline opens and closes every lap.
std::vector<record::PlannedTurn> turnedFor(std::vector<record::PlannedTurn> turns, record::PlayerAt player,
                                           std::size_t builds, record::Schedule schedule);
/// Seconds for a change from one build to another.
double changeTime(const std::vector<record::ChangeTime>& times, double usual, std::size_t from, std::size_t to);

/// Whether the club must be handed over anew before a turn because the one before it was the same.
bool needsHandOver(const std::vector<record::PlannedTurn>& turns, std::size_t turn);

} // namespace knot::plan
