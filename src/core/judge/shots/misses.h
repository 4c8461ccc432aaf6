#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// Where the shots of each build missed (judgement §18): a table of side and length about the card's aim, or about
/// the target line and the build's own median carry; whether they miss one way; and flyers, whose spin is under the
/// build's median less twice its MAD while their ball speed is not under its median (from eight shots with both).
/// Only builds with a shot that has side and carry.
std::vector<Misses> missesOf(const Case& subject, const record::Card& card);

} // namespace knot::judge
