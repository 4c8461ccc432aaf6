#include "core/statistics/integral.h"

#include <boost/math/quadrature/gauss.hpp>

namespace knot::statistics {

HalfRule gaussHalf(double end) {
    using Rule = boost::math::quadrature::gauss<double, 100>;
    HalfRule rule;
    for (std::size_t i = 0; i < Rule::abscissa().size(); ++i) {
        rule.at.push_back(end * Rule::abscissa()[i]);
        rule.weight.push_back(end * Rule::weights()[i]);
    }
    return rule;
}

double integral(const std::function<double(double)>& function, double low, double high) {
    return boost::math::quadrature::gauss<double, 30>::integrate(function, low, high);
}

} // namespace knot::statistics
