#pragma once

#include "core/record/test.h"

#include <vector>

namespace knot::simulate {

/// Struck tests for the demo logbook that ask more than a scenario does, each with known truth:
/// a ladder of four lofts along which spin goes up 210 rpm a degree; a seven iron and the same three degrees stronger;
/// two fairway woods with two deliveries, where the stronger one gains by the second alone; two players through the
/// same shafts, of whom one gains; an iron whose player calls the bad ones, and whose wider sole loses half as much on
/// them.
std::vector<record::Test> examples();

} // namespace knot::simulate
