#include "core/judge/gaps/shuffle.h"

#include "core/judge/columns.h"
#include "core/judge/resample.h"
#include "core/random.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace knot::judge {

using namespace statistics;
namespace {

constexpr std::uint64_t largestCount = 200000;
constexpr int mostDraws = 20000;
constexpr std::size_t bins = 41;

// Gathers shuffled gaps: how many reach the real one, and the histogram for the picture. The
// middle bin is centred on 0 and the real gap lies inside the outer edges.
class Tally {
public:
    Tally(double observed, double reach, double scale)
        : m_bar(std::fabs(observed) - 1e-12 * scale) {
        const double edge = std::max(reach, std::fabs(observed)) * 1.0001;
        m_check.high = edge > 0 ? edge : 1;
        m_check.low = -m_check.high;
        m_check.histogram.assign(bins, 0);
        m_perUnit = static_cast<double>(bins) / (2 * m_check.high);
    }
    void add(double gap) {
        m_reached += std::fabs(gap) >= m_bar ? 1 : 0;
        const auto bin = static_cast<std::ptrdiff_t>((gap - m_check.low) * m_perUnit);
        const auto last = static_cast<std::ptrdiff_t>(bins) - 1;
        ++m_check.histogram[static_cast<std::size_t>(std::clamp<std::ptrdiff_t>(bin, 0, last))];
        ++m_check.arrangements;
    }
    ShuffleCheck exact() && {
        m_check.p = static_cast<double>(m_reached) / static_cast<double>(m_check.arrangements);
        return std::move(m_check);
    }
    ShuffleCheck drawn() && {
        m_check.exact = false;
        m_check.p = static_cast<double>(m_reached + 1) / static_cast<double>(m_check.arrangements + 1);
        return std::move(m_check);
    }

private:
    ShuffleCheck m_check;
    double m_bar = 0, m_perUnit = 0;
    std::uint64_t m_reached = 0;
};

std::vector<double> centred(const std::vector<double>& a, const std::vector<double>& b) {
    std::vector<double> pooled(a);
    pooled.insert(pooled.end(), b.begin(), b.end());
    const double mean = meanOf(pooled);
    for (double& v : pooled)
        v -= mean;
    // The order in which shots stand must not reach the random draws.
    const auto border = pooled.begin() + static_cast<std::ptrdiff_t>(a.size());
    std::sort(pooled.begin(), border);
    std::sort(border, pooled.end());
    return pooled;
}

double sumOfSizes(const std::vector<double>& values) {
    return std::accumulate(values.begin(), values.end(), 0.0, [](double sum, double v) { return sum + std::fabs(v); });
}

// Walks every choice of `left` values from position `from` on, carrying the sum of the chosen.
template<typename Visit>
void choose(const std::vector<double>& values, std::size_t from, std::size_t left, double sum, const Visit& visit) {
    if (left == 0) {
        visit(sum);
        return;
    }
    for (std::size_t i = from; i + left <= values.size(); ++i)
        choose(values, i + 1, left - 1, sum + values[i], visit);
}

// Sums of a list under every pattern of signs.
std::vector<double> signedSums(const std::vector<double>& values, std::size_t from, std::size_t to) {
    std::vector<double> sums{0};
    for (std::size_t i = from; i < to; ++i) {
        const std::size_t half = sums.size();
        sums.resize(2 * half);
        for (std::size_t j = 0; j < half; ++j) {
            sums[half + j] = sums[j] - values[i];
            sums[j] += values[i];
        }
    }
    return sums;
}

} // namespace

ShuffleCheck shuffleLabels(const std::vector<double>& build, const std::vector<double>& against, std::uint64_t seed) {
    std::vector<double> pooled = centred(build, against);
    const auto nBuild = static_cast<double>(build.size());
    const auto nAgainst = static_cast<double>(against.size());
    // The pooled values sum to 0, so the gap follows from the sum of one side.
    const double perSum = 1 / nBuild + 1 / nAgainst;
    const double observed =
        perSum * std::accumulate(pooled.begin(), pooled.begin() + static_cast<std::ptrdiff_t>(build.size()), 0.0);
    const double scale = sumOfSizes(pooled) * perSum;
    const double reach = 4 * std::sqrt(squaresAboutMean(pooled) / static_cast<double>(pooled.size()) * perSum);
    Tally tally(observed, reach, scale);
    if (waysToChoose(pooled.size(), build.size(), largestCount) <= largestCount) {
        choose(pooled, 0, build.size(), 0, [&](double sum) { tally.add(sum * perSum); });
        return std::move(tally).exact();
    }
    Random random(seed);
    const int draws = drawsFor(mostDraws, pooled.size());
    for (int draw = 0; draw < draws; ++draw) {
        double sum = 0;
        for (std::size_t i = 0; i < build.size(); ++i) {
            std::swap(pooled[i], pooled[i + random.below(pooled.size() - i)]);
            sum += pooled[i];
        }
        tally.add(sum * perSum);
    }
    return std::move(tally).drawn();
}

ShuffleCheck flipSigns(const std::vector<double>& differences, std::uint64_t seed) {
    const std::size_t rounds = differences.size();
    const double perSum = 1 / static_cast<double>(rounds);
    const double observed = meanOf(differences);
    double squares = 0;
    for (const double d : differences)
        squares += d * d;
    Tally tally(observed, 4 * std::sqrt(squares) * perSum, sumOfSizes(differences) * perSum);
    if (rounds <= 20) {
        const auto low = signedSums(differences, 0, rounds / 2);
        const auto high = signedSums(differences, rounds / 2, rounds);
        for (const double h : high)
            for (const double l : low)
                tally.add((h + l) * perSum);
        return std::move(tally).exact();
    }
    // A bit is enough for each sign, and eight of them find what eight differences come to.
    std::vector<std::vector<double>> eights;
    for (std::size_t from = 0; from < rounds; from += 8)
        eights.push_back(signedSums(differences, from, std::min(from + 8, rounds)));
    Random random(seed);
    const int draws = drawsFor(mostDraws, rounds);
    for (int draw = 0; draw < draws; ++draw) {
        double sum = 0;
        std::uint64_t signs = 0;
        for (std::size_t i = 0; i < eights.size(); ++i) {
            signs = i % 8 == 0 ? random.bits() : signs >> 8U;
            sum += eights[i][signs & (eights[i].size() - 1)];
        }
        tally.add(sum * perSum);
    }
    return std::move(tally).drawn();
}

} // namespace knot::judge
