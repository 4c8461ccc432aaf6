#pragma once

#include <optional>

namespace knot::flight {

/// The weather, as far as the flight of a ball feels it.
struct Weather {
    double temperature = 15;        ///< °C
    double altitude = 0;            ///< m above the sea
    double humidity = 0;            ///< relative, 0 to 1
    std::optional<double> pressure; ///< hPa where the ball flies; without it the standard atmosphere's
};

/// The density of moist air, kg/m³: the standard atmosphere's pressure at an altitude (ISO 2533, good to 11 km), the
/// vapour's by Magnus's formula (with the coefficients of Alduchov and Eskridge 1996), and both gases as ideal ones.
/// Between −40 and 50 °C.
double densityOf(const Weather& weather);

} // namespace knot::flight
