#pragma once

#include "core/bay/strike.h"

#include <optional>

namespace knot::app {

/// What became of the last shot on the way to the screen.
struct LastShot {
    record::ShotId shot = record::ShotId::none; ///< none in this sitting
    int secondsToNumber = 0;                    ///< its number is held back for the player's call
    bool called = false;                        ///< the coming shot was called a mishit already
    record::Call call = record::Call::none;     ///< or called good, so-so or bad
    bool onDisk = true;
    /// The shot itself, or nullptr.
    const record::Shot* in(const record::Test& test) const {
        const auto at = test.shotIndex(shot);
        return at ? &test.shots[*at] : nullptr;
    }
};

/// Where a test stands as the bay's page sees it.
struct Situation {
    const record::Test& test;
    bay::Stand stand;
    LastShot last;
    bool anotherVisit = false;                ///< the last shot is hours ago
    std::vector<record::Metric> numbers = {}; ///< to show of each shot, and to type first
};

} // namespace knot::app
