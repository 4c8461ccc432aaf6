#pragma once

#include "core/record/test.h"

#include <string>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// Rows to structs and back, in one place. All throw SQLite::Exception; the caller holds the
/// transaction.
void insertTest(SQLite::Database& database, const record::Test& test);
/// Everything but the shots. A build that was struck may not be taken away.
void updateHead(SQLite::Database& database, const record::Test& test);
/// The shots from place `from` on, with their turns and sittings; those before it stand there.
void replaceShots(SQLite::Database& database, const record::Test& test, std::size_t from);
record::Test readTest(SQLite::Database& database, const std::string& testId);

/// A random UUID (version 4) as text.
std::string newId();

} // namespace knot::logbook
