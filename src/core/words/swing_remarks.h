#pragma once

#include "core/words/remarks.h"

namespace knot::words {

/// What stands above and below the verdicts about the swing: whether two clubs were delivered alike (judgement §15),
/// and how much of what moves a number is the club's doing and how much the player's (§16).
std::vector<Remark> sameSwing(const judge::Reading& reading);
/// Of the declared numbers (without any, of carry), or of one alone.
std::vector<Remark> whoseDoing(const judge::Reading& reading, std::optional<judge::Metric> only = {});

/// Whether anything of the delivery differs between two clubs, as far as that was settled.
bool swingDiffers(const judge::Reading& reading, judge::BuildAt build, judge::BuildAt against);

} // namespace knot::words
