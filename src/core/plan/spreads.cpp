#include "core/plan/spreads.h"

#include "core/rack/club_kind.h"
#include "core/record/structure.h"
#include "core/record/text/names.h"
#include "core/record/text/table.h"
#include "core/statistics/moments.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <map>
#include <string_view>
#include <tuple>

namespace knot::embedded {
extern const std::string_view spreadTable; // data/spreads.csv
extern const std::string_view kindTable;   // data/kinds.csv
} // namespace knot::embedded

namespace knot::plan {
namespace {

// Sums over the turns of many builds.
struct Sums {
    double inside = 0, insideDf = 0;
    double between = 0, betweenDf = 0; // of turn means
    double perTurn = 0;                // Σ df / shots of a turn, for what shots add to turn means
    std::size_t turns = 0, shots = 0;
};

void addBuild(Sums& sums, const std::vector<std::vector<double>>& turns) {
    std::vector<double> means;
    double inverse = 0;
    for (const auto& values : turns) {
        sums.inside += statistics::squaresAboutMean(values);
        sums.insideDf += static_cast<double>(values.size()) - 1;
        inverse += 1 / static_cast<double>(values.size());
        means.push_back(statistics::meanOf(values));
        sums.shots += values.size();
    }
    sums.turns += turns.size();
    if (means.size() < 2)
        return;
    sums.between += statistics::squaresAboutMean(means);
    const auto df = static_cast<double>(means.size()) - 1;
    sums.betweenDf += df;
    sums.perTurn += df * inverse / static_cast<double>(means.size());
}

} // namespace

Spreads usualSpreads(record::Metric metric, Level level) {
    static const auto rows = record::tableRows(embedded::spreadTable, 7);
    const auto row = std::ranges::find(rows, record::info(metric).key, [](const auto& r) { return r[0]; });
    const std::size_t at = 1 + 2 * static_cast<std::size_t>(level);
    return {.sdTurn = record::tableNumber(row->at(at + 1)), .sdShot = record::tableNumber(row->at(at))};
}

double gapTimes(record::TestKind kind) {
    static const auto rows = record::tableRows(embedded::kindTable, 2);
    const auto row =
        std::ranges::find(rows, record::nameOf(record::kindNames, kind), [](const auto& r) { return r[0]; });
    return row == rows.end() ? 1 : record::tableNumber((*row)[1]);
}

double gapTimes(const record::Test& test) {
    constexpr double otherKinds = 8;
    return (rack::ClubKinds(test).areOne() ? 1 : otherKinds) * gapTimes(test.card.kind);
}

std::optional<Spreads> ownSpreads(const std::vector<record::Test>& tests, record::Metric metric) {
    Sums sums;
    for (const auto& test : tests) {
        const auto structure = record::structureOf(test);
        // By sitting, player and delivery too: what they change is no stint's doing.
        std::map<std::tuple<std::size_t, std::size_t, std::size_t, std::size_t>, std::vector<std::vector<double>>>
            builds;
        for (const auto& turn : structure.turns) {
            std::vector<double> values;
            for (const std::size_t shot : turn.shots)
                if (const auto value = test.shots[shot].readings.at(metric);
                    value && std::isfinite(*value) && test.shots[shot].status == record::ShotStatus::counted)
                    values.push_back(*value);
            if (!values.empty())
                builds[{turn.sitting, turn.player, turn.delivery, turn.build}].push_back(std::move(values));
        }
        for (const auto& [key, turns] : builds)
            addBuild(sums, turns);
    }
    if (sums.insideDf < 12 || sums.betweenDf < 6)
        return std::nullopt;
    const double varShot = sums.inside / sums.insideDf;
    const double varTurn = std::max(0.0, (sums.between - varShot * sums.perTurn) / sums.betweenDf);
    if (!(varShot > 0))
        return std::nullopt;
    return Spreads{std::sqrt(varTurn), std::sqrt(varShot), sums.turns, sums.shots};
}

namespace {

// The readings of one turn that have all covariates, metric last; and their shots.
struct TurnRows {
    std::size_t test = 0;
    std::vector<std::size_t> shots;
    std::vector<std::vector<double>> rows;
};

std::vector<TurnRows> rowsOf(const std::vector<record::Test>& tests, record::Metric metric,
                             const std::vector<record::Metric>& covariates) {
    std::vector<TurnRows> turns;
    for (std::size_t t = 0; t < tests.size(); ++t) {
        const auto structure = record::structureOf(tests[t]);
        for (const auto& turn : structure.turns) {
            TurnRows own{.test = t, .shots = {}, .rows = {}};
            for (const std::size_t at : turn.shots) {
                const record::Shot& shot = tests[t].shots[at];
                std::vector<double> row;
                for (const record::Metric covariate : covariates)
                    if (const auto value = shot.readings.at(covariate); value && std::isfinite(*value))
                        row.push_back(*value);
                const auto value = shot.readings.at(metric);
                if (shot.status != record::ShotStatus::counted || row.size() != covariates.size() || !value ||
                    !std::isfinite(*value))
                    continue;
                row.push_back(*value);
                own.shots.push_back(at);
                own.rows.push_back(std::move(row));
            }
            if (!own.rows.empty())
                turns.push_back(std::move(own));
        }
    }
    return turns;
}

// Slopes of the last column on the others, inside turns; nothing where they are not to be had.
std::optional<Eigen::VectorXd> slopesInside(const std::vector<TurnRows>& turns, std::size_t covariates) {
    const auto p = static_cast<Eigen::Index>(covariates);
    Eigen::MatrixXd products = Eigen::MatrixXd::Zero(p + 1, p + 1);
    double df = -static_cast<double>(covariates);
    for (const TurnRows& turn : turns) {
        Eigen::MatrixXd rows(static_cast<Eigen::Index>(turn.rows.size()), p + 1);
        for (Eigen::Index i = 0; i < rows.rows(); ++i)
            for (Eigen::Index c = 0; c <= p; ++c)
                rows(i, c) = turn.rows[static_cast<std::size_t>(i)][static_cast<std::size_t>(c)];
        const Eigen::RowVectorXd means = rows.colwise().mean();
        rows.rowwise() -= means;
        products += rows.transpose() * rows;
        df += static_cast<double>(turn.rows.size()) - 1;
    }
    constexpr double fewestEach = 3;
    const Eigen::VectorXd length = products.diagonal().head(p).cwiseSqrt();
    if (df < fewestEach * static_cast<double>(covariates) || (length.array() <= 0).any())
        return std::nullopt;
    const Eigen::VectorXd scale = length.cwiseInverse();
    const Eigen::LDLT<Eigen::MatrixXd> solver(scale.asDiagonal() * products.topLeftCorner(p, p) * scale.asDiagonal());
    constexpr double singular = 1e-10;
    if (solver.info() != Eigen::Success || (solver.vectorD().array() < singular).any())
        return std::nullopt;
    return scale.asDiagonal() * solver.solve(scale.asDiagonal() * products.col(p).head(p));
}

} // namespace

std::optional<Spreads> ownSpreadsAtEqual(const std::vector<record::Test>& tests, record::Metric metric,
                                         const std::vector<record::Metric>& covariates) {
    if (covariates.empty())
        return std::nullopt;
    const auto turns = rowsOf(tests, metric, covariates);
    const auto slopes = slopesInside(turns, covariates.size());
    if (!slopes)
        return std::nullopt;
    std::vector<record::Test> adjusted = tests;
    for (record::Test& test : adjusted)
        for (record::Shot& shot : test.shots)
            shot.readings.clear(metric);
    for (const TurnRows& turn : turns)
        for (std::size_t i = 0; i < turn.rows.size(); ++i) {
            double value = turn.rows[i].back();
            for (std::size_t c = 0; c < covariates.size(); ++c)
                value -= (*slopes)(static_cast<Eigen::Index>(c)) * turn.rows[i][c];
            adjusted[turn.test].shots[turn.shots[i]].readings.measure(metric, value);
        }
    return ownSpreads(adjusted, metric);
}

Spreads atEqualDelivery(const Spreads& struck, double explained) {
    Spreads equal = struck;
    equal.sdShot *= std::sqrt(1 - explained);
    return equal;
}

} // namespace knot::plan
