#pragma once

#include "core/record/position.h"

#include <cstdint>
#include <string>
#include <vector>

namespace knot::record {

/// How turns follow each other (judgement §10).
enum class Schedule { rotated, sandwich, shotByShot, oneRunEach, strikingOff };

/// A change that takes longer than others, either way round, e.g. one head on two shafts.
struct ChangeTime {
    BuildAt a, b;
    double seconds = 0;
    bool operator==(const ChangeTime&) const = default;
};

/// The rule by which a test is struck; the course is made by it.
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
    bool operator==(const Plan&) const = default;
};

} // namespace knot::record
