#include "logbook/inspection.h"

#include "logbook/schema.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>

#include <array>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <string_view>

namespace knot::logbook {
namespace {

// Small files are checked whole on opening; large ones by the `check` command.
constexpr std::uintmax_t checkedOnOpening = 16U << 20;
constexpr std::string_view sqliteMagic("SQLite format 3\0", 16);

bool hasBytes(const std::string& path) {
    std::error_code status;
    const auto size = std::filesystem::file_size(path, status);
    return !status && size > 0;
}

} // namespace

FileHead headOf(const std::string& path) {
    std::error_code status;
    FileHead head;
    head.isRegular = std::filesystem::is_regular_file(path, status);
    if (!head.isRegular)
        return head;
    std::ifstream in(path, std::ios::binary);
    std::array<char, 100> bytes{};
    in.read(bytes.data(), bytes.size());
    head.isEmpty = in.gcount() == 0 && in.eof();
    head.isSqlite = in.gcount() == 100 && std::string_view(bytes.data(), 16) == sqliteMagic;
    if (!head.isSqlite)
        return head;
    auto number = [&](std::size_t at) {
        std::uint32_t value = 0;
        for (std::size_t i = 0; i < 4; ++i)
            value = value << 8U | static_cast<unsigned char>(bytes[at + i]);
        return static_cast<int>(value);
    };
    head.usesWal = bytes[18] == 2;
    head.format = number(60);
    head.applicationId = number(68);
    return head;
}

bool hasJournal(const std::string& path) {
    return hasBytes(path + "-journal") || hasBytes(path + "-wal");
}

Result<int> formatOf(SQLite::Database& database, const std::string& path) {
    auto refuse = [&](ErrorKind kind, const std::string& detail = {}) {
        return tl::unexpected(Error{kind, path, detail});
    };
    auto pragma = [&](const char* name) { return database.execAndGet(std::string("PRAGMA ") + name); };
    const int application = pragma("application_id").getInt();
    if (application == 0 && database.execAndGet("SELECT count(*) FROM sqlite_schema").getInt() == 0)
        return 0;
    if (application != applicationId)
        return refuse(ErrorKind::notALogbook);
    const int format = pragma("user_version").getInt();
    if (format > schemaVersion)
        return refuse(ErrorKind::newer, std::to_string(format));
    if (format < 1)
        return refuse(ErrorKind::damaged, "no format number");
    std::error_code status;
    if (std::filesystem::file_size(path, status) < checkedOnOpening && !status)
        if (const std::string found = pragma("quick_check(1)").getString(); found != "ok")
            return refuse(ErrorKind::damaged, found);
    return format;
}

std::vector<std::string> faultsIn(SQLite::Database& database) {
    std::vector<std::string> faults;
    SQLite::Statement check(database, "PRAGMA integrity_check");
    while (check.executeStep())
        if (const std::string text = check.getColumn(0).getString(); text != "ok")
            faults.push_back(text);
    SQLite::Statement references(database, "PRAGMA foreign_key_check");
    while (references.executeStep())
        faults.push_back("a row of " + references.getColumn(0).getString() + " refers to a missing row of " +
                         references.getColumn(2).getString());
    return faults;
}

ErrorKind kindOf(int extendedCode) {
    if (extendedCode == SQLITE_READONLY_DBMOVED)
        return ErrorKind::gone;
    switch (extendedCode & 0xff) {
    case SQLITE_NOTADB:
        return ErrorKind::notALogbook;
    case SQLITE_CORRUPT:
        return ErrorKind::damaged;
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
        return ErrorKind::busy;
    case SQLITE_FULL:
        return ErrorKind::full;
    case SQLITE_READONLY:
    case SQLITE_PERM:
        return ErrorKind::readOnly;
    case SQLITE_CANTOPEN:
        return ErrorKind::cannotOpen;
    default:
        return ErrorKind::storage;
    }
}

} // namespace knot::logbook
