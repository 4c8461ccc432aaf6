#pragma once

#include "app/decision_page/club_card.h"
#include "core/record/test.h"
#include "core/record/units.h"

#include <vector>

namespace knot::app {

class Judging;

/// The clubs of a test as they came out of it, in its order: tags where nobody knows yet. Shots are of the first
/// declared number.
std::vector<ClubPicture> clubPictures(const record::Test& test, const Judging& judging,
                                      const record::DisplayUnits& units);

} // namespace knot::app
