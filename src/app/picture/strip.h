#pragma once

#include "core/record/course.h"

#include <optional>
#include <vector>

namespace knot::picture {

/// A turn of a plan as a piece of cord with its knots. Pixels.
struct PlacedTurn {
    std::size_t turn = 0; ///< its place in the plan
    double left = 0, right = 0, y = 0;
    std::vector<double> knots;
};

struct PlacedRound {
    int round = 1;
    record::PlayerAt player;
    double left = 0, y = 0;
};

struct StripLayout {
    std::vector<PlacedTurn> turns;
    std::vector<PlacedRound> rounds;
    double knotRadius = 5, height = 0;
    double lapWidth = 0;       ///< what one more lap takes
    double endX = 0, endY = 0; ///< where the strip ends: its handle
};

/// Lays turns out along rows of whole rounds, each one player's, as many rounds a row as fit into `width`. A round that
/// is wider than a row is squeezed until its knots touch.
StripLayout layoutStrip(const std::vector<record::PlannedTurn>& turns, double width);

/// The turn at a point, or nothing.
std::optional<std::size_t> turnAt(const StripLayout& layout, double x, double y);

} // namespace knot::picture
