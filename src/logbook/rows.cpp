#include "logbook/rows.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <nlohmann/json.hpp>

#include <array>
#include <random>

namespace knot::logbook {
namespace {

using record::Card;
using record::Metric;
using record::Shot;
using record::ShotStatus;
using record::Test;
using record::Want;
using SQLite::Database;
using SQLite::Statement;

constexpr std::array<const char*, 3> statusNames = {"counted", "set_aside", "warm_up"};
constexpr std::array<const char*, 5> ruleNames = {"keep_all", "called", "until_good", "by_numbers", "best_and_worst"};
constexpr std::array<const char*, 3> shapeNames = {"fairway", "ellipse", "rectangle"};
constexpr std::array<const char*, 3> markNames = {"none", "club", "player"};
constexpr std::array<const char*, 4> wantNames = {"none", "more", "less", "near"};

template<std::size_t N> int indexOfName(const std::array<const char*, N>& names, const std::string& text) {
    for (std::size_t i = 0; i < N; ++i)
        if (text == names[i])
            return static_cast<int>(i);
    return 0;
}

std::string playerId(Database& database, const std::string& name) {
    Statement find(database, "SELECT id FROM player WHERE name = ?");
    find.bind(1, name);
    if (find.executeStep())
        return find.getColumn(0).getString();
    const std::string id = newId();
    Statement insert(database, "INSERT INTO player(id, name) VALUES(?, ?)");
    insert.bind(1, id);
    insert.bind(2, name);
    insert.exec();
    return id;
}

void insertBuilds(Database& database, const Test& test) {
    Statement build(database, "INSERT INTO build(id, name, note) VALUES(?, ?, ?)");
    Statement link(database, "INSERT INTO test_build(test_id, position, build_id) VALUES(?, ?, ?)");
    for (std::size_t i = 0; i < test.builds.size(); ++i) {
        const std::string id = newId();
        build.reset();
        build.bind(1, id);
        build.bind(2, test.builds[i].name);
        build.bind(3, test.builds[i].note);
        build.exec();
        link.reset();
        link.bind(1, test.id);
        link.bind(2, static_cast<int64_t>(i));
        link.bind(3, id);
        link.exec();
    }
}

void insertHead(Database& database, const Test& test) {
    Statement s(database,
                "INSERT INTO test(id, title, question, player_id, created_at, comparison, alpha, "
                "sd_ratio_margin, area_ratio_margin) VALUES(?, ?, ?, ?, ?, 'against_baseline', 0.05, 1.25, 1.5)");
    s.bind(1, test.id);
    s.bind(2, test.title);
    s.bind(3, test.question);
    if (test.player.empty())
        s.bind(4);
    else
        s.bind(4, playerId(database, test.player));
    s.bind(5, test.createdAt);
    s.exec();
}

void insertColumns(Database& database, const Test& test) {
    Statement s(database, "INSERT INTO test_column(test_id, position, name) VALUES(?, ?, ?)");
    for (std::size_t i = 0; i < test.extraColumns.size(); ++i) {
        s.reset();
        s.bind(1, test.id);
        s.bind(2, static_cast<int64_t>(i));
        s.bind(3, test.extraColumns[i]);
        s.exec();
    }
}

// A recorded turn is a run of shots with the same labels; what is the same for all is kept once.
bool sameRecordedTurn(const Shot& a, const Shot& b) {
    return a.build == b.build && a.sitting == b.sitting && a.round == b.round && a.turn == b.turn &&
           a.player == b.player && !b.handedOver && b.mark == record::Mark::none;
}

class ShotWriter {
public:
    ShotWriter(Database& database, const Test& test)
        : m_test(test)
        , m_sitting(database, "INSERT INTO sitting(test_id, position, label) VALUES(?, ?, ?)")
        , m_turn(database, "INSERT INTO turn(test_id, position, sitting, build, round, label, player, handed_over) "
                           "VALUES(?, ?, ?, ?, ?, ?, ?, ?)")
        , m_shot(database, shotSql()) {}

