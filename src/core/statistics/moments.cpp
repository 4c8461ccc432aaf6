#include "core/statistics/moments.h"

#include <cmath>
#include <limits>

namespace knot::statistics {

double meanOf(const std::vector<double>& values) {
    const auto n = static_cast<double>(values.size());
    double sum = 0;
    for (const double v : values)
        sum += v;
    const double first = sum / n;
    double rest = 0;
    for (const double v : values)
        rest += v - first;
    return first + rest / n;
}

double squaresAboutMean(const std::vector<double>& values) {
    if (values.size() < 2)
        return 0;
    const double mean = meanOf(values);
    double sum = 0;
    for (const double v : values)
        sum += (v - mean) * (v - mean);
    return sum;
}

double standardDeviation(const std::vector<double>& values) {
    if (values.size() < 2)
        return std::numeric_limits<double>::quiet_NaN();
    return std::sqrt(squaresAboutMean(values) / static_cast<double>(values.size() - 1));
}

} // namespace knot::statistics
