#include "core/statistics/distributions.h"
#include "core/statistics/integral.h"
#include "core/statistics/moments.h"
#include "core/statistics/quantile.h"
#include "core/statistics/ranks.h"
#include "core/statistics/roots.h"
#include "core/statistics/shapley.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <functional>
#include <limits>
#include <numbers>
#include <vector>

using namespace knot::statistics;

namespace {

constexpr double infinite = std::numeric_limits<double>::infinity();
constexpr double notANumber = std::numeric_limits<double>::quiet_NaN();

Approx near(double value) {
    return Approx(value).epsilon(1e-10);
}

// Over many short stretches, for integrands that the distributions are not reckoned with.
double longIntegral(const std::function<double(double)>& function, double low, double high) {
    double sum = 0;
    const int stretches = 60;
    const double width = (high - low) / stretches;
    for (int i = 0; i < stretches; ++i)
        sum += integral(function, low + i * width, low + (i + 1) * width);
    return sum;
}

double binomialTerm(int k, int tries, double chance) {
    return std::exp(std::lgamma(tries + 1) - std::lgamma(k + 1) - std::lgamma(tries - k + 1) + k * std::log(chance) +
                    (tries - k) * std::log1p(-chance));
}

// P(T > bar) of the noncentral t from its definition: a normal over a scaled chi.
double upperByDefinition(double bar, double df, double noncentrality) {
    const double log = std::log(2.0) + 0.5 * df * std::log(0.5 * df) - std::lgamma(0.5 * df);
    return longIntegral(
        [&](double s) {
            return std::exp(log + (df - 1) * std::log(s) - 0.5 * df * s * s) * normalUpper(bar * s - noncentrality);
        },
        1e-12, 6);
}

} // namespace

TEST_CASE("the mean and the spread keep their digits beside a large offset, and say nothing of nothing") {
    CHECK(std::isnan(meanOf({})));
    CHECK(squaresAboutMean({}) == 0);
    CHECK(squaresAboutMean({7}) == 0);
    CHECK(std::isnan(standardDeviation({7})));
    CHECK(meanOf({1, 2, 6}) == 3);
    CHECK(squaresAboutMean({1, 2, 6}) == 14);
    CHECK(standardDeviation({1, 2, 6}) == near(std::sqrt(7.0)));
    CHECK(standardDeviation({1e9 + 1, 1e9 + 2, 1e9 + 6}) == near(std::sqrt(7.0)));
}

TEST_CASE("quantiles interpolate between order statistics") {
    CHECK(std::isnan(medianOf({})));
    CHECK(std::isnan(quantileOf({}, 0.5)));
    CHECK(medianOf({5, 1, 3}) == 3);
    CHECK(medianOf({4, 1, 3, 2}) == 2.5);
    CHECK(quantileOf({4, 1, 3, 2}, 0) == 1);
    CHECK(quantileOf({4, 1, 3, 2}, 1) == 4);
    CHECK(quantileOf({4, 1, 3, 2}, 0.25) == 1.75);
    CHECK(quantileOf({9}, 0.3) == 9);
    for (const double share : {0.0, 0.1, 0.5, 0.77, 1.0})
        CHECK(quantileOf({0, 10, 20, 30, 40, 50, 60, 70, 80, 90, 100}, share) == near(100 * share));
}

TEST_CASE("a trimmed mean takes as many from each end") {
    CHECK(std::isnan(trimmedMeanOf({}, 0.2)));
    CHECK(trimmedMeanOf({1, 2, 3, 100}, 0) == 26.5);
    CHECK(trimmedMeanOf({1, 2, 3, 100}, 0.2) == 26.5); // none of four
    CHECK(trimmedMeanOf({1, 2, 3, 100}, 0.25) == 2.5);
}

TEST_CASE("ways to choose are exact up to the bound, and one more above it") {
    CHECK(waysToChoose(5, 0, 100) == 1);
    CHECK(waysToChoose(5, 5, 100) == 1);
    CHECK(waysToChoose(10, 3, 120) == 120);
    CHECK(waysToChoose(10, 3, 119) == 120);
    CHECK(waysToChoose(30, 15, 1000000000) == 155117520);
    CHECK(waysToChoose(5000, 2500, 20000) == 20001);
    for (std::size_t n = 1; n < 20; ++n) // Pascal's rule
        for (std::size_t k = 1; k < n; ++k)
            CHECK(waysToChoose(n, k, 1000000) == waysToChoose(n - 1, k - 1, 1000000) + waysToChoose(n - 1, k, 1000000));
}

