#include "core/plan/power.h"

#include "core/statistics/distributions.h"
#include "core/statistics/integral.h"
#include "core/statistics/roots.h"

#include <cmath>
#include <limits>

namespace knot::plan {
namespace {

using namespace statistics;

double powerAt(double noncentrality, double df, double alpha) {
    const double bar = studentUpperQuantile(alpha / 2, df);
    // Far out the series would not converge; there the noise of the numerator no longer counts and
    // T exceeds the bar when the estimated SE is small enough.
    if (noncentrality > 37) {
        const double ratio = noncentrality / bar;
        return chiSquareLower(df * ratio * ratio, df);
    }
    return noncentralBeyond(bar, df, noncentrality);
}

} // namespace

double PairPlan::standardError() const {
    return std::sqrt(2 * (varTurn / rounds + varShot / (rounds * turnLength)));
}

double powerToSee(const PairPlan& plan, double gap, double alpha) {
    return powerFor(plan.standardError(), plan.df(), gap, alpha);
}

double powerFor(double standardError, double df, double gap, double alpha) {
    return powerAt(std::fabs(gap) / standardError, df, alpha);
}

double powerToSaySame(const PairPlan& plan, double margin, double alpha) {
    const double df = plan.df();
    const double reach = margin / plan.standardError();
    const double critical = studentUpperQuantile(alpha, df);
    // SE estimated = SE·√(χ²/df); the claim is possible while critical·√(χ²/df) < reach.
    const double most = df * (reach / critical) * (reach / critical);
    // Integrate over the probability of χ², which keeps the integrand smooth and bounded.
    const double top = chiSquareLower(most, df);
    if (!(top > 0))
        return 0;
    auto inside = [&](double u) {
        const double room = reach - critical * std::sqrt(chiSquareQuantile(u, df) / df);
        return room > 0 ? 2 * normalLower(room) - 1 : 0.0;
    };
    return integral(inside, 0.0, top);
}

double powerOfVariances(double df, double ratio, double alpha) {
    const double high = fisherUpperQuantile(alpha / 2, df, df);
    const double variances = ratio * ratio;
    return fisherUpper(high / variances, df, df) + fisherLower(1 / high / variances, df, df);
}

double powerToSeeSpread(double nu, double ratio, double alpha) {
    return powerOfVariances(nu - 3, ratio, alpha);
}

double powerToSeeArea(double nu, double ratio, double alpha) {
    const double bar = normalUpperQuantile(alpha / 2);
    const double shift = std::fabs(std::log(ratio)) / std::sqrt(2 / (nu - 1));
    return normalUpper(bar - shift) + normalLower(-bar - shift);
}

double smallestGap(const PairPlan& plan, double power, double alpha) {
    return smallestGapFor(plan.standardError(), plan.df(), power, alpha);
}

double smallestGapFor(double standardError, double df, double power, double alpha) {
    const auto noncentrality = rootFrom([&](double nc) { return powerAt(nc, df, alpha) - power; }, 0, 4);
    return noncentrality.value_or(std::numeric_limits<double>::infinity()) * standardError;
}

} // namespace knot::plan
