#pragma once

#include "core/judge/bets/facts.h"
#include "core/judge/case.h"
#include "core/plan/spreads.h"

#include <vector>

namespace knot::judge {

/// Clubs were hit as it came: no two of them met in two laps. The player warms up through that.
bool isOfSingleRuns(const Column& column);

/// A club alone was hit: there is nothing to bet on, and its player may still have changed something.
bool isOfOneClub(const Column& column);

/// Clubs that were hit, left and hit again inside one sitting: the last go against the first. Where the player or the
/// club was changed in between: what was struck after the change against what was struck before it.
std::vector<Again> goneBackTo(const Case& subject, const Column& column, const plan::Spreads& usual);

} // namespace knot::judge
