#include "logbook/logbook.h"

#include "core/record/check.h"
#include "files/test_json.h"
#include "logbook/listing.h"
#include "logbook/migration.h"
#include "logbook/rows.h"
#include "logbook/schema.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sqlite3.h>
#include <sys/stat.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <optional>

namespace knot::logbook {
namespace {

using SQLite::Database;
using SQLite::Statement;

// Small files are checked whole on opening; large ones by the `check` command.
constexpr std::uintmax_t checkedOnOpening = 16U << 20;

ErrorKind kindOf(int code) {
    switch (code & 0xff) {
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

tl::unexpected<Error> refuse(ErrorKind kind, const std::string& path, const std::string& detail = {}) {
    return tl::unexpected(Error{kind, path, detail});
}

// Runs work that may throw and turns what SQLite throws into an error.
template<typename Work> auto guarded(const std::string& path, Work work) -> Result<decltype(work())> {
    try {
        if constexpr (std::is_void_v<decltype(work())>) {
            work();
            return {};
        } else {
            return work();
        }
    } catch (const SQLite::Exception& e) {
        return refuse(kindOf(e.getErrorCode()), path, e.what());
    } catch (const std::out_of_range& e) {
        return refuse(ErrorKind::noSuchTest, path, e.what());
    } catch (const std::exception& e) {
        return refuse(ErrorKind::damaged, path, e.what());
    }
}

int pragma(Database& database, const char* name) {
    return database.execAndGet(std::string("PRAGMA ") + name).getInt();
}

// Looks at a file without writing to it; gives its format number.
Result<int> inspect(const std::string& path) {
    std::error_code status;
    if (!std::filesystem::exists(path, status))
        return refuse(ErrorKind::cannotOpen, path, "there is no such file");
    const auto size = std::filesystem::file_size(path, status);
    if (status)
        return refuse(ErrorKind::cannotOpen, path, status.message());
    if (size == 0)
        return refuse(ErrorKind::notALogbook, path);
    std::string fault;
    int version = 0;
    auto looked = guarded(path, [&]() -> ErrorKind {
        Database database(path, SQLite::OPEN_READONLY);
        if (pragma(database, "application_id") != applicationId)
            return ErrorKind::notALogbook;
        version = pragma(database, "user_version");
        fault = std::to_string(version);
        if (version > schemaVersion)
            return ErrorKind::newer;
        fault = version < 1 ? "no format number" : "";
        if (fault.empty() && size < checkedOnOpening)
            if (std::string found = database.execAndGet("PRAGMA quick_check(1)").getString(); found != "ok")
                fault = found;
        return fault.empty() ? ErrorKind::storage : ErrorKind::damaged;
    });
    if (!looked)
        return tl::unexpected(looked.error());
    if (*looked != ErrorKind::storage)
        return refuse(*looked, path, fault);
    return version;
}

// "A.knotbook" of format 1 is kept as "A.format1.knotbook", or with a number where that is taken.
std::string nameOfCopy(const std::string& path, int version) {
    const std::filesystem::path file(path);
    const std::string stem = (file.parent_path() / file.stem()).string() + ".format" + std::to_string(version);
    std::string name = stem + file.extension().string();
    std::error_code status;
    for (int n = 2; std::filesystem::exists(name, status); ++n)
        name = stem + "-" + std::to_string(n) + file.extension().string();
    return name;
}

// Keeps a copy of the file as it was, whole with what its journal holds.
void keepCopy(Database& database, const std::string& path, int version) {
    Statement s(database, "VACUUM INTO ?");
    s.bind(1, nameOfCopy(path, version));
    s.exec();
}

} // namespace

struct Logbook::Connection {
    Database database;
    std::optional<ShotWriter> writer;
    ShotWriter& shotWriter() { return writer ? *writer : writer.emplace(database); }
    dev_t device = 0;
    ino_t inode = 0;       ///< of the file as it was opened, to see when another takes its place
    std::string temporary; ///< an older file brought up to date for reading alone; goes with this
    explicit Connection(const std::string& path, int flags)
        : database(path, flags, 2000) {
        configureConnection(database);
        struct stat opened {};
        if (::stat(path.c_str(), &opened) == 0) {
            device = opened.st_dev;
            inode = opened.st_ino;
        }
    }
    /// For reading alone: nothing about the file changes.
    explicit Connection(const std::string& path)
        : database(path, SQLite::OPEN_READONLY, 2000) {}
    Connection(const Connection&) = delete;
    Connection& operator=(const Connection&) = delete;
    ~Connection() {
        std::error_code gone;
        if (!temporary.empty())
            for (const char* suffix : {"", "-wal", "-shm"})
                std::filesystem::remove(temporary + suffix, gone);
    }
};

Logbook::Logbook(std::string path, std::unique_ptr<Connection> connection)
    : m_path(std::move(path))
    , m_connection(std::move(connection)) {}
Logbook::Logbook(Logbook&&) noexcept = default;
Logbook& Logbook::operator=(Logbook&&) noexcept = default;
Logbook::~Logbook() = default;

Result<Logbook> Logbook::create(const std::string& path) {
    std::error_code status;
    if (std::filesystem::exists(path, status))
        return refuse(ErrorKind::exists, path);
    return guarded(path, [&] {
        auto connection = std::make_unique<Connection>(path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        createSchema(connection->database);
        return Logbook(path, std::move(connection));
    });
}

Result<Logbook> Logbook::open(const std::string& path) {
    const auto version = inspect(path);
    if (!version)
        return tl::unexpected(version.error());
    return guarded(path, [&] {
        auto connection = std::make_unique<Connection>(path, SQLite::OPEN_READWRITE);
        if (*version < schemaVersion) {
            keepCopy(connection->database, path, *version);
            migrate(connection->database, *version);
        }
        return Logbook(path, std::move(connection));
    });
}

Result<Logbook> Logbook::read(const std::string& path) {
    const auto version = inspect(path);
    if (!version)
        return tl::unexpected(version.error());
    return guarded(path, [&] {
        if (*version == schemaVersion)
            return Logbook(path, std::make_unique<Connection>(path));
        const std::string copy = (std::filesystem::temp_directory_path() / newId()).string();
        {
            Database old(path, SQLite::OPEN_READONLY, 2000);
            Statement s(old, "VACUUM INTO ?");
            s.bind(1, copy);
            s.exec();
        }
        auto connection = std::make_unique<Connection>(copy, SQLite::OPEN_READWRITE);
        connection->temporary = copy;
        migrate(connection->database, *version);
        return Logbook(path, std::move(connection));
    });
}

Result<std::vector<TestEntry>> Logbook::tests() {
    return guarded(m_path, [&] { return listTests(m_connection->database); });
}

Result<record::Test> Logbook::load(const std::string& testId) {
    return guarded(m_path, [&] { return readTest(m_connection->database, testId); });
}

// Every write asks first whether the file that was opened still stands at its path.
template<typename Work> auto Logbook::writing(Work work) -> Result<decltype(work())> {
    if (auto there = stillThere(); !there)
        return tl::unexpected(there.error());
    return guarded(m_path, work);
}

Result<void> Logbook::sound(const std::vector<std::string>& faults) const {
    if (!faults.empty())
        return refuse(ErrorKind::invalid, m_path, faults.front());
    return {};
}

Result<std::string> Logbook::save(const record::Test& test) {
    record::Test kept = test;
    kept.nameShots();
    if (auto checked = sound(record::faultsOf(kept)); !checked)
        return tl::unexpected(checked.error());
    return writing([&] {
        if (kept.id.empty())
            kept.id = newId();
        SQLite::Transaction transaction(m_connection->database);
        Statement clear(m_connection->database, "DELETE FROM test WHERE id = ?");
        clear.bind(1, kept.id);
        clear.exec();
        insertTest(m_connection->database, kept);
        transaction.commit();
        return kept.id;
    });
}

Result<void> Logbook::saveHead(const record::Test& test) {
    if (auto checked = sound(record::headFaultsOf(test)); !checked)
        return checked;
    return writing([&] {
        SQLite::Transaction transaction(m_connection->database);
        updateHead(m_connection->database, test);
        transaction.commit();
    });
}

Result<void> Logbook::saveShots(const record::Test& test, std::size_t from) {
    if (auto checked = sound(record::shotFaultsOf(test, from)); !checked)
        return checked;
    return writing([&] {
        SQLite::Transaction transaction(m_connection->database);
        m_connection->shotWriter().replace(test, from);
        transaction.commit();
    });
}

Result<void> Logbook::saveShotsAndHead(const record::Test& test, std::size_t from) {
    if (auto checked = sound(record::headFaultsOf(test)); !checked)
        return checked;
    if (auto checked = sound(record::shotFaultsOf(test, from)); !checked)
        return checked;
    return writing([&] {
        SQLite::Transaction transaction(m_connection->database);
        updateHead(m_connection->database, test);
        m_connection->shotWriter().replace(test, from);
        transaction.commit();
    });
}

Result<void> Logbook::stillThere() const {
    struct stat now {};
    if (::stat(m_path.c_str(), &now) != 0)
        return refuse(ErrorKind::gone, m_path);
    if (now.st_ino != m_connection->inode || now.st_dev != m_connection->device)
        return refuse(ErrorKind::replaced, m_path);
    return {};
}

Result<void> Logbook::writeAnew() {
    return guarded(m_path, [&] {
        // Beside the place first: the old connection's journal must be gone before the new file stands there.
        const std::string beside = m_path + ".anew";
        std::filesystem::remove(beside);
        {
            Statement copy(m_connection->database, "VACUUM INTO ?");
            copy.bind(1, beside);
            copy.exec();
        }
        m_connection.reset();
        std::filesystem::remove(m_path + "-wal");
        std::filesystem::remove(m_path + "-shm");
        std::filesystem::rename(beside, m_path);
        m_connection = std::make_unique<Connection>(m_path, SQLite::OPEN_READWRITE);
    });
}

Result<void> Logbook::remove(const std::string& testId) {
    return writing([&] {
        SQLite::Transaction transaction(m_connection->database);
        Statement clear(m_connection->database, "DELETE FROM test WHERE id = ?");
        clear.bind(1, testId);
        if (clear.exec() == 0)
            throw std::out_of_range(testId);
        transaction.commit();
    });
}

Result<record::DisplayUnits> Logbook::units() {
    return guarded(m_path, [&] {
        record::DisplayUnits units;
        Statement s(m_connection->database, "SELECT key, value FROM setting");
        while (s.executeStep()) {
            const std::string name = s.getColumn(0).getString();
            const std::string value = s.getColumn(1).getString();
            if (name == "distance_unit")
                units.distance = value == "yd" ? record::DistanceUnit::yd : record::DistanceUnit::m;
            if (name == "speed_unit")
                units.speed = value == "mph"   ? record::SpeedUnit::mph
                              : value == "kmh" ? record::SpeedUnit::kmh
                                               : record::SpeedUnit::ms;
        }
        return units;
    });
}

Result<void> Logbook::setUnits(const record::DisplayUnits& units) {
    return writing([&] {
        SQLite::Transaction transaction(m_connection->database);
        Statement s(m_connection->database, "INSERT OR REPLACE INTO setting(key, value) VALUES(?, ?)");
        auto put = [&](const char* name, record::Quantity quantity) {
            s.reset();
            s.bind(1, name);
            s.bind(2, std::string(record::suffix(record::displayUnit(quantity, units))));
            s.exec();
        };
        put("distance_unit", record::Quantity::distance);
        put("speed_unit", record::Quantity::speed);
        transaction.commit();
    });
}

Result<std::vector<record::Part>> Logbook::parts() {
    return guarded(m_path, [&] {
        std::map<std::pair<record::PartKind, std::string>, record::Part> known;
        Statement s(m_connection->database, "SELECT head FROM test ORDER BY created_at");
        while (s.executeStep()) {
            const auto head = files::readTestHeadJson(m_path, s.getColumn(0).getString());
            if (!head)
                continue;
            for (const auto* builds : {&head->builds, &head->sealedBuilds})
                for (const auto& build : *builds)
                    for (const auto* part : {&build.club.head, &build.club.shaft, &build.club.grip})
                        if (!part->name.empty())
                            known[{part->kind, part->name}] = *part;
        }
        std::vector<record::Part> parts;
        for (auto& [key, part] : known)
            parts.push_back(std::move(part));
        return parts;
    });
}

Result<std::string> Logbook::setting(const std::string& key) {
    return guarded(m_path, [&] {
        Statement s(m_connection->database, "SELECT value FROM setting WHERE key = ?");
        s.bind(1, key);
        return s.executeStep() ? s.getColumn(0).getString() : std::string();
    });
}

Result<void> Logbook::setSetting(const std::string& key, const std::string& value) {
    return writing([&] {
        Statement s(m_connection->database, "INSERT OR REPLACE INTO setting(key, value) VALUES(?, ?)");
        s.bind(1, key);
        s.bind(2, value);
        s.exec();
    });
}

Result<std::vector<std::string>> Logbook::integrityFaults() {
    return guarded(m_path, [&] {
        std::vector<std::string> faults;
        Statement check(m_connection->database, "PRAGMA integrity_check");
        while (check.executeStep())
            if (const std::string text = check.getColumn(0).getString(); text != "ok")
                faults.push_back(text);
        Statement references(m_connection->database, "PRAGMA foreign_key_check");
        while (references.executeStep())
            faults.push_back("a row of " + references.getColumn(0).getString() + " refers to a missing row of " +
                             references.getColumn(2).getString());
        return faults;
    });
}

} // namespace knot::logbook
