#include "core/judge/causes/explained_part.h"

#include "core/judge/resample.h"

#include <Eigen/Dense>

#include <limits>
#include <map>

namespace knot::judge {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

constexpr std::size_t fewestRounds = 5;

// The products of build, covariates and y in one round, in that order, with the round swept out, where a turn varies
// by `ratio` times as much as its shots.
MatrixXd productsOf(const std::vector<const AdjustedRow*>& rows, double ratio) {
    const auto size = static_cast<Eigen::Index>(rows.front()->covariates.size()) + 2;
    struct Turn {
        VectorXd sum;
        double shots = 0;
    };
    std::map<std::size_t, Turn> turns;
    MatrixXd products = MatrixXd::Zero(size, size);
    for (const AdjustedRow* row : rows) {
        VectorXd values(size);
        values(0) = row->isBuild ? 1 : 0;
        for (Eigen::Index c = 0; c + 2 < size; ++c)
            values(c + 1) = row->covariates[static_cast<std::size_t>(c)];
        values(size - 1) = row->y;
        products += values * values.transpose();
        Turn& turn = turns[row->turn];
        if (turn.shots == 0)
            turn.sum = VectorXd::Zero(size);
        turn.sum += values;
        turn.shots += 1;
    }
    VectorXd ofRound = VectorXd::Zero(size);
    double weight = 0;
    for (const auto& [at, turn] : turns) {
        const double shrink = 1 + ratio * turn.shots;
        products -= ratio / shrink * turn.sum * turn.sum.transpose();
        ofRound += turn.sum / shrink;
        weight += turn.shots / shrink;
    }
    products -= ofRound * ofRound.transpose() / weight;
    return products;
}

double gapFrom(const MatrixXd& products, Eigen::Index predictors) {
    const Eigen::LDLT<MatrixXd> solver(products.topLeftCorner(predictors, predictors));
    if (!(solver.rcond() > 1e-12))
        return std::numeric_limits<double>::quiet_NaN();
    return solver.solve(products.col(products.cols() - 1).head(predictors))(0);
}

// What stands far from 0 would cost digits: everything is taken from its own middle.
std::vector<AdjustedRow> centred(std::vector<AdjustedRow> rows) {
    AdjustedRow middle = rows.front();
    middle.y = 0;
    std::ranges::fill(middle.covariates, 0.0);
    const auto n = static_cast<double>(rows.size());
    for (const AdjustedRow& row : rows) {
        middle.y += row.y / n;
        for (std::size_t c = 0; c < row.covariates.size(); ++c)
            middle.covariates[c] += row.covariates[c] / n;
    }
    for (AdjustedRow& row : rows) {
        row.y -= middle.y;
        for (std::size_t c = 0; c < row.covariates.size(); ++c)
            row.covariates[c] -= middle.covariates[c];
    }
    return rows;
}

} // namespace

std::optional<Interval> explainedInterval(const std::vector<AdjustedRow>& rows, double plainRatio, double adjustedRatio,
                                          int draws, std::uint64_t seed) {
    if (rows.empty() || draws == 0)
        return std::nullopt;
    const auto own = centred(rows);
    std::map<std::size_t, std::vector<const AdjustedRow*>> byRound;
    for (const AdjustedRow& row : own)
        byRound[row.round].push_back(&row);
    if (byRound.size() < fewestRounds)
        return std::nullopt;
    std::vector<MatrixXd> plain;
    std::vector<MatrixXd> adjusted;
    for (const auto& [round, of] : byRound) {
        plain.push_back(productsOf(of, plainRatio));
        adjusted.push_back(productsOf(of, adjustedRatio));
    }
    const Eigen::Index size = plain.front().rows();
    return percentileInterval(seed, draws, [&](Random& random) {
        MatrixXd asStruck = MatrixXd::Zero(size, size);
        MatrixXd equal = MatrixXd::Zero(size, size);
        for (const std::size_t round : drawnWithReplacement(random, plain.size())) {
            asStruck += plain[round];
            equal += adjusted[round];
        }
        return gapFrom(asStruck, 1) - gapFrom(equal, size - 1);
    });
}

} // namespace knot::judge
