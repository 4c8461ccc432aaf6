#pragma once

#include "core/record/test.h"

#include <optional>
#include <vector>

namespace knot::plan {

/// What the sittings' own clocks say: the median time from shot to shot inside turns, and how much longer the median
/// change of club takes. Nothing under `fewest` of each.
struct MeasuredPace {
    std::optional<double> shotSeconds, changeSeconds;
    bool operator==(const MeasuredPace&) const = default;
};

/// From tests of a kind: one head on several shafts changes slower than two clubs in the bag. Shots without a time, and
/// intervals of ten minutes or more (a rest, another day), take no part.
MeasuredPace measuredPace(const std::vector<record::Test>& tests, record::TestKind kind, std::size_t fewest = 5);

} // namespace knot::plan
