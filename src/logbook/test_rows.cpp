#include "logbook/test_rows.h"

#include "core/record/check.h"
#include "core/record/shot_fields.h"
#include "core/record/text/text.h"
#include "files/test_json.h"
#include "logbook/players.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <nlohmann/json.hpp>

#include <boost/uuid/random_generator.hpp>
#include <boost/uuid/uuid_io.hpp>

#include <stdexcept>

namespace knot::logbook {
namespace {

using record::Metric;
using record::Shot;
using record::ShotField;
using record::Test;
using SQLite::Database;
using SQLite::Statement;

[[noreturn]] void refuseHead(const files::Error& error) {
    throw std::runtime_error(files::sentence(error));
}

// A number where a number belongs; SQLite would read a text as 0.
double numberOf(const SQLite::Column& column, const std::string& what) {
    if (!column.isInteger() && !column.isFloat())
        throw std::runtime_error("its " + what + " is no number");
    return column.getDouble();
}

void insertHead(Database& database, const Test& test) {
    Statement s(database, "INSERT INTO test(id, title, question, created_at, head) VALUES(?, ?, ?, ?, ?)");
    s.bind(1, test.id);
    s.bind(2, test.title);
    s.bind(3, test.question);
    s.bind(4, test.createdAt);
    s.bind(5, files::testHeadJson(test));
    s.exec();
}

// Also over builds that stand there, so that shots keep theirs.
void writeBuilds(Database& database, const Test& test) {
    Statement struck(database, "SELECT 1 FROM turn WHERE test_id = ? AND build >= ?");
    struck.bind(1, test.id);
    struck.bind(2, static_cast<int64_t>(test.builds.size()));
    if (struck.executeStep())
        throw std::runtime_error("a club that was struck would be taken away with its shots");
    Statement surplus(database, "DELETE FROM test_build WHERE test_id = ? AND position >= ?");
    surplus.bind(1, test.id);
    surplus.bind(2, static_cast<int64_t>(test.builds.size()));
    surplus.exec();
    Statement s(database, "INSERT INTO test_build(test_id, position, name, id) VALUES(?, ?, ?, ?) "
                          "ON CONFLICT DO UPDATE SET name = excluded.name, id = excluded.id");
    for (record::BuildAt i; i < test.builds.size(); ++i) {
        s.reset();
        s.bind(1, test.id);
        s.bind(2, static_cast<int64_t>(i));
        s.bind(3, test.builds[i].name);
        s.bind(4, test.builds[i].id);
        s.exec();
    }
}

// What is the same for all shots of a recorded turn stands with the turn.
bool isOfTurn(const ShotField& field) {
    return field.key == "sitting" || field.key == "player" || field.key == "round" || field.key == "turn" ||
           field.key == "handed_over";
}

std::string columnOf(const ShotField& field) {
    return field.key == "shot" ? std::string("number") : std::string(field.key);
}

// Words that say nothing are written out, and scores are numbers, as the table's columns have them.
std::string storedText(const ShotField& field, const Shot& shot) {
    std::string text = field.text(shot);
    if (!text.empty())
        return text;
    if (field.kind == ShotField::Kind::score)
        return "0";
    return field.key == "mark" || field.key == "called" ? "none" : field.key == "set_aside_when" ? "unknown" : "";
}

void takeStored(const ShotField& field, Shot& shot, const std::string& text) {
    if (field.kind != ShotField::Kind::score || text != "0")
        field.take(shot, text);
}

// A recorded turn is a run of shots with the same labels; what is the same for all is kept once.
bool sameRecordedTurn(const Shot& a, const Shot& b) {
    return a.build == b.build && a.sitting == b.sitting && a.round == b.round && a.turn == b.turn &&
           a.player == b.player && !b.handedOver && b.mark == record::Mark::none;
}

} // namespace

/// The statements that write shots, made once for a connection: making them costs more than a shot.
/// `tryReset`, since a plain reset throws the error of a step that failed before.
class ShotWriter::Statements {
public:
    explicit Statements(Database& database)
        : m_sitting(database, "INSERT INTO sitting(test_id, position, label) VALUES(?, ?, ?)")
        , m_turn(database, "INSERT INTO turn(test_id, position, sitting, build, round, label, player, handed_over) "
                           "VALUES(?, ?, ?, ?, ?, ?, ?, ?)")
        , m_shot(database, shotSql())
        , m_before(database, "SELECT t.position, t.sitting FROM shot x JOIN turn t ON t.test_id = x.test_id AND "
                             "t.position = x.turn WHERE x.test_id = ? AND x.position = ?")
        , m_clearShots(database, "DELETE FROM shot WHERE test_id = ? AND position >= ?")
        , m_clearTurns(database, "DELETE FROM turn WHERE test_id = ? AND position >= ?")
        , m_clearSittings(database, "DELETE FROM sitting WHERE test_id = ? AND position >= ?")
        , m_texts(static_cast<std::size_t>(m_shot.getBindParameterCount()) + 1)
        , m_hasValue(m_texts.size()) {}

