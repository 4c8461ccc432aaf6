#include "logbook/schema.h"

#include "core/record/metric.h"
#include "core/record/text/text.h"
#include "logbook/merging/versions.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <set>
#include <string>

namespace knot::logbook {
namespace {

constexpr const char* tables = R"(
CREATE TABLE setting(key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE test(
  id TEXT PRIMARY KEY,
  title TEXT NOT NULL,
  question TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL DEFAULT '',
  head TEXT NOT NULL
) WITHOUT ROWID;
CREATE TABLE test_build(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  id TEXT NOT NULL DEFAULT '',
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE sitting(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  label TEXT NOT NULL DEFAULT '',
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE turn(
  test_id TEXT NOT NULL,
  position INTEGER NOT NULL,
  sitting INTEGER NOT NULL,
  build INTEGER NOT NULL,
  round TEXT NOT NULL DEFAULT '',
  label TEXT NOT NULL DEFAULT '',
  player TEXT NOT NULL DEFAULT '',
  handed_over INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY(test_id, position),
  FOREIGN KEY(test_id, sitting) REFERENCES sitting(test_id, position) ON DELETE CASCADE,
  FOREIGN KEY(test_id, build) REFERENCES test_build(test_id, position) ON DELETE CASCADE
) WITHOUT ROWID;
)";

// Words are told by OR: an IN of three or more makes a table of its own for every row.
std::string shotTable() {
    std::string sql = R"(
CREATE TABLE shot(
  test_id TEXT NOT NULL,
  position INTEGER NOT NULL,
  turn INTEGER NOT NULL,
  id INTEGER NOT NULL DEFAULT 0,
  number TEXT NOT NULL DEFAULT '',
  status TEXT NOT NULL CHECK(status = 'counted' OR status = 'set_aside' OR status = 'warm_up'),
  mark TEXT NOT NULL DEFAULT 'none' CHECK(mark = 'none' OR mark = 'club' OR mark = 'player' OR mark = 'day'),
  set_aside_when TEXT NOT NULL DEFAULT 'unknown'
    CHECK(set_aside_when = 'unknown' OR set_aside_when = 'called' OR set_aside_when = 'by_rule' OR
          set_aside_when = 'after_number' OR set_aside_when = 'after_reveal'),
  reason TEXT NOT NULL DEFAULT '',
  taken_at TEXT NOT NULL DEFAULT '',
  delivery TEXT NOT NULL DEFAULT '',
  called TEXT NOT NULL DEFAULT 'none'
    CHECK(called = 'none' OR called = 'good' OR called = 'so_so' OR called = 'bad'),
  feel INTEGER NOT NULL DEFAULT 0,
  note TEXT NOT NULL DEFAULT '',
  read_id TEXT NOT NULL DEFAULT '',
  extra TEXT NOT NULL DEFAULT '',
  modelled TEXT NOT NULL DEFAULT '',
)";
    for (const auto metric : record::allMetrics())
        sql += "  " + record::info(metric).key + " REAL,\n";
    return sql + R"(  PRIMARY KEY(test_id, position),
  FOREIGN KEY(test_id, turn) REFERENCES turn(test_id, position) ON DELETE CASCADE
);
CREATE INDEX shot_by_turn ON shot(test_id, turn, status);
)";
}

constexpr const char* players = R"(
CREATE TABLE player(
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  left_handed INTEGER NOT NULL DEFAULT 0,
  about TEXT NOT NULL
) WITHOUT ROWID;
CREATE TABLE test_player(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  player_id TEXT NOT NULL REFERENCES player(id),
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE INDEX test_by_player ON test_player(player_id);
)";

constexpr const char* tally = R"(
CREATE TABLE tally(
  test_id TEXT PRIMARY KEY REFERENCES test(id) ON DELETE CASCADE,
  turns TEXT NOT NULL
) WITHOUT ROWID;
CREATE TRIGGER tally_after_insert AFTER INSERT ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
CREATE TRIGGER tally_after_delete AFTER DELETE ON shot BEGIN DELETE FROM tally WHERE test_id = old.test_id; END;
CREATE TRIGGER tally_after_update AFTER UPDATE ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
)";

// Everything that the schema is made of, one text each.
std::set<std::string> partsOf(SQLite::Database& database) {
    std::set<std::string> parts;
    SQLite::Statement objects(database, "SELECT type, name, coalesce(sql, '') FROM sqlite_schema WHERE name NOT LIKE "
                                        "'sqlite_%'");
    // Of what a table itself asks for, UNIQUE and PRIMARY KEY; others have names.
    SQLite::Statement indexes(database,
                              "SELECT origin, count(*) FROM pragma_index_list(?) WHERE origin <> 'c' GROUP BY origin");
    SQLite::Statement columns(database, "SELECT name, type, \"notnull\", pk, hidden FROM pragma_table_xinfo(?)");
    while (objects.executeStep()) {
        const std::string type = objects.getColumn(0).getString();
        const std::string name = objects.getColumn(1).getString();
        if (type == "view") // others may look at what is here as they like
            continue;
        if (type != "table") {
            parts.insert(std::string(type).append(" ").append(name).append(": ") + objects.getColumn(2).getString());
            continue;
        }
        // A table that drops or replaces rows by itself would lose shots that were said to be kept.
        const std::string sql = record::lowerCase(objects.getColumn(2).getString());
        const bool isSilent = sql.find("on conflict") != std::string::npos;
        parts.insert("table " + name + (isSilent ? " with rows that give way: on conflict" : ""));
        indexes.reset();
        indexes.bind(1, name);
        while (indexes.executeStep())
            parts.insert("index of " + name + " " + indexes.getColumn(0).getString() + " " +
                         indexes.getColumn(1).getString());
        columns.reset();
        columns.bind(1, name);
        while (columns.executeStep()) {
            std::string column = "column " + name + ".";
            for (int i = 0; i < 5; ++i)
                column.append(columns.getColumn(i).getString()).append(" ");
            parts.insert(column);
        }
    }
    return parts;
}

} // namespace

