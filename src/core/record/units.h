#pragma once

#include "core/record/metric.h"

#include <string_view>
#include <vector>

namespace knot::record {

enum class Unit { ms, mph, kmh, m, yd, ft, deg, rpm, one, mm, in, s, cm, g, cm3, min, percent };

/// Units that a column of this quantity can be in; the first is the internal one.
const std::vector<Unit>& unitsOf(Quantity quantity);
/// The suffix used in column names: "ms", "mph", "yd"; empty for a plain ratio.
std::string_view suffix(Unit unit);
/// As shown beside a number: "m/s", "°"; empty for a plain ratio.
std::string_view symbol(Unit unit);
double toInternal(double value, Unit unit);
double fromInternal(double value, Unit unit);

enum class SpeedUnit { ms, mph, kmh };
enum class DistanceUnit { m, yd };
enum class LengthUnit { mm, in };

/// The user's choice of display units; everything not named here has only one.
struct DisplayUnits {
    SpeedUnit speed = SpeedUnit::ms;
    DistanceUnit distance = DistanceUnit::m;
    LengthUnit length = LengthUnit::mm; ///< of clubs
    bool operator==(const DisplayUnits&) const = default;
};

/// The unit in which a quantity is shown. With yards, heights are in feet.
Unit displayUnit(Quantity quantity, const DisplayUnits& units);

} // namespace knot::record
