#pragma once

#include "core/flight/impact.h"
#include "core/record/club.h"

#include <string_view>

namespace knot::rack {

/// What kind a head is, as far as its part tells: by volume, else by loft; unknown heads pass for woods.
flight::HeadKind headKind(const record::Part& head);

/// "driver", "wood", "iron" or "wedge", as tables have it.
std::string_view kindName(flight::HeadKind kind);

} // namespace knot::rack