std::vector<std::string> schemaFaults(SQLite::Database& database) {
    static const std::set<std::string> expected = [] {
        SQLite::Database fresh(":memory:", SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE);
        createTables(fresh);
        return partsOf(fresh);
    }();
    const auto found = partsOf(database);
    std::vector<std::string> faults;
    auto differing = [&](const std::set<std::string>& all, const std::set<std::string>& known, const char* what) {
        for (const std::string& part : all)
            if (!known.contains(part))
                faults.push_back(what + part.substr(0, part.find(':')));
    };
    differing(found, expected, "it has a part of its own, ");
    differing(expected, found, "it lacks its ");
    return faults;
}

void createPlayers(SQLite::Database& database) {
    database.exec(players);
}

void createShots(SQLite::Database& database) {
    database.exec(shotTable());
}

void createTally(SQLite::Database& database) {
    database.exec(tally);
}

void createViews(SQLite::Database& database) {
    std::string metrics;
    for (const auto metric : record::allMetrics())
        metrics += ", shot." + record::info(metric).key;
    database.exec(R"(
CREATE VIEW IF NOT EXISTS tests AS
  SELECT test.id AS test_id, test.title AS test, test.question, test.created_at,
    (SELECT count(*) FROM test_build WHERE test_build.test_id = test.id) AS clubs,
    (SELECT count(*) FROM shot WHERE shot.test_id = test.id) AS shots
  FROM test;
CREATE VIEW IF NOT EXISTS stints AS
  SELECT turn.test_id, test.title AS test, turn.position + 1 AS stint, turn.round AS lap, test_build.name AS club,
    turn.player, sitting.label AS sitting, turn.handed_over,
    (SELECT count(*) FROM shot WHERE shot.test_id = turn.test_id AND shot.turn = turn.position) AS shots
  FROM turn
  JOIN test ON test.id = turn.test_id
  JOIN test_build ON test_build.test_id = turn.test_id AND test_build.position = turn.build
  JOIN sitting ON sitting.test_id = turn.test_id AND sitting.position = turn.sitting
  ORDER BY turn.test_id, turn.position;
CREATE VIEW IF NOT EXISTS shots AS
  SELECT shot.test_id, test.title AS test, shot.position + 1 AS shot, test_build.name AS club, turn.player,
    sitting.label AS sitting, turn.round AS lap, turn.position + 1 AS stint, shot.number, shot.status,
    shot.set_aside_when, shot.reason, shot.mark, shot.taken_at, shot.delivery, shot.called, shot.feel, shot.note)" +
                  metrics + R"(
  FROM shot
  JOIN turn ON turn.test_id = shot.test_id AND turn.position = shot.turn
  JOIN test ON test.id = shot.test_id
  JOIN test_build ON test_build.test_id = turn.test_id AND test_build.position = turn.build
  JOIN sitting ON sitting.test_id = turn.test_id AND sitting.position = turn.sitting
  ORDER BY shot.test_id, shot.position;
)");
}

void createTables(SQLite::Database& database) {
    database.exec(tables);
    createPlayers(database);
    createShots(database);
    createTally(database);
    createVersions(database);
    createViews(database);
    database.exec("PRAGMA application_id = " + std::to_string(applicationId));
    database.exec("PRAGMA user_version = " + std::to_string(schemaVersion));
}

void createSchema(SQLite::Database& database) {
    SQLite::Transaction transaction(database);
    createTables(database);
    transaction.commit();
}

void guardConnection(SQLite::Database& database) {
    database.exec("PRAGMA trusted_schema = OFF");
    database.exec("PRAGMA cell_size_check = ON");
}

// The file alone holds everything between two writes: a journal beside it lives as long as a write.
void configureConnection(SQLite::Database& database) {
    guardConnection(database);
    database.exec("PRAGMA cache_size = -32768");
    database.exec("PRAGMA foreign_keys = ON");
    database.execAndGet("PRAGMA journal_mode = DELETE");
    database.exec("PRAGMA synchronous = EXTRA");
}

} // namespace knot::logbook
