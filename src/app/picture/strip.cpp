#include "app/picture/strip.h"

#include <algorithm>
#include <cmath>

namespace knot::picture {
namespace {

constexpr double rowHeight = 46, firstRow = 16;
constexpr double usualKnot = 17, turnGap = 8, roundGap = 22, usualRadius = 5.5;

} // namespace

StripLayout layoutStrip(const std::vector<record::PlannedTurn>& turns, double width) {
    StripLayout layout;
    layout.knotRadius = usualRadius;
    if (turns.empty())
        return layout;
    auto begins = [&](std::size_t i) {
        return i == 0 || turns[i].round != turns[i - 1].round || turns[i].player != turns[i - 1].player;
    };
    // The widest round decides the spacing of all, so that rounds line up under each other.
    int mostShots = 0;
    int mostTurns = 0;
    for (std::size_t i = 0; i < turns.size();) {
        int shots = 0;
        int own = 0;
        do {
            shots += turns[i].shots;
            ++own;
        } while (++i < turns.size() && !begins(i));
        mostShots = std::max(mostShots, shots);
        mostTurns = std::max(mostTurns, own);
    }
    const double gaps = turnGap * (mostTurns - 1);
    const double room = width - roundGap - gaps;
    const double knot = std::clamp(room / mostShots, 2.0, usualKnot);
    layout.knotRadius = std::min(usualRadius, 0.36 * knot);
    layout.lapWidth = mostShots * knot + gaps + roundGap;
    const int perRow = std::max(1, static_cast<int>(width / layout.lapWidth));
    int place = -1;
    double x = 0;
    double y = firstRow;
    for (std::size_t i = 0; i < turns.size(); ++i) {
        if (begins(i)) {
            ++place;
            x = (place % perRow) * layout.lapWidth;
            y = firstRow + (place / perRow) * rowHeight;
            layout.rounds.push_back({turns[i].round, turns[i].player, x, y});
        }
        PlacedTurn placed{.turn = i, .left = x, .right = x + turns[i].shots * knot, .y = y, .knots = {}};
        for (int shot = 0; shot < turns[i].shots; ++shot)
            placed.knots.push_back(x + (shot + 0.5) * knot);
        x = placed.right + turnGap;
        layout.endX = placed.right;
        layout.endY = y;
        layout.turns.push_back(std::move(placed));
    }
    layout.height = y + rowHeight - firstRow;
    return layout;
}

std::optional<std::size_t> turnAt(const StripLayout& layout, double x, double y) {
    for (const PlacedTurn& turn : layout.turns)
        if (x >= turn.left && x <= turn.right && std::fabs(y - turn.y) < 12)
            return turn.turn;
    return std::nullopt;
}

} // namespace knot::picture
