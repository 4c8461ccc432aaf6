#include "core/judge/causes/variance_shares.h"

#include "core/judge/resample.h"
#include "core/judge/seed.h"
#include "core/statistics/shapley.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double fewestDegrees = 10;
constexpr std::size_t fewestLaps = 5, fewestForHeight = 10;

bool isSideways(Metric metric) {
    return metric == Metric::side || metric == Metric::curve || metric == Metric::spinAxis ||
           metric == Metric::launchDirection;
}

std::vector<Metric> causesOf(Metric metric) {
    std::vector<Metric> causes{Metric::strikeHigh, Metric::strikeToe, Metric::attack, Metric::clubSpeed};
    if (isSideways(metric)) {
        causes.push_back(Metric::path);
        causes.push_back(Metric::face);
    }
    return causes;
}

/// One shot that takes part: its place among builds and laps, and what was read of it.
struct Row {
    std::size_t build = 0, lap = 0;
    double y = 0;
    const record::Readings* readings = nullptr;
};

std::vector<Row> rowsOf(const record::Test& test, const Column& column) {
    std::vector<Row> rows;
    for (std::size_t b = 0; b < column.builds.size(); ++b)
        for (const TurnValues& turn : column.builds[b].turns)
            for (std::size_t i = 0; i < turn.values.size(); ++i)
                rows.push_back({b, turn.round, turn.values[i], &test.shots[turn.shots[i]].readings});
    return rows;
}

// Numbers 0, 1, 2 … in the order in which they are met.
template<typename Key> std::size_t numbered(std::map<Key, std::size_t>& seen, Key key) {
    return seen.try_emplace(key, seen.size()).first->second;
}

// The columns of one group, each less its lap's mean.
MatrixXd sweptLaps(MatrixXd columns, const std::vector<std::size_t>& laps, std::size_t lapCount) {
    MatrixXd sums = MatrixXd::Zero(static_cast<Eigen::Index>(lapCount), columns.cols());
    VectorXd counts = VectorXd::Zero(static_cast<Eigen::Index>(lapCount));
    for (Eigen::Index i = 0; i < columns.rows(); ++i) {
        sums.row(static_cast<Eigen::Index>(laps[static_cast<std::size_t>(i)])) += columns.row(i);
        counts(static_cast<Eigen::Index>(laps[static_cast<std::size_t>(i)])) += 1;
    }
    for (Eigen::Index i = 0; i < columns.rows(); ++i) {
        const auto lap = static_cast<Eigen::Index>(laps[static_cast<std::size_t>(i)]);
        columns.row(i) -= sums.row(lap) / counts(lap);
    }
    return columns;
}

struct Group {
    std::string key;
    MatrixXd columns;
};

/// Sums of squares and products of all columns, each of length 1, and with y.
struct Products {
    MatrixXd among;
    VectorXd withY;
    double ofY = 0;
    std::vector<std::size_t> groupOf; ///< by column
};

Products productsOf(const std::vector<Group>& groups, const VectorXd& y) {
    Eigen::Index columns = 0;
    for (const Group& group : groups)
        columns += group.columns.cols();
    MatrixXd all(y.size(), columns);
    Products products;
    Eigen::Index at = 0;
    for (std::size_t g = 0; g < groups.size(); ++g)
        for (Eigen::Index c = 0; c < groups[g].columns.cols(); ++c) {
            const double length = groups[g].columns.col(c).norm();
            all.col(at++) = groups[g].columns.col(c) / (length > 0 ? length : 1);
            products.groupOf.push_back(g);
        }
    products.among = all.transpose() * all;
    products.withY = all.transpose() * y;
    products.ofY = y.squaredNorm();
    return products;
}

// The residual sum of squares of y on the columns of a set of groups, and how many of them say something of
// their own.
std::pair<double, double> residual(const Products& products, std::size_t set) {
    std::vector<Eigen::Index> chosen;
    for (std::size_t c = 0; c < products.groupOf.size(); ++c)
        if ((set >> products.groupOf[c] & 1U) != 0)
            chosen.push_back(static_cast<Eigen::Index>(c));
    const MatrixXd among = products.among(chosen, chosen);
    const VectorXd withY = products.withY(chosen);
    Eigen::ColPivHouseholderQR<MatrixXd> fit;
    fit.setThreshold(1e-10);
    fit.compute(among);
    return {std::max(products.ofY - withY.dot(fit.solve(withY)), 0.0), static_cast<double>(fit.rank())};
}

