#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// The models of what else could explain a gap (judgement §8), all on counted shots, by REML with
/// one random effect for each turn, or least squares where that fits as 0. Each gives nothing when
/// its design is rank-deficient or no error is left.

/// Slope of the metric on the shot's order in its sitting: y ~ build + order.
std::optional<ModelEstimate> driftPerShot(const Column& column, const record::Structure& structure);

/// How much more `build` gains from turn to turn than `against`: y ~ build · turn number.
std::optional<ModelEstimate> adaptationGap(const Column& column, BuildAt build, BuildAt against);

/// Slope on the place inside the turn, for one build: y ~ place.
std::optional<ModelEstimate> settlingSlope(const Column& column, BuildAt build);

/// How much more `build` gains from shot to shot inside the turn than `against`: y ~ build · place.
std::optional<ModelEstimate> settlingGap(const Column& column, BuildAt build, BuildAt against);

/// The mean of the later half of each turn minus that of the earlier half (the middle shot of an odd
/// turn is left out), one-sample t over the build's turns of two shots or more. Two such turns.
std::optional<ModelEstimate> lateInTurn(const Column& column, BuildAt build);

/// The gap at equal covariates, y ~ build + round + covariates, beside the gap as struck by the
/// same model without them, on the shots that have all readings. The explained part's interval
/// resamples rounds (`draws` times, seeded, percentile; five rounds or more); 0 draws leave it out.
std::optional<EqualStrike> equalStrike(const record::Test& test, const Column& column, BuildAt build, BuildAt against,
                                       const std::vector<Metric>& covariates, int draws, std::uint64_t seed);

/// The metric against a number (`numberAlong`: a measure of the clubs or a column of the file): slope of y ~ x + round,
/// lack of fit of the builds about the line on turn means, and Jonckheere and Terpstra's test for order on turn means
/// (tie-corrected variance, normal, two-sided). Shots without a number take no part.
std::optional<Trend> trendAlong(const record::Test& test, const Column& column, const std::string& numberColumn);

/// How much larger the gap of each build to the baseline is at each level of a second factor than
/// at its first level: y ~ build · factor in treatment coding.
std::vector<ModelEstimate> interactions(const record::Test& test, const Column& column, BuildAt baseline,
                                        const std::string& factorColumn);

/// The same with laps as blocks, which takes out what lies between them: y ~ build · factor + lap (judgement §34).
/// Nothing where a level and the laps can't be told apart but for all of them.
std::vector<ModelEstimate> interactionsInLaps(const record::Test& test, const record::Structure& structure,
                                              const Column& column, BuildAt baseline, const std::string& factorColumn);

} // namespace knot::judge