    void clearFrom(const Test& test, std::size_t from) {
        m_sittings = m_turns = -1;
        if (from > 0)
            findBefore(test.id, from);
        clear(m_clearShots, test.id, static_cast<int64_t>(from));
        clear(m_clearTurns, test.id, m_turns + 1);
        clear(m_clearSittings, test.id, m_sittings + 1);
    }

    void replace(const Test& test, std::size_t from, const Progress& tell) {
        constexpr std::size_t nowAndThen = 1000;
        clearFrom(test, from);
        m_id = test.id;
        for (std::size_t i = from; i < test.shots.size(); ++i) {
            const Shot& shot = test.shots[i];
            if (i == 0 || test.shots[i - 1].sitting != shot.sitting)
                writeSitting(shot);
            if (i == 0 || !sameRecordedTurn(test.shots[i - 1], shot))
                writeTurn(shot);
            writeShot(shot, i);
            if (tell && i % nowAndThen == 0)
                tell(static_cast<double>(i) / static_cast<double>(test.shots.size()));
        }
    }

private:
    // The turn and the sitting of the shot before `from`.
    void findBefore(const std::string& id, std::size_t from) {
        m_before.tryReset();
        m_before.bind(1, id);
        m_before.bind(2, static_cast<int64_t>(from) - 1);
        if (!m_before.executeStep())
            throw NoSuchTest(id);
        m_turns = m_before.getColumn(0).getInt64();
        m_sittings = m_before.getColumn(1).getInt64();
        m_before.tryReset();
    }

    static void clear(Statement& statement, const std::string& id, int64_t first) {
        statement.tryReset();
        statement.bind(1, id);
        statement.bind(2, first);
        statement.exec();
        statement.tryReset();
    }

    static std::vector<const ShotField*> fieldsOfShots() {
        std::vector<const ShotField*> fields;
        for (const ShotField& field : record::shotFields())
            if (!isOfTurn(field))
                fields.push_back(&field);
        return fields;
    }

    static std::string shotSql() {
        std::string names = "INSERT INTO shot(test_id, position, turn, id, extra, modelled";
        std::string marks = ") VALUES(?, ?, ?, ?, ?, ?";
        for (const ShotField& field : record::shotFields())
            if (!isOfTurn(field)) {
                names += ", " + columnOf(field);
                marks += ", ?";
            }
        for (const Metric metric : record::allMetrics()) {
            names += ", " + record::info(metric).key;
            marks += ", ?";
        }
        return names + marks + ")";
    }

    void writeSitting(const Shot& shot) {
        m_sitting.tryReset();
        m_sitting.bind(1, m_id);
        m_sitting.bind(2, ++m_sittings);
        m_sitting.bind(3, shot.sitting);
        m_sitting.exec();
        m_sitting.tryReset();
    }

