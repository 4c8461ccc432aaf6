#include "core/plan/power.h"

#include "core/statistics/distributions.h"
#include "core/statistics/integral.h"
#include "core/statistics/roots.h"

#include <cmath>
#include <limits>

namespace knot::plan {
namespace {

using namespace statistics;

enum class Claim { either, right };

double powerAt(double noncentrality, double df, double alpha, Claim claim) {
    const double bar = studentUpperQuantile(alpha / 2, df);
    // Far out the series would not converge; there the noise of the numerator no longer counts and
    // T exceeds the bar when the estimated SE is small enough.
    if (noncentrality > 37) {
        const double ratio = noncentrality / bar;
        return chiSquareLower(df * ratio * ratio, df);
    }
    return claim == Claim::right ? noncentralUpper(bar, df, noncentrality) : noncentralBeyond(bar, df, noncentrality);
}

} // namespace

double PairPlan::standardError() const {
    return std::sqrt(2 * (varTurn / rounds + varShot / (rounds * turnLength)));
}

double powerToSee(const PairPlan& plan, double gap, double alpha) {
    return powerFor(plan.standardError(), plan.df(), gap, alpha);
}

double powerFor(double standardError, double df, double gap, double alpha) {
    return powerAt(std::fabs(gap) / standardError, df, alpha, Claim::either);
}

double chanceToProve(double standardError, double df, double gap, double alpha) {
    return powerAt(std::fabs(gap) / standardError, df, alpha, Claim::right);
}

double powerToSaySame(const PairPlan& plan, double margin, double alpha) {
    const double df = plan.df();
    const double reach = margin / plan.standardError();
    const double critical = studentUpperQuantile(alpha, df);
    // SE estimated = SE·s with s = χ/√df; the claim is possible while critical·s < reach. In s the density is smooth
    // and has almost all of its weight within a few of its own SDs of 1.
    const double halfDf = df / 2;
    const double logScale = std::log(2.0) + halfDf * std::log(halfDf) - std::lgamma(halfDf);
    auto inside = [&](double s) {
        const double density = std::exp(logScale + (df - 1) * std::log(s) - halfDf * s * s);
        return density * (2 * normalLower(reach - critical * s) - 1);
    };
    constexpr double widths = 12;
    constexpr int panels = 4;
    const double width = widths / std::sqrt(2 * df);
    const double low = std::max(0.0, 1 - width);
    const double high = std::min(reach / critical, 1 + width);
    double power = 0;
    for (int panel = 0; panel < panels && high > low; ++panel) {
        const double step = (high - low) / panels;
        power += integral(inside, low + panel * step, low + (panel + 1) * step);
    }
    return power;
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
    const auto noncentrality = rootFrom([&](double nc) { return powerAt(nc, df, alpha, Claim::either) - power; }, 0, 4);
    return noncentrality.value_or(std::numeric_limits<double>::infinity()) * standardError;
}

} // namespace knot::plan
