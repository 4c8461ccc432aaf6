#pragma once

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// Brings a logbook of an older format to the present one, in one transaction. The caller has kept
/// a copy; foreign keys are off while it runs and sound when it is done.
void migrate(SQLite::Database& database, int from);

} // namespace knot::logbook