    void writeAll() {
        for (std::size_t i = 0; i < m_test.shots.size(); ++i) {
            const Shot& shot = m_test.shots[i];
            if (i == 0 || m_test.shots[i - 1].sitting != shot.sitting)
                writeSitting(shot);
            if (i == 0 || !sameRecordedTurn(m_test.shots[i - 1], shot))
                writeTurn(shot);
            writeShot(shot, i);
        }
    }

private:
    static std::string shotSql() {
        std::string names = "INSERT INTO shot(test_id, position, turn, number, status, reason, taken_at, delivery, "
                            "feel, note, extra, modelled, mark";
        std::string marks = ") VALUES(?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?";
        for (const Metric metric : record::allMetrics()) {
            names += ", " + record::info(metric).key;
            marks += ", ?";
        }
        return names + marks + ")";
    }

    void writeSitting(const Shot& shot) {
        m_sitting.reset();
        m_sitting.bind(1, m_test.id);
        m_sitting.bind(2, ++m_sittings);
        m_sitting.bind(3, shot.sitting);
        m_sitting.exec();
    }

    void writeTurn(const Shot& shot) {
        m_turn.reset();
        m_turn.bind(1, m_test.id);
        m_turn.bind(2, ++m_turns);
        m_turn.bind(3, m_sittings);
        m_turn.bind(4, static_cast<int64_t>(shot.build));
        m_turn.bind(5, shot.round);
        m_turn.bind(6, shot.turn);
        m_turn.bind(7, shot.player);
        m_turn.bind(8, shot.handedOver ? 1 : 0);
        m_turn.exec();
    }

    void writeShot(const Shot& shot, std::size_t position) {
        m_shot.reset();
        m_shot.bind(1, m_test.id);
        m_shot.bind(2, static_cast<int64_t>(position));
        m_shot.bind(3, m_turns);
        m_shot.bind(4, shot.number);
        m_shot.bind(5, statusNames[static_cast<std::size_t>(shot.status)]);
        m_shot.bind(6, shot.reason);
        m_shot.bind(7, shot.takenAt);
        m_shot.bind(8, shot.delivery);
        m_shot.bind(9, shot.feel);
        m_shot.bind(10, shot.note);
        m_shot.bind(11, shot.extra.empty() ? std::string() : nlohmann::json(shot.extra).dump());
        m_shot.bind(13, markNames[static_cast<std::size_t>(shot.mark)]);
        std::string modelled;
        int at = 13;
        for (const Metric metric : record::allMetrics()) {
            ++at;
            const auto value = shot.readings.at(metric);
            // Derived values are derived again on loading.
            if (value && !shot.readings.derived(metric))
                m_shot.bind(at, *value);
            else
                m_shot.bind(at);
            if (shot.readings.modelled(metric) && value)
                modelled += (modelled.empty() ? "" : ",") + record::info(metric).key;
        }
        m_shot.bind(12, modelled);
        m_shot.exec();
    }

