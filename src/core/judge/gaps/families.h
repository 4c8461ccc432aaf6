#pragma once

#include <vector>

namespace knot::judge {

/// Holm's step-down adjustment (Holm 1979). One p per claim, in any order; a claim without a p
/// enters as 1. The result stands in the order of the input.
std::vector<double> holm(const std::vector<double>& p);

/// Benjamini and Hochberg's adjustment for the false discovery rate (1995).
std::vector<double> benjaminiHochberg(const std::vector<double>& p);

} // namespace knot::judge
