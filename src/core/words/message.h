#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::words {

/// What a reading found, a sentence each.
struct Found {
    std::vector<std::string> runs; ///< of one run each the bets, and what would make them findings; then nothing else
    std::vector<std::string> settled; ///< declared beforehand, whatever came of it
    std::vector<std::string> open;    ///< declared, and not settled
    std::vector<std::string> held;    ///< whether that held up on another day
    std::vector<std::string> besides; ///< real, without having been asked; six at most
};
Found foundOf(const judge::Reading& reading, const record::DisplayUnits& units);

/// A reading as a few lines of plain text, to be sent to somebody: the test, how fairly it was tested, what was found,
/// the bet where something declared is open, and the decision. In tags while the seal is closed.
std::string message(const record::Test& test, const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