    void writeTurn(const Shot& shot) {
        m_turn.tryReset();
        m_turn.bind(1, m_id);
        m_turn.bind(2, ++m_turns);
        m_turn.bind(3, m_sittings);
        m_turn.bind(4, static_cast<int64_t>(shot.build));
        m_turn.bind(5, shot.round);
        m_turn.bind(6, shot.turn);
        m_turn.bind(7, shot.player);
        m_turn.bind(8, shot.handedOver ? 1 : 0);
        m_turn.exec();
        m_turn.tryReset();
    }

    // What a shot has in common with the one before it stays bound: many shots, much in common.
    void bindText(int at, std::string text) {
        auto& bound = m_texts[static_cast<std::size_t>(at)];
        if (bound == text)
            return;
        bound = std::move(text);
        m_shot.bind(at, *bound);
    }
    void bindValue(int at, std::optional<double> value) {
        const auto place = static_cast<std::size_t>(at);
        if (value)
            m_shot.bind(at, *value);
        else if (m_hasValue[place])
            m_shot.bind(at);
        m_hasValue[place] = value.has_value();
    }

    void writeShot(const Shot& shot, std::size_t position) {
        m_shot.tryReset();
        bindText(1, m_id);
        m_shot.bind(2, static_cast<int64_t>(position));
        m_shot.bind(3, m_turns);
        m_shot.bind(4, static_cast<int64_t>(shot.id));
        bindText(5, shot.extra.empty() ? std::string() : nlohmann::json(shot.extra).dump());
        int at = 6;
        for (const ShotField* field : m_fields)
            bindText(++at, storedText(*field, shot));
        std::string modelled;
        for (const Metric metric : record::allMetrics()) {
            const auto value = shot.readings.at(metric);
            // Derived values are derived again on loading.
            bindValue(++at, shot.readings.derived(metric) ? std::nullopt : value);
            if (shot.readings.modelled(metric) && value)
                modelled += (modelled.empty() ? "" : ",") + record::info(metric).key;
        }
        bindText(6, std::move(modelled));
        m_shot.exec();
        m_shot.tryReset();
    }

