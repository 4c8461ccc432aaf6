#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// The loss of ball speed or carry per mm away from the build's own best strike point: y ~ distance
/// + (1 | turn), the best point being where a quadratic in toe and height peaks, held inside the
/// middle of the strikes. Needs twelve shots with both strike readings.
std::optional<Forgiveness> forgivenessOf(const record::Test& test, const Column& column, BuildAt build);

/// How much more one build loses per mm than another: the difference of their losses, with the errors of a jackknife
/// over stints, each build's best point found anew in each, and Satterthwaite's df for the sum (judgement §34). Nothing
/// where a build has fewer than four stints with strikes, or a stint less leaves no loss to be read.
std::optional<ModelEstimate> forgivenessGap(const record::Test& test, const Column& column, const Forgiveness& build,
                                            const Forgiveness& against);

/// The gap in the worst fifth: the 20 % quantile of carry, or the 80 % quantile of |side|. Interval
/// by resampling turns (4,000 seeded draws, percentile); nothing under five turns in either build.
std::optional<WorstFifth> worstFifthGap(const Column& column, BuildAt build, BuildAt against, std::uint64_t seed);

/// The same for the 80 % quantile of carry: how far the long misses go.
std::optional<WorstFifth> longestFifthGap(const Column& column, BuildAt build, BuildAt against, std::uint64_t seed);

/// A build's stints and shots against a window [low, high]; beyond it "below" and "above". One stint says nothing of
/// the build: it stays open, and what was seen is said.
TargetResult againstTarget(const Column& column, BuildAt build, double low, double high);

/// Outcomes that move together inside turns (|r| ≥ 0.8) or by arithmetic, as groups of two or more.
std::vector<std::vector<Outcome>> groupFindings(const std::vector<Column>& columns);

} // namespace knot::judge
