#include "logbook/schema.h"

#include "core/record/metric.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <string>

namespace knot::logbook {
namespace {

constexpr const char* tables = R"(
CREATE TABLE setting(key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE player(id TEXT PRIMARY KEY, name TEXT NOT NULL UNIQUE) WITHOUT ROWID;
CREATE TABLE build(id TEXT PRIMARY KEY, name TEXT NOT NULL, note TEXT NOT NULL DEFAULT '') WITHOUT ROWID;
CREATE TABLE test(
  id TEXT PRIMARY KEY,
  title TEXT NOT NULL,
  question TEXT NOT NULL DEFAULT '',
  player_id TEXT REFERENCES player(id),
  created_at TEXT NOT NULL DEFAULT '',
  comparison TEXT NOT NULL CHECK(comparison IN ('against_baseline', 'which_of_these')),
  baseline TEXT NOT NULL DEFAULT '',
  alpha REAL NOT NULL CHECK(alpha > 0 AND alpha < 1),
  sd_ratio_margin REAL NOT NULL CHECK(sd_ratio_margin > 1),
  area_ratio_margin REAL NOT NULL CHECK(area_ratio_margin > 1),
  trend_column TEXT NOT NULL DEFAULT '',
  factor_column TEXT NOT NULL DEFAULT '',
  set_aside_rule TEXT NOT NULL DEFAULT 'called'
    CHECK(set_aside_rule IN ('keep_all', 'called', 'until_good', 'by_numbers', 'best_and_worst'))
) WITHOUT ROWID;
CREATE TABLE test_build(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  build_id TEXT NOT NULL REFERENCES build(id),
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE test_outcome(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  outcome TEXT NOT NULL,
  priority INTEGER,
  want TEXT CHECK(want IN ('none', 'more', 'less', 'near')),
  want_value REAL,
  PRIMARY KEY(test_id, outcome)
) WITHOUT ROWID;
CREATE TABLE test_margin(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  metric TEXT NOT NULL,
  gap REAL NOT NULL CHECK(gap > 0),
  PRIMARY KEY(test_id, metric)
) WITHOUT ROWID;
CREATE TABLE test_covariate(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  metric TEXT NOT NULL,
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE test_shape(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  kind TEXT NOT NULL CHECK(kind IN ('fairway', 'ellipse', 'rectangle')),
  side REAL NOT NULL, carry REAL NOT NULL,
  width REAL NOT NULL CHECK(width > 0), depth REAL NOT NULL,
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE test_target(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  metric TEXT NOT NULL,
  build TEXT NOT NULL DEFAULT '',
  low REAL NOT NULL,
  high REAL NOT NULL CHECK(high >= low),
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE test_column(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
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
  FOREIGN KEY(test_id, build) REFERENCES test_build(test_id, position)
) WITHOUT ROWID;
)";

std::string shotTable() {
    std::string sql = R"(
CREATE TABLE shot(
  test_id TEXT NOT NULL,
  position INTEGER NOT NULL,
  turn INTEGER NOT NULL,
  number TEXT NOT NULL DEFAULT '',
  status TEXT NOT NULL CHECK(status IN ('counted', 'set_aside', 'warm_up')),
  mark TEXT NOT NULL DEFAULT 'none' CHECK(mark IN ('none', 'club', 'player')),
  reason TEXT NOT NULL DEFAULT '',
  taken_at TEXT NOT NULL DEFAULT '',
  delivery TEXT NOT NULL DEFAULT '',
  feel INTEGER NOT NULL DEFAULT 0,
  note TEXT NOT NULL DEFAULT '',
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

} // namespace

void createSchema(SQLite::Database& database) {
    SQLite::Transaction transaction(database);
    database.exec(tables);
    database.exec(shotTable());
    database.exec("PRAGMA application_id = " + std::to_string(applicationId));
    database.exec("PRAGMA user_version = " + std::to_string(schemaVersion));
    transaction.commit();
}

void configureConnection(SQLite::Database& database) {
    database.exec("PRAGMA foreign_keys = ON");
    database.exec("PRAGMA journal_mode = WAL");
    database.exec("PRAGMA synchronous = FULL");
}

} // namespace knot::logbook
