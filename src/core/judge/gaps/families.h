#pragma once

#include <vector>

namespace knot::judge {

/// Holm's step-down adjustment (Holm 1979). One p per claim, in any order; a claim without a p
/// enters as 1. The result stands in the order of the input.
std::vector<double> holm(const std::vector<double>& p);

/// Shaffer's steps (1986) for the gaps between all pairs of `builds`: as Holm, but each step counts only the equalities
/// that can still hold once the ones before are false (three builds: 3, 1, 1). One p per pair.
std::vector<double> shaffer(const std::vector<double>& p, std::size_t builds);

/// Benjamini and Hochberg's adjustment for the false discovery rate (1995).
std::vector<double> benjaminiHochberg(const std::vector<double>& p);

} // namespace knot::judge
