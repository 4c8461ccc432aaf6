#include "logbook/migration.h"

#include "core/record/text/names.h"
#include "files/base/file.h"
#include "files/test_json.h"
#include "logbook/merging/merge.h"
#include "logbook/players.h"
#include "logbook/schema.h"
#include "logbook/test_rows.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <filesystem>
#include <map>
#include <vector>

namespace knot::logbook {
namespace {

using record::Card;
using record::Want;
using SQLite::Database;
using SQLite::Statement;

template<typename Value, std::size_t N>
Value named(const std::array<const char*, N>& names, const SQLite::Column& column) {
    return record::valueNamed<Value>(names, column.getString()).value_or(Value{});
}

// Format 1 kept the card in tables of its own.
Card cardOfFormat1(Database& database, const std::string& id) {
    Card card;
    Statement head(database, "SELECT comparison, baseline, alpha, sd_ratio_margin, area_ratio_margin, trend_column, "
                             "factor_column, set_aside_rule FROM test WHERE id = ?");
    head.bind(1, id);
    head.executeStep();
    card.comparison = named<record::Comparison>(record::comparisonNames, head.getColumn(0));
    card.baseline = head.getColumn(1).getString();
    card.alpha = head.getColumn(2).getDouble();
    card.sdRatioMargin = head.getColumn(3).getDouble();
    card.areaRatioMargin = head.getColumn(4).getDouble();
    card.trendColumn = head.getColumn(5).getString();
    card.factorColumn = head.getColumn(6).getString();
    card.setAsideRule = named<record::SetAsideRule>(record::ruleNames, head.getColumn(7));
    Statement outcomes(database, "SELECT outcome, priority, want, want_value FROM test_outcome WHERE test_id = ? "
                                 "ORDER BY priority IS NULL, priority, outcome");
    outcomes.bind(1, id);
    while (outcomes.executeStep()) {
        const auto outcome = record::outcomeFromText(outcomes.getColumn(0).getString());
        if (!outcome)
            continue;
        if (!outcomes.getColumn(1).isNull())
            card.primary.push_back(*outcome);
        if (!outcomes.getColumn(2).isNull())
            card.wants[*outcome] = {named<Want::Kind>(record::wantNames, outcomes.getColumn(2)),
                                    outcomes.getColumn(3).getDouble()};
    }
    Statement margins(database, "SELECT metric, gap FROM test_margin WHERE test_id = ?");
    margins.bind(1, id);
    while (margins.executeStep())
        if (const auto metric = record::metricFromKey(margins.getColumn(0).getString()))
            card.margins[*metric] = margins.getColumn(1).getDouble();
    Statement covariates(database, "SELECT metric FROM test_covariate WHERE test_id = ? ORDER BY position");
    covariates.bind(1, id);
    while (covariates.executeStep())
        if (const auto metric = record::metricFromKey(covariates.getColumn(0).getString()))
            card.covariates.push_back(*metric);
    Statement shapes(
        database, "SELECT kind, name, side, carry, width, depth FROM test_shape WHERE test_id = ? ORDER BY position");
    shapes.bind(1, id);
    while (shapes.executeStep())
        card.shapes.push_back({named<record::Shape::Kind>(record::shapeNames, shapes.getColumn(0)),
                               shapes.getColumn(1).getString(), shapes.getColumn(2).getDouble(),
                               shapes.getColumn(3).getDouble(), shapes.getColumn(4).getDouble(),
                               shapes.getColumn(5).getDouble()});
    Statement targets(database, "SELECT metric, build, low, high FROM test_target WHERE test_id = ? ORDER BY position");
    targets.bind(1, id);
    while (targets.executeStep())
        if (const auto metric = record::metricFromKey(targets.getColumn(0).getString()))
            card.targets.push_back({*metric, targets.getColumn(1).getString(), targets.getColumn(2).getDouble(),
                                    targets.getColumn(3).getDouble()});
    return card;
}

std::vector<record::Test> headsOfFormat1(Database& database) {
    std::vector<record::Test> tests;
    Statement head(database, "SELECT t.id, t.title, t.question, coalesce(p.name, ''), t.created_at FROM test t "
                             "LEFT JOIN player p ON p.id = t.player_id");
    Statement builds(database, "SELECT b.name, b.note FROM test_build tb JOIN build b ON b.id = tb.build_id "
                               "WHERE tb.test_id = ? ORDER BY tb.position");
    Statement columns(database, "SELECT name FROM test_column WHERE test_id = ? ORDER BY position");
    while (head.executeStep()) {
        record::Test test;
        test.id = head.getColumn(0).getString();
        test.title = head.getColumn(1).getString();
        test.question = head.getColumn(2).getString();
        if (const std::string player = head.getColumn(3).getString(); !player.empty())
            test.players.push_back({.id = {}, .name = player});
        test.createdAt = head.getColumn(4).getString();
        test.card = cardOfFormat1(database, test.id);
        builds.reset();
        builds.bind(1, test.id);
        while (builds.executeStep()) {
            record::Build build;
            build.name = builds.getColumn(0).getString();
            build.note = builds.getColumn(1).getString();
            test.builds.push_back(std::move(build));
        }
        columns.reset();
        columns.bind(1, test.id);
        while (columns.executeStep())
            test.extraColumns.push_back(columns.getColumn(0).getString());
        tests.push_back(std::move(test));
    }
    return tests;
}

// Shots get ids in the order in which they stand.
void nameShots(Database& database) {
    database.exec("UPDATE shot SET id = position + 1");
}

// From `old_shot`, the columns that both have.
void copyShots(Database& database, const std::string& own) {
    std::string columns = "test_id, position, " + own;
    for (const auto metric : record::allMetrics())
        columns += ", " + record::info(metric).key;
    database.exec("INSERT INTO shot(" + columns + ") SELECT " + columns + " FROM old_shot");
}

// Nothing where it can't be read: such a test stays as it is, and the others are not held up by it.
std::optional<record::Test> headOf(Database& database, const std::string& id) {
    Statement s(database, "SELECT head FROM test WHERE id = ?");
    s.bind(1, id);
    s.executeStep();
    auto head = files::readTestHeadJson("test " + id, s.getColumn(0).getString());
    if (!head)
        return std::nullopt;
    head->id = id;
    return std::move(*head);
}

// Shots named players of their own, whom the head did not know.
void takePlayersOfShots(Database& database) {
    Statement named(database, "SELECT test_id, player FROM turn WHERE player <> '' GROUP BY test_id, player "
                              "ORDER BY test_id, min(position)");
    std::map<std::string, std::vector<std::string>> names;
    while (named.executeStep())
        names[named.getColumn(0).getString()].push_back(named.getColumn(1).getString());
    for (const auto& [id, own] : names) {
        auto test = headOf(database, id);
        if (!test)
            continue;
        for (const std::string& name : own)
            if (!test->playerIndex(name))
                test->players.push_back({.id = {}, .name = name});
        updateHead(database, *test);
    }
}

// Format 2 keeps what is declared as one text in the open form of the export, beside the shots.
void toFormat2(Database& database) {
    const auto tests = headsOfFormat1(database);
    database.exec(
        "ALTER TABLE sitting RENAME TO old_sitting; ALTER TABLE turn RENAME TO old_turn; "
        "ALTER TABLE shot RENAME TO old_shot; DROP INDEX shot_by_turn; ALTER TABLE setting RENAME TO old_setting");
    for (const char* table : {"test_outcome", "test_margin", "test_covariate", "test_shape", "test_target",
                              "test_column", "test_build", "build", "test", "player"})
        database.exec(std::string("DROP TABLE ") + table);
    createTables(database);
    for (record::Test test : tests) {
        test.nameClubs();
        insertTest(database, test);
    }
    database.exec("INSERT INTO setting SELECT * FROM old_setting; INSERT INTO sitting SELECT * FROM old_sitting; "
                  "INSERT INTO turn SELECT * FROM old_turn");
    copyShots(database, "turn, number, status, mark, reason, taken_at, delivery, feel, note, extra, modelled");
    nameShots(database);
    takePlayersOfShots(database);
    database.exec("DROP TABLE old_shot; DROP TABLE old_turn; DROP TABLE old_sitting; DROP TABLE old_setting");
}

// Format 3 knows what a monitor called a shot, and keeps each test's tally for the list.
void toFormat3(Database& database) {
    database.exec("ALTER TABLE shot ADD COLUMN read_id TEXT NOT NULL DEFAULT ''");
    createTally(database);
    database.exec("PRAGMA user_version = 3");
}

// Format 4 gives each shot an id of its own.
void toFormat4(Database& database) {
    database.exec("ALTER TABLE shot ADD COLUMN id INTEGER NOT NULL DEFAULT 0");
    nameShots(database);
    database.exec("PRAGMA user_version = 4");
}

std::vector<std::string> idsOfTests(Database& database) {
    std::vector<std::string> ids;
    Statement tests(database, "SELECT id FROM test ORDER BY julianday(created_at) DESC, created_at DESC, id");
    while (tests.executeStep())
        ids.push_back(tests.getColumn(0).getString());
    return ids;
}

// Format 5 keeps players once: of one name and one hand they are one, as the latest test has them, who
// learns from the earlier ones what that one does not say. Shots have a call, and a mark more.
void toFormat5(Database& database) {
    createPlayers(database);
    database.exec("ALTER TABLE test DROP COLUMN player; ALTER TABLE shot RENAME TO old_shot; "
                  "DROP INDEX shot_by_turn; DROP TABLE tally");
    createShots(database);
    copyShots(database, "turn, id, number, status, mark, set_aside_when, reason, taken_at, delivery, feel, note, "
                        "read_id, extra, modelled");
    database.exec("DROP TABLE old_shot");
    createTally(database);
    for (const std::string& id : idsOfTests(database)) {
        const auto test = headOf(database, id);
        if (!test)
            continue;
        updateHead(database, *test);
        const auto players = playersOf(database, id);
        for (std::size_t i = 0; i < players.size(); ++i)
            writePlayer(database, filledIn(players[i], test->players[i]));
    }
    takePlayersOfShots(database);
    database.exec("PRAGMA user_version = 5");
}

// Format 6 gives clubs ids. Their column is there before anything is written anew.
void toFormat6(Database& database) {
    for (const std::string& id : idsOfTests(database))
        if (auto test = headOf(database, id)) {
            test->nameClubs();
            updateClubs(database, *test);
        }
    database.exec("PRAGMA user_version = 6");
}

// The id of the test that one is a version of: earlier formats made ids of versions from those of their tests.
std::string groupOf(const record::Test& version, const std::vector<std::string>& ids) {
    constexpr std::size_t versionAt = 14;
    if (version.id.size() <= versionAt || version.id[versionAt] != '8')
        return version.id;
    record::Test other = version;
    for (const std::string& id : ids) {
        other.id = id;
        if (idBeside(other) == version.id)
            return id;
    }
    return version.id;
}

// Format 7 knows how each thing came to be as it is; of what is there that is what it holds. A test that can't be read
// stays as it is.
void toFormat7(Database& database) {
    const std::vector<std::string> ids = idsOfTests(database);
    for (const std::string& id : ids)
        try {
            const record::Test test = readTest(database, id);
            keepVersion(database, Thing::test, id, versionByContent(test, groupOf(test, ids)));
        } catch (const std::runtime_error&) {
            keepVersion(database, Thing::test, id,
                        {.changes = {}, .of = id, .changedAt = {}, .deletedAt = {}, .joined = {}});
        }
    for (const PlayerEntry& entry : listPlayers(database))
        keepVersion(database, Thing::player, entry.player.id, versionByContent(entry.player));
    Statement settings(database, "SELECT key, value FROM setting");
    std::vector<std::pair<std::string, std::string>> kept;
    while (settings.executeStep())
        kept.emplace_back(settings.getColumn(0).getString(), settings.getColumn(1).getString());
    for (const auto& [key, value] : kept)
        if (isShared(key))
            keepVersion(database, Thing::setting, key, versionByContent(key, value));
    database.exec("PRAGMA user_version = 7");
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

} // namespace

CopyBeside::CopyBeside(Database& database, const std::string& path, int version)
    : m_part(files::newBeside(path, files::For::thisUser)) {
    if (m_part.empty())
        throw std::runtime_error("no copy can be kept beside it");
    Statement s(database, "VACUUM INTO ?");
    s.bind(1, m_part);
    s.exec();
    m_name = nameOfCopy(path, version);
    std::filesystem::rename(m_part, m_name);
}

CopyBeside::~CopyBeside() {
    std::error_code gone;
    std::filesystem::remove(m_part, gone);
    if (!m_stays && !m_name.empty())
        std::filesystem::remove(m_name, gone);
}

void migrate(Database& database, int from) {
    database.exec("PRAGMA foreign_keys = OFF");
    SQLite::Transaction transaction(database);
    if (from < 2)
        toFormat2(database); // makes the newest tables
    if (from >= 2 && from < 6)
        database.exec("ALTER TABLE test_build ADD COLUMN id TEXT NOT NULL DEFAULT ''");
    if (from == 2)
        toFormat3(database);
    if (from == 2 || from == 3)
        toFormat4(database);
    if (from >= 2 && from <= 4)
        toFormat5(database);
    if (from >= 2 && from <= 5)
        toFormat6(database);
    if (from >= 2)
        createVersions(database);
    toFormat7(database);
    Statement broken(database, "PRAGMA foreign_key_check");
    if (broken.executeStep())
        throw std::runtime_error("its references do not hold");
    broken.reset();
    if (const auto faults = schemaFaults(database); !faults.empty())
        throw std::runtime_error(faults.front());
    transaction.commit();
    database.exec("PRAGMA foreign_keys = ON");
}

} // namespace knot::logbook
