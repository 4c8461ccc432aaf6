#pragma once

#include <functional>
#include <vector>

namespace knot::statistics {

/// Points and weights of the Gauss–Legendre rule over 0 to `end` from its hundred-point rule over
/// −end to end: the upper half, each point standing for its mirror image too when the integrand is
/// even and the sum is doubled.
struct HalfRule {
    std::vector<double> at, weight;
};
HalfRule gaussHalf(double end);

/// The integral over low to high by 30 Gauss–Legendre points; exact to rounding for smooth functions.
double integral(const std::function<double(double)>& function, double low, double high);

} // namespace knot::statistics
