#pragma once

#include "core/judge/reading.h"

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace knot::judge {

/// The λ = σ²_turn/σ²_shot ≥ 0 at which a restricted deviance is least: a coarse scan brackets it, since the likelihood
/// of few turns can have two hollows, then Brent's method. 0 where nothing beats 0.
double leastDeviance(const std::function<double(double)>& ofLambda);

/// A model matrix, row by row.
struct Design {
    std::size_t columns = 0;
    std::vector<double> values; ///< rows × columns

    std::size_t rows() const { return columns == 0 ? 0 : values.size() / columns; }
    void addRow(const std::vector<double>& row);
};

struct Estimate {
    double value = 0, se = 0, df = 0;
    double p = 1; ///< two-sided, value = 0
};

/// y = Xβ + turn + shot with one random effect for each turn, fitted by REML: the likelihood is
/// profiled in λ = σ²_turn/σ²_shot and minimised in one dimension. Where it is smallest at λ = 0,
/// the fit is ordinary least squares ("blocks").
class MixedModel {
public:
    /// `turns[i]` is the turn of row i, numbered from 0. Nothing is returned when the design is
    /// rank-deficient, a value is not finite, or no degrees of freedom are left for the error.
    static std::optional<MixedModel> fit(const Design& design, const std::vector<double>& y,
                                         const std::vector<std::size_t>& turns);

    /// A linear combination of the coefficients, with Satterthwaite's df by the delta method
    /// (Kuznetsova, Brockhoff & Christensen 2017); for `blocks` with rows − columns df. No
    /// estimate when the error variance is 0.
    std::optional<Estimate> contrast(const std::vector<double>& weights) const;
    std::optional<Estimate> coefficient(std::size_t column) const;

    double varTurn() const { return m_varTurn; }
    double varShot() const { return m_varShot; }
    bool isMixed() const { return m_varTurn > 0; }
    ModelMethod method() const { return isMixed() ? ModelMethod::mixed : ModelMethod::blocks; }

    struct Parts; ///< sums over turns that the likelihood needs
    MixedModel(MixedModel&&) noexcept;
    MixedModel& operator=(MixedModel&&) noexcept;
    ~MixedModel();

private:
    explicit MixedModel(std::unique_ptr<Parts> parts);
    std::unique_ptr<Parts> m_parts;
    double m_varTurn = 0, m_varShot = 0;
};

} // namespace knot::judge
