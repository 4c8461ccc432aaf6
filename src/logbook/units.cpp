#include "logbook/units.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <string>

namespace knot::logbook {

record::DisplayUnits keptUnits(SQLite::Database& database) {
    record::DisplayUnits units;
    SQLite::Statement s(database, "SELECT key, value FROM setting");
    while (s.executeStep()) {
        const std::string name = s.getColumn(0).getString();
        const std::string value = s.getColumn(1).getString();
        if (name == "distance_unit")
            units.distance = value == "yd" ? record::DistanceUnit::yd : record::DistanceUnit::m;
        if (name == "length_unit")
            units.length = value == "in" ? record::LengthUnit::in : record::LengthUnit::mm;
        if (name == "speed_unit")
            units.speed = value == "mph"   ? record::SpeedUnit::mph
                          : value == "kmh" ? record::SpeedUnit::kmh
                                           : record::SpeedUnit::ms;
    }
    return units;
}

void keepUnits(SQLite::Database& database, const record::DisplayUnits& units) {
    SQLite::Statement s(database, "INSERT OR REPLACE INTO setting(key, value) VALUES(?, ?)");
    auto put = [&](const char* name, const std::string& value) {
        s.reset();
        s.bind(1, name);
        s.bind(2, value);
        s.exec();
    };
    auto shown = [&](record::Quantity quantity) {
        return std::string(record::suffix(record::displayUnit(quantity, units)));
    };
    put("distance_unit", shown(record::Quantity::distance));
    put("speed_unit", shown(record::Quantity::speed));
    put("length_unit", units.length == record::LengthUnit::in ? "in" : "mm");
}

} // namespace knot::logbook
