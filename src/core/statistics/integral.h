#pragma once

#include <functional>
#include <vector>

namespace knot::statistics {

/// Points and weights of the Gauss–Legendre rule over 0 to `end`, for even integrands whose finest
/// detail is about `detail` wide (a standard deviation): from the hundred-point rule over −end to end
/// where that is fine enough, else from as many panels as it takes.
struct HalfRule {
    std::vector<double> at, weight;
};
HalfRule gaussHalf(double end, double detail);

/// The integral over low to high by 30 Gauss–Legendre points; exact to rounding for smooth functions.
double integral(const std::function<double(double)>& function, double low, double high);

} // namespace knot::statistics
