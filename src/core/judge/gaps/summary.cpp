#include "core/judge/gaps/summary.h"

#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {

using namespace statistics;

Interval meanInterval(const std::vector<double>& values, double level) {
    const auto n = static_cast<double>(values.size());
    const double reach = studentQuantile(0.5 + level / 2, n - 1) * standardDeviation(values) / std::sqrt(n);
    const double mean = meanOf(values);
    return {mean - reach, mean + reach, level};
}

namespace {

double medianDeviation(const std::vector<double>& values) {
    const double centre = medianOf(values);
    std::vector<double> deviations;
    deviations.reserve(values.size());
    for (const double v : values)
        deviations.push_back(std::fabs(v - centre));
    return medianOf(std::move(deviations));
}

std::optional<double> withinTurnSd(const BuildValues& build) {
    double squares = 0;
    std::size_t df = 0;
    for (const auto& turn : build.turns) {
        squares += squaresAboutMean(turn.values);
        df += turn.values.size() - 1;
    }
    if (df == 0)
        return std::nullopt;
    return std::sqrt(squares / static_cast<double>(df));
}

} // namespace

std::optional<Summary> summarise(const Column& column, BuildAt build) {
    const BuildValues& own = column.builds[build];
    const std::vector<double> values = own.all();
    if (values.empty())
        return std::nullopt;
    Summary s{.metric = column.metric, .build = build, .n = values.size(), .turns = own.turns.size()};
    s.mean = meanOf(values);
    s.median = medianOf(values);
    s.mad = 1.4826 * medianDeviation(values);
    const auto [low, high] = std::ranges::minmax(values);
    s.min = low;
    s.max = high;
    s.trimmedMean = trimmedMeanOf(values, 0.2);
    s.withinTurnSd = withinTurnSd(own);
    if (values.size() >= 2) {
        s.sd = standardDeviation(values);
        s.standardError = *s.sd / std::sqrt(static_cast<double>(s.n));
    }
    s.intervalFromShots = own.turns.size() == 1;
    const std::vector<double> basis = s.intervalFromShots ? values : own.turnMeans();
    if (basis.size() >= 2)
        s.ci95 = meanInterval(basis, 0.95);
    return s;
}

} // namespace knot::judge
