#include "core/plan/looks.h"

#include <boost/math/distributions/normal.hpp>
#include <boost/math/tools/roots.hpp>

#include <algorithm>
#include <cmath>

namespace knot::plan {
namespace {

const boost::math::normal standard;

double spentBy(double t, double alpha) {
    const double z = quantile(complement(standard, alpha / 4));
    return 4 * cdf(complement(standard, z / std::sqrt(t)));
}

// The density of the score S = Z√t of tests that were not stopped, on Simpson points between the
// last boundaries.
struct Density {
    std::vector<double> at, weight, value;
};

Density grid(double edge) {
    constexpr int intervals = 600;
    Density d;
    const double step = 2 * edge / intervals;
    for (int i = 0; i <= intervals; ++i) {
        d.at.push_back(-edge + step * i);
        d.weight.push_back(step / 3 * (i == 0 || i == intervals ? 1 : i % 2 == 1 ? 4 : 2));
        d.value.push_back(0);
    }
    return d;
}

// The chance that a test that went on crosses ±edge at the next look.
double crossing(const Density& last, double edge, double sd) {
    double chance = 0;
    for (std::size_t i = 0; i < last.at.size(); ++i)
        chance += last.weight[i] * last.value[i] *
                  (cdf(complement(standard, (edge - last.at[i]) / sd)) + cdf(standard, (-edge - last.at[i]) / sd));
    return chance;
}

Density carriedOn(const Density& last, double edge, double sd) {
    Density next = grid(edge);
    for (std::size_t j = 0; j < next.at.size(); ++j)
        for (std::size_t i = 0; i < last.at.size(); ++i)
            next.value[j] += last.weight[i] * last.value[i] * pdf(standard, (next.at[j] - last.at[i]) / sd) / sd;
    return next;
}

} // namespace

std::vector<Look> lookBoundaries(const std::vector<double>& information, double alpha) {
    std::vector<Look> looks;
    Density density{.at = {0}, .weight = {1}, .value = {1}};
    double done = 0;
    double spent = 0;
    for (const double t : information) {
        const double share = spentBy(t, alpha) - spent;
        const double sd = std::sqrt(t - done);
        auto miss = [&](double edge) { return crossing(density, edge, sd) - share; };
        const auto [low, high] = boost::math::tools::bisect(
            miss, 1e-6, 10 * std::sqrt(t) + 1, [](double a, double b) { return std::fabs(a - b) < 1e-11; });
        const double edge = 0.5 * (low + high);
        const double z = edge / std::sqrt(t);
        const double nominal = 2 * cdf(complement(standard, z));
        looks.push_back({.information = t, .z = z, .nominal = nominal, .level = 0.75 * nominal});
        density = carriedOn(density, edge, sd);
        done = t;
        spent += share;
    }
    return looks;
}

} // namespace knot::plan
