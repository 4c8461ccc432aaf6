#pragma once

#include <cstddef>
#include <vector>

namespace knot::picture {

/// A run of shots with one club as a piece of cord. Pixels.
struct PlacedRun {
    std::size_t run = 0;
    double tagX = 0, left = 0, right = 0, y = 0;
    std::vector<double> knots;
};

struct RunsLayout {
    std::vector<PlacedRun> runs; ///< those that have room
    double knotRadius = 5;
    std::size_t leftOut = 0; ///< runs that have none
    bool hasNames = false;   ///< there is room for them
};

/// Lays runs out in the order struck: one under another where they all have room, else side by side,
/// knots closer the more there are. `counts`: shots of each run. Runs one under another leave
/// `nameWidth` behind the tag for the club's name; side by side there is no room for it.
RunsLayout layoutRuns(const std::vector<std::size_t>& counts, double width, double height, double nameWidth = 0);

} // namespace knot::picture
