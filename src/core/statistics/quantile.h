#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

namespace knot::statistics {

/// The middle value, or halfway between the middle two; nan of nothing.
double medianOf(std::vector<double> values);
/// The quantile that linear interpolation between order statistics gives (Hyndman and Fan's type 7);
/// `share` from 0 to 1. nan of nothing.
double quantileOf(std::vector<double> values, double share);
/// The mean of what is left when ⌊share·n⌋ values are taken from each end; nan of nothing.
double trimmedMeanOf(std::vector<double> values, double share);

/// n over k, exact up to `most`; anything above it is `most` + 1. k ≤ n.
std::uint64_t waysToChoose(std::size_t n, std::size_t k, std::uint64_t most);

} // namespace knot::statistics
