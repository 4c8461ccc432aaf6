#pragma once

#include <vector>

namespace knot::statistics {

/// The mean; nan of nothing. Two passes, so that a large common offset leaves no rounding behind.
double meanOf(const std::vector<double>& values);
/// Sum of squared deviations about the mean; 0 for fewer than two values.
double squaresAboutMean(const std::vector<double>& values);
/// SD with n − 1; nan for fewer than two values.
double standardDeviation(const std::vector<double>& values);

} // namespace knot::statistics
