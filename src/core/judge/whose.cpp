#include "core/judge/whose.h"

#include <Eigen/Dense>

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr double fewestDegrees = 10;
constexpr std::size_t mostGroups = 7; // six causes and the build

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

// The mean over all orders of entry of what a group adds.
std::vector<double> shapley(const std::vector<double>& worth, std::size_t groups) {
    std::array<double, mostGroups + 1> factorial{1};
    for (std::size_t i = 1; i < factorial.size(); ++i)
        factorial[i] = factorial[i - 1] * static_cast<double>(i);
    std::vector<double> shares(groups, 0.0);
    for (std::size_t set = 0; set < worth.size(); ++set)
        for (std::size_t g = 0; g < groups; ++g)
            if ((set >> g & 1U) == 0) {
                const auto size = static_cast<std::size_t>(std::popcount(set));
                shares[g] += factorial[size] * factorial[groups - size - 1] / factorial[groups] *
                             (worth[set | std::size_t{1} << g] - worth[set]);
            }
    return shares;
}

} // namespace

bool isMoved(Metric metric) {
    const auto causes = {Metric::strikeHigh, Metric::strikeToe, Metric::attack,     Metric::clubSpeed,
                         Metric::path,       Metric::face,      Metric::faceToPath, Metric::dynamicLoft,
                         Metric::dynamicLie, Metric::spinLoft};
    return std::ranges::find(causes, metric) == causes.end();
}

std::optional<WhoseDoing> whoseDoing(const JudgeRequest& request, const Column& column) {
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
        groups.push_back({record::info(cause).key, sweptLaps(std::move(own), laps, lapCount)});
    }
    MatrixXd dummies = MatrixXd::Zero(n, static_cast<Eigen::Index>(buildNumbers.size()) - 1);
    for (Eigen::Index i = 0; i < n; ++i)
        if (const std::size_t b = builds[static_cast<std::size_t>(i)]; b > 0)
            dummies(i, static_cast<Eigen::Index>(b) - 1) = 1;
    columns += static_cast<double>(dummies.cols());
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
    const auto shares = shapley(worth, groups.size());
    for (std::size_t g = 0; g < groups.size(); ++g)
        result.shares.push_back({groups[g].key, shares[g]});
    result.rest = 1 - worth.back();
    result.n = static_cast<std::size_t>(n);
    return result;
}

} // namespace knot::judge
