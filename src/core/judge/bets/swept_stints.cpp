#include "core/judge/bets/swept_stints.h"

#include "core/statistics/distributions.h"

#include <Eigen/Dense>

#include <cmath>
#include <map>

namespace knot::judge {

using Eigen::MatrixXd;
using Eigen::VectorXd;

Stints stintsOf(const Column& column, const std::vector<BuildAt>& builds) {
    Stints stints{.all = {}, .builds = builds.size()};
    std::map<std::size_t, std::size_t> laps;
    for (std::size_t b = 0; b < builds.size(); ++b)
        for (const TurnValues& turn : column.builds[builds[b]].turns) {
            const auto lap = laps.try_emplace(turn.round, laps.size()).first->second;
            const double mean = turn.mean();
            stints.all.push_back({b, lap, mean, static_cast<double>(turn.values.size())});
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

Swept sweep(const Stints& stints, double varStint, double varShot) {
    const auto k = static_cast<Eigen::Index>(stints.builds);
    Swept swept;
    VectorXd levelShares = VectorXd::Zero(k);
    std::vector<double> weight(stints.laps, 0.0);
    std::vector<double> sum(stints.laps, 0.0);
    MatrixXd ofBuild = MatrixXd::Zero(k, static_cast<Eigen::Index>(stints.laps)); // weights by build and lap
    MatrixXd K = MatrixXd::Zero(k, k);
    VectorXd g = VectorXd::Zero(k);
    for (const Stint& stint : stints.all) {
        const double w = 1 / (varStint + varShot / stint.shots);
        const auto b = static_cast<Eigen::Index>(stint.build);
        weight[stint.lap] += w;
        sum[stint.lap] += w * stint.mean;
        ofBuild(b, static_cast<Eigen::Index>(stint.lap)) += w;
        K(b, b) += w;
        g(b) += w * stint.mean;
        swept.zMz += w * stint.mean * stint.mean;
        swept.logWeights += std::log(w);
    }
    for (std::size_t lap = 0; lap < stints.laps; ++lap) {
        const auto column = ofBuild.col(static_cast<Eigen::Index>(lap));
        K.noalias() -= column * column.transpose() / weight[lap];
        g.noalias() -= column * (sum[lap] / weight[lap]);
        swept.zMz -= sum[lap] * sum[lap] / weight[lap];
        swept.logLaps += std::log(weight[lap]);
        swept.level += sum[lap] / weight[lap] / static_cast<double>(stints.laps);
        levelShares.noalias() += column / weight[lap] / static_cast<double>(stints.laps);
    }
    const Eigen::SelfAdjointEigenSolver<MatrixXd> solver(K);
    const VectorXd values = solver.eigenvalues().cwiseMax(0);  // rounding alone takes one below it
    const MatrixXd across = solver.eigenvectors().transpose(); // kept by columns: builds × values by rows
    const VectorXd along = across * g;
    swept.values.assign(values.begin(), values.end());
    swept.vectors.assign(across.data(), across.data() + across.size());
    swept.g.assign(along.begin(), along.end());
    swept.levelShares.assign(levelShares.begin(), levelShares.end());
    return swept;
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