// The same shares from laps drawn with replacement, each copy a lap of its own (stints drawn singly leave laps that
// hold one club, and put the club's share too low): sums of squares and products about each lap's own mean, swept group
// by group.
class Resampling {
public:
    // `columns`: the causes as they are, in groups, then y; each row's lap beside.
    Resampling(const MatrixXd& columns, std::vector<std::size_t> groupOf, std::size_t groups,
               const std::vector<std::size_t>& lapOf)
        : m_groupOf(std::move(groupOf))
        , m_groups(groups) {
        const std::size_t laps = *std::ranges::max_element(lapOf) + 1;
        const MatrixXd swept = sweptLaps(columns, lapOf, laps);
        m_laps.assign(laps, {.free = -1, .products = MatrixXd::Zero(columns.cols(), columns.cols())});
        for (Eigen::Index i = 0; i < swept.rows(); ++i) {
            Lap& lap = m_laps[lapOf[static_cast<std::size_t>(i)]];
            lap.free += 1;
            lap.products += swept.row(i).transpose() * swept.row(i);
        }
    }

    std::vector<double> shares(Random& random) {
        const Eigen::Index size = m_laps.front().products.rows();
        MatrixXd products = MatrixXd::Zero(size, size);
        double free = 0;
        for (const std::size_t at : drawnWithReplacement(random, m_laps.size())) {
            products += m_laps[at].products;
            free += m_laps[at].free;
        }
        std::vector<double> worth(std::size_t{1} << m_groups, 0.0);
        const double whole = products(size - 1, size - 1);
        if (!(whole > 0))
            return {};
        m_bars = 1e-10 * products.diagonal();
        m_swept.assign(m_groups + 1, products);
        enter({.set = 0, .next = 0, .depth = 0, .free = free}, whole / free, worth);
        return statistics::shapley(worth);
    }

private:
    struct Lap {
        double free = 0; ///< shots − 1
        MatrixXd products;
    };

    // The groups that were swept so far, which may come next, and the degrees of freedom that are left.
    struct Entered {
        std::size_t set = 0, next = 0, depth = 0;
        double free = 0;
    };

    // The worth of every set that adds groups from `next` on to what is swept already.
    void enter(const Entered& entered, double whole, std::vector<double>& worth) {
        for (std::size_t g = entered.next; g < m_groups; ++g) {
            MatrixXd& further = m_swept[entered.depth + 1];
            further = m_swept[entered.depth];
            double left = entered.free;
            for (std::size_t c = 0; c < m_groupOf.size(); ++c)
                if (const auto column = static_cast<Eigen::Index>(c);
                    m_groupOf[c] == g && further(column, column) > m_bars(column)) {
                    m_pivot = further.col(column) / std::sqrt(further(column, column));
                    further.noalias() -= m_pivot * m_pivot.transpose();
                    left -= 1;
                }
            const std::size_t with = entered.set | std::size_t{1} << g;
            const double residual = std::max(further(further.rows() - 1, further.cols() - 1), 0.0);
            worth[with] = left > 0 ? 1 - residual / left / whole : 0;
            enter({.set = with, .next = g + 1, .depth = entered.depth + 1, .free = left}, whole, worth);
        }
    }

    std::vector<Lap> m_laps;
    std::vector<std::size_t> m_groupOf;
    std::size_t m_groups = 0;
    VectorXd m_bars, m_pivot;
    std::vector<MatrixXd> m_swept; ///< by how many groups were swept
};

} // namespace

bool isMoved(Metric metric) {
    const auto causes = {Metric::strikeHigh, Metric::strikeToe, Metric::attack,     Metric::clubSpeed,
                         Metric::path,       Metric::face,      Metric::faceToPath, Metric::dynamicLoft,
                         Metric::dynamicLie, Metric::spinLoft};
    return std::ranges::find(causes, metric) == causes.end();
}

namespace {

void addIntervals(const JudgeRequest& request, Metric metric, const std::vector<std::size_t>& laps,
                  const std::vector<MatrixXd>& groups, const MatrixXd& y, WhoseDoing& result) {
    std::vector<std::size_t> groupOf;
    MatrixXd all(y.rows(), 0);
    for (std::size_t g = 0; g < groups.size(); ++g) {
        const Eigen::Index from = all.cols();
        all.conservativeResize(Eigen::NoChange, from + groups[g].cols());
        all.rightCols(groups[g].cols()) = groups[g];
        groupOf.insert(groupOf.end(), static_cast<std::size_t>(groups[g].cols()), g);
    }
    all.conservativeResize(Eigen::NoChange, all.cols() + 1);
    all.rightCols(1) = y;
    Resampling resampling(all, std::move(groupOf), groups.size(), laps);
    Random random(seedFor(request, "whose doing", metric, {}, {}));
    std::vector<std::vector<double>> drawn(groups.size());
    const std::size_t lapCount = *std::ranges::max_element(laps) + 1;
    const int times = drawsFor(usualDraws, lapCount);
    for (int draw = 0; draw < times; ++draw) {
        const auto shares = resampling.shares(random);
        for (std::size_t g = 0; g < shares.size(); ++g)
            drawn[g].push_back(shares[g]);
    }
    // A few bad strikes carry the share of strike height, and few laps hold few of them.
    auto isRough = [&](std::size_t g) {
        return lapCount < fewestForHeight && result.shares[g].cause == record::info(Metric::strikeHigh).key;
    };
    for (std::size_t g = 0; g < groups.size(); ++g)
        if (2 * drawn[g].size() > static_cast<std::size_t>(times) && !isRough(g))
            result.shares[g].ci95 = expanded(percentiles(drawn[g]), result.shares[g].share, lapCount);
}

} // namespace

