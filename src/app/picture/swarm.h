#pragma once

#include <cstddef>
#include <vector>

namespace knot::picture {

/// Stacks points that stand at `x` so that none of width `width` overlaps another on its level: the
/// level of each point, 0 at the bottom, in the order given. Points are placed from left to right,
/// each as low as there is room; equal ones keep their order.
std::vector<int> swarmLevels(const std::vector<double>& x, double width);

/// The radius of each of `count` knots that lie freely on a ground: `usual` up to 300 of them, then smaller, so that
/// together they cover no more of it.
double knotRadius(std::size_t count, double usual);

} // namespace knot::picture
