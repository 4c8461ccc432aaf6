#pragma once

#include "logbook/error.h"

#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// What the first bytes of a file say, read without SQLite, so that nothing is written.
struct FileHead {
    bool isRegular = false;
    bool isEmpty = false;  ///< no byte
    bool isSqlite = false; ///< begins as SQLite's files do
    bool usesWal = false;  ///< as older logbooks did
    int applicationId = 0, format = 0;
};
FileHead headOf(const std::string& path);

/// What a killed program left beside a file: an unfinished write, which the next opening takes back, or
/// shots that are not in the file yet. While a program holds the file it is that one's write.
bool hasJournal(const std::string& path);

/// The format of a database that is one of ours and sound as far as a first look shows (a small file is
/// checked whole); 0 for one in which nothing was ever made. Throws SQLite::Exception.
Result<int> formatOf(SQLite::Database& database, const std::string& path);

/// SQLite's own check of the whole file and of its references; empty where it is sound. Throws
/// SQLite::Exception.
std::vector<std::string> faultsIn(SQLite::Database& database);

/// The error that a code of SQLite's stands for.
ErrorKind kindOf(int extendedCode);

} // namespace knot::logbook
