#include "core/judge/gaps/declared_gaps.h"

#include "core/judge/gaps/verdict.h"
#include "core/judge/spreads/shares.h"
#include "core/statistics/quantile.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

using Eigen::MatrixXd;
using Eigen::VectorXd;

// The shots of a column that have every covariate, and the covariates of the same shots.
struct SameShots {
    Column y;
    std::vector<Column> x;
};

SameShots deliveredOf(const record::Test& test, const Column& column, const std::vector<Metric>& covariates) {
    SameShots kept{.y = column, .x = std::vector<Column>(covariates.size(), column)};
    for (std::size_t b = 0; b < column.builds.size(); ++b)
        for (std::size_t t = 0; t < column.builds[b].turns.size(); ++t) {
            auto clear = [&](Column& one) {
                one.builds[b].turns[t].values.clear();
                one.builds[b].turns[t].shots.clear();
            };
            clear(kept.y);
            std::ranges::for_each(kept.x, clear);
            const TurnValues& turn = column.builds[b].turns[t];
            for (std::size_t i = 0; i < turn.values.size(); ++i) {
                const auto& readings = test.shots[turn.shots[i]].readings;
                if (!std::ranges::all_of(covariates, [&](Metric metric) { return readings.has(metric); }))
                    continue;
                auto put = [&](Column& one, double value) {
                    one.builds[b].turns[t].values.push_back(value);
                    one.builds[b].turns[t].shots.push_back(turn.shots[i]);
                };
                put(kept.y, turn.values[i]);
                for (std::size_t c = 0; c < covariates.size(); ++c)
                    put(kept.x[c], *readings.at(covariates[c]));
            }
        }
    auto dropEmpty = [](Column& one) {
        for (BuildValues& build : one.builds)
            std::erase_if(build.turns, [](const TurnValues& turn) { return turn.values.empty(); });
    };
    dropEmpty(kept.y);
    std::ranges::for_each(kept.x, dropEmpty);
    return kept;
}

// Slopes of y on the covariates inside stints, over both builds.
struct Slopes {
    VectorXd b;
    MatrixXd inverse; ///< of X'X
    double variance = 0, nu = 0;
};

std::optional<Slopes> slopesInside(const SameShots& kept, BuildAt build, BuildAt against) {
    const auto p = static_cast<Eigen::Index>(kept.x.size());
    MatrixXd xx = MatrixXd::Zero(p, p);
    VectorXd xy = VectorXd::Zero(p);
    double yy = 0;
    double degrees = -static_cast<double>(p);
    for (const BuildAt b : {against, build})
        for (std::size_t t = 0; t < kept.y.builds[b].turns.size(); ++t) {
            const TurnValues& turn = kept.y.builds[b].turns[t];
            const double middle = turn.mean();
            VectorXd middles(p);
            for (Eigen::Index c = 0; c < p; ++c)
                middles(c) = kept.x[static_cast<std::size_t>(c)].builds[b].turns[t].mean();
            for (std::size_t i = 0; i < turn.values.size(); ++i) {
                VectorXd x(p);
                for (Eigen::Index c = 0; c < p; ++c)
                    x(c) = kept.x[static_cast<std::size_t>(c)].builds[b].turns[t].values[i] - middles(c);
                const double y = turn.values[i] - middle;
                xx += x * x.transpose();
                xy += x * y;
                yy += y * y;
            }
            degrees += static_cast<double>(turn.values.size()) - 1;
        }
    // Covariates of any unit are told apart on one scale.
    const VectorXd length = xx.diagonal().cwiseSqrt();
    if (!(length.minCoeff() > 0))
        return std::nullopt;
    const MatrixXd scaled = length.cwiseInverse().asDiagonal() * xx * length.cwiseInverse().asDiagonal();
    const Eigen::LDLT<MatrixXd> solver(scaled);
    if (!(solver.rcond() > 1e-10))
        return std::nullopt;
    Slopes slopes;
    slopes.inverse = length.cwiseInverse().asDiagonal() * solver.solve(MatrixXd::Identity(p, p)) *
                     length.cwiseInverse().asDiagonal();
    slopes.b = slopes.inverse * xy;
    slopes.nu = degrees;
    slopes.variance = degrees > 0 ? std::max(0.0, yy - slopes.b.dot(xy)) / degrees : 0;
    return slopes;
}

// What a declared gap shares with the average as struck of the same shots, without its numbers.
AverageGap bare(const AverageGap& gap, record::OutcomeKind kind, GapMethod method) {
    AverageGap row;
    row.metric = gap.metric;
    row.kind = kind;
    row.build = gap.build;
    row.against = gap.against;
    row.method = method;
    row.sameOrder = gap.sameOrder;
    row.shotsBuild = gap.shotsBuild;
    row.shotsAgainst = gap.shotsAgainst;
    row.margin = gap.margin;
    row.gap = gap.gap;
    row.claim.cap = gap.claim.cap;
    return row;
}

double huberLocation(const std::vector<double>& values, double scale) {
    constexpr double bend = 1.345;
    constexpr int steps = 6;
    double location = statistics::medianOf(values);
    for (int step = 0; step < steps; ++step) {
        double sum = 0;
        double weights = 0;
        for (const double value : values) {
            const double off = std::fabs(value - location);
            const double weight = off > bend * scale ? bend * scale / off : 1;
            sum += weight * value;
            weights += weight;
        }
        location = sum / weights;
    }
    return location;
}

