#pragma once

namespace SQLite {
class Database;
}

namespace knot::logbook {

inline constexpr int applicationId = 0x4B6E6F74; // "Knot"
inline constexpr int schemaVersion = 4;

/// Makes the tables of the newest version; the caller holds the transaction.
void createTables(SQLite::Database& database);

/// What keeps the tally of a test true: it is dropped whenever a shot of the test changes, and counted
/// anew when it is asked for.
void createTally(SQLite::Database& database);

/// Makes them in an empty file, in one transaction.
void createSchema(SQLite::Database& database);

/// WAL, full synchronisation and foreign keys: set on every connection that writes.
void configureConnection(SQLite::Database& database);

} // namespace knot::logbook
