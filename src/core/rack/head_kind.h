#pragma once

#include "core/flight/impact.h"
#include "core/record/test.h"

#include <string_view>
#include <vector>

namespace knot::rack {

/// What kind a head is, as far as its part tells: by volume, else by loft, else by what its own name or its club's says
/// ("7", "7 iron", "3w", "gap wedge"); unknown heads pass for woods.
flight::HeadKind headKind(const record::Part& head, std::string_view club = {});
flight::HeadKind headKind(const record::Build& build);

/// A driver and a three-wood lie farther apart than two shafts: one kind, and lofts no farther apart than those of two
/// neighbouring clubs.
bool areOfOneKind(const std::vector<const record::Build*>& clubs);

/// "driver", "wood", "iron" or "wedge", as tables have it.
std::string_view kindName(flight::HeadKind kind);

} // namespace knot::rack