// What a shot usually strays from the middle of its stint, over both builds.
double usualStray(const BuildValues& own, const BuildValues& other) {
    std::vector<double> off;
    std::size_t stints = 0;
    for (const BuildValues* build : {&own, &other})
        for (const TurnValues& turn : build->turns) {
            const double middle = statistics::medianOf(turn.values);
            for (const double value : turn.values)
                off.push_back(std::fabs(value - middle));
            ++stints;
        }
    const double length = static_cast<double>(off.size()) / static_cast<double>(stints);
    return 1.4826 * statistics::medianOf(off) * std::sqrt(length / (length - 1));
}

// Each stint as the one value that is typical of it.
Column typicalOf(const Column& column, double scale) {
    Column typical = column;
    for (BuildValues& build : typical.builds)
        for (TurnValues& turn : build.turns)
            turn.values = {huberLocation(turn.values, scale)};
    return typical;
}

constexpr double mishitScales = 2.5;

// Shots farther than that from what is typical of their stint, on the side that nobody wants.
std::optional<Share> mishits(const BuildValues& shots, const BuildValues& typical, double scale,
                             const record::Want& want) {
    using Kind = record::Want::Kind;
    std::vector<std::vector<bool>> turns;
    for (std::size_t t = 0; t < shots.turns.size(); ++t) {
        turns.emplace_back();
        for (const double value : shots.turns[t].values) {
            const double off = value - typical.turns[t].values.front();
            const bool isWorse = want.kind == Kind::more ? off < 0 : want.kind != Kind::less || off > 0;
            turns.back().push_back(isWorse && std::fabs(off) > mishitScales * scale);
        }
    }
    return shareByTurns(turns);
}

Effect byLaps(const std::vector<double>& differences) {
    const auto rounds = static_cast<double>(differences.size());
    return {meanOf(differences), standardDeviation(differences) / std::sqrt(rounds), rounds - 1};
}

} // namespace

std::optional<AverageGap> gapAtEqualDelivery(const record::Test& test, const Column& column, BuildAt build,
                                             BuildAt against, const std::vector<Metric>& covariates, double margin) {
    const SameShots kept = deliveredOf(test, column, covariates);
    const auto struck = averageGap(kept.y, build, against, margin);
    if (!struck)
        return std::nullopt;
    AverageGap row = bare(*struck, record::OutcomeKind::equal, GapMethod::equal);
    const auto slopes = slopesInside(kept, build, against);
    if (!slopes || slopes->nu < 3 * static_cast<double>(covariates.size())) {
        row.claim.cap = row.claim.cap.value_or(slopes ? Cap::tooFewShots : Cap::noVariation);
        return row;
    }
    row.details.slopes.assign(slopes->b.begin(), slopes->b.end());
    row.details.nu = slopes->nu;
    auto differences = roundDifferences(kept.y, build, against);
    row.rounds = differences.size();
    if (differences.size() < 2) {
        row.claim.cap = row.claim.cap.value_or(Cap::tooFewRounds);
        return row;
    }
    VectorXd between(static_cast<Eigen::Index>(covariates.size()));
    for (std::size_t c = 0; c < covariates.size(); ++c) {
        const auto x = roundDifferences(kept.x[c], build, against);
        for (std::size_t r = 0; r < differences.size(); ++r)
            differences[r] -= slopes->b(static_cast<Eigen::Index>(c)) * x[r];
        between(static_cast<Eigen::Index>(c)) = meanOf(x);
    }
    Effect effect = byLaps(differences);
    effect.se = std::sqrt(effect.se * effect.se + slopes->variance * between.dot(slopes->inverse * between));
    judgeEffect(row, effect);
    return row;
}

std::optional<AverageGap> gapOfTypicalShot(const Column& column, BuildAt build, BuildAt against, double margin,
                                           const record::Want& want) {
    const auto struck = averageGap(column, build, against, margin);
    if (!struck)
        return std::nullopt;
    AverageGap row = bare(*struck, record::OutcomeKind::typical, GapMethod::typical);
    const BuildValues& own = column.builds[build];
    const BuildValues& other = column.builds[against];
    const std::size_t stints = own.turns.size() + other.turns.size();
    if (own.count() + other.count() < 3 * stints) {
        row.claim.cap = row.claim.cap.value_or(Cap::tooFewShots);
        return row;
    }
    const double scale = usualStray(own, other);
    if (!(scale > 0)) {
        row.claim.cap = row.claim.cap.value_or(Cap::noVariation);
        return row;
    }
    const Column typical = typicalOf(column, scale);
    row.details.scale = scale;
    row.details.mishitsBuild = mishits(own, typical.builds[build], scale, want);
    row.details.mishitsAgainst = mishits(other, typical.builds[against], scale, want);
    const auto differences = roundDifferences(typical, build, against);
    row.rounds = differences.size();
    if (differences.size() < 2) {
        row.gap = meanOf(typical.builds[build].turnMeans()) - meanOf(typical.builds[against].turnMeans());
        row.claim.cap = row.claim.cap.value_or(Cap::tooFewRounds);
        return row;
    }
    judgeEffect(row, byLaps(differences));
    return row;
}

} // namespace knot::judge
