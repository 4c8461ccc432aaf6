#pragma once

#include <string>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// A copy of a file as it was before its format changed, "NAME.format1.knotbook", whole with what its
/// journal holds; taken away again unless the caller says that it stays.
class CopyBeside {
public:
    CopyBeside(SQLite::Database& database, const std::string& path, int version);
    CopyBeside(const CopyBeside&) = delete;
    CopyBeside& operator=(const CopyBeside&) = delete;
    ~CopyBeside();
    void stay() { m_stays = true; }

private:
    std::string m_part, m_name;
    bool m_stays = false;
};

/// Brings a logbook of an older format to the present one, in one transaction. The caller has kept
/// a copy; foreign keys are off while it runs and sound when it is done.
void migrate(SQLite::Database& database, int from);

} // namespace knot::logbook
