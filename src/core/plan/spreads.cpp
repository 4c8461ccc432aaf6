#include "core/plan/spreads.h"

#include "core/record/names.h"
#include "core/record/structure.h"
#include "core/record/table.h"
#include "core/statistics/moments.h"

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

} // namespace knot::plan
