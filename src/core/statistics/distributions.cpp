#include "core/statistics/distributions.h"

#include <boost/math/distributions/binomial.hpp>
#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <boost/math/special_functions/trigamma.hpp>

#include <cmath>
#include <limits>

namespace knot::statistics {
namespace {

namespace policies = boost::math::policies;

using Quiet =
    policies::policy<policies::domain_error<policies::ignore_error>, policies::pole_error<policies::ignore_error>,
                     policies::overflow_error<policies::ignore_error>,
                     policies::evaluation_error<policies::ignore_error>,
                     policies::rounding_error<policies::ignore_error>, policies::promote_double<false>>;
using StudentT = boost::math::students_t_distribution<double, Quiet>;
using NoncentralT = boost::math::non_central_t_distribution<double, Quiet>;
using FisherF = boost::math::fisher_f_distribution<double, Quiet>;
using ChiSquare = boost::math::chi_squared_distribution<double, Quiet>;
using Normal = boost::math::normal_distribution<double, Quiet>;
using Binomial = boost::math::binomial_distribution<double, Quiet>;

// Boost's F takes none in the denominator for a number.
bool haveDegrees(double df1, double df2) {
    return df1 > 0 && df2 > 0;
}

} // namespace

double studentUpper(double t, double df) {
    if (std::isinf(t))
        return t > 0 ? 0 : 1;
    return cdf(complement(StudentT(df), t));
}

double studentTwoSided(double t, double df) {
    return 2 * studentUpper(std::fabs(t), df);
}

double studentQuantile(double probability, double df) {
    return quantile(StudentT(df), probability);
}

double studentUpperQuantile(double probability, double df) {
    return quantile(complement(StudentT(df), probability));
}

double noncentralBeyond(double bar, double df, double noncentrality) {
    const NoncentralT t(df, noncentrality);
    return cdf(complement(t, bar)) + cdf(t, -bar);
}

double noncentralUpper(double bar, double df, double noncentrality) {
    return cdf(complement(NoncentralT(df, noncentrality), bar));
}

double trigamma(double x) {
    return boost::math::trigamma(x, Quiet());
}

double normalLower(double z) {
    return cdf(Normal(), z);
}

double normalUpper(double z) {
    return cdf(complement(Normal(), z));
}

double normalQuantile(double probability) {
    return quantile(Normal(), probability);
}

double normalUpperQuantile(double probability) {
    return quantile(complement(Normal(), probability));
}

double fisherLower(double f, double df1, double df2) {
    if (!haveDegrees(df1, df2))
        return std::numeric_limits<double>::quiet_NaN();
    if (std::isinf(f))
        return 1;
    return cdf(FisherF(df1, df2), f);
}

double fisherUpper(double f, double df1, double df2) {
    if (!haveDegrees(df1, df2))
        return std::numeric_limits<double>::quiet_NaN();
    if (std::isinf(f))
        return 0;
    return cdf(complement(FisherF(df1, df2), f));
}

double fisherUpperQuantile(double probability, double df1, double df2) {
    return quantile(complement(FisherF(df1, df2), probability));
}

double chiSquareLower(double x, double df) {
    return cdf(ChiSquare(df), x);
}

double chiSquareUpper(double x, double df) {
    return cdf(complement(ChiSquare(df), x));
}

double chiSquareQuantile(double probability, double df) {
    return quantile(ChiSquare(df), probability);
}

double binomialAtMost(int k, int tries, double chance) {
    return k < 0 ? 0 : cdf(Binomial(tries, chance), std::min(k, tries));
}

double binomialAtLeast(int k, int tries, double chance) {
    if (k > tries)
        return 0;
    return k <= 0 ? 1 : cdf(complement(Binomial(tries, chance), k - 1));
}

} // namespace knot::statistics
