#include "core/judge/causes/models.h"

#include "core/judge/causes/along.h"
#include "core/judge/causes/explained_part.h"
#include "core/judge/gaps/mixed_model.h"
#include "core/judge/gaps/verdict.h"
#include "core/record/text/number_text.h"
#include "core/statistics/distributions.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

namespace knot::judge {

using namespace statistics;
namespace {

// One shot as a row of a model.
struct Row {
    double y = 0;
    BuildAt build;
    record::TurnAt turn;
    record::RoundAt round;
    std::size_t turnNumber = 0, place = 0;
    record::ShotAt shot;
};

std::vector<Row> rowsOf(const Column& column, const std::vector<BuildAt>& builds) {
    std::vector<Row> rows;
    for (const BuildAt b : builds)
        for (std::size_t t = 0; t < column.builds[b].turns.size(); ++t) {
            const auto& turn = column.builds[b].turns[t];
            for (std::size_t i = 0; i < turn.values.size(); ++i)
                rows.push_back({turn.values[i], b, turn.turn, turn.round, t + 1, i + 1, turn.shots[i]});
        }
    return rows;
}

std::vector<BuildAt> everyBuild(const Column& column) {
    std::vector<BuildAt> builds(column.builds.size());
    for (BuildAt b; b < builds.size(); ++b)
        builds[b] = b;
    return builds;
}

// Treatment coding: one column for each level after the first one seen.
template<typename Key> class Levels {
public:
    void see(const Key& key) { m_index.try_emplace(key, m_index.size()); }
    std::size_t columns() const { return m_index.empty() ? 0 : m_index.size() - 1; }
    void write(const Key& key, std::vector<double>& row, std::size_t from) const {
        if (const std::size_t at = m_index.at(key); at > 0)
            row[from + at - 1] = 1;
    }
    std::size_t indexOf(const Key& key) const { return m_index.at(key); }
    std::size_t size() const { return m_index.size(); }

private:
    std::map<Key, std::size_t> m_index;
};

// A model being put together: rows of the design with their y and turn.
struct Fitting {
    Design design;
    std::vector<double> y;
    std::vector<std::size_t> turns;
    std::map<std::size_t, std::size_t> turnIndex;

