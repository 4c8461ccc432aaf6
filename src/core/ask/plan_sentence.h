#pragma once

#include "core/ask/answers.h"

namespace knot::ask {

inline constexpr int mostLaps = 60, longestStint = 30; ///< that are planned

/// How a test is struck, as one sentence: "In [44 minutes] three shafts are hit in [rotated laps]: [5 laps] of [2
/// shots], after [8 to warm up]. A change takes [40 s] …".
std::vector<Piece> planSentenceOf(const record::Test& test);

/// Chips of that sentence that stand from the seal, or from the first shot on.
bool standsOncePlanned(Part part);

/// What such a chip may hold, and what typing into it changes; as `answersFor` and `taken` have it.
std::vector<Answer> planAnswers(const Chip& chip, const record::Test& test, const Known& known);
tl::expected<Edit, std::string> planTaken(const Chip& chip, const std::string& text, const record::Test& test,
                                          const Known& known);

} // namespace knot::ask
