#pragma once

#include "core/judge/columns.h"

#include <optional>

namespace knot::judge {

/// How turns and shots vary, where builds and rounds are taken out: y ~ build + round + (1 | turn) by REML.
struct TurnVariances {
    double turn = 0, shot = 0;
};

/// Of two builds' readings. Builds and rounds are the same for all shots of a turn, so the likelihood needs only turn
/// means and what varies inside turns, and rounds are swept out one by one. Nothing where every turn holds one shot,
/// where no round holds both, or where no degrees of freedom are left.
std::optional<TurnVariances> turnVariances(const Column& column, BuildAt build, BuildAt against);

} // namespace knot::judge
