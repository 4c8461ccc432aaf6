#pragma once

#include "core/judge/case.h"

#include <vector>

namespace knot::judge {

struct Pair {
    BuildAt build, against;
};

/// Who is compared with whom: every club with the baseline, or all pairs where the card asks which is the best. Where
/// clubs are struck off, those that are left. A changed club's stretches are compared each.
std::vector<Pair> pairsToJudge(const Case& subject);

/// How many comparisons one declared outcome makes of `pairs`. Who is left of clubs that were struck off before two
/// were left was picked from all pairs.
std::size_t comparisonsOf(const Case& subject, std::size_t pairs);

} // namespace knot::judge
