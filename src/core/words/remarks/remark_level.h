#pragma once

#include "core/judge/reading.h"

#include <optional>

namespace knot::words {

/// How often luck gives misses that go one way as far: by shots and by stints both. Nothing of a single stint.
std::optional<double> byLuck(const judge::Misses& misses);

/// Of two factors what is said: with laps as blocks where that can be reckoned.
const std::vector<judge::ModelEstimate>& interactionsSaid(const judge::Reading& reading);

/// What p a remark may have at most: all tests that stand behind remarks of a reading are one family, in which the
/// share of false ones among those that are said is held at 5 in 100 (Benjamini and Hochberg 1995). Below 0 where none
/// is.
double remarkLevel(const judge::Reading& reading);

} // namespace knot::words
