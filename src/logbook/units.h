#pragma once

#include "core/record/units.h"

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// The units that a logbook is read in; metric ones where it names none.
record::DisplayUnits keptUnits(SQLite::Database& database);
void keepUnits(SQLite::Database& database, const record::DisplayUnits& units);

} // namespace knot::logbook
