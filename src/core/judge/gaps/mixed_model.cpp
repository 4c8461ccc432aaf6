#include "core/judge/gaps/mixed_model.h"

#include "core/statistics/distributions.h"

#include <Eigen/Dense>
#include <boost/math/tools/minima.hpp>

#include <algorithm>
#include <cmath>

namespace knot::judge {

using namespace statistics;

using Eigen::MatrixXd;
using Eigen::VectorXd;

void Design::addRow(const std::vector<double>& row) {
    columns = row.size();
    values.insert(values.end(), row.begin(), row.end());
}

// The design is replaced by an orthonormal basis Q of its columns and y by its residual after Q, so
// that offsets and scales of the data do not reach the likelihood. With V = σ²(I + λZZ'), every
// quantity is a sum over turns of s_t = Σ q and r_t = Σ residual, weighted by functions of λ n_t.
struct MixedModel::Parts {
    Eigen::ColPivHouseholderQR<MatrixXd> qr;
    VectorXd ols;      // Q'y
    MatrixXd turnSums; // columns × turns: s_t
    VectorXd turnResiduals, turnCounts;
    double squares = 0; // residual sum of squares after Q
    Eigen::Index rows = 0, columns = 0, turns = 0;

    // Q'V⁻¹Q·σ² and the GLS solution for the residual part.
    struct Solved {
        MatrixXd information;
        Eigen::LLT<MatrixXd> factor;
        VectorXd gamma;
        double squares = 0;
    };
    Solved solve(double lambda) const {
        const VectorXd weight = (lambda / (1 + lambda * turnCounts.array())).matrix();
        Solved s;
        const MatrixXd weighted = turnSums * weight.cwiseSqrt().asDiagonal();
        s.information = MatrixXd::Identity(columns, columns);
        s.information.noalias() -= weighted.lazyProduct(weighted.transpose());
        s.factor.compute(s.information);
        const VectorXd right = -(turnSums * weight.cwiseProduct(turnResiduals));
        s.gamma = s.factor.solve(right);
        s.squares = squares - weight.dot(turnResiduals.cwiseAbs2()) - right.dot(s.gamma);
        return s;
    }
    double degrees() const { return static_cast<double>(rows - columns); }

    // −2 × the profiled restricted log likelihood, up to a constant.
    double deviance(double lambda) const {
        const Solved s = solve(lambda);
        const double logV = (1 + lambda * turnCounts.array()).log().sum();
        const double logInformation = 2 * s.factor.matrixLLT().diagonal().array().log().sum();
        return logV + logInformation + degrees() * std::log(s.squares);
    }

    // Q'V⁻¹V_iV⁻¹Q for i = turn and shot.
    void curvatures(double varTurn, double varShot, MatrixXd& turn, MatrixXd& shot) const {
        const double lambda = varTurn / varShot;
        const auto shrink = 1 + lambda * turnCounts.array();
        const VectorXd perTurn = (1 / shrink.square()).matrix();
        const auto c = lambda / shrink;
        const VectorXd perShot = (2 * c - c.square() * turnCounts.array()).matrix();
        const double scale = 1 / (varShot * varShot);
        turn = scale * turnSums * perTurn.asDiagonal() * turnSums.transpose();
        shot = scale * (MatrixXd::Identity(columns, columns) - turnSums * perShot.asDiagonal() * turnSums.transpose());
    }

