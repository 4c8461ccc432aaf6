#include "core/plan/looks.h"

#include <boost/math/distributions/normal.hpp>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/tools/toms748_solve.hpp>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace knot::plan {
namespace {

const boost::math::normal standard;

double spentBy(double t, double alpha) {
    const double z = quantile(complement(standard, alpha / 4));
    return 4 * cdf(complement(standard, z / std::sqrt(t)));
}

// The density of the score S = Z√t of tests that were not stopped. It is even, so only its points at
// and above 0 are kept, each standing for itself and its mirror image: Gauss–Legendre points up to the
// last boundary, since the integrands are Gaussian and a hundred points are exact to rounding.
struct Density {
    std::vector<double> at, weight, value;
};

Density grid(double edge) {
    using Rule = boost::math::quadrature::gauss<double, 100>;
    Density d;
    for (std::size_t i = 0; i < Rule::abscissa().size(); ++i) {
        d.at.push_back(edge * Rule::abscissa()[i]);
        d.weight.push_back(edge * Rule::weights()[i]);
        d.value.push_back(0);
    }
    return d;
}

// The chance that a test that went on crosses ±edge at the next look.
double crossing(const Density& last, double edge, double sd) {
    double chance = 0;
    for (std::size_t i = 0; i < last.at.size(); ++i)
        chance += 2 * last.weight[i] * last.value[i] *
                  (cdf(complement(standard, (edge - last.at[i]) / sd)) + cdf(standard, (-edge - last.at[i]) / sd));
    return chance;
}

Density carriedOn(const Density& last, double edge, double sd) {
    Density next = grid(edge);
    const double scale = 1 / (sd * std::sqrt(2 * std::numbers::pi));
    auto kernel = [sd](double step) { return std::exp(-0.5 * step * step / (sd * sd)); };
    for (std::size_t j = 0; j < next.at.size(); ++j)
        for (std::size_t i = 0; i < last.at.size(); ++i)
            next.value[j] += scale * last.weight[i] * last.value[i] *
                             (kernel(next.at[j] - last.at[i]) + kernel(next.at[j] + last.at[i]));
    return next;
}

} // namespace

std::vector<Look> lookBoundaries(const std::vector<double>& information, double alpha) {
    std::vector<Look> looks;
    Density density{.at = {0}, .weight = {0.5}, .value = {1}};
    double done = 0;
    double spent = 0;
    for (const double t : information) {
        const double share = spentBy(t, alpha) - spent;
        const double sd = std::sqrt(t - done);
        auto miss = [&](double edge) { return crossing(density, edge, sd) - share; };
        boost::uintmax_t steps = 100;
        const auto [low, high] = boost::math::tools::toms748_solve(
            miss, 1e-6, 10 * std::sqrt(t) + 1, [](double a, double b) { return std::fabs(a - b) < 1e-11; }, steps);
        const double edge = 0.5 * (low + high);
        const double z = edge / std::sqrt(t);
        const double nominal = 2 * cdf(complement(standard, z));
        looks.push_back({.information = t, .z = z, .nominal = nominal, .level = 0.75 * nominal});
        if (looks.size() < information.size())
            density = carriedOn(density, edge, sd);
        done = t;
        spent += share;
    }
    return looks;
}

} // namespace knot::plan
