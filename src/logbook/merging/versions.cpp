#include "logbook/merging/versions.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <boost/uuid/random_generator.hpp>
#include <boost/uuid/uuid_io.hpp>

#include <algorithm>
#include <array>
#include <chrono>
#include <ctime>
#include <numeric>

namespace knot::logbook {
namespace {

using SQLite::Database;
using SQLite::Statement;

const char* key(Thing thing) {
    constexpr std::array names = {"test", "player", "setting"};
    return names[static_cast<std::size_t>(thing)];
}

// In one zone, so that times of several computers can be put in order.
std::string nowText() {
    const std::time_t now = std::chrono::system_clock::to_time_t(std::chrono::system_clock::now());
    std::tm utc{};
    gmtime_r(&now, &utc);
    std::array<char, 32> text{};
    std::strftime(text.data(), text.size(), "%Y-%m-%dT%H:%M:%SZ", &utc);
    return text.data();
}

constexpr const char* ofOne = "SELECT of, changed_at, deleted_at, joined FROM version WHERE thing = ? AND id = ?";

void readChanges(Database& database, Thing thing, const std::string& id, Version& version) {
    Statement s(database, "SELECT writer, times FROM change WHERE thing = ? AND id = ?");
    s.bind(1, key(thing));
    s.bind(2, id);
    while (s.executeStep())
        version.changes[s.getColumn(0).getString()] = s.getColumn(1).getInt64();
}

} // namespace

std::int64_t Version::revision() const {
    return std::accumulate(changes.begin(), changes.end(), std::int64_t{0},
                           [](std::int64_t sum, const auto& change) { return sum + change.second; });
}

namespace {

// Whether everything that changed `a` changed `b` too.
bool isWithin(const Version& a, const Version& b) {
    return std::ranges::all_of(a.changes, [&](const auto& change) {
        const auto at = b.changes.find(change.first);
        return at != b.changes.end() && at->second >= change.second;
    });
}

} // namespace

Order orderOf(const Version& a, const Version& b) {
    const bool before = isWithin(a, b);
    const bool after = isWithin(b, a);
    return before && after ? Order::same : before ? Order::earlier : after ? Order::later : Order::apart;
}

Version together(const Version& a, const Version& b) {
    Version both = a;
    for (const auto& [writer, times] : b.changes)
        both.changes[writer] = std::max(both.changes[writer], times);
    both.changedAt = std::max(a.changedAt, b.changedAt);
    return both;
}

void createVersions(Database& database) {
    database.exec(R"(
CREATE TABLE version(
  thing TEXT NOT NULL CHECK(thing = 'test' OR thing = 'player' OR thing = 'setting'),
  id TEXT NOT NULL,
  of TEXT NOT NULL DEFAULT '',
  changed_at TEXT NOT NULL DEFAULT '',
  deleted_at TEXT NOT NULL DEFAULT '',
  joined TEXT NOT NULL DEFAULT '',
  PRIMARY KEY(thing, id)
) WITHOUT ROWID;
CREATE INDEX version_by_of ON version(thing, of);
CREATE TABLE change(
  thing TEXT NOT NULL,
  id TEXT NOT NULL,
  writer TEXT NOT NULL,
  times INTEGER NOT NULL,
  PRIMARY KEY(thing, id, writer),
  FOREIGN KEY(thing, id) REFERENCES version(thing, id) ON DELETE CASCADE
) WITHOUT ROWID;
)");
}

Version versionOf(Database& database, Thing thing, const std::string& id) {
    Statement s(database, ofOne);
    s.bind(1, key(thing));
    s.bind(2, id);
    Version version{.changes = {}, .of = id, .changedAt = {}, .deletedAt = {}, .joined = {}};
    if (!s.executeStep())
        return version;
    version.of = s.getColumn(0).getString();
    version.changedAt = s.getColumn(1).getString();
    version.deletedAt = s.getColumn(2).getString();
    version.joined = s.getColumn(3).getString();
    readChanges(database, thing, id, version);
    return version;
}

std::vector<std::pair<std::string, Version>> versionsOf(Database& database, Thing thing) {
    std::vector<std::string> ids;
    Statement s(database, "SELECT id FROM version WHERE thing = ? ORDER BY id");
    s.bind(1, key(thing));
    while (s.executeStep())
        ids.push_back(s.getColumn(0).getString());
    std::vector<std::pair<std::string, Version>> all;
    for (const std::string& id : ids)
        all.emplace_back(id, versionOf(database, thing, id));
    return all;
}

void keepVersion(Database& database, Thing thing, const std::string& id, const Version& version) {
    Statement clear(database, "DELETE FROM version WHERE thing = ? AND id = ?");
    clear.bind(1, key(thing));
    clear.bind(2, id);
    clear.exec();
    Statement s(database,
                "INSERT INTO version(thing, id, of, changed_at, deleted_at, joined) VALUES(?, ?, ?, ?, ?, ?)");
    s.bind(1, key(thing));
    s.bind(2, id);
    s.bind(3, version.of);
    s.bind(4, version.changedAt);
    s.bind(5, version.deletedAt);
    s.bind(6, version.joined);
    s.exec();
    Statement change(database, "INSERT INTO change(thing, id, writer, times) VALUES(?, ?, ?, ?)");
    for (const auto& [writer, times] : version.changes) {
        change.reset();
        change.bind(1, key(thing));
        change.bind(2, id);
        change.bind(3, writer);
        change.bind(4, times);
        change.exec();
    }
}

namespace {

// What a trigger notes of a player or a setting while somebody listens.
std::string noting(const std::string& thing, const std::string& id, const std::string& deletedAt) {
    return "INSERT INTO version(thing, id, of, changed_at, deleted_at, joined) SELECT '" + thing + "', " + id + ", " +
           id + ", strftime('%Y-%m-%dT%H:%M:%SZ', 'now'), " + deletedAt +
           ", '' FROM noting WHERE listens ON CONFLICT DO UPDATE SET changed_at = excluded.changed_at, "
           "deleted_at = excluded.deleted_at, joined = ''; "
           "INSERT INTO change(thing, id, writer, times) SELECT '" +
           thing + "', " + id + ", writer, 1 FROM noting WHERE listens ON CONFLICT DO UPDATE SET times = times + 1; ";
}

std::string trigger(const std::string& name, const std::string& when, const std::string& does) {
    return "CREATE TEMP TRIGGER " + name + " AFTER " + when + " BEGIN " + does + "END; ";
}

void listen(Database& database, const std::string& writer) {
    database.exec("CREATE TEMP TABLE noting(writer TEXT, listens INTEGER)");
    Statement s(database, "INSERT INTO noting VALUES(?, 1)");
    s.bind(1, writer);
    s.exec();
    const std::string gone = "strftime('%Y-%m-%dT%H:%M:%SZ', 'now')";
    const std::string shared = "(new.key = 'stock' OR new.key = 'sleeves' OR new.key LIKE 'start\\_%' ESCAPE '\\') ";
    database.exec(
        trigger("player_new", "INSERT ON main.player", noting("player", "new.id", "''")) +
        trigger("player_other", "UPDATE ON main.player WHEN old.about <> new.about", noting("player", "new.id", "''")) +
        trigger("player_gone", "DELETE ON main.player", noting("player", "old.id", gone)) +
        trigger("setting_new", "INSERT ON main.setting WHEN " + shared, noting("setting", "new.key", "''")));
}

} // namespace

bool isShared(const std::string& key) {
    return key == "stock" || key == "sleeves" || key.starts_with("start_");
}

// Made once for a connection: a shot is noted, too.
class VersionWriter::Statements {
public:
    explicit Statements(Database& database)
        : writer(boost::uuids::to_string(boost::uuids::random_generator()()))
        , version(database, "INSERT INTO version(thing, id, of, changed_at, deleted_at) VALUES('test', ?1, ?1, ?2, ?3) "
                            "ON CONFLICT DO UPDATE SET changed_at = ?2, deleted_at = ?3")
        , change(database, "INSERT OR REPLACE INTO change(thing, id, writer, times) SELECT 'test', ?1, ?2, "
                           "1 + coalesce(max(c.times), 0) FROM version own JOIN version v ON v.thing = 'test' AND "
                           "v.of = own.of JOIN change c ON c.thing = 'test' AND c.id = v.id AND c.writer = ?2 "
                           "WHERE own.thing = 'test' AND own.id = ?1")
        , join(database, "UPDATE version SET joined = ? WHERE thing = 'player' AND id = ?") {
        listen(database, writer);
    }
    std::string writer;
    Statement version, change, join;
};

VersionWriter::VersionWriter(Database& database)
    : m_statements(std::make_unique<Statements>(database)) {}
VersionWriter::~VersionWriter() = default;

void VersionWriter::note(const std::string& testId, const std::string& deletedAt) {
    Statement& version = m_statements->version;
    version.bind(1, testId);
    version.bind(2, nowText());
    version.bind(3, deletedAt);
    version.exec();
    Statement& change = m_statements->change;
    change.bind(1, testId);
    // Versions that stand side by side are changed by writers of their own: what changed one is not known to the other.
    change.bind(2, m_statements->writer + " " + testId);
    change.exec();
    release();
}

void VersionWriter::changed(const std::string& testId) {
    note(testId, {});
}

void VersionWriter::deleted(const std::string& testId) {
    note(testId, nowText());
}

void VersionWriter::joined(const std::string& from, const std::string& into) {
    m_statements->join.bind(1, into);
    m_statements->join.bind(2, from);
    m_statements->join.exec();
    release();
}

void VersionWriter::release() {
    for (Statement* statement : {&m_statements->version, &m_statements->change, &m_statements->join})
        statement->tryReset();
}

VersionWriter::Silence::Silence(Database& database)
    : m_database(database) {
    m_database.exec("UPDATE noting SET listens = 0");
}

VersionWriter::Silence::~Silence() {
    try {
        m_database.exec("UPDATE noting SET listens = 1");
    } catch (const SQLite::Exception&) { // the transaction is taken back, and this with it
    }
}

} // namespace knot::logbook
