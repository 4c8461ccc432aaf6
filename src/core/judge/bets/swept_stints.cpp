#include "core/judge/bets/swept_stints.h"

#include "core/statistics/distributions.h"

#include <Eigen/Dense>

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace knot::judge {

using Eigen::MatrixXd;
using Eigen::VectorXd;

Neighbours neighboursIn(const std::vector<const Column*>& columns, const Neighbours& beforehand) {
    constexpr double most = 0.6;
    double products = 0;
    double squares = 0;
    double pairs = 0;
    double shots = 0;
    double stints = 0;
    auto add = [&](const std::vector<double>& values) {
        const double mean = meanOf(values);
        for (std::size_t i = 1; i < values.size(); ++i)
            products += (values[i] - mean) * (values[i - 1] - mean);
        squares += squaresAboutMean(values);
        shots += static_cast<double>(values.size());
        pairs += static_cast<double>(values.size()) - 1;
        ++stints;
    };
    for (const Column* column : columns)
        for (const BuildValues& build : column->builds)
            for (const TurnValues& turn : build.turns)
                add(turn.values);
    if (!(squares > 0))
        return beforehand;
    // Shots about their own mean look less alike than they are, by (1 + 3r) / m (Marriott and Pope 1954). What that
    // takes is given back, at the price that short stints tell little and such of three shots nothing.
    const double m = shots / stints;
    const double kept = 1 - 3 / m;
    if (kept <= 0)
        return beforehand;
    const double alike = (products / pairs / (squares / shots) + 1 / m) / kept;
    const double weight = pairs * kept * kept;
    const double all = weight + beforehand.pairs;
    return {std::clamp((weight * alike + beforehand.pairs * beforehand.alike) / all, 0.0, most), all};
}

Stints stintsOf(const Column& column, const std::vector<BuildAt>& builds, Together together) {
    Stints stints{.all = {}, .builds = builds.size()};
    std::map<std::array<std::size_t, 4>, std::size_t> laps;
    auto lapOf = [&](const TurnValues& turn) {
        return together == Together::laps ? std::array<std::size_t, 4>{turn.round, 0, 0, 0}
                                          : std::array{turn.sitting, turn.player, turn.delivery, turn.phase};
    };
    for (std::size_t b = 0; b < builds.size(); ++b)
        for (const TurnValues& turn : column.builds[builds[b]].turns) {
            const auto lap = laps.try_emplace(lapOf(turn), laps.size()).first->second;
            const double mean = turn.mean();
            stints.all.push_back(
                {b, lap, mean, static_cast<double>(turn.values.size()), std::exp(-turn.swings / warmAfter)});
            stints.squares += squaresAboutMean(turn.values);
            stints.degrees += static_cast<double>(turn.values.size()) - 1;
            stints.middle += mean;
        }
    stints.laps = laps.size();
    stints.middle /= static_cast<double>(stints.all.size());
    for (Stint& stint : stints.all)
        stint.mean -= stints.middle;
    return stints;
}

double shotVariance(const Stints& stints, const BetPrior& prior) {
    const double usual = prior.usual.sdShot * prior.usual.sdShot;
    return (stints.squares + prior.degrees * usual) / (stints.degrees + prior.degrees);
}

double stintVariance(std::size_t point, const BetPrior& prior) {
    const double share = (static_cast<double>(point) + 0.5) / stintPoints;
    return prior.degrees * prior.usual.sdTurn * prior.usual.sdTurn /
           statistics::chiSquareQuantile(1 - share, prior.degrees);
}

namespace {

// K, XᵀMz and what else a sweep is made of, before K is turned along its axes.
struct Sums {
    MatrixXd K;
    VectorXd g, levelShares;
};

Swept along(const Sums& sums, Swept swept) {
    const Eigen::SelfAdjointEigenSolver<MatrixXd> solver(sums.K);
    const VectorXd values = solver.eigenvalues().cwiseMax(0);  // rounding alone takes one below it
    const MatrixXd across = solver.eigenvectors().transpose(); // kept by columns: builds × values by rows
    const VectorXd g = across * sums.g;
    swept.values.assign(values.begin(), values.end());
    swept.vectors.assign(across.data(), across.data() + across.size());
    swept.g.assign(g.begin(), g.end());
    swept.levelShares.assign(sums.levelShares.begin(), sums.levelShares.end());
    return swept;
}

// The same where stints share something: their covariance is no longer a diagonal.
Swept sweptTogether(const Stints& stints, double varStint, double varShot, double varWarm) {
    const auto n = static_cast<Eigen::Index>(stints.all.size());
    MatrixXd covariance = MatrixXd::Zero(n, n);
    MatrixXd builds = MatrixXd::Zero(n, static_cast<Eigen::Index>(stints.builds));
    MatrixXd laps = MatrixXd::Zero(n, static_cast<Eigen::Index>(stints.laps));
    VectorXd z(n);
    VectorXd warm(n);
    for (Eigen::Index i = 0; i < n; ++i) {
        const Stint& stint = stints.all[static_cast<std::size_t>(i)];
        covariance(i, i) = varStint + varShot / stint.shots;
        builds(i, static_cast<Eigen::Index>(stint.build)) = 1;
        laps(i, static_cast<Eigen::Index>(stint.lap)) = 1;
        z(i) = stint.mean;
        warm(i) = stint.warmingUp;
    }
    covariance.noalias() += varWarm * warm * warm.transpose();
    const Eigen::LLT<MatrixXd> ofAll(covariance);
    const MatrixXd W = ofAll.solve(MatrixXd::Identity(n, n));
    const MatrixXd WL = W * laps;
    const Eigen::LLT<MatrixXd> ofLaps(laps.transpose() * WL);
    const MatrixXd M = W - WL * ofLaps.solve(WL.transpose());
    const auto logOf = [](const Eigen::LLT<MatrixXd>& root) {
        return 2 * MatrixXd(root.matrixL()).diagonal().array().log().sum();
    };
    const VectorXd levels = ofLaps.solve(WL.transpose() * z);
    const MatrixXd shares = ofLaps.solve(WL.transpose() * builds);
    Swept swept;
    swept.zMz = z.dot(M * z);
    swept.logWeights = -logOf(ofAll);
    swept.logLaps = logOf(ofLaps);
    swept.level = levels.mean();
    return along({builds.transpose() * M * builds, builds.transpose() * M * z, shares.colwise().mean().transpose()},
                 std::move(swept));
}

} // namespace

Swept sweep(const Stints& stints, double varStint, double varShot, double varWarm) {
    if (varWarm > 0)
        return sweptTogether(stints, varStint, varShot, varWarm);
    const auto k = static_cast<Eigen::Index>(stints.builds);
    Swept swept;
    Sums sums{MatrixXd::Zero(k, k), VectorXd::Zero(k), VectorXd::Zero(k)};
    std::vector<double> weight(stints.laps, 0.0);
    std::vector<double> sum(stints.laps, 0.0);
    MatrixXd ofBuild = MatrixXd::Zero(k, static_cast<Eigen::Index>(stints.laps)); // weights by build and lap
    for (const Stint& stint : stints.all) {
        const double w = 1 / (varStint + varShot / stint.shots);
        const auto b = static_cast<Eigen::Index>(stint.build);
        weight[stint.lap] += w;
        sum[stint.lap] += w * stint.mean;
        ofBuild(b, static_cast<Eigen::Index>(stint.lap)) += w;
        sums.K(b, b) += w;
        sums.g(b) += w * stint.mean;
        swept.zMz += w * stint.mean * stint.mean;
        swept.logWeights += std::log(w);
    }
    for (std::size_t lap = 0; lap < stints.laps; ++lap) {
        const auto column = ofBuild.col(static_cast<Eigen::Index>(lap));
        sums.K.noalias() -= column * column.transpose() / weight[lap];
        sums.g.noalias() -= column * (sum[lap] / weight[lap]);
        swept.zMz -= sum[lap] * sum[lap] / weight[lap];
        swept.logLaps += std::log(weight[lap]);
        swept.level += sum[lap] / weight[lap] / static_cast<double>(stints.laps);
        sums.levelShares.noalias() += column / weight[lap] / static_cast<double>(stints.laps);
    }
    return along(sums, std::move(swept));
}

double Swept::logLikelihood(double tau) const {
    const double precision = 1 / (tau * tau);
    double sum = -logWeights + logLaps + zMz;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double a = values[i] + precision;
        sum += std::log(a / precision) - g[i] * g[i] / a;
    }
    return -0.5 * sum;
}

} // namespace knot::judge
