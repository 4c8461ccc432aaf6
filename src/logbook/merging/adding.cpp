// One logbook added to another, and that taken back: a step is what SQLite's session extension saw change.
#define SQLITE_ENABLE_SESSION
#define SQLITE_ENABLE_PREUPDATE_HOOK

#include "core/record/check.h"
#include "logbook/connection.h"

#include <sqlite3.h>

#include <cstring>

namespace knot::logbook {
namespace {

using SQLite::Database;

void orThrow(Database& database, int result) {
    if (result != SQLITE_OK)
        throw SQLite::Exception(database.getHandle(), result);
}

// Records what changes in a database as long as it lives.
class Recording {
public:
    explicit Recording(Database& database)
        : m_database(database) {
        orThrow(database, sqlite3session_create(database.getHandle(), "main", &m_session));
        // The tally is counted anew whenever it is missing.
        sqlite3session_table_filter(
            m_session, [](void*, const char* table) { return std::strcmp(table, "tally") == 0 ? 0 : 1; }, nullptr);
        orThrow(database, sqlite3session_attach(m_session, nullptr));
    }
    Recording(const Recording&) = delete;
    Recording& operator=(const Recording&) = delete;
    ~Recording() { sqlite3session_delete(m_session); }

    std::string step() const {
        int size = 0;
        void* bytes = nullptr;
        orThrow(m_database, sqlite3session_changeset(m_session, &size, &bytes));
        const std::unique_ptr<void, decltype(&sqlite3_free)> kept(bytes, sqlite3_free);
        return {static_cast<const char*>(bytes), static_cast<std::size_t>(size)};
    }

private:
    Database& m_database;
    sqlite3_session* m_session = nullptr;
};

// What was found of a test is found anew; anything else that is not as it was left stops it, and so does a later
// version.
int onConflict(void* changed, int kind, sqlite3_changeset_iter* at) {
    const char* table = "";
    int columns = 0;
    int operation = 0;
    int isIndirect = 0;
    if (kind == SQLITE_CHANGESET_FOREIGN_KEY || sqlite3changeset_op(at, &table, &columns, &operation, &isIndirect) != 0)
        return SQLITE_CHANGESET_ABORT;
    const std::string name = table;
    if (name == "setting")
        return kind == SQLITE_CHANGESET_DATA || kind == SQLITE_CHANGESET_CONFLICT ? SQLITE_CHANGESET_REPLACE
                                                                                  : SQLITE_CHANGESET_OMIT;
    *static_cast<std::string*>(changed) = name;
    return SQLITE_CHANGESET_ABORT;
}

void applyBackwards(Database& database, const std::string& step) {
    int size = 0;
    void* bytes = nullptr;
    orThrow(database, sqlite3changeset_invert(static_cast<int>(step.size()), step.data(), &size, &bytes));
    const std::unique_ptr<void, decltype(&sqlite3_free)> kept(bytes, sqlite3_free);
    std::string changed;
    const int result =
        sqlite3changeset_apply(database.getHandle(), size, bytes, nullptr, onConflict, static_cast<void*>(&changed));
    if (result == SQLITE_ABORT)
        throw ChangedSince(changed == "player" ? "A player" : "A test of that logbook");
    orThrow(database, result);
}

std::vector<std::pair<std::string, Version>> leftBy(const Merged& done, Database& database) {
    std::vector<std::string> ids = done.added;
    ids.insert(ids.end(), done.later.begin(), done.later.end());
    ids.insert(ids.end(), done.back.begin(), done.back.end());
    ids.insert(ids.end(), done.deleted.begin(), done.deleted.end());
    for (const Merged::Conflict& conflict : done.conflicts)
        ids.push_back(conflict.there);
    std::vector<std::pair<std::string, Version>> left;
    for (const std::string& id : ids)
        left.emplace_back(id, versionOf(database, Thing::test, id));
    return left;
}

const std::string& newest(const Merged& merged) {
    return !merged.conflicts.empty() ? merged.conflicts.front().there
           : !merged.later.empty()   ? merged.later.front()
           : !merged.added.empty()   ? merged.added.front()
                                     : merged.back.front();
}

} // namespace

Result<Merged> Logbook::addAll(Logbook& other, const std::vector<std::string>& only) {
    // What a check refuses would come half, and look whole.
    if (const auto faults = other.integrityFaults(); !faults || !faults->empty())
        return faults ? refuse(ErrorKind::damaged, other.m_path, faults->front()) : tl::unexpected(faults.error());
    auto incoming = guarded(other.m_path, [&] { return incomingFrom(other.m_connection->database, only); });
    if (!incoming)
        return tl::unexpected(incoming.error());
    return addIncoming(std::move(*incoming));
}

Result<Merged> Logbook::addIncoming(Incoming incoming) {
    auto merged = writing([&] {
        const VersionWriter::Silence silence(m_connection->database);
        const Recording recording(m_connection->database);
        Merged done = merge(m_connection->database, std::move(incoming));
        done.step.changes = recording.step();
        done.step.left = leftBy(done, m_connection->database);
        return done;
    });
    m_connection->shotsOnDisk.clear();
    return merged;
}

Result<Logbook::Come> Logbook::add(record::Test test) {
    test.nameShots();
    if (auto checked = sound(record::faultsOf(test)); !checked)
        return tl::unexpected(checked.error());
    const auto merged = addIncoming(incomingFrom(test));
    if (!merged)
        return tl::unexpected(merged.error());
    if (!merged->known.empty())
        return Come{merged->known.front(), false};
    if (merged->gone > 0) // who opens its file wants it back
        return save(std::move(test)).map([](const std::string& kept) { return Come{kept, true}; });
    return Come{newest(*merged), true};
}

Result<void> Logbook::takeBack(const Merged::Step& step) {
    // References hold before and after; in between a test goes before its shots.
    m_connection->versionWriter();
    m_connection->database.exec("PRAGMA foreign_keys = OFF");
    auto done = writing([&] {
        const VersionWriter::Silence silence(m_connection->database);
        for (const auto& [id, version] : step.left)
            if (versionOf(m_connection->database, Thing::test, id) != version)
                throw ChangedSince("A test of that logbook");
        applyBackwards(m_connection->database, step.changes);
        SQLite::Statement broken(m_connection->database, "PRAGMA foreign_key_check");
        if (broken.executeStep())
            throw ChangedSince("A test of that logbook");
    });
    m_connection->shotsOnDisk.clear();
    if (auto on = guarded(m_path, [&] { m_connection->database.exec("PRAGMA foreign_keys = ON"); }); !on && done)
        return on;
    return done;
}

Result<Version> Logbook::version(Thing thing, const std::string& id) {
    return guarded(m_path, [&] { return versionOf(m_connection->database, thing, id); });
}

} // namespace knot::logbook
