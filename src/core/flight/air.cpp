#include "core/flight/air.h"

#include <cmath>

namespace knot::flight {

double densityOf(const Weather& weather) {
    constexpr double zero = 273.15;       // K
    constexpr double ofDryAir = 287.0528; // J/(kg·K)
    constexpr double ofVapour = 461.523;
    const double kelvin = weather.temperature + zero;
    const double standard = 101325 * std::pow(1 - 2.25577e-5 * weather.altitude, 5.25588);
    const double pressure = weather.pressure ? 100 * *weather.pressure : standard;
    const double saturated = 610.94 * std::exp(17.625 * weather.temperature / (weather.temperature + 243.04));
    const double vapour = weather.humidity * saturated;
    return (pressure - vapour) / (ofDryAir * kelvin) + vapour / (ofVapour * kelvin);
}

} // namespace knot::flight