std::optional<WhoseDoing> whoseDoing(const JudgeRequest& request, const Column& column, bool isResampled) {
    const auto all = rowsOf(request.subject.test(), column);
    if (all.empty())
        return std::nullopt;
    WhoseDoing result{.metric = column.metric};
    std::vector<Metric> causes;
    for (const Metric cause : causesOf(column.metric)) {
        const auto missing = std::ranges::count_if(all, [&](const Row& row) { return !row.readings->has(cause); });
        if (3 * missing > static_cast<std::ptrdiff_t>(all.size()))
            result.leftOut.push_back(cause);
        else
            causes.push_back(cause);
    }
    std::vector<Row> rows;
    std::ranges::copy_if(all, std::back_inserter(rows), [&](const Row& row) {
        return std::ranges::all_of(causes, [&](Metric cause) { return row.readings->has(cause); });
    });
    std::map<std::size_t, std::size_t> lapNumbers;
    std::map<std::size_t, std::size_t> buildNumbers;
    std::vector<std::size_t> laps;
    std::vector<std::size_t> builds;
    const auto n = static_cast<Eigen::Index>(rows.size());
    MatrixXd y(n, 1);
    for (Eigen::Index i = 0; i < n; ++i) {
        const Row& row = rows[static_cast<std::size_t>(i)];
        laps.push_back(numbered(lapNumbers, row.lap));
        builds.push_back(numbered(buildNumbers, row.build));
        y(i, 0) = row.y;
    }
    const std::size_t lapCount = lapNumbers.size();
    if (buildNumbers.size() < 2)
        return std::nullopt;
    std::vector<Group> groups;
    std::vector<MatrixXd> asRead; // of the same groups, laps and all
    double columns = 0;
    for (const Metric cause : causes) {
        const bool curved = record::isStrike(cause);
        MatrixXd own(n, curved ? 2 : 1);
        for (Eigen::Index i = 0; i < n; ++i) {
            own(i, 0) = *rows[static_cast<std::size_t>(i)].readings->at(cause);
            if (curved)
                own(i, 1) = own(i, 0) * own(i, 0);
        }
        columns += static_cast<double>(own.cols());
        asRead.push_back(own);
        groups.push_back({record::info(cause).key, sweptLaps(std::move(own), laps, lapCount)});
    }
    MatrixXd dummies = MatrixXd::Zero(n, static_cast<Eigen::Index>(buildNumbers.size()) - 1);
    for (Eigen::Index i = 0; i < n; ++i)
        if (const std::size_t b = builds[static_cast<std::size_t>(i)]; b > 0)
            dummies(i, static_cast<Eigen::Index>(b) - 1) = 1;
    columns += static_cast<double>(dummies.cols());
    asRead.push_back(dummies);
    groups.push_back({"build", sweptLaps(std::move(dummies), laps, lapCount)});

    const double free = static_cast<double>(n) - static_cast<double>(lapCount);
    if (free - columns < fewestDegrees)
        return std::nullopt;
    const VectorXd swept = sweptLaps(y, laps, lapCount).col(0);
    const double whole = swept.squaredNorm();
    const double size = y.squaredNorm();
    if (!(whole > 1e-24 * std::max(size, 1.0)))
        return std::nullopt;
    std::vector<double> worth(std::size_t{1} << groups.size(), 0.0);
    const Products products = productsOf(groups, swept);
    for (std::size_t set = 1; set < worth.size(); ++set) {
        const auto [left, rank] = residual(products, set);
        worth[set] = 1 - left / (free - rank) / (whole / free);
    }
    const auto shares = statistics::shapley(worth);
    for (std::size_t g = 0; g < groups.size(); ++g)
        result.shares.push_back({groups[g].key, shares[g]});
    result.rest = 1 - worth.back();
    result.n = static_cast<std::size_t>(n);
    if (isResampled && lapCount >= fewestLaps)
        addIntervals(request, column.metric, laps, asRead, y, result);
    return result;
}

} // namespace knot::judge
