#pragma once

#include "core/judge/bets/bet.h"

#include <vector>

namespace knot::judge {

/// A stint's mean from the stints' own middle, and what goes into it. `build` counts among the builds that were named.
struct Stint {
    std::size_t build = 0, lap = 0;
    double mean = 0, shots = 1;
    double warmingUp = 0; ///< how much of the player's warming up is in it: e^(−swings / 8)
};

/// The stints of one metric. Means far from 0 would cost digits: they are taken from their own middle.
struct Stints {
    std::vector<Stint> all;
    std::size_t builds = 0, laps = 0;
    double middle = 0, squares = 0, degrees = 0; ///< squares and degrees of freedom inside stints
};

/// What stints share a level with: those of the same lap, or, where clubs were hit as it came, of the same visit.
enum class Together { laps, visits };
Stints stintsOf(const Column& column, const std::vector<BuildAt>& builds, Together together = Together::laps);

/// After so many swings what the first ones add has fallen to a third.
inline constexpr double warmAfter = 8;

/// How alike the neighbouring shots of several columns are, pooled inside stints, less what few shots about their own
/// mean take from it; what is known beforehand weighs as its pairs do. Kept from 0 to 0.6.
Neighbours neighboursIn(const std::vector<const Column*>& columns, const Neighbours& beforehand = {});

/// The variance of a shot: what the record says and what the prior does, by their degrees of freedom.
double shotVariance(const Stints& stints, const BetPrior& prior);

/// Sizes that a stint may have, each as likely as the others: points of degrees·sd²/χ².
inline constexpr std::size_t stintPoints = 5;
double stintVariance(std::size_t point, const BetPrior& prior);

/// The stints with the laps taken out, for one size of the stint (judgement §14): K = XᵀMX by its eigenvalues, so that
/// every scatter τ of the builds is a sum over them.
struct Swept {
    std::vector<double> values;  ///< of K
    std::vector<double> vectors; ///< of K: builds × values, by rows
    std::vector<double> g;       ///< XᵀMz along those
    double zMz = 0, logWeights = 0, logLaps = 0;
    double level = 0;                ///< the mean of the laps' own levels, before builds are taken off
    std::vector<double> levelShares; ///< how much of each build's effect stands in it

    /// The log likelihood of the stints where the builds' effects scatter by τ about nothing, but for a constant.
    double logLikelihood(double tau) const;
};

/// `varWarm` is that of what the player's first swings add, shared by all stints as they lie in it (judgement §34).
Swept sweep(const Stints& stints, double varStint, double varShot, double varWarm = 0);

} // namespace knot::judge
