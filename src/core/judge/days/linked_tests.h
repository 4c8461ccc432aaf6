#pragma once

#include "core/judge/days/pooling.h"

#include <string>
#include <vector>

namespace knot::judge {

/// A club as tests know it, told by its id; without one by its name.
struct ClubKnown {
    std::string id, name;
    friend bool operator==(const ClubKnown& a, const ClubKnown& b) {
        return a.id.empty() || b.id.empty() ? a.name == b.name : a.id == b.id;
    }
};

/// A declared gap as one test found it.
struct GapFound {
    std::string test; ///< its title
    record::Outcome outcome;
    ClubKnown build, against;
    double gap = 0, se = 0, df = 0;
    double laps = 0; ///< that hold both
    std::optional<Interval> ci95, ci90;
    bool isSame = false;
    double margin = 0;
};

/// The declared gaps of averages (as struck, at equal delivery, typical) of a reading, where they have an error.
std::vector<GapFound> declaredGaps(const Reading& reading, const std::string& title);

/// Judges the tests that are the same as the one in hand on another day; those that are sealed still tell nothing.
std::vector<GapFound> gapsOfRepeats(const std::vector<record::Test>& tests, const record::Test& inHand);

std::vector<Repeated> repeatedIn(const Reading& reading, const std::vector<GapFound>& others);
std::vector<ByWay> byWayIn(const Reading& reading, const std::vector<GapFound>& others);

} // namespace knot::judge
