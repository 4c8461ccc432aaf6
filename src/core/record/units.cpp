#include "core/record/units.h"

#include <array>

namespace knot::record {
namespace {

struct UnitRow {
    std::string_view suffix, symbol;
    double factor; // internal units in one of these
};

// Exact by definition: international mile, yard, foot and inch.
constexpr std::array<UnitRow, 17> table = {{{"ms", "m/s", 1},
                                            {"mph", "mph", 0.44704},
                                            {"kmh", "km/h", 1 / 3.6},
                                            {"m", "m", 1},
                                            {"yd", "yd", 0.9144},
                                            {"ft", "ft", 0.3048},
                                            {"deg", "°", 1},
                                            {"rpm", "rpm", 1},
                                            {"", "", 1},
                                            {"mm", "mm", 1},
                                            {"in", "in", 25.4},
                                            {"s", "s", 1},
                                            {"cm", "cm", 10},
                                            {"g", "g", 1},
                                            {"cm3", "cm³", 1},
                                            {"min", "min", 60},
                                            {"percent", "%", 0.01}}};

const UnitRow& row(Unit unit) {
    return table[static_cast<std::size_t>(unit)];
}

} // namespace

const std::vector<Unit>& unitsOf(Quantity quantity) {
    static const std::array<std::vector<Unit>, 11> units = {{{Unit::ms, Unit::mph, Unit::kmh},
                                                             {Unit::m, Unit::yd, Unit::ft},
                                                             {Unit::m, Unit::yd, Unit::ft},
                                                             {Unit::deg},
                                                             {Unit::rpm},
                                                             {Unit::one},
                                                             {Unit::mm, Unit::in},
                                                             {Unit::s},
                                                             {Unit::g},
                                                             {Unit::mm, Unit::in},
                                                             {Unit::cm3}}};
    return units[static_cast<std::size_t>(quantity)];
}

std::string_view suffix(Unit unit) {
    return row(unit).suffix;
}
std::string_view symbol(Unit unit) {
    return row(unit).symbol;
}
double toInternal(double value, Unit unit) {
    return value * row(unit).factor;
}
double fromInternal(double value, Unit unit) {
    return value / row(unit).factor;
}

Unit displayUnit(Quantity quantity, const DisplayUnits& units) {
    const bool yards = units.distance == DistanceUnit::yd;
    switch (quantity) {
    case Quantity::speed:
        return units.speed == SpeedUnit::mph ? Unit::mph : units.speed == SpeedUnit::kmh ? Unit::kmh : Unit::ms;
    case Quantity::distance:
        return yards ? Unit::yd : Unit::m;
    case Quantity::height:
        return yards ? Unit::ft : Unit::m;
    default:
        return unitsOf(quantity).front();
    }
}

} // namespace knot::record
