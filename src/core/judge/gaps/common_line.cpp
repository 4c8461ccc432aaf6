#include "core/judge/gaps/common_line.h"

#include "core/judge/resample.h"
#include <Eigen/Dense>

#include <algorithm>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

constexpr double fitted = 1.5; // parameters of the line, half on each build

// The stints of one lap by what was struck, in order.
using Lap = std::map<record::TurnAt, BuildAt>;

std::map<record::RoundAt, Lap> lapsOf(const Column& column) {
    std::map<record::RoundAt, Lap> laps;
    for (BuildAt b; b < column.builds.size(); ++b)
        for (const TurnValues& turn : column.builds[b].turns)
            laps[turn.round][turn.turn] = b;
    return laps;
}

// The mean place of a build's stints inside a lap; nothing where it has none.
std::optional<double> placeIn(const Lap& lap, BuildAt build) {
    double sum = 0;
    double count = 0;
    double place = 0;
    for (const auto& [turn, struck] : lap) {
        if (struck == build) {
            sum += place;
            ++count;
        }
        ++place;
    }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
}

} // namespace

bool hasSameOrder(const Column& column, BuildAt build, BuildAt against) {
    double differ = 0;
    double possible = 0;
    for (const auto& [round, lap] : lapsOf(column)) {
        const auto own = placeIn(lap, build);
        const auto other = placeIn(lap, against);
        if (!own || !other)
            continue;
        differ += *own - *other;
        possible += static_cast<double>(lap.size() - 1);
    }
    return std::fabs(differ) > possible / 2;
}

std::optional<CommonLine> commonLine(const Column& column, BuildAt build, BuildAt against) {
    const auto& own = column.builds[build].turns;
    const auto& other = column.builds[against].turns;
    if (own.size() < fewestStints || other.size() < fewestStints)
        return std::nullopt;
    const TurnValues& first = own.front();
    const auto n = static_cast<Eigen::Index>(own.size() + other.size());
    Eigen::MatrixXd design(n, 3);
    Eigen::VectorXd means(n);
    Eigen::Index row = 0;
    for (const auto* turns : {&other, &own})
        for (const TurnValues& turn : *turns) {
            if (turn.sitting != first.sitting || turn.player != first.player || turn.delivery != first.delivery ||
                turn.phase != first.phase)
                return std::nullopt;
            design.row(row) << 1, turns == &own ? 1 : 0, static_cast<double>(turn.place);
            means(row++) = turn.mean();
        }
    design.col(2).array() -= design.col(2).mean();
    const Eigen::LDLT<Eigen::Matrix3d> solver(design.transpose() * design);
    if (!(solver.rcond() > 1e-12))
        return std::nullopt;
    const Eigen::MatrixXd weights = solver.solve(design.transpose());
    const Eigen::VectorXd fit = weights * means;
    const Eigen::VectorXd left = means - design * fit;
    const auto others = static_cast<Eigen::Index>(other.size());
    double variance = 0;
    double sharpness = 0;
    for (const auto& [from, count] : {std::pair(Eigen::Index{0}, others), std::pair(others, n - others)}) {
        const double df = static_cast<double>(count) - fitted;
        const double own2 = left.segment(from, count).squaredNorm() / df;
        const double part = weights.row(1).segment(from, count).squaredNorm() * own2;
        variance += part;
        sharpness += part * part / df;
    }
    return CommonLine{{fit(1), std::sqrt(variance), sharpness > 0 ? variance * variance / sharpness : 0}, fit(2)};
}

} // namespace knot::judge