    Statement m_sitting, m_turn, m_shot, m_before, m_clearShots, m_clearTurns, m_clearSittings;
    std::vector<const ShotField*> m_fields = fieldsOfShots();
    std::vector<std::optional<std::string>> m_texts; ///< bound at each place
    std::vector<bool> m_hasValue;                    ///< whether a number is bound there
    std::string m_id;
    int64_t m_sittings = -1, m_turns = -1;
};

ShotWriter::ShotWriter(Database& database)
    : m_statements(std::make_unique<Statements>(database)) {}
ShotWriter::~ShotWriter() = default;

void ShotWriter::replace(const Test& test, std::size_t from, const Progress& tell) {
    m_statements->replace(test, from, tell);
}

void ShotWriter::clearFrom(const Test& test, std::size_t from) {
    m_statements->clearFrom(test, from);
}

namespace {

void readShots(Database& database, Test& test) {
    std::string sql = "SELECT t.build, t.round, t.label, t.player, t.handed_over, s.label, x.turn, x.id, x.extra, "
                      "x.modelled";
    for (const ShotField& field : record::shotFields())
        if (!isOfTurn(field))
            sql += ", x." + columnOf(field);
    for (const Metric metric : record::allMetrics())
        sql += ", x." + record::info(metric).key;
    sql += " FROM shot x JOIN turn t ON t.test_id = x.test_id AND t.position = x.turn "
           "JOIN sitting s ON s.test_id = t.test_id AND s.position = t.sitting "
           "WHERE x.test_id = ? ORDER BY x.position";
    Statement q(database, sql);
    q.bind(1, test.id);
    int64_t lastTurn = -1;
    while (q.executeStep()) {
        Shot shot;
        shot.build = record::BuildAt(static_cast<std::size_t>(q.getColumn(0).getInt64())); // faultsOf bounds it
        shot.round = record::printable(q.getColumn(1).getString());
        shot.turn = record::printable(q.getColumn(2).getString());
        shot.player = record::printable(q.getColumn(3).getString());
        shot.sitting = record::printable(q.getColumn(5).getString());
        const int64_t turn = q.getColumn(6).getInt64();
        shot.handedOver = turn != lastTurn && q.getColumn(4).getInt() != 0;
        lastTurn = turn;
        shot.id = record::ShotId{q.getColumn(7).getInt64()};
        if (const std::string extra = q.getColumn(8).getString(); !extra.empty())
            shot.extra = nlohmann::json::parse(extra).get<std::vector<std::string>>();
        const std::string modelled = "," + q.getColumn(9).getString() + ",";
        int at = 9;
        for (const ShotField& field : record::shotFields())
            if (!isOfTurn(field))
                takeStored(field, shot, record::printable(q.getColumn(++at).getString()));
        for (const Metric metric : record::allMetrics()) {
            const auto column = q.getColumn(++at);
            if (column.isNull())
                continue;
            const bool isModelled = modelled.find("," + record::info(metric).key + ",") != std::string::npos;
            const double value = numberOf(column, record::info(metric).label);
            isModelled ? shot.readings.model(metric, value) : shot.readings.measure(metric, value);
        }
        record::deriveMissing(shot.readings);
        test.shots.push_back(std::move(shot));
    }
}

} // namespace

std::string newId() {
    return boost::uuids::to_string(boost::uuids::random_generator()());
}

void insertTest(Database& database, const Test& test, const Progress& tell) {
    insertHead(database, test);
    writeBuilds(database, test);
    writePlayersOf(database, test);
    ShotWriter(database).replace(test, 0, tell);
}

void updateClubs(Database& database, const Test& test) {
    Statement s(database, "UPDATE test SET title = ?, question = ?, created_at = ?, head = ? WHERE id = ?");
    s.bind(1, test.title);
    s.bind(2, test.question);
    s.bind(3, test.createdAt);
    s.bind(4, files::testHeadJson(test));
    s.bind(5, test.id);
    if (s.exec() == 0)
        throw NoSuchTest(test.id);
    writeBuilds(database, test);
}

void updateHead(Database& database, const Test& test) {
    updateClubs(database, test);
    writePlayersOf(database, test);
}

namespace {

// Who is in a test is known by place and id; what they are called, and the rest, stands with the players.
void takePlayers(Database& database, Test& test) {
    auto players = playersOf(database, test.id);
    if (players.size() != test.players.size())
        throw std::runtime_error("its players stand there twice, and differ");
    for (record::Amendment& amendment : test.amendments)
        for (Shot& shot : amendment.was)
            if (const auto at = test.playerIndex(shot.player))
                shot.player = players[*at].name;
    test.players = std::move(players);
}

} // namespace

Test readTest(Database& database, const std::string& id) {
    Statement s(database, "SELECT head FROM test WHERE id = ?");
    s.bind(1, id);
    if (!s.executeStep())
        throw NoSuchTest(id);
    auto head = files::readTestHeadJson("test " + id, s.getColumn(0).getString());
    if (!head)
        refuseHead(head.error());
    Test test = std::move(*head);
    test.id = id;
    Statement builds(database, "SELECT count(*) FROM test_build WHERE test_id = ?");
    builds.bind(1, id);
    builds.executeStep();
    if (builds.getColumn(0).getInt64() != static_cast<int64_t>(test.builds.size()))
        throw std::runtime_error("its clubs stand there twice, and differ");
    takePlayers(database, test);
    readShots(database, test);
    Statement rows(database, "SELECT count(*) FROM shot WHERE test_id = ?");
    rows.bind(1, id);
    rows.executeStep();
    if (const auto all = static_cast<std::size_t>(rows.getColumn(0).getInt64()); all != test.shots.size())
        throw std::runtime_error(std::to_string(all - test.shots.size()) +
                                 " of its shots are of a stint that is not there");
    test.nameShots(); // two of one id are two shots
    if (const auto faults = record::faultsOf(test); !faults.empty())
        throw std::runtime_error(faults.front());
    return test;
}

} // namespace knot::logbook