    const Test& m_test;
    Statement m_sitting, m_turn, m_shot;
    int64_t m_sittings = -1, m_turns = -1;
};

Card readCard(Database& database, const std::string& id) {
    Card card;
    Statement head(database, "SELECT comparison, baseline, alpha, sd_ratio_margin, area_ratio_margin, trend_column, "
                             "factor_column, set_aside_rule FROM test WHERE id = ?");
    head.bind(1, id);
    head.executeStep();
    card.comparison = head.getColumn(0).getString() == "which_of_these" ? record::Comparison::whichOfThese
                                                                        : record::Comparison::againstBaseline;
    card.baseline = head.getColumn(1).getString();
    card.alpha = head.getColumn(2).getDouble();
    card.sdRatioMargin = head.getColumn(3).getDouble();
    card.areaRatioMargin = head.getColumn(4).getDouble();
    card.trendColumn = head.getColumn(5).getString();
    card.factorColumn = head.getColumn(6).getString();
    card.setAsideRule = static_cast<record::SetAsideRule>(indexOfName(ruleNames, head.getColumn(7).getString()));
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
            card.wants[*outcome] = {static_cast<Want::Kind>(indexOfName(wantNames, outcomes.getColumn(2).getString())),
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
        card.shapes.push_back(
            {static_cast<record::Shape::Kind>(indexOfName(shapeNames, shapes.getColumn(0).getString())),
             shapes.getColumn(1).getString(), shapes.getColumn(2).getDouble(), shapes.getColumn(3).getDouble(),
             shapes.getColumn(4).getDouble(), shapes.getColumn(5).getDouble()});
    Statement targets(database, "SELECT metric, build, low, high FROM test_target WHERE test_id = ? ORDER BY position");
    targets.bind(1, id);
    while (targets.executeStep())
        if (const auto metric = record::metricFromKey(targets.getColumn(0).getString()))
            card.targets.push_back({*metric, targets.getColumn(1).getString(), targets.getColumn(2).getDouble(),
                                    targets.getColumn(3).getDouble()});
    return card;
}

void readShots(Database& database, Test& test) {
    std::string sql = "SELECT t.build, t.round, t.label, t.player, t.handed_over, s.label, x.turn, x.number, x.status, "
                      "x.reason, x.taken_at, x.delivery, x.feel, x.note, x.extra, x.modelled, x.mark";
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
        shot.build = static_cast<std::size_t>(q.getColumn(0).getInt64());
        shot.round = q.getColumn(1).getString();
        shot.turn = q.getColumn(2).getString();
        shot.player = q.getColumn(3).getString();
        shot.sitting = q.getColumn(5).getString();
        const int64_t turn = q.getColumn(6).getInt64();
        shot.handedOver = turn != lastTurn && q.getColumn(4).getInt() != 0;
        lastTurn = turn;
        shot.number = q.getColumn(7).getString();
        shot.status = static_cast<ShotStatus>(indexOfName(statusNames, q.getColumn(8).getString()));
        shot.reason = q.getColumn(9).getString();
        shot.takenAt = q.getColumn(10).getString();
        shot.delivery = q.getColumn(11).getString();
        shot.feel = q.getColumn(12).getInt();
        shot.note = q.getColumn(13).getString();
        if (const std::string extra = q.getColumn(14).getString(); !extra.empty())
            shot.extra = nlohmann::json::parse(extra).get<std::vector<std::string>>();
        const std::string modelled = "," + q.getColumn(15).getString() + ",";
        shot.mark = static_cast<record::Mark>(indexOfName(markNames, q.getColumn(16).getString()));
        int at = 16;
        for (const Metric metric : record::allMetrics()) {
            const auto column = q.getColumn(++at);
            if (column.isNull())
                continue;
            const bool isModelled = modelled.find("," + record::info(metric).key + ",") != std::string::npos;
            isModelled ? shot.readings.model(metric, column.getDouble())
                       : shot.readings.measure(metric, column.getDouble());
        }
        record::deriveMissing(shot.readings);
        test.shots.push_back(std::move(shot));
    }
}

} // namespace

std::string newId() {
    std::random_device source;
    std::string id;
    constexpr const char* digits = "0123456789abcdef";
    for (int i = 0; i < 32; ++i) {
        if (i == 8 || i == 12 || i == 16 || i == 20)
            id += '-';
        const unsigned draw = source() & 15U;
        id += digits[i == 12 ? 4U : i == 16 ? (draw & 3U) | 8U : draw];
    }
    return id;
}

void insertTest(Database& database, const Test& test) {
    insertHead(database, test);
    insertBuilds(database, test);
    insertColumns(database, test);
    replaceCard(database, test.id, test.card);
    ShotWriter(database, test).writeAll();
}

void replaceCard(Database& database, const std::string& id, const Card& card) {
    Statement head(database,
                   "UPDATE test SET comparison = ?, baseline = ?, alpha = ?, sd_ratio_margin = ?, "
                   "area_ratio_margin = ?, trend_column = ?, factor_column = ?, set_aside_rule = ? WHERE id = ?");
    head.bind(1, card.comparison == record::Comparison::whichOfThese ? "which_of_these" : "against_baseline");
    head.bind(2, card.baseline);
    head.bind(3, card.alpha);
    head.bind(4, card.sdRatioMargin);
    head.bind(5, card.areaRatioMargin);
    head.bind(6, card.trendColumn);
    head.bind(7, card.factorColumn);
    head.bind(8, ruleNames[static_cast<std::size_t>(card.setAsideRule)]);
    head.bind(9, id);
    head.exec();
    for (const char* table : {"test_outcome", "test_margin", "test_covariate", "test_target", "test_shape"}) {
        Statement clear(database, std::string("DELETE FROM ") + table + " WHERE test_id = ?");
        clear.bind(1, id);
        clear.exec();
    }
    Statement outcome(database,
                      "INSERT INTO test_outcome(test_id, outcome, priority, want, want_value) VALUES(?, ?, ?, ?, ?) "
                      "ON CONFLICT DO UPDATE SET want = excluded.want, want_value = excluded.want_value");
    for (std::size_t i = 0; i < card.primary.size(); ++i) {
        outcome.reset();
        outcome.clearBindings();
        outcome.bind(1, id);
        outcome.bind(2, record::outcomeText(card.primary[i]));
        outcome.bind(3, static_cast<int64_t>(i));
        outcome.exec();
    }
    for (const auto& [wanted, want] : card.wants) {
        outcome.reset();
        outcome.clearBindings();
        outcome.bind(1, id);
        outcome.bind(2, record::outcomeText(wanted));
        outcome.bind(4, wantNames[static_cast<std::size_t>(want.kind)]);
        outcome.bind(5, want.value);
        outcome.exec();
    }
    Statement margin(database, "INSERT INTO test_margin(test_id, metric, gap) VALUES(?, ?, ?)");
    for (const auto& [metric, gap] : card.margins) {
        margin.reset();
        margin.bind(1, id);
        margin.bind(2, record::info(metric).key);
        margin.bind(3, gap);
        margin.exec();
    }
    Statement covariate(database, "INSERT INTO test_covariate(test_id, position, metric) VALUES(?, ?, ?)");
    for (std::size_t i = 0; i < card.covariates.size(); ++i) {
        covariate.reset();
        covariate.bind(1, id);
        covariate.bind(2, static_cast<int64_t>(i));
        covariate.bind(3, record::info(card.covariates[i]).key);
        covariate.exec();
    }
    Statement shape(database, "INSERT INTO test_shape(test_id, position, name, kind, side, carry, width, depth) "
                              "VALUES(?, ?, ?, ?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < card.shapes.size(); ++i) {
        const record::Shape& own = card.shapes[i];
        shape.reset();
        shape.bind(1, id);
        shape.bind(2, static_cast<int64_t>(i));
        shape.bind(3, own.name);
        shape.bind(4, shapeNames[static_cast<std::size_t>(own.kind)]);
        shape.bind(5, own.side);
        shape.bind(6, own.carry);
        shape.bind(7, own.width);
        shape.bind(8, own.depth);
        shape.exec();
    }
    Statement target(database,
                     "INSERT INTO test_target(test_id, position, metric, build, low, high) VALUES(?, ?, ?, ?, ?, ?)");
    for (std::size_t i = 0; i < card.targets.size(); ++i) {
        target.reset();
        target.bind(1, id);
        target.bind(2, static_cast<int64_t>(i));
        target.bind(3, record::info(card.targets[i].metric).key);
        target.bind(4, card.targets[i].build);
        target.bind(5, card.targets[i].low);
        target.bind(6, card.targets[i].high);
        target.exec();
    }
}

Test readTest(Database& database, const std::string& id) {
    Test test;
    test.id = id;
    Statement head(database, "SELECT t.title, t.question, coalesce(p.name, ''), t.created_at FROM test t "
                             "LEFT JOIN player p ON p.id = t.player_id WHERE t.id = ?");
    head.bind(1, id);
    if (!head.executeStep())
        throw std::out_of_range(id);
    test.title = head.getColumn(0).getString();
    test.question = head.getColumn(1).getString();
    test.player = head.getColumn(2).getString();
    test.createdAt = head.getColumn(3).getString();
    test.card = readCard(database, id);
    Statement builds(database, "SELECT b.name, b.note FROM test_build tb JOIN build b ON b.id = tb.build_id "
                               "WHERE tb.test_id = ? ORDER BY tb.position");
    builds.bind(1, id);
    while (builds.executeStep())
        test.builds.push_back({builds.getColumn(0).getString(), builds.getColumn(1).getString()});
    Statement columns(database, "SELECT name FROM test_column WHERE test_id = ? ORDER BY position");
    columns.bind(1, id);
    while (columns.executeStep())
        test.extraColumns.push_back(columns.getColumn(0).getString());
    readShots(database, test);
    return test;
}

} // namespace knot::logbook
