#include "core/judge/gaps/robust.h"

#include "core/judge/gaps/average.h"
#include "core/judge/gaps/summary.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {

using namespace statistics;
namespace {

// Trimmed mean, and the winsorised sum of squares over h(h − 1).
struct Trimmed {
    double mean = 0, d = 0, h = 0;
};

Trimmed trimmed(std::vector<double> values) {
    std::ranges::sort(values);
    const std::size_t n = values.size();
    const auto g = static_cast<std::size_t>(std::floor(0.2 * static_cast<double>(n)));
    Trimmed t;
    t.mean = trimmedMeanOf(values, 0.2);
    t.h = static_cast<double>(n - 2 * g);
    for (std::size_t i = 0; i < g; ++i) {
        values[i] = values[g];
        values[n - 1 - i] = values[n - 1 - g];
    }
    t.d = squaresAboutMean(values) / (t.h * (t.h - 1));
    return t;
}

} // namespace

std::optional<YuenTest> yuenTest(const Column& column, BuildAt build, BuildAt against) {
    const auto own = comparable(column, build, against).all();
    const auto other = comparable(column, against, build).all();
    if (own.size() < 2 || other.size() < 2)
        return std::nullopt;
    const Trimmed b = trimmed(own);
    const Trimmed a = trimmed(other);
    if (a.h < 2 || b.h < 2 || !(a.d + b.d > 0))
        return std::nullopt;
    YuenTest test;
    test.gap = b.mean - a.mean;
    test.t = test.gap / std::sqrt(a.d + b.d);
    test.df = (a.d + b.d) * (a.d + b.d) / (a.d * a.d / (a.h - 1) + b.d * b.d / (b.h - 1));
    test.p = studentTwoSided(test.t, test.df);
    return test;
}

std::optional<MedianGap> medianGap(const Column& column, BuildAt build, BuildAt against) {
    auto differences = roundDifferences(column, build, against);
    if (differences.empty())
        return std::nullopt;
    std::ranges::sort(differences);
    MedianGap gap{.median = medianOf(differences)};
    // The k-th smallest and largest cover with 1 − 2 P(B ≤ k − 1); the largest k that keeps 95 %.
    const std::size_t n = differences.size();
    for (std::size_t k = n / 2; k >= 1; --k) {
        const double level = 1 - 2 * binomialAtMost(static_cast<int>(k) - 1, static_cast<int>(n), 0.5);
        if (level >= 0.95) {
            gap.interval = Interval{differences[k - 1], differences[n - k], level};
            break;
        }
    }
    return gap;
}

} // namespace knot::judge
