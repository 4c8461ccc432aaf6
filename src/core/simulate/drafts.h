#pragma once

#include "core/record/test.h"

#include <functional>

namespace knot::simulate {

/// A made-up test that is declared and planned, with its clubs' parts, and not yet struck.
record::Test plannedShaftTest();

/// The same clubs in the hands of another player, struck up to the middle of a lap. `minutesAgo` gives
/// the moment so many minutes before now as ISO 8601.
record::Test shaftTestUnderWay(const std::function<std::string(int)>& minutesAgo);

/// A made-up screening of five heads with a few shots each.
record::Test headScreening();

} // namespace knot::simulate
