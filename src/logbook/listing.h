#pragma once

#include "logbook/logbook.h"

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// What the list of tests shows, newest first. Counts come from each test's tally; one that is
/// missing is counted and kept. Throws SQLite::Exception.
std::vector<TestEntry> listTests(SQLite::Database& database);

} // namespace knot::logbook
