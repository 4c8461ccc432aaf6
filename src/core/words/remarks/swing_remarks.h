#pragma once

#include "core/words/remarks/remarks.h"

namespace knot::words {

/// What stands above and below the verdicts about the swing: whether two clubs were delivered alike (judgement §15)
/// and whose doing it is that they weren't (§28), and how much of what moves a number is the club's doing and how much
/// the player's (§16).
std::vector<Remark> sameSwing(const judge::Reading& reading, const record::DisplayUnits& units);
/// Of the declared numbers (without any, of carry), or of one alone.
std::vector<Remark> whoseDoing(const judge::Reading& reading, std::optional<judge::Metric> only = {});

/// What a gap in what the ball did has to do with the swing, where anything of the delivery differs: "by way of the
/// swing, 8.9 m of it by swinging faster" or "the swing differed too"; else empty.
std::string throughSwing(const judge::Reading& reading, const judge::AverageGap& gap,
                         const record::DisplayUnits& units);

} // namespace knot::words
