#pragma once

#include "core/rack/difference.h"
#include "core/record/units.h"

#include <QString>

namespace knot::app {

/// Everything in which clubs differ besides what is tested, as a table (HTML), with what it moves, what it would do by
/// itself by the models at the player's speed, and what evens it.
QString differencesHtml(const std::vector<record::Build>& clubs, record::TestKind kind, const record::Player& player,
                        const record::DisplayUnits& units);

/// What a club has where that is not as on most of the others, neither slight nor come with what is tested: "46 g" of
/// the "grip mass". Empty where it is as on them, or not known.
QString oddValue(const rack::Difference& row, std::size_t club);

/// What of a club is not as on most of the others, besides what is tested and what follows from it.
QString slipOf(const std::vector<rack::Difference>& sheet, std::size_t club);

} // namespace knot::app