    void add(const Row& row, const std::vector<double>& x, std::size_t turnKey) {
        design.addRow(x);
        y.push_back(row.y);
        turns.push_back(turnIndex.try_emplace(turnKey, turnIndex.size()).first->second);
    }
    void add(const Row& row, const std::vector<double>& x) { add(row, x, row.turn); }
    std::optional<MixedModel> fit() const { return MixedModel::fit(design, y, turns); }
};

std::optional<ModelEstimate> estimateOf(const std::optional<MixedModel>& model, std::size_t coefficient,
                                        Metric metric) {
    if (!model)
        return std::nullopt;
    const auto e = model->coefficient(coefficient);
    if (!e)
        return std::nullopt;
    ModelEstimate result{.metric = metric, .method = model->method()};
    result.value = e->value;
    result.se = e->se;
    result.df = e->df;
    result.p = e->p;
    result.ci95 = intervalOf({e->value, e->se, e->df}, 0.95);
    return result;
}

Levels<std::size_t> roundsOf(const std::vector<Row>& rows) {
    Levels<std::size_t> rounds;
    for (const Row& row : rows)
        rounds.see(row.round);
    return rounds;
}

} // namespace

std::optional<ModelEstimate> driftPerShot(const Column& column, const record::Structure& structure) {
    const auto rows = rowsOf(column, everyBuild(column));
    // Who hits next, or how, is no drift.
    auto settingOf = [&](const Row& row) {
        const record::Turn& turn = structure.turns[structure.turnOfShot[row.shot]];
        return std::pair(turn.player, turn.delivery);
    };
    Levels<std::size_t> builds;
    Levels<std::pair<std::size_t, std::size_t>> settings;
    for (const Row& row : rows) {
        builds.see(row.build);
        settings.see(settingOf(row));
    }
    Fitting fitting;
    for (const Row& row : rows) {
        std::vector<double> x(2 + builds.columns() + settings.columns(), 0.0);
        x[0] = 1;
        x[1] = static_cast<double>(structure.orderInSitting[row.shot]);
        builds.write(row.build, x, 2);
        settings.write(settingOf(row), x, 2 + builds.columns());
        fitting.add(row, x);
    }
    return rows.empty() ? std::nullopt : estimateOf(fitting.fit(), 1, column.metric);
}

namespace {

// The gap between two builds' slopes on something counted: y ~ build · number.
std::optional<ModelEstimate> slopeGap(const Column& column, BuildAt build, BuildAt against, std::size_t Row::*counted) {
    Fitting fitting;
    for (const Row& row : rowsOf(column, {against, build})) {
        const double own = row.build == build ? 1 : 0;
        const auto number = static_cast<double>(row.*counted);
        fitting.add(row, {1, own, number, own * number});
    }
    auto result = fitting.y.empty() ? std::nullopt : estimateOf(fitting.fit(), 3, column.metric);
    if (result) {
        result->build = build;
        result->against = against;
    }
    return result;
}

} // namespace

std::optional<ModelEstimate> adaptationGap(const Column& column, BuildAt build, BuildAt against) {
    return slopeGap(column, build, against, &Row::turnNumber);
}

std::optional<ModelEstimate> settlingGap(const Column& column, BuildAt build, BuildAt against) {
    return slopeGap(column, build, against, &Row::place);
}

std::optional<ModelEstimate> lateInTurn(const Column& column, BuildAt build) {
    std::vector<double> splits;
    for (const TurnValues& turn : column.builds[build].turns) {
        const auto half = static_cast<std::ptrdiff_t>(turn.values.size() / 2);
        if (half > 0)
            splits.push_back(meanOf({turn.values.end() - half, turn.values.end()}) -
                             meanOf({turn.values.begin(), turn.values.begin() + half}));
    }
    if (splits.size() < 2)
        return std::nullopt;
    ModelEstimate result{
        .metric = column.metric, .build = build, .against = build, .method = ModelMethod::turns, .level = {}};
    const auto turns = static_cast<double>(splits.size());
    result.value = meanOf(splits);
    result.se = standardDeviation(splits) / std::sqrt(turns);
    result.df = turns - 1;
    if (!(result.se > 1e-12 * std::max(std::fabs(result.value), 1.0)))
        return std::nullopt;
    result.p = studentTwoSided(result.value / result.se, result.df);
    result.ci95 = intervalOf({result.value, result.se, result.df}, 0.95);
    return result;
}

std::optional<ModelEstimate> settlingSlope(const Column& column, BuildAt build) {
    Fitting fitting;
    for (const Row& row : rowsOf(column, {build}))
        fitting.add(row, {1, static_cast<double>(row.place)});
    auto result = fitting.y.empty() ? std::nullopt : estimateOf(fitting.fit(), 1, column.metric);
    if (result)
        result->build = build;
    return result;
}

namespace {

struct CovariateRow {
    Row row;
    std::vector<double> covariates;
};

std::vector<CovariateRow> covariateRows(const record::Test& test, const Column& column, BuildAt build, BuildAt against,
                                        const std::vector<Metric>& covariates) {
    std::vector<CovariateRow> rows;
    for (const Row& row : rowsOf(column, {against, build})) {
        CovariateRow with{row, {}};
        for (const Metric covariate : covariates)
            if (const auto value = test.shots[row.shot].readings.at(covariate); value && std::isfinite(*value))
                with.covariates.push_back(*value);
        if (with.covariates.size() == covariates.size())
            rows.push_back(std::move(with));
    }
    return rows;
}

enum class Adjusted { no, yes };

// y ~ build + round (+ covariates); the gap is coefficient 1.
std::optional<MixedModel> fitGap(const std::vector<CovariateRow>& rows, BuildAt build, Adjusted adjusted) {
    Levels<std::size_t> rounds;
    for (const auto& row : rows)
        rounds.see(row.row.round);
    Fitting fitting;
    for (const auto& [row, covariates] : rows) {
        std::vector<double> x(2 + rounds.columns(), 0.0);
        x[0] = 1;
        x[1] = row.build == build ? 1 : 0;
        rounds.write(row.round, x, 2);
        if (adjusted == Adjusted::yes)
            x.insert(x.end(), covariates.begin(), covariates.end());
        fitting.add(row, x);
    }
    return rows.empty() ? std::nullopt : fitting.fit();
}

std::vector<AdjustedRow> adjustedRows(const std::vector<CovariateRow>& rows, BuildAt build) {
    std::vector<AdjustedRow> adjusted;
    adjusted.reserve(rows.size());
    for (const auto& [row, covariates] : rows)
        adjusted.push_back({row.round, row.turn, row.build == build, row.y, covariates});
    return adjusted;
}

double ratioOf(const MixedModel& model) {
    return model.isMixed() ? model.varTurn() / model.varShot() : 0;
}

} // namespace

std::optional<EqualStrike> equalStrike(const record::Test& test, const Column& column, BuildAt build, BuildAt against,
                                       const std::vector<Metric>& covariates, int draws, std::uint64_t seed) {
    const auto rows = covariateRows(test, column, build, against, covariates);
    const auto adjustedFit = fitGap(rows, build, Adjusted::yes);
    const auto plainFit = fitGap(rows, build, Adjusted::no);
    auto equal = estimateOf(adjustedFit, 1, column.metric);
    auto plain = estimateOf(plainFit, 1, column.metric);
    if (!equal || !plain)
        return std::nullopt;
    for (ModelEstimate* estimate : {&*equal, &*plain}) {
        estimate->build = build;
        estimate->against = against;
    }
    EqualStrike result{.equal = *equal, .asStruck = *plain, .n = rows.size()};
    result.explained = plain->value - equal->value;
    result.explainedInterval =
        explainedInterval(adjustedRows(rows, build), ratioOf(*plainFit), ratioOf(*adjustedFit), draws, seed);
    return result;
}

namespace {

// The rows of two factors: builds that were struck, the baseline first, and levels in the order in which they were.
struct TwoFactors {
    std::vector<Row> rows;
    std::vector<std::size_t> build, level; ///< of each row
    std::vector<BuildAt> builds;
    std::vector<std::string> levels;
};

std::optional<TwoFactors> twoFactorsOf(const record::Test& test, const Column& column, BuildAt baseline,
                                       const std::string& factorColumn) {
    auto builds = everyBuild(column);
    std::rotate(builds.begin(), builds.begin() + static_cast<std::ptrdiff_t>(baseline),
                builds.begin() + static_cast<std::ptrdiff_t>(baseline) + 1);
    TwoFactors two{.rows = rowsOf(column, builds), .build = {}, .level = {}, .builds = {}, .levels = {}};
    auto levelAt = [&](const Row& row) { return levelOf(test, test.shots[row.shot], factorColumn); };
    std::erase_if(two.rows, [&](const Row& row) { return levelAt(row).empty(); });
    for (const auto& shot : test.shots)
        if (const auto text = levelOf(test, shot, factorColumn);
            !text.empty() && std::ranges::find(two.levels, text) == two.levels.end())
            two.levels.push_back(text);
    for (const BuildAt b : builds)
        if (std::ranges::any_of(two.rows, [&](const Row& row) { return row.build == b; }))
            two.builds.push_back(b);
    if (two.levels.size() < 2 || two.builds.size() < 2 || two.builds.front() != baseline)
        return std::nullopt;
    auto placeIn = [](const auto& list, const auto& one) {
        return static_cast<std::size_t>(std::ranges::find(list, one) - list.begin());
    };
    for (const Row& row : two.rows) {
        two.build.push_back(placeIn(two.builds, row.build));
        two.level.push_back(placeIn(two.levels, levelAt(row)));
    }
    return two;
}

// The interaction of each further build and level, with whatever `blocks` there are beside them.
std::vector<ModelEstimate> estimatesOf(const TwoFactors& two, Metric metric, const std::vector<std::size_t>& blocks) {
    const std::size_t a = two.builds.size() - 1;
    const std::size_t f = two.levels.size() - 1;
    std::set<std::pair<std::size_t, std::size_t>> crossed;
    Levels<std::size_t> laps;
    for (std::size_t i = 0; i < blocks.size(); ++i) {
        laps.see(blocks[i]);
        crossed.insert({blocks[i], two.level[i]});
    }
    const bool isNested = crossed.size() == laps.size(); // each lap of one level: the laps say all of the levels
    const std::size_t ofLevels = isNested && !blocks.empty() ? 0 : f;
    const std::size_t fromLaps = 1 + a + ofLevels + a * f;
    Fitting fitting;
    for (std::size_t i = 0; i < two.rows.size(); ++i) {
        std::vector<double> x(fromLaps + laps.columns(), 0.0);
        x[0] = 1;
        if (two.build[i] > 0)
            x[two.build[i]] = 1;
        if (two.level[i] > 0 && ofLevels > 0)
            x[a + two.level[i]] = 1;
        if (two.build[i] > 0 && two.level[i] > 0)
            x[a + ofLevels + (two.build[i] - 1) * f + two.level[i]] = 1;
        if (!blocks.empty())
            laps.write(blocks[i], x, fromLaps);
        fitting.add(two.rows[i], x);
    }
    const auto model = fitting.fit();
    std::vector<ModelEstimate> result;
    for (std::size_t b = 1; b <= a; ++b)
        for (std::size_t l = 1; l <= f; ++l)
            if (auto e = estimateOf(model, a + ofLevels + (b - 1) * f + l, metric)) {
                e->build = two.builds[b];
                e->against = two.builds.front();
                e->level = two.levels[l];
                result.push_back(std::move(*e));
            }
    return result;
}

} // namespace

std::vector<ModelEstimate> interactions(const record::Test& test, const Column& column, BuildAt baseline,
                                        const std::string& factorColumn) {
    const auto two = twoFactorsOf(test, column, baseline, factorColumn);
    return two ? estimatesOf(*two, column.metric, {}) : std::vector<ModelEstimate>();
}

std::vector<ModelEstimate> interactionsInLaps(const record::Test& test, const record::Structure& structure,
                                              const Column& column, BuildAt baseline, const std::string& factorColumn) {
    const auto two = twoFactorsOf(test, column, baseline, factorColumn);
    if (!two)
        return {};
    std::vector<std::size_t> laps;
    laps.reserve(two->rows.size());
    for (const Row& row : two->rows)
        laps.push_back(structure.turns[row.turn].lap);
    return estimatesOf(*two, column.metric, laps);
}

namespace {

// A turn with its mean and its number on the factor.
struct TurnPoint {
    double x = 0, mean = 0;
    std::size_t build = 0, round = 0;
};

void testOrder(Trend& trend, const std::vector<TurnPoint>& turns) {
    std::map<double, std::vector<double>> groups;
    for (const auto& turn : turns)
        groups[turn.x].push_back(turn.mean);
    std::vector<std::vector<double>> ascending;
    for (auto& [x, values] : groups)
        ascending.push_back(std::move(values));
    if (const auto order = jonckheere(ascending)) {
        trend.jonckheere = order->j;
        trend.z = order->z;
        trend.orderP = order->p;
    }
}

// Residual sum of squares and df of an ordinary fit on turn means.
std::optional<std::pair<double, double>> residual(const std::vector<TurnPoint>& turns, bool byBuild) {
    Levels<std::size_t> rounds;
    Levels<std::size_t> builds;
    for (const auto& turn : turns) {
        rounds.see(turn.round);
        builds.see(turn.build);
    }
    const std::size_t own = byBuild ? builds.columns() : 1;
    Fitting fitting;
    for (const auto& turn : turns) {
        std::vector<double> x(1 + own + rounds.columns(), 0.0);
        x[0] = 1;
        if (byBuild)
            builds.write(turn.build, x, 1);
        else
            x[1] = turn.x;
        rounds.write(turn.round, x, 1 + own);
        fitting.add({.y = turn.mean}, x, fitting.y.size());
    }
    const auto model = fitting.fit();
    if (!model)
        return std::nullopt;
    const double df = static_cast<double>(turns.size()) - static_cast<double>(1 + own + rounds.columns());
    return std::pair(model->varShot() * df, df);
}

void testFit(Trend& trend, const std::vector<TurnPoint>& turns) {
    const auto line = residual(turns, false);
    const auto builds = residual(turns, true);
    if (!line || !builds || !(line->second > builds->second) || !(builds->first > 0))
        return;
    trend.fitDf1 = line->second - builds->second;
    trend.fitDf2 = builds->second;
    trend.fitF = std::max(0.0, line->first - builds->first) / *trend.fitDf1 / (builds->first / *trend.fitDf2);
    trend.fitP = fisherUpper(*trend.fitF, *trend.fitDf1, *trend.fitDf2);
}

} // namespace

std::optional<Trend> trendAlong(const record::Test& test, const Column& column, const std::string& numberColumn) {
    std::vector<Row> rows;
    std::vector<double> x;
    for (const Row& row : rowsOf(column, everyBuild(column)))
        if (const auto number = numberAlong(test, test.shots[row.shot], numberColumn)) {
            rows.push_back(row);
            x.push_back(*number);
        }
    if (rows.empty())
        return std::nullopt;
    const auto rounds = roundsOf(rows);
    Fitting fitting;
    std::map<std::size_t, TurnPoint> turns;
    std::map<std::size_t, double> counts;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        std::vector<double> design(2 + rounds.columns(), 0.0);
        design[0] = 1;
        design[1] = x[i];
        rounds.write(rows[i].round, design, 2);
        fitting.add(rows[i], design);
        TurnPoint& turn = turns[rows[i].turn];
        const double n = ++counts[rows[i].turn];
        turn = {x[i], turn.mean + (rows[i].y - turn.mean) / n, rows[i].build, rows[i].round};
    }
    const auto slope = estimateOf(fitting.fit(), 1, column.metric);
    if (!slope)
        return std::nullopt;
    Trend trend{.slope = *slope};
    std::ranges::sort(x);
    for (std::size_t i = 1; i < x.size(); ++i)
        if (x[i] - x[i - 1] > trend.high - trend.low)
            std::tie(trend.low, trend.high) = std::pair(x[i - 1], x[i]);
    std::vector<TurnPoint> points;
    points.reserve(turns.size());
    for (const auto& [turn, point] : turns)
        points.push_back(point);
    testOrder(trend, points);
    testFit(trend, points);
    return trend;
}

} // namespace knot::judge
