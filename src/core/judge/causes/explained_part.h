#pragma once

#include "core/judge/claim.h"

#include <cstdint>

namespace knot::judge {

/// A shot of one of two builds with what is held equal.
struct AdjustedRow {
    std::size_t round = 0, turn = 0;
    bool isBuild = false;
    double y = 0;
    std::vector<double> covariates;
};

/// The interval of what covariates explain of a gap, the gap by y ~ build + round less that with the covariates, from
/// rounds drawn with replacement (seeded, percentile). The ratios of the variances of turns and shots, `plainRatio` and
/// `adjustedRatio`, are held as the whole fits have them. Nothing under five rounds or without draws.
std::optional<Interval> explainedInterval(const std::vector<AdjustedRow>& rows, double plainRatio, double adjustedRatio,
                                          int draws, std::uint64_t seed);

} // namespace knot::judge
