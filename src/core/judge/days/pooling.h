#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// One sitting's estimate of a gap.
struct SittingEstimate {
    double gap = 0, se = 0;
    std::optional<Interval> ci95, ci90;
};

/// Several sittings pooled by random effects: DerSimonian and Laird's τ², Hartung and Knapp's
/// interval (2001) on sittings − 1 df. A sitting held up when it has the pooled gap's sign and an
/// interval that excludes 0; for "no gap that matters" when its 90 % interval lies inside the margin.
/// `sameWithin` is the margin of a gap that was called `same`. Nothing with fewer than two sittings or a standard error
/// that is not above 0.
std::optional<SittingsPooled> poolSittings(const std::vector<SittingEstimate>& sittings,
                                           std::optional<double> sameWithin = std::nullopt);

/// Declared gaps of averages sitting by sitting, player by player, delivery by delivery, and pooled, where there are
/// two of them or more (judgement §§11 and 22).
void poolSettings(const Case& subject, const std::vector<Column>& columns, Reading& reading);

} // namespace knot::judge
