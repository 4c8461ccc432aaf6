#include "core/plan/looks.h"

#include "core/statistics/distributions.h"
#include "core/statistics/integral.h"
#include "core/statistics/roots.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace knot::plan {
namespace {

using namespace statistics;

// A boundary of |Z| that is never crossed.
constexpr double farthest = 38;

double spentBy(double t, double alpha) {
    const double z = normalUpperQuantile(alpha / 4);
    return 4 * normalUpper(z / std::sqrt(t));
}

// The density of the score S = Z√t of tests that were not stopped. It is even, so only its points at
// and above 0 are kept, each standing for itself and its mirror image: Gauss–Legendre points up to the
// last boundary, since the integrands are Gaussian and a hundred points are exact to rounding.
struct Density {
    std::vector<double> at, weight, value;
};

Density grid(double edge, double detail) {
    auto [at, weight] = gaussHalf(edge, detail);
    const std::size_t points = at.size();
    return {std::move(at), std::move(weight), std::vector<double>(points)};
}

// The chance that a test that went on crosses ±edge at the next look.
double crossing(const Density& last, double edge, double sd) {
    double chance = 0;
    for (std::size_t i = 0; i < last.at.size(); ++i)
        chance += 2 * last.weight[i] * last.value[i] *
                  (normalUpper((edge - last.at[i]) / sd) + normalLower((-edge - last.at[i]) / sd));
    return chance;
}

// `detail` is the SD of the step to the look after this.
Density carriedOn(const Density& last, double edge, double sd, double detail) {
    Density next = grid(edge, std::min(sd, detail));
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
        // What is left to spend can be less than a double holds; then this look can't end the test.
        const double edge = rootFrom(miss, 1e-6, 10 * std::sqrt(t) + 1).value_or(farthest * std::sqrt(t));
        const double z = edge / std::sqrt(t);
        const double nominal = 2 * normalUpper(z);
        looks.push_back({.information = t, .z = z, .nominal = nominal, .level = 0.75 * nominal});
        if (looks.size() < information.size())
            density = carriedOn(density, edge, sd, std::sqrt(information[looks.size()] - t));
        done = t;
        spent += share;
    }
    return looks;
}

double levelAt(const record::Card& card, std::size_t roundsDone) {
    if (card.looks == record::Looks::none || card.plannedRounds < 2)
        return card.alpha;
    if (roundsDone < 2)
        return 0;
    const auto planned = static_cast<std::size_t>(card.plannedRounds);
    std::vector<double> information;
    for (std::size_t done = 2; done <= std::min(roundsDone, planned); ++done)
        information.push_back(static_cast<double>(done) / static_cast<double>(planned));
    return lookBoundaries(information, card.alpha).back().level;
}

} // namespace knot::plan
