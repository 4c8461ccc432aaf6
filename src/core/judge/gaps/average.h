#pragma once

#include "core/judge/columns.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// The gap between two builds' averages with its raw p's (judgement §3): Welch's t on shots when
/// one build has a single turn or all its turns lie apart in time, along a common line (§26) where nobody drew
/// the order and it was the same in nearly every lap, else the paired t over the rounds that hold both. `margin` is the
/// worthwhile gap, > 0. Nothing is returned when either build has no reading. Families and verdicts come afterwards.
std::optional<AverageGap> averageGap(const Column& column, BuildAt build, BuildAt against, double margin);

/// Puts an estimate and its error into a gap, with intervals and raw p's by its margin; where nothing varies it is
/// capped instead.
void judgeEffect(AverageGap& gap, const Effect& effect);

/// Adds the shuffle check, the second opinion and, for `rounds`, the variances of turns and shots by
/// REML, all on the shots that the gap itself stands on.
void addOpinions(AverageGap& gap, const Column& column, std::uint64_t seed);

/// The turns of one build that can be compared with another's: where the player changed, only the
/// stretches that hold both.
BuildValues comparable(const Column& column, BuildAt own, BuildAt other);

/// Differences of turn means by round, over the rounds that hold both builds, in round order.
std::vector<double> roundDifferences(const Column& column, BuildAt build, BuildAt against);

/// The turn means of both, build first, by round in the same way.
std::vector<std::pair<double, double>> roundPairs(const Column& column, BuildAt build, BuildAt against);

/// The smallest number of rounds that has 80 % power at level `alpha` to see a gap of `margin`
/// and 80 % to call none "no gap that matters", minus the rounds done; `tooManyRounds` + 1 when
/// even that many would not do. Turns hold `turnLength` shots.
struct FurtherRoundsInput {
    double varTurn = 0, varShot = 0, margin = 0, alpha = 0.05;
    double turnLength = 1;
    std::size_t roundsDone = 0;
};
int furtherRounds(const FurtherRoundsInput& input);

} // namespace knot::judge
