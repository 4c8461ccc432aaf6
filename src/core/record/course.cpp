#include "core/record/course.h"

#include "core/record/typed/number_in.h"

#include <algorithm>

namespace knot::record {
namespace {

int idOf(const std::vector<PlannedTurn>& turns, std::size_t place) {
    return turns[place].id != 0 ? turns[place].id : static_cast<int>(place) + 1;
}

} // namespace

std::string turnLabel(const Course& course, PlannedAt turn) {
    return std::to_string(idOf(course.turns, turn));
}

std::optional<PlannedAt> plannedTurn(const Course& course, const Shot& shot) {
    const auto id = wholeIn(shot.turn);
    const auto& turns = course.turns;
    if (!id || *id == 0)
        return std::nullopt;
    const auto usual = static_cast<std::size_t>(*id) - 1; // nearly always its place
    if (usual < turns.size() && idOf(turns, usual) == *id)
        return PlannedAt(usual);
    for (PlannedAt place; place < turns.size(); ++place)
        if (idOf(turns, place) == *id)
            return place;
    return std::nullopt;
}

void numberTurns(std::vector<PlannedTurn>& turns) {
    for (std::size_t place = 0; place < turns.size(); ++place)
        turns[place].id = idOf(turns, place);
}

void unnumberTurns(std::vector<PlannedTurn>& turns) {
    for (std::size_t place = 0; place < turns.size(); ++place)
        if (idOf(turns, place) != static_cast<int>(place) + 1)
            return;
    for (PlannedTurn& turn : turns)
        turn.id = 0;
}

void addTurn(std::vector<PlannedTurn>& turns, PlannedTurn turn) {
    int most = 0;
    for (const PlannedTurn& one : turns)
        most = std::max(most, one.id);
    turn.id = most == 0 ? 0 : most + 1;
    turns.push_back(turn);
}

} // namespace knot::record
