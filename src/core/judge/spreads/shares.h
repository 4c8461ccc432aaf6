#pragma once

#include "core/judge/reading.h"

namespace knot::judge {

/// Wilson's interval (1927) of a share; n > 0 may be fractional.
Interval wilson(double hits, double n, double level);

/// A share whose trials fall into turns: Wilson on an effective number of shots that allows for
/// their likeness inside turns (judgement §7), of one turn the usual likeness. Each inner list holds the trials of one
/// turn; empty turns are passed over. Nothing without trials.
std::optional<Share> shareByTurns(const std::vector<std::vector<bool>>& turns);

/// The chance of naming at least `right` of `builds` tags correctly by luck, when each name was
/// used once (matching distribution).
double luckyMatches(int right, int builds);

/// The chance of at least `right` of `tries` guesses by luck, one in `builds` each time.
double luckyGuesses(int right, int tries, int builds);

} // namespace knot::judge
