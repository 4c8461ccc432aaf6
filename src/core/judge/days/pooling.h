#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// One sitting's estimate of a gap.
struct SittingEstimate {
    double gap = 0, se = 0;
    double laps = 0; ///< that hold both
    std::optional<Interval> ci95, ci90;
};

/// The laps behind a gap: those that hold both builds, else as many as its degrees of freedom stand for.
double lapsOf(const AverageGap& gap);

/// Several sittings pooled, weighted by their laps and not by precisions that come from a few of them; Student's t on
/// sittings − 1, and the F of the sittings about their mean against what laps inside them give (judgement §34). A
/// sitting held up when it has the pooled gap's sign and an interval that excludes 0; for "no gap that matters" when
/// its 90 % interval lies inside the margin. `sameWithin` is the margin of a gap that was called `same`. Nothing with
/// fewer than two sittings, or one without an error or a second lap.
std::optional<SittingsPooled> poolSittings(const std::vector<SittingEstimate>& sittings,
                                           std::optional<double> sameWithin = std::nullopt);

/// Where the gap differs from sitting to sitting by more than laps explain (F, p < 0.1), all laps together are too sure
/// of it: the sittings' gaps, pooled, then carry the verdict (judgement §34).
void carryByDays(const Case& subject, const Column& column, AverageGap& gap);

/// Declared gaps of averages sitting by sitting, player by player, delivery by delivery, and pooled, where there are
/// two of them or more (judgement §§11 and 22).
void poolSettings(const Case& subject, const std::vector<Column>& columns, Reading& reading);

} // namespace knot::judge
