#pragma once

namespace knot::plan {

/// A rotated comparison of two builds: each round holds one turn of `turnLength` shots with each.
/// Variances are in the metric's unit squared; rounds ≥ 2, turnLength > 0.
struct PairPlan {
    double varTurn = 0, varShot = 1;
    double rounds = 2, turnLength = 1;

    /// Standard error of the gap between the two averages.
    double standardError() const;
    double df() const { return rounds - 1; }
};

/// The chance that the two-sided paired t at level alpha sees a true gap (noncentral t).
double powerToSee(const PairPlan& plan, double gap, double alpha);

/// The chance that two one-sided tests at level alpha call a true gap of 0 smaller than `margin`:
/// P(|estimate| < margin − t·SE), integrated over the estimated variance.
double powerToSaySame(const PairPlan& plan, double margin, double alpha);

/// The power of F on `df` each to see that two SDs differ by `ratio`.
double powerOfVariances(double df, double ratio, double alpha);

/// The chance that a ratio of SDs is seen, two-sided at level alpha, with `nu` degrees of freedom for
/// each build: from F with nu − 3 in place of nu, which allows for tails (judgement §9). nu > 3.
double powerToSeeSpread(double nu, double ratio, double alpha);

/// The same for a ratio of landing areas, by the normal of its logarithm: each build's log area has
/// a variance of about 1/nu for two normal directions. nu > 1.
double powerToSeeArea(double nu, double ratio, double alpha);

/// The gap that is seen with the given power; 0 < power < 1.
double smallestGap(const PairPlan& plan, double power, double alpha);

/// The chance that the two-sided t at level alpha says so the right way: without what it says the wrong way round.
double chanceToProve(double standardError, double df, double gap, double alpha);

/// Both for a t of any standard error and df.
double powerFor(double standardError, double df, double gap, double alpha);
double smallestGapFor(double standardError, double df, double power, double alpha);

} // namespace knot::plan
