#pragma once

#include "logbook/logbook.h"

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// Under which setting the finding of a test is kept, as "VERDICT TEXT".
std::string findingKey(const std::string& testId);
/// Throws SQLite::Exception.
void forgetFinding(SQLite::Database& database, const std::string& testId);

/// What the list of tests shows, newest first. Counts come from each test's tally; one that is
/// missing is counted and kept. Throws SQLite::Exception.
std::vector<TestEntry> listTests(SQLite::Database& database);

/// Every part that a build of some test was made of, by kind and name, each as last used. `name` is the
/// logbook's, for sentences.
std::vector<record::Part> listParts(SQLite::Database& database, const std::string& name);

} // namespace knot::logbook
