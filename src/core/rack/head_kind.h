#pragma once

#include "core/flight/impact.h"
#include "core/record/club.h"

namespace knot::rack {

/// What kind a head is, as far as its part tells: by volume, else by loft; unknown heads pass for woods.
flight::HeadKind headKind(const record::Part& head);

} // namespace knot::rack
