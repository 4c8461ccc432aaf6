#pragma once

#include "core/judge/days/pooling.h"

#include <string>
#include <vector>

namespace knot::judge {

/// A declared gap as one test found it, clubs by name.
struct GapFound {
    std::string test; ///< its title
    record::Outcome outcome;
    std::string build, against;
    double gap = 0, se = 0, df = 0;
    std::optional<Interval> ci95, ci90;
    bool isSame = false;
    double margin = 0;
};

/// The first test of those that are one on several days.
const std::string& firstOf(const record::Test& test);

/// The declared gaps of averages (as struck, at equal delivery, typical) of a reading, where they have an error.
std::vector<GapFound> declaredGaps(const Reading& reading, const std::string& title);

/// Judges the tests that are the same as the one in hand on another day; those that are sealed still tell nothing.
std::vector<GapFound> gapsOfRepeats(const std::vector<record::Test>& tests, const record::Test& inHand);

std::vector<Repeated> repeatedIn(const Reading& reading, const std::vector<GapFound>& others);
std::vector<ByWay> byWayIn(const Reading& reading, const std::vector<GapFound>& others);

} // namespace knot::judge
