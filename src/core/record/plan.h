#pragma once

#include "core/record/position.h"

#include <cstdint>
#include <string>
#include <vector>

namespace knot::record {

/// How turns follow each other (judgement §10).
enum class Schedule { rotated, sandwich, shotByShot, oneRunEach, strikingOff };

struct PlannedTurn {
    BuildAt build; ///< a tag while sealed
    int round = 1; ///< of its player, from 1
    int shots = 1;
    bool ended = false; ///< cut short or left out in the bay
    PlayerAt player;
    bool operator==(const PlannedTurn&) const = default;
};

/// A change that takes longer than others, either way round, e.g. one head on two shafts.
struct ChangeTime {
    BuildAt a, b;
    double seconds = 0;
    bool operator==(const ChangeTime&) const = default;
};

/// The order of a test before its first shot. `turns` is what counts; the rest says how it was made.
struct Plan {
    Schedule schedule = Schedule::rotated;
    int rounds = 5, turnLength = 3;
    std::uint64_t seed = 1;
    double changeSeconds = 90, shotSeconds = 30;
    std::vector<ChangeTime> changeTimes;
    int warmUp = 8;     ///< shots before the first counted one
    int restEvery = 25; ///< swings between rests; 0: none
    double restSeconds = 180;
    std::vector<std::string> tagWords; ///< of one's own, in their order; those that lack are the usual ones
    std::vector<PlannedTurn> turns;
    bool operator==(const Plan&) const = default;
};

} // namespace knot::record