TEST_CASE("Student's t agrees with its closed forms at one and two degrees of freedom") {
    for (const double t : {-30.0, -1.5, 0.0, 0.3, 2.0, 12.0}) {
        CHECK(studentUpper(t, 1) == near(0.5 - std::atan(t) / std::numbers::pi));
        CHECK(studentUpper(t, 2) == near(0.5 * (1 - t / std::sqrt(2 + t * t))));
        CHECK(studentTwoSided(t, 2) == near(2 * studentUpper(std::fabs(t), 2)));
    }
    CHECK(studentUpper(infinite, 3) == 0);
    CHECK(studentUpper(-infinite, 3) == 1);
    CHECK(studentQuantile(0.975, 1) == near(std::tan(std::numbers::pi * 0.475)));
    CHECK(studentUpperQuantile(0.025, 2) == near(2 * 0.475 * std::sqrt(2 / (4 * 0.975 * 0.025))));
}

TEST_CASE("quantiles undo their distributions, far out in the tail too") {
    for (const double p : {1e-12, 1e-6, 0.01, 0.3, 0.5, 0.9}) {
        CHECK(normalLower(normalQuantile(p)) == near(p));
        CHECK(normalUpper(normalUpperQuantile(p)) == near(p));
        for (const double df : {1.0, 2.7, 14.0, 400.0}) {
            CHECK(studentUpper(studentUpperQuantile(p, df), df) == near(p));
            CHECK(chiSquareLower(chiSquareQuantile(p, df), df) == near(p));
            CHECK(fisherUpper(fisherUpperQuantile(p, 5, df), 5, df) == near(p));
        }
    }
}

TEST_CASE("the normal, F and chi-square agree with their closed forms") {
    for (const double z : {-9.0, -1.96, 0.0, 0.5, 8.0}) {
        CHECK(normalUpper(z) == near(0.5 * std::erfc(z / std::sqrt(2.0))));
        CHECK(normalLower(z) == near(normalUpper(-z)));
    }
    for (const double x : {0.1, 3.0, 80.0}) {
        CHECK(chiSquareUpper(x, 2) == near(std::exp(-0.5 * x)));
        CHECK(chiSquareLower(x, 1) == near(std::erf(std::sqrt(0.5 * x))));
        CHECK(fisherUpper(x, 2, 9) == near(std::pow(1 + 2 * x / 9, -4.5)));
        CHECK(fisherLower(x, 2, 9) == near(1 - std::pow(1 + 2 * x / 9, -4.5)));
        CHECK(fisherUpper(x, 1, 7) == near(studentTwoSided(std::sqrt(x), 7)));
    }
    CHECK(fisherUpper(infinite, 2, 9) == 0);
    CHECK(fisherLower(infinite, 2, 9) == 1);
}

TEST_CASE("the noncentral t agrees with its definition") {
    CHECK(noncentralBeyond(2.5, 6, 0) == near(studentTwoSided(2.5, 6)));
    for (const double df : {3.0, 11.0, 60.0})
        for (const double away : {0.4, 2.0, 5.0}) {
            const double upper = upperByDefinition(2.2, df, away);
            CHECK(noncentralUpper(2.2, df, away) == Approx(upper).epsilon(1e-7));
            CHECK(noncentralBeyond(2.2, df, away) == Approx(upper + upperByDefinition(2.2, df, -away)).epsilon(1e-7));
        }
}

TEST_CASE("trigamma is what the logarithm of a sum of squares varies by") {
    CHECK(trigamma(1) == Approx(M_PI * M_PI / 6));
    CHECK(trigamma(0.5) == Approx(M_PI * M_PI / 2));
    CHECK(trigamma(11) == Approx(trigamma(10) - 0.01));
}

TEST_CASE("the binomial sums its terms; fewer than none is certain or impossible") {
    double sum = 0;
    for (int k = 0; k <= 10; ++k) {
        CHECK(binomialAtLeast(k, 10, 0.3) == Approx(1 - sum).margin(1e-12));
        sum += binomialTerm(k, 10, 0.3);
        CHECK(binomialAtMost(k, 10, 0.3) == near(sum));
    }
    CHECK(binomialAtMost(-1, 10, 0.3) == 0);
    CHECK(binomialAtLeast(-1, 10, 0.3) == 1);
    CHECK(binomialAtLeast(0, 10, 0.3) == 1);
}

TEST_CASE("outside its domain a distribution gives no number, and never throws") {
    for (const double bad : {0.0, -2.0, notANumber}) {
        INFO("degrees of freedom " << bad);
        CHECK(std::isnan(studentUpper(1, bad)));
        CHECK(std::isnan(studentQuantile(0.9, bad)));
        CHECK(std::isnan(chiSquareUpper(1, bad)));
        CHECK(std::isnan(fisherUpper(1, bad, 4)));
        CHECK(std::isnan(fisherUpper(1, 4, bad)));
        CHECK(std::isnan(noncentralBeyond(2, bad, 1)));
    }
    for (const double bad : {-0.1, 1.1, notANumber}) {
        CHECK(std::isnan(studentQuantile(bad, 4)));
        CHECK(std::isnan(normalQuantile(bad)));
        CHECK(std::isnan(chiSquareQuantile(bad, 4)));
        CHECK(std::isnan(binomialAtMost(2, 5, bad)));
    }
    CHECK(std::isnan(normalUpper(notANumber)));
    CHECK(std::isnan(studentUpper(notANumber, 4)));
}

