#include "core/plan/power.h"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/roots.hpp>

#include <cmath>

namespace knot::plan {
namespace {

double studentCritical(double level, double df) {
    return quantile(boost::math::students_t(df), 1 - level);
}

double powerAt(double noncentrality, double df, double alpha) {
    const double bar = studentCritical(alpha / 2, df);
    // Far out the series would not converge; there the noise of the numerator no longer counts and
    // T exceeds the bar when the estimated SE is small enough.
    if (noncentrality > 37) {
        const double ratio = noncentrality / bar;
        return cdf(boost::math::chi_squared(df), df * ratio * ratio);
    }
    const boost::math::non_central_t t(df, noncentrality);
    return cdf(complement(t, bar)) + cdf(t, -bar);
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
    const double critical = studentCritical(alpha, df);
    // SE estimated = SE·√(χ²/df); the claim is possible while critical·√(χ²/df) < reach.
    const double most = df * (reach / critical) * (reach / critical);
    const boost::math::chi_squared chi(df);
    const boost::math::normal normal;
    // Integrate over the probability of χ², which keeps the integrand smooth and bounded.
    const double top = cdf(chi, most);
    if (!(top > 0))
        return 0;
    auto inside = [&](double u) {
        const double room = reach - critical * std::sqrt(quantile(chi, u) / df);
        return room > 0 ? 2 * cdf(normal, room) - 1 : 0.0;
    };
    return boost::math::quadrature::gauss<double, 30>::integrate(inside, 0.0, top);
}

double powerToSeeSpread(double nu, double ratio, double alpha) {
    const boost::math::fisher_f f(nu - 3, nu - 3);
    const double high = quantile(complement(f, alpha / 2));
    const double variances = ratio * ratio;
    return cdf(complement(f, high / variances)) + cdf(f, 1 / high / variances);
}

double powerToSeeArea(double nu, double ratio, double alpha) {
    const boost::math::normal normal;
    const double bar = quantile(complement(normal, alpha / 2));
    const double shift = std::fabs(std::log(ratio)) / std::sqrt(2 / (nu - 1));
    return cdf(complement(normal, bar - shift)) + cdf(normal, -bar - shift);
}

double smallestGap(const PairPlan& plan, double power, double alpha) {
    return smallestGapFor(plan.standardError(), plan.df(), power, alpha);
}

double smallestGapFor(double standardError, double df, double power, double alpha) {
    auto miss = [&](double noncentrality) { return powerAt(noncentrality, df, alpha) - power; };
    double high = 4;
    while (miss(high) < 0)
        high *= 2;
    const auto [low, up] =
        boost::math::tools::bisect(miss, 0.0, high, [](double a, double b) { return std::fabs(a - b) < 1e-11; });
    return 0.5 * (low + up) * standardError;
}

} // namespace knot::plan
