#pragma once

#include "core/record/club.h"
#include "core/record/typed/amount.h"
#include "core/record/typed/number_in.h"

#include <vector>

namespace knot::rack {

/// What a builder's words do to a club ("1 weak", "1 up", "½in long", "D2"); gives back the pieces that are none.
std::vector<record::Piece> built(record::Club& club, const std::vector<record::Piece>& pieces,
                                 record::DecimalMark mark);

} // namespace knot::rack
