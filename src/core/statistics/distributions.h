#pragma once

/// Distributions whose functions never throw: outside its domain (degrees of freedom not above 0, a
/// probability outside 0 to 1, nan) each gives nan, and infinite statistics of degenerate data give
/// 0 or 1. Degrees of freedom need not be whole. Upper tails are reckoned as such, not as 1 minus
/// the lower one.
namespace knot::statistics {

/// P(T > t) of Student's t.
double studentUpper(double t, double df);
/// The two-sided p of t.
double studentTwoSided(double t, double df);
/// The value below which a share `probability` lies.
double studentQuantile(double probability, double df);
/// The value above which a share `probability` lies.
double studentUpperQuantile(double probability, double df);
/// P(T > bar) and P(T < −bar) together, of the noncentral t.
double noncentralBeyond(double bar, double df, double noncentrality);
/// P(T > bar) alone.
double noncentralUpper(double bar, double df, double noncentrality);

/// The second derivative of ln Γ: the variance of ln of a sum of squares is trigamma of half its degrees of freedom.
double trigamma(double x);

double normalLower(double z);
double normalUpper(double z);
double normalQuantile(double probability);
double normalUpperQuantile(double probability);

/// P(F < f) and P(F > f).
double fisherLower(double f, double df1, double df2);
double fisherUpper(double f, double df1, double df2);
double fisherUpperQuantile(double probability, double df1, double df2);

double chiSquareLower(double x, double df);
double chiSquareUpper(double x, double df);
double chiSquareQuantile(double probability, double df);

/// P(X ≤ k) and P(X ≥ k) of `tries` with the same chance; k below 0 gives 0 and 1.
double binomialAtMost(int k, int tries, double chance);
double binomialAtLeast(int k, int tries, double chance);

} // namespace knot::statistics