    // Gradient of the restricted deviance in (σ²_turn, σ²_shot): tr(P V_i) − y'P V_i P y.
    Eigen::Vector2d gradient(double varTurn, double varShot) const {
        const double lambda = varTurn / varShot;
        const Solved s = solve(lambda);
        MatrixXd turn;
        MatrixXd shot;
        curvatures(varTurn, varShot, turn, shot);
        const MatrixXd inverse = varShot * s.factor.solve(MatrixXd::Identity(columns, columns));
        const auto shrink = 1 + lambda * turnCounts.array();
        const auto c = lambda / shrink;
        const double traceTurn = (turnCounts.array() / shrink).sum() / varShot;
        const double traceShot = (static_cast<double>(rows) - (c * turnCounts.array()).sum()) / varShot;
        const VectorXd rest = turnResiduals - turnSums.transpose() * s.gamma;
        const double restSquares = squares + s.gamma.squaredNorm();
        const double formTurn = (rest.array() / shrink).square().sum() / (varShot * varShot);
        const double formShot =
            (restSquares - ((2 * c - c.square() * turnCounts.array()) * rest.array().square()).sum()) /
            (varShot * varShot);
        return {traceTurn - inverse.cwiseProduct(turn).sum() - formTurn,
                traceShot - inverse.cwiseProduct(shot).sum() - formShot};
    }
};

MixedModel::MixedModel(std::unique_ptr<Parts> parts)
    : m_parts(std::move(parts)) {}
MixedModel::MixedModel(MixedModel&&) noexcept = default;
MixedModel& MixedModel::operator=(MixedModel&&) noexcept = default;
MixedModel::~MixedModel() = default;

double leastDeviance(const std::function<double(double)>& ofLambda) {
    auto deviance = [&](double root) { return ofLambda(root * root); };
    constexpr int steps = 12;
    auto root = [](int i) { return i == 0 ? 0.0 : 0.02 * std::pow(2.6, i - 1); };
    int best = 0;
    double lowest = deviance(0);
    const double atZero = lowest;
    for (int i = 1; i <= steps; ++i) {
        const double here = deviance(root(i));
        if (here < lowest) {
            lowest = here;
            best = i;
        }
    }
    const double from = root(std::max(best - 1, 0));
    const double to = root(std::min(best + 1, steps));
    const auto [at, value] = boost::math::tools::brent_find_minima(deviance, from, to, 40);
    const bool gains = value < atZero - 1e-9 * std::max(1.0, std::fabs(atZero));
    return gains ? at * at : 0;
}

std::optional<MixedModel> MixedModel::fit(const Design& design, const std::vector<double>& y,
                                          const std::vector<std::size_t>& turns) {
    using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;
    const auto rows = static_cast<Eigen::Index>(design.rows());
    const auto columns = static_cast<Eigen::Index>(design.columns);
    if (rows <= columns || columns == 0)
        return std::nullopt;
    const MatrixXd x = Eigen::Map<const RowMajor>(design.values.data(), rows, columns);
    const VectorXd response = Eigen::Map<const VectorXd>(y.data(), rows);
    if (!x.allFinite() || !response.allFinite())
        return std::nullopt;
    auto parts = std::make_unique<Parts>();
    parts->qr.setThreshold(1e-9);
    parts->qr.compute(x);
    if (parts->qr.rank() != columns)
        return std::nullopt;
    const MatrixXd q = parts->qr.householderQ() * MatrixXd::Identity(rows, columns);
    parts->rows = rows;
    parts->columns = columns;
    parts->turns = static_cast<Eigen::Index>(*std::ranges::max_element(turns)) + 1;
    parts->ols = q.transpose() * response;
    const VectorXd residual = response - q * parts->ols;
    parts->squares = residual.squaredNorm();
    parts->turnSums = MatrixXd::Zero(columns, parts->turns);
    parts->turnResiduals = VectorXd::Zero(parts->turns);
    parts->turnCounts = VectorXd::Zero(parts->turns);
    for (Eigen::Index i = 0; i < rows; ++i) {
        const auto t = static_cast<Eigen::Index>(turns[static_cast<std::size_t>(i)]);
        parts->turnSums.col(t) += q.row(i).transpose();
        parts->turnResiduals(t) += residual(i);
        parts->turnCounts(t) += 1;
    }
    const double noise = 1e-24 * std::max(response.squaredNorm(), 1.0);
    const bool constant = parts->squares <= noise;
    const bool canSplit = parts->turnCounts.maxCoeff() > 1 && parts->turns > 1;
    MixedModel model(std::move(parts));
    const auto deviance = [&](double at) { return model.m_parts->deviance(at); };
    const double lambda = constant || !canSplit ? 0 : leastDeviance(deviance);
    model.m_varShot = constant ? 0 : model.m_parts->solve(lambda).squares / model.m_parts->degrees();
    model.m_varTurn = lambda * model.m_varShot;
    return model;
}

std::optional<Estimate> MixedModel::contrast(const std::vector<double>& weights) const {
    if (!(m_varShot > 0))
        return std::nullopt;
    const Parts& parts = *m_parts;
    const VectorXd l = Eigen::Map<const VectorXd>(weights.data(), parts.columns);
    // β = P R⁻¹ γ, so the contrast in the basis is R⁻ᵀ Pᵀ l.
    const VectorXd permuted = parts.qr.colsPermutation().transpose() * l;
    const auto upper = parts.qr.matrixR().topLeftCorner(parts.columns, parts.columns);
    const VectorXd basis = upper.template triangularView<Eigen::Upper>().transpose().solve(permuted);
    const auto solved = parts.solve(m_varTurn / m_varShot);
    const VectorXd spread = solved.factor.solve(basis);
    Estimate e;
    e.value = basis.dot(parts.ols + solved.gamma);
    const double variance = m_varShot * basis.dot(spread);
    e.se = std::sqrt(variance);
    e.df = parts.degrees();
    if (isMixed()) {
        MatrixXd turn;
        MatrixXd shot;
        parts.curvatures(m_varTurn, m_varShot, turn, shot);
        const VectorXd scaled = m_varShot * spread;
        const Eigen::Vector2d slope{scaled.dot(turn * scaled), scaled.dot(shot * scaled)};
        Eigen::Matrix2d hessian;
        const double stepTurn = 1e-5 * m_varTurn;
        const double stepShot = 1e-5 * m_varShot;
        hessian.col(0) =
            (parts.gradient(m_varTurn + stepTurn, m_varShot) - parts.gradient(m_varTurn - stepTurn, m_varShot)) /
            (2 * stepTurn);
        hessian.col(1) =
            (parts.gradient(m_varTurn, m_varShot + stepShot) - parts.gradient(m_varTurn, m_varShot - stepShot)) /
            (2 * stepShot);
        const Eigen::Matrix2d covariance = 2 * (0.5 * (hessian + hessian.transpose())).inverse();
        const double varianceOfVariance = slope.dot(covariance * slope);
        if (varianceOfVariance > 0)
            e.df = 2 * variance * variance / varianceOfVariance;
    }
    if (!(e.se > 1e-12 * std::max(std::fabs(e.value), 1e-300)) || !std::isfinite(e.df))
        return std::nullopt;
    e.p = studentTwoSided(e.value / e.se, e.df);
    return e;
}

std::optional<Estimate> MixedModel::coefficient(std::size_t column) const {
    std::vector<double> weights(static_cast<std::size_t>(m_parts->columns), 0.0);
    weights.at(column) = 1;
    return contrast(weights);
}

} // namespace knot::judge
