#pragma once

#include "core/record/test.h"
#include "logbook/progress.h"

#include <memory>
#include <stdexcept>
#include <string>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// The logbook has no such test.
struct NoSuchTest : std::runtime_error {
    using std::runtime_error::runtime_error;
};
/// What is to be taken back is not as it was left.
struct ChangedSince : std::runtime_error {
    using std::runtime_error::runtime_error;
};
/// Other shots stand in the file than were kept there.
struct ChangedElsewhere : std::runtime_error {
    ChangedElsewhere()
        : std::runtime_error("other shots than were kept") {}
};

/// Rows to structs and back, in one place. All throw SQLite::Exception or std::runtime_error with what
/// is wrong; the caller holds the transaction.
void insertTest(SQLite::Database& database, const record::Test& test, const Progress& tell = {});
/// Its head and its clubs alone.
void updateClubs(SQLite::Database& database, const record::Test& test);
/// Everything but the shots. A build that was struck may not be taken away.
void updateHead(SQLite::Database& database, const record::Test& test);
record::Test readTest(SQLite::Database& database, const std::string& testId);

/// Writes the shots of a test from a place on, with their turns and sittings; those before it stand
/// there. For one connection, whose schema does not change meanwhile.
class ShotWriter {
public:
    explicit ShotWriter(SQLite::Database& database);
    ~ShotWriter();
    void replace(const record::Test& test, std::size_t from, const Progress& tell = {});
    /// Takes the shots from a place on away.
    void clearFrom(const record::Test& test, std::size_t from);

private:
    class Statements;
    std::unique_ptr<Statements> m_statements;
};

/// A random UUID (version 4) as text.
std::string newId();

} // namespace knot::logbook
