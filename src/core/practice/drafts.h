#pragma once

#include "core/record/test.h"

namespace knot::practice {

/// A made-up test that is declared and planned, with its clubs' parts, and not yet struck.
record::Test plannedShaftTest();

/// The same clubs in the hands of another player, struck up to the middle of a lap.
record::Test shaftTestUnderWay();

/// A made-up screening of five heads with a few shots each.
record::Test headScreening();

} // namespace knot::practice
