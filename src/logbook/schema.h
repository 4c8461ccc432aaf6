#pragma once

#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace knot::logbook {

inline constexpr int applicationId = 0x4B6E6F74; // "Knot"
inline constexpr int schemaVersion = 7;

/// Makes the tables of the newest version; the caller holds the transaction.
void createTables(SQLite::Database& database);

/// Who hits, kept once, and who is in which test.
void createPlayers(SQLite::Database& database);
/// The shots, and their index.
void createShots(SQLite::Database& database);

/// What keeps the tally of a test true: it is dropped whenever a shot of the test changes, and counted
/// anew when it is asked for.
void createTally(SQLite::Database& database);

/// Makes them in an empty file, in one transaction.
void createSchema(SQLite::Database& database);
/// For whoever looks at a logbook by SQL: tests, stints and shots with their names. What has these names already stays.
void createViews(SQLite::Database& database);

/// What in the tables differs from those of the newest version, as far as it could mislead; columns may
/// stand in another order. Empty where nothing does.
std::vector<std::string> schemaFaults(SQLite::Database& database);

/// Nothing that a file brings along is trusted: set on every connection.
void guardConnection(SQLite::Database& database);
/// A rollback journal with full synchronisation, and foreign keys: set on every connection that writes.
void configureConnection(SQLite::Database& database);

} // namespace knot::logbook
