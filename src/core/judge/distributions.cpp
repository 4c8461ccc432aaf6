#include "core/judge/distributions.h"

#include <boost/math/distributions/chi_squared.hpp>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>

#include <cmath>
#include <limits>

namespace knot::judge {
namespace {

// Statistics of degenerate data may be infinite; they give 0 or 1 instead of an exception.
using Quiet = boost::math::policies::policy<boost::math::policies::overflow_error<boost::math::policies::ignore_error>,
                                            boost::math::policies::promote_double<false>>;
using StudentT = boost::math::students_t_distribution<double, Quiet>;
using FisherF = boost::math::fisher_f_distribution<double, Quiet>;
using ChiSquare = boost::math::chi_squared_distribution<double, Quiet>;
using Normal = boost::math::normal_distribution<double, Quiet>;

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

double normalUpper(double z) {
    return cdf(complement(Normal(), z));
}

double normalQuantile(double probability) {
    return quantile(Normal(), probability);
}

double fisherUpper(double f, double df1, double df2) {
    if (std::isinf(f))
        return 0;
    return cdf(complement(FisherF(df1, df2), f));
}

double chiSquareUpper(double x, double df) {
    return cdf(complement(ChiSquare(df), x));
}

double chiSquareQuantile(double probability, double df) {
    return quantile(ChiSquare(df), probability);
}

} // namespace knot::judge
