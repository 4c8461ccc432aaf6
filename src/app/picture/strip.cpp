#include "app/picture/strip.h"

#include <algorithm>
#include <cmath>
#include <map>

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
    // The widest round decides the spacing of all, so that rounds line up under each other.
    struct Round {
        int shots = 0, turns = 0;
    };
    std::map<int, Round> rounds;
    for (const auto& turn : turns) {
        rounds[turn.round].shots += turn.shots;
        ++rounds[turn.round].turns;
    }
    int mostShots = 0;
    int mostTurns = 0;
    for (const auto& [number, round] : rounds) {
        mostShots = std::max(mostShots, round.shots);
        mostTurns = std::max(mostTurns, round.turns);
    }
    const double gaps = turnGap * (mostTurns - 1);
    const double room = width - roundGap - gaps;
    const double knot = std::clamp(room / mostShots, 2.0, usualKnot);
    layout.knotRadius = std::min(usualRadius, 0.36 * knot);
    layout.lapWidth = mostShots * knot + gaps + roundGap;
    const int perRow = std::max(1, static_cast<int>(width / layout.lapWidth));
    int round = 0;
    int place = -1;
    double x = 0;
    double y = firstRow;
    for (std::size_t i = 0; i < turns.size(); ++i) {
        if (turns[i].round != round) {
            round = turns[i].round;
            ++place;
            x = (place % perRow) * layout.lapWidth;
            y = firstRow + (place / perRow) * rowHeight;
            layout.rounds.push_back({round, x, y});
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
