#pragma once

#include "core/words/remarks/remarks.h"

namespace knot::words {

/// What single shots, calls, words and models of flight tell beside the verdicts: reads that are missing, calls
/// before the number, misses and flyers, shots that pass each other, parts of a gap, feels, expectations, usual
/// numbers, the worst and the longest fifth, shares set aside, tilt and middle of landings.
std::vector<Remark> shotRemarks(const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
