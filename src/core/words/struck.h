#pragma once

#include "core/record/test.h"

#include <string>
#include <vector>

namespace knot::words {

/// Shots one after another with the same club, by one player with one delivery, in the order struck.
struct Run {
    record::BuildAt build;
    std::size_t first = 0, count = 0;
};
std::vector<Run> runsOf(const record::Test& test);

/// What can be known of how a record was struck: clubs and runs, laps, pauses, players, shots without a
/// reading that others have. A sentence each.
std::vector<std::string> struckFacts(const record::Test& test);

} // namespace knot::words
