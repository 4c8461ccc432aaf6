#pragma once

// How a logbook reaches its file: for the members of Logbook alone.

#include "logbook/copies.h"
#include "logbook/inspection.h"
#include "logbook/listing.h"
#include "logbook/lock_file.h"
#include "logbook/logbook.h"
#include "logbook/merging/versions.h"
#include "logbook/schema.h"
#include "logbook/test_rows.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <filesystem>
#include <map>
#include <optional>
#include <utility>

namespace knot::logbook {

constexpr int busyWait = 200; // ms: a save that has to wait longer is tried again
constexpr int triesBusy = 3;  // then with a new connection

inline tl::unexpected<Error> refuse(ErrorKind kind, const std::string& path, const std::string& detail = {}) {
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
        return refuse(kindOf(e.getExtendedErrorCode()), path, e.what());
    } catch (const NoSuchTest& e) {
        return refuse(ErrorKind::noSuchTest, path, e.what());
    } catch (const PlayersClash& e) {
        return refuse(ErrorKind::invalid, path, std::string(e.what()) + ", so they stay as they are.");
    } catch (const ChangedSince& e) {
        return refuse(ErrorKind::invalid, path, std::string(e.what()) + " was changed since, so all stays as it is.");
    } catch (const ChangedElsewhere&) {
        return refuse(ErrorKind::changedElsewhere, path);
    } catch (const std::exception& e) {
        return refuse(ErrorKind::damaged, path, e.what());
    }
}

// Never a URI, whatever the name begins with.
inline std::string plainPath(const std::string& path) {
    return std::filesystem::absolute(path).string();
}

struct Logbook::Connection {
    std::optional<HeldFile> held; ///< outlives the database, which must close first
    std::string temporary;        ///< a copy for reading alone; goes with this
    SQLite::Database database;
    std::optional<ShotWriter> writer;
    std::optional<VersionWriter> versions;
    int timesBusy = 0;
    bool isStale = false;                           ///< speaks of a file that was put back since
    std::map<std::string, std::size_t> shotsOnDisk; ///< of the tests that were loaded or saved

    ShotWriter& shotWriter() { return writer ? *writer : writer.emplace(database); }
    VersionWriter& versionWriter() { return versions ? *versions : versions.emplace(database); }
    /// To write.
    Connection(const std::string& path, std::optional<HeldFile> file)
        : held(std::move(file))
        , database(plainPath(path), SQLite::OPEN_READWRITE | SQLite::OPEN_NOMUTEX, busyWait) { // one thread at a time
        configureConnection(database);
    }
    /// For reading alone: nothing about the file changes. A temporary one goes with this.
    Connection(const std::string& path, int flags, std::string goes)
        : temporary(std::move(goes))
        , database(plainPath(path), flags, 10 * busyWait) {
        guardConnection(database);
        if (temporary.empty())
            return;
        // What is in the journal is taken first; then the copy has no name any more, however this program ends.
        database.exec("SELECT count(*) FROM sqlite_schema; PRAGMA journal_mode = MEMORY");
        forget();
    }
    Connection(const Connection&) = delete;
    Connection& operator=(const Connection&) = delete;
    ~Connection() { forget(); }
    void forget() {
        if (!temporary.empty())
            removeWithBesides(std::exchange(temporary, {}));
    }
    // A statement that failed holds on to what it read.
    void release() {
        writer.reset();
        if (versions)
            versions->release();
    }
};

// Every write asks first whether the file that was opened still stands at its path, and is one
// transaction, which waits for no lock half-way.
template<typename Work> auto Logbook::writing(Work work) -> Result<decltype(work())> {
    if (auto there = stillThere(); !there)
        return tl::unexpected(there.error());
    auto done = guarded(m_path, [&] {
        if (m_connection->isStale || m_connection->timesBusy >= triesBusy)
            reconnect();
        m_connection->versionWriter();
        SQLite::Transaction transaction(m_connection->database, SQLite::TransactionBehavior::IMMEDIATE);
        if constexpr (std::is_void_v<decltype(work())>) {
            work();
            transaction.commit();
        } else {
            auto made = work();
            transaction.commit();
            return made;
        }
    });
    if (done) {
        m_connection->timesBusy = 0;
        return done;
    }
    m_connection->release();
    m_connection->timesBusy += done.error().kind == ErrorKind::busy ? 1 : 0;
    if (done.error().kind == ErrorKind::gone)
        if (auto there = stillThere(); !there)
            return tl::unexpected(there.error());
    return done;
}

// What was said of a test goes with what it was said of.
template<typename Work> auto Logbook::changing(const std::string& testId, Work work) -> Result<decltype(work())> {
    return writing([&] {
        if (!testId.empty()) {
            forgetFinding(m_connection->database, testId);
            m_connection->versionWriter().changed(testId);
        }
        return work();
    });
}

} // namespace knot::logbook
