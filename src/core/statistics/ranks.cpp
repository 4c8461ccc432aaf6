#include "core/statistics/ranks.h"

#include "core/statistics/distributions.h"
#include "core/statistics/moments.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numeric>

namespace knot::statistics {
namespace {

std::vector<double> ranksOf(const std::vector<double>& values) {
    std::vector<std::size_t> order(values.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::sort(order, {}, [&](std::size_t i) { return values[i]; });
    std::vector<double> ranks(values.size());
    for (std::size_t from = 0; from < order.size();) {
        std::size_t to = from + 1;
        while (to < order.size() && values[order[to]] == values[order[from]])
            ++to;
        for (std::size_t i = from; i < to; ++i)
            ranks[order[i]] = 0.5 * static_cast<double>(from + to - 1);
        from = to;
    }
    return ranks;
}

double logChoose(double n, double k) {
    return std::lgamma(n + 1) - std::lgamma(k + 1) - std::lgamma(n - k + 1);
}

} // namespace

double pairsAbove(const std::vector<double>& a, const std::vector<double>& b) {
    double pairs = 0;
    std::size_t under = 0;
    std::size_t upTo = 0;
    for (const double value : b) {
        while (under < a.size() && a[under] < value)
            ++under;
        upTo = std::max(upTo, under);
        while (upTo < a.size() && a[upTo] == value)
            ++upTo;
        pairs += 0.5 * static_cast<double>(under + upTo);
    }
    return pairs;
}

std::optional<double> spearman(const std::vector<double>& x, const std::vector<double>& y) {
    if (x.size() < 3)
        return std::nullopt;
    const auto rx = ranksOf(x);
    const auto ry = ranksOf(y);
    const double mx = meanOf(rx);
    const double my = meanOf(ry);
    double xy = 0;
    for (std::size_t i = 0; i < rx.size(); ++i)
        xy += (rx[i] - mx) * (ry[i] - my);
    const double scale = std::sqrt(squaresAboutMean(rx) * squaresAboutMean(ry));
    return scale > 0 ? std::optional(xy / scale) : std::nullopt;
}

namespace {

// Of all orders of one list of ranks the share whose sum of products with the other lies as far from its mean. Each
// order is made from the one before by one exchange (Heap 1963), so that a sum costs two products.
double shareOfOrders(std::vector<double> x, const std::vector<double>& y) {
    const double middle = meanOf(x) * meanOf(y) * static_cast<double>(x.size());
    double sum = std::inner_product(x.begin(), x.end(), y.begin(), 0.0);
    const double seen = std::fabs(sum - middle) - 1e-9;
    double far = 1;
    double all = 1;
    std::vector<std::size_t> turn(x.size());
    for (std::size_t i = 1; i < x.size();) {
        if (turn[i] == i) {
            turn[i++] = 0;
            continue;
        }
        const std::size_t j = i % 2 == 0 ? 0 : turn[i];
        sum += (x[j] - x[i]) * (y[i] - y[j]);
        std::swap(x[i], x[j]);
        far += std::fabs(sum - middle) >= seen ? 1 : 0;
        ++all;
        ++turn[i];
        i = 1;
    }
    return far / all;
}

} // namespace

std::optional<double> spearmanByLuck(const std::vector<double>& x, const std::vector<double>& y) {
    constexpr std::size_t mostCounted = 9;
    const auto rho = spearman(x, y);
    if (!rho)
        return std::nullopt;
    if (x.size() <= mostCounted)
        return shareOfOrders(ranksOf(x), ranksOf(y));
    const double rest = 1 - *rho * *rho;
    const auto df = static_cast<double>(x.size() - 2);
    return rest > 0 ? studentTwoSided(*rho * std::sqrt(df / rest), df) : 0;
}

double fisherExact(std::size_t hitsA, std::size_t nA, std::size_t hitsB, std::size_t nB) {
    const auto a = static_cast<double>(nA);
    const auto b = static_cast<double>(nB);
    const std::size_t hits = hitsA + hitsB;
    auto likely = [&](std::size_t inA) {
        return logChoose(a, static_cast<double>(inA)) + logChoose(b, static_cast<double>(hits - inA)) -
               logChoose(a + b, static_cast<double>(hits));
    };
    const double seen = likely(hitsA);
    double p = 0;
    for (std::size_t inA = hits > nB ? hits - nB : 0; inA <= std::min(hits, nA); ++inA)
        if (const double other = likely(inA); other <= seen + 1e-7)
            p += std::exp(other);
    return std::min(p, 1.0);
}

double signTest(std::size_t count, std::size_t of) {
    if (of == 0)
        return 1;
    const auto fewer = static_cast<int>(std::min(count, of - count));
    return std::min(1.0, 2 * binomialAtMost(fewer, static_cast<int>(of), 0.5));
}

namespace {

double orderVariance(const std::vector<double>& sizes, const std::vector<double>& ties, double n) {
    auto sum = [](const std::vector<double>& counts, auto term) {
        double total = 0;
        for (const double c : counts)
            total += term(c);
        return total;
    };
    auto cubic = [](double c) { return c * (c - 1) * (2 * c + 5); };
    auto triple = [](double c) { return c * (c - 1) * (c - 2); };
    auto twice = [](double c) { return c * (c - 1); };
    double variance = (cubic(n) - sum(sizes, cubic) - sum(ties, cubic)) / 72;
    if (n > 2)
        variance += sum(sizes, triple) * sum(ties, triple) / (36 * triple(n));
    return variance + sum(sizes, twice) * sum(ties, twice) / (8 * twice(n));
}

// How many of the values of a higher group lie above those of a lower one; a tie is half.
double concordant(const std::vector<double>& low, const std::vector<double>& high) {
    double pairs = 0;
    for (const double a : low)
        for (const double b : high)
            pairs += a < b ? 1 : a == b ? 0.5 : 0;
    return pairs;
}

} // namespace

std::optional<OrderTest> jonckheere(const std::vector<std::vector<double>>& groups) {
    std::map<double, double> counts;
    std::vector<double> sizes;
    double n = 0;
    double squares = 0;
    for (const auto& group : groups) {
        for (const double value : group)
            ++counts[value];
        sizes.push_back(static_cast<double>(group.size()));
        n += sizes.back();
        squares += sizes.back() * sizes.back();
    }
    std::vector<double> ties;
    ties.reserve(counts.size());
    for (const auto& [value, count] : counts)
        ties.push_back(count);
    const double variance = n > 1 ? orderVariance(sizes, ties, n) : 0;
    if (!(variance > 0))
        return std::nullopt;
    OrderTest test;
    for (std::size_t low = 0; low < groups.size(); ++low)
        for (std::size_t high = low + 1; high < groups.size(); ++high)
            test.j += concordant(groups[low], groups[high]);
    test.z = (test.j - (n * n - squares) / 4) / std::sqrt(variance);
    test.p = 2 * normalUpper(std::fabs(test.z));
    return test;
}

} // namespace knot::statistics
