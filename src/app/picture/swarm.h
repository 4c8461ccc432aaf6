#pragma once

#include <vector>

namespace knot::picture {

/// Stacks points that stand at `x` so that none of width `width` overlaps another on its level: the
/// level of each point, 0 at the bottom, in the order given. Points are placed from left to right,
/// each as low as there is room; equal ones keep their order.
std::vector<int> swarmLevels(const std::vector<double>& x, double width);

} // namespace knot::picture
