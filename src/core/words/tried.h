#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>
#include <vector>

// What a player takes home from a sitting as it came: every club, and what became of it.
namespace knot::words {

/// One club that was hit, by each player and with each delivery.
struct Tried {
    record::BuildAt club;
    std::string name;
    std::vector<std::string> seen; ///< "6 shots: carry 150.2 m (143.1 to 156.0), launch 14.2° (…)", a line a setting
    std::string said;              ///< what was felt, and whether what was expected was seen; empty: nothing
    std::string left;              ///< why it went; empty while it is in
};

/// In the order in which they were first hit; clubs without a counted shot are left out.
std::vector<Tried> tried(const record::Test& test, const record::DisplayUnits& units);

/// "Stout B, 6 shots: …. Felt: …. Left: too low."
std::string sentenceOf(const Tried& one);

/// Whether what was expected of a stint was seen, against one's own club: "expected higher: 1.2° higher, as said". Only
/// what was seen. Empty where nothing was expected.
std::string expectedSeen(const record::Test& test, const record::Feel& feel, const record::DisplayUnits& units);

/// Why one would take a club of a sitting as it came, drafted from what was seen, felt and wanted against one's own:
/// "about as far as Own 7, straighter as seen, comes down steeper; liked best". Empty where there is nothing to say.
std::string tradeOff(const record::Test& test, const judge::Reading& reading, record::BuildAt build,
                     const record::DisplayUnits& units);

} // namespace knot::words