TEST_CASE("a root is found beyond the first bracket, or there is none") {
    CHECK(rootFrom([](double x) { return x * x - 2; }, 0, 2).value() == near(std::sqrt(2.0)));
    CHECK(rootFrom([](double x) { return 1000 - x; }, 0, 1).value() == near(1000));
    CHECK(rootFrom([](double x) { return x; }, 0, 1).value() == 0);
    CHECK(rootFrom([](double x) { return 1 - x; }, 0, 1).value() == 1);
    CHECK(!rootFrom([](double x) { return x * x + 1; }, 0, 1));
    CHECK(!rootFrom([](double) { return notANumber; }, 0, 1));
    CHECK(!rootFrom([](double x) { return x > 3 ? infinite : -1.0; }, 0, 1));
}

TEST_CASE("the rules integrate what is wide and what is narrow") {
    CHECK(integral([](double x) { return x * x; }, 0, 3) == near(9));
    CHECK(integral([](double x) { return std::sin(x); }, 0, std::numbers::pi) == near(2));
    for (const double end : {3.0, 8.0, 400.0}) {
        const HalfRule rule = gaussHalf(end, 1);
        double all = 0, bell = 0;
        for (std::size_t i = 0; i < rule.at.size(); ++i) {
            CHECK(rule.at[i] > 0);
            CHECK(rule.at[i] < end);
            all += rule.weight[i];
            bell += rule.weight[i] * std::exp(-0.5 * rule.at[i] * rule.at[i]);
        }
        CHECK(all == near(end));
        CHECK(bell == near(std::sqrt(0.5 * std::numbers::pi) * std::erf(end / std::sqrt(2.0))));
    }
}

TEST_CASE("ranks: pairs, Spearman, Fisher's exact and sign tests against counts by hand") {
    using namespace knot::statistics;
    CHECK(pairsAbove({1, 2, 2, 5}, {0, 2, 3, 5}) == Approx(0 + (1 + 1) + 3 + 3.5));
    CHECK(pairsAbove({}, {1}) == 0);
    CHECK(*spearman({1, 2, 3, 4}, {10, 20, 30, 45}) == Approx(1));
    CHECK(*spearman({1, 2, 3, 4}, {4, 3, 2, 1}) == Approx(-1));
    CHECK(*spearman({1, 2, 2, 4}, {1, 2, 3, 4}) == Approx(4.5 / std::sqrt(4.5 * 5)));
    // Counted by hand over all orders: 6 of 6, and of 40,320, with ties and without.
    CHECK(*spearmanByLuck({1, 2, 3}, {1, 3, 2}) == 1);
    CHECK(*spearmanByLuck({1, 2, 3, 4, 5, 6, 7, 8}, {2, 1, 4, 3, 8, 5, 6, 7}) == Approx(878.0 / 40320));
    CHECK(*spearmanByLuck({3, 3, 5, 6, 6, 6, 8, 9}, {150, 148, 151, 153, 152, 155, 154, 156.5}) ==
          Approx(120.0 / 40320));
    CHECK(!spearmanByLuck({1, 1, 1}, {1, 2, 3}));
    CHECK(!spearman({1, 1, 1}, {1, 2, 3}));
    CHECK(!spearman({1, 2}, {1, 2}));
    CHECK(fisherExact(3, 4, 1, 4) == Approx(34.0 / 70)); // the lady tasting tea
    CHECK(fisherExact(0, 5, 0, 7) == Approx(1));
    CHECK(fisherExact(5, 5, 0, 5) == Approx(2.0 / 252));
    CHECK(signTest(8, 8) == Approx(2.0 / 256));
    CHECK(signTest(4, 8) == 1);
    CHECK(signTest(0, 0) == 1);
}

TEST_CASE("Shapley's shares sum to the whole, treat alikes alike and give nothing to who adds nothing") {
    using knot::statistics::shapley;
    // Two players who only together are worth 6, a third adds 1 always, a fourth nothing.
    std::vector<double> worth;
    for (unsigned set = 0; set < 16; ++set)
        worth.push_back(((set & 3U) == 3 ? 6 : 0) + ((set & 4U) != 0 ? 1 : 0));
    const auto shares = shapley(worth);
    REQUIRE(shares.size() == 4);
    CHECK(shares[0] == Approx(3));
    CHECK(shares[1] == Approx(3));
    CHECK(shares[2] == Approx(1));
    CHECK(shares[3] == Approx(0).margin(1e-15));
    CHECK(shapley({5}).empty());
}
