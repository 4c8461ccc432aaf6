#pragma once

#include "core/judge/reading.h"
#include "core/record/structure.h"

namespace knot::judge {

/// Rounds that hold a counted shot of every build.
std::size_t completeRounds(const record::Test& test, const record::Structure& structure);

/// The two-sided level at which a test is judged now (judgement §9): α without looks or without a
/// plan; with looks the level of the look after `roundsDone` of the planned rounds, 0 before the
/// second.
double levelNow(const record::Card& card, std::size_t roundsDone);

/// The test without the shots that a club struck after it had all its planned rounds: those have no
/// error rate. The number of rounds that had such shots; 0 leaves the test as it is.
std::size_t dropRoundsBeyondPlan(record::Test& test, const record::Structure& structure);

} // namespace knot::judge
