#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// For each metric that was read in some shots and not in others, and each pair of the reading's averages: how many
/// of the shots that take part are unread with either build. A build that has no reading of a metric at all, and a
/// metric that both have in full, give no row.
std::vector<Unread> unreadOf(const Case& subject, const Reading& reading);

} // namespace knot::judge
