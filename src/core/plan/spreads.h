#pragma once

#include "core/record/test.h"

#include <array>
#include <vector>

namespace knot::plan {

/// How steady a player is, where their own shots do not say.
enum class Level { steady, club, occasional };
inline constexpr std::array levelNames = {"steady", "club", "occasional"};

/// The spread of one metric: between turns and between the shots of a turn, in its unit.
struct Spreads {
    double sdTurn = 0, sdShot = 1;
    std::size_t turns = 0, shots = 0; ///< what they rest on; 0 from the table
};

/// From the table data/spreads.csv.
Spreads usualSpreads(record::Metric metric, Level level);

/// How far builds of a kind of test may lie apart, as a multiple of the worthwhile gap: heads differ more than grips.
/// From the table data/kinds.csv.
double gapTimes(record::TestKind kind);
/// The same of the clubs of a test: eight times as far where they are of several kinds.
double gapTimes(const record::Test& test);

/// From the player's own shots, pooled over tests and builds: inside turns from squares about the
/// turn means, between turns from the turn means of each build less what shots add to them, not below
/// 0. Warm-up and set-aside shots take no part. Nothing under twelve degrees of freedom inside turns
/// or six between them.
std::optional<Spreads> ownSpreads(const std::vector<record::Test>& tests, record::Metric metric);

/// The same at equal delivery: of the metric less what the covariates explain of it inside turns, by least squares
/// pooled over tests and builds; shots with all of them. Nothing too where under three degrees of freedom are left for
/// each covariate, or where one does not vary.
std::optional<Spreads> ownSpreadsAtEqual(const std::vector<record::Test>& tests, record::Metric metric,
                                         const std::vector<record::Metric>& covariates);

/// What covariates are taken to explain of the scatter inside turns where the player's own shots do not say
/// (judgement §25).
inline constexpr double usualExplained = 0.3;
/// Spreads at equal delivery from those as struck: what shots scatter less, stints move as before.
Spreads atEqualDelivery(const Spreads& struck, double explained = usualExplained);

} // namespace knot::plan
