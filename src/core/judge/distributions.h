#pragma once

namespace knot::judge {

/// Student's t with df > 0 (need not be whole): P(T > t).
double studentUpper(double t, double df);
/// The two-sided p of t.
double studentTwoSided(double t, double df);
/// The quantile below which a share `probability` of Student's t lies; 0 < probability < 1.
double studentQuantile(double probability, double df);
double normalUpper(double z);
double normalQuantile(double probability);
/// P(F > f) with df1, df2 > 0.
double fisherUpper(double f, double df1, double df2);
double chiSquareUpper(double x, double df);
double chiSquareQuantile(double probability, double df);

} // namespace knot::judge
