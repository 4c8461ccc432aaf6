#include "core/judge/gaps/declared_gaps.h"

#include "core/judge/gaps/common_line.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/spreads/shares.h"
#include "core/statistics/distributions.h"
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

// Slopes of y on the covariates inside stints, over some builds.
struct Slopes {
    VectorXd b;
    MatrixXd inverse;                      ///< of X'X
    double left = 0, variance = 0, nu = 0; ///< sum of squares that is left, and that over its degrees of freedom
};

std::optional<Slopes> slopesInside(const SameShots& kept, const std::vector<BuildAt>& builds) {
    const auto p = static_cast<Eigen::Index>(kept.x.size());
    MatrixXd xx = MatrixXd::Zero(p, p);
    VectorXd xy = VectorXd::Zero(p);
    double yy = 0;
    double degrees = -static_cast<double>(p);
    for (const BuildAt b : builds)
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
    slopes.left = std::max(0.0, yy - slopes.b.dot(xy));
    slopes.variance = degrees > 0 ? slopes.left / degrees : 0;
    return slopes;
}

// The p of F that each build's own slopes leave no less than those of both.
std::optional<double> slopesDifferP(const SameShots& kept, const Slopes& both, BuildAt build, BuildAt against) {
    const auto own = slopesInside(kept, {build});
    const auto other = slopesInside(kept, {against});
    const auto more = static_cast<double>(kept.x.size());
    if (!own || !other || !(both.nu - more >= 3 * more))
        return std::nullopt;
    const double left = own->left + other->left;
    if (!(left > 0))
        return std::nullopt;
    const double f = std::max(0.0, both.left - left) / more / (left / (both.nu - more));
    return statistics::fisherUpper(f, more, both.nu - more);
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
    if (gap.claim.cap != Cap::sameOrder) // the row has a line of its own, or not
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

// The gap of a column by laps, or where they take no drift out along a line; capped where neither can be.
struct Found {
    Effect effect;
    std::optional<Cap> cap;
};

Found foundIn(const Column& column, const AverageGap& row) {
    if (const auto line = row.sameOrder ? commonLine(column, row.build, row.against) : std::nullopt)
        return {line->gap, {}};
    const auto differences = roundDifferences(column, row.build, row.against);
    const auto laps = static_cast<double>(differences.size());
    const double se = standardDeviation(differences) / std::sqrt(laps);
    return {{meanOf(differences), se, laps - 1}, row.sameOrder ? std::optional(Cap::sameOrder) : std::nullopt};
}

void judgeFound(AverageGap& row, const Found& found) {
    judgeEffect(row, found.effect);
    if (found.cap)
        row.claim.cap = row.claim.cap.value_or(*found.cap);
}

// A column with what the delivery explains taken out of every shot.
Column lessDelivery(const SameShots& kept, const VectorXd& slopes) {
    Column left = kept.y;
    for (std::size_t b = 0; b < left.builds.size(); ++b)
        for (std::size_t t = 0; t < left.builds[b].turns.size(); ++t)
            for (std::size_t i = 0; i < left.builds[b].turns[t].values.size(); ++i)
                for (std::size_t c = 0; c < kept.x.size(); ++c)
                    left.builds[b].turns[t].values[i] -=
                        slopes(static_cast<Eigen::Index>(c)) * kept.x[c].builds[b].turns[t].values[i];
    return left;
}

// The slopes' own error beside that of the laps; from four laps on with the degrees of freedom of both (Satterthwaite
// 1946), under that with those of the laps.
void addSlopesPart(Effect& effect, double variance, double nu) {
    constexpr double fewestForBoth = 4; // laps
    const double ofLaps = effect.se * effect.se;
    effect.se = std::sqrt(ofLaps + variance);
    if (effect.df + 1 >= fewestForBoth && variance > 0)
        effect.df =
            (ofLaps + variance) * (ofLaps + variance) / (ofLaps * ofLaps / effect.df + variance * variance / nu);
}

} // namespace

std::optional<AverageGap> gapAtEqualDelivery(const record::Test& test, const Column& column, BuildAt build,
                                             BuildAt against, const std::vector<Metric>& covariates, double margin) {
    const SameShots kept = deliveredOf(test, column, covariates);
    const auto struck = averageGap(kept.y, build, against, margin);
    if (!struck)
        return std::nullopt;
    AverageGap row = bare(*struck, record::OutcomeKind::equal, GapMethod::equal);
    const auto slopes = slopesInside(kept, {against, build});
    if (!slopes || slopes->nu < 3 * static_cast<double>(covariates.size())) {
        row.claim.cap = row.claim.cap.value_or(slopes ? Cap::tooFewShots : Cap::noVariation);
        return row;
    }
    row.details.slopes.assign(slopes->b.begin(), slopes->b.end());
    row.details.nu = slopes->nu;
    row.details.slopesDifferP = slopesDifferP(kept, *slopes, build, against);
    row.rounds = roundDifferences(kept.y, build, against).size();
    if (row.rounds < 2) {
        row.claim.cap = row.claim.cap.value_or(Cap::tooFewRounds);
        return row;
    }
    Found found = foundIn(lessDelivery(kept, slopes->b), row);
    VectorXd between(static_cast<Eigen::Index>(covariates.size()));
    for (std::size_t c = 0; c < covariates.size(); ++c)
        between(static_cast<Eigen::Index>(c)) = foundIn(kept.x[c], row).effect.value;
    addSlopesPart(found.effect, slopes->variance * between.dot(slopes->inverse * between), slopes->nu);
    judgeFound(row, found);
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
    row.rounds = roundDifferences(typical, build, against).size();
    if (row.rounds < 2) {
        row.gap = meanOf(typical.builds[build].turnMeans()) - meanOf(typical.builds[against].turnMeans());
        row.claim.cap = row.claim.cap.value_or(Cap::tooFewRounds);
        return row;
    }
    judgeFound(row, foundIn(typical, row));
    return row;
}

} // namespace knot::judge
