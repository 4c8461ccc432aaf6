#include "core/judge/spreads/shares.h"

#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {

using namespace statistics;

Interval wilson(double hits, double n, double level) {
    const double z = normalQuantile(0.5 + level / 2);
    const double share = hits / n;
    const double centre = (share + z * z / (2 * n)) / (1 + z * z / n);
    const double reach = z / (1 + z * z / n) * std::sqrt(share * (1 - share) / n + z * z / (4 * n * n));
    return {std::max(0.0, centre - reach), std::min(1.0, centre + reach), level};
}

std::optional<Share> shareByTurns(const std::vector<std::vector<bool>>& turns) {
    Share s;
    double squares = 0;
    for (const auto& turn : turns) {
        if (turn.empty())
            continue;
        ++s.turns;
        s.n += turn.size();
        s.hits += static_cast<std::size_t>(std::ranges::count(turn, true));
        squares += static_cast<double>(turn.size() * turn.size());
    }
    if (s.n == 0)
        return std::nullopt;
    const auto n = static_cast<double>(s.n);
    const auto groups = static_cast<double>(s.turns);
    s.share = static_cast<double>(s.hits) / n;
    s.effective = n;
    if (s.turns >= 2 && s.n > s.turns) {
        double between = 0;
        double within = 0;
        for (const auto& turn : turns) {
            if (turn.empty())
                continue;
            const auto size = static_cast<double>(turn.size());
            const double own = static_cast<double>(std::ranges::count(turn, true)) / size;
            between += size * (own - s.share) * (own - s.share);
            within += size * own * (1 - own);
        }
        const double msb = between / (groups - 1);
        const double msw = within / (n - groups);
        const double n0 = (n - squares / n) / (groups - 1);
        const double denominator = msb + (n0 - 1) * msw;
        s.icc = denominator > 0 ? std::max(0.0, (msb - msw) / denominator) : 0;
    }
    // One stint does not show how alike its shots are: as alike as stints of a club player usually make them.
    constexpr double usualLikeness = 0.15;
    if (s.turns == 1) {
        s.deff = 1 + (n - 1) * usualLikeness;
        s.effective = n / s.deff;
    } else {
        s.deff = 1 + (squares / n - 1) * s.icc;
        const double shrink = studentQuantile(0.975, n - 1) / studentQuantile(0.975, groups - 1);
        s.effective = std::min(n, n / s.deff * shrink * shrink);
    }
    s.ci95 = wilson(s.share * s.effective, s.effective, 0.95);
    return s;
}

double luckyMatches(int right, int builds) {
    // P(exactly k fixed points of n) = (1/k!) Σ_{j=0}^{n−k} (−1)^j/j!
    double atLeast = 0;
    double factorialK = 1;
    for (int k = 0; k <= builds; ++k) {
        factorialK *= k > 0 ? k : 1;
        double series = 0;
        double term = 1;
        for (int j = 0; j <= builds - k; ++j) {
            series += j == 0 ? 1 : (term *= -1.0 / j);
        }
        if (k >= right)
            atLeast += series / factorialK;
    }
    return std::clamp(atLeast, 0.0, 1.0);
}

double luckyGuesses(int right, int tries, int builds) {
    return binomialAtLeast(right, tries, 1.0 / builds);
}

} // namespace knot::judge
