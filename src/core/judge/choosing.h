#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// Which builds may be best in an outcome that is wanted more, less or near a value: those that no
/// other beats in a one-sided pairwise test, Holm over all ordered pairs at `alpha`. Pairs without
/// a p beat nothing. Builds without readings take no part.
std::vector<std::size_t> bestSet(const Column& column, const record::Want& want, double alpha);

/// The chance of being best and the mean loss of choosing each build (judgement §5 and §13): draws
/// of each build's mean from t on its turn means inside lap-centred data, own variance, turns − 1
/// df. Builds with fewer than two turns take no part; with fewer than two such builds nothing.
/// `furtherLaps` more laps are simulated from the same draws to see what they would save.
BestOf choosing(const Column& column, const record::Want& want, std::uint64_t seed, int furtherLaps = 5,
                int draws = 20000);

} // namespace knot::judge
