#pragma once

#include "core/judge/reading.h"

namespace knot::judge {

/// How often luck alone gives a difference of means at least as large, when the labels of the
/// shots are dealt anew between two builds (both with one value or more). Counted in full up to
/// 200,000 arrangements, else 20,000 seeded draws with Phipson and Smyth's +1 (2010). Values
/// within a relative 1e-12 count as ties.
ShuffleCheck shuffleLabels(const std::vector<double>& build, const std::vector<double>& against, std::uint64_t seed);

/// The same for differences by round whose signs are flipped (one difference or more). Counted in
/// full up to 20 rounds.
ShuffleCheck flipSigns(const std::vector<double>& differences, std::uint64_t seed);

} // namespace knot::judge
