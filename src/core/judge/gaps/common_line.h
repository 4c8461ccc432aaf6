#pragma once

#include "core/judge/columns.h"
#include "core/judge/gaps/verdict.h"

#include <optional>

namespace knot::judge {

/// Whether, over the laps that hold both, one build stood before the other nearly always: the mean places inside
/// the lap differ by more than half of what is possible (judgement §23). Laps then take no drift out.
bool hasSameOrder(const Column& column, BuildAt build, BuildAt against);

/// The gap along a common line (judgement §26): stint mean = build + slope · place by least squares, each build with
/// its own residual variance. The place is the stint's among all of the sitting.
struct CommonLine {
    Effect gap;
    double slopePerStint = 0;
};

/// Nothing where a build has fewer than four stints, where they lie in several sittings or a
/// mark or another player comes between them, or where place and build
/// can't be told apart.
std::optional<CommonLine> commonLine(const Column& column, BuildAt build, BuildAt against);

} // namespace knot::judge
