#include "core/judge/level.h"

#include "core/plan/looks.h"

#include <algorithm>
#include <set>

namespace knot::judge {
namespace {

bool isBeyond(const record::Structure& structure, std::size_t shot, std::size_t planned) {
    const record::Turn& turn = structure.turns[structure.turnOfShot[shot]];
    return turn.round != record::Turn::noRound && turn.round >= planned;
}

} // namespace

std::size_t completeRounds(const record::Test& test, const record::Structure& structure) {
    std::vector<std::set<std::size_t>> builds(structure.rounds.size());
    std::set<std::size_t> struck;
    for (const auto& turn : structure.turns)
        for (const std::size_t shot : turn.shots)
            if (test.shots[shot].status == record::ShotStatus::counted) {
                struck.insert(turn.build);
                builds[turn.round].insert(turn.build);
            }
    return static_cast<std::size_t>(
        std::ranges::count_if(builds, [&](const auto& held) { return held.size() == struck.size(); }));
}

double levelNow(const record::Card& card, std::size_t roundsDone) {
    if (card.looks == record::Looks::none || card.plannedRounds < 2)
        return card.alpha;
    if (roundsDone < 2)
        return 0;
    const auto planned = static_cast<std::size_t>(card.plannedRounds);
    std::vector<double> information;
    for (std::size_t done = 2; done <= std::min(roundsDone, planned); ++done)
        information.push_back(static_cast<double>(done) / static_cast<double>(planned));
    return plan::lookBoundaries(information, card.alpha).back().level;
}

std::size_t dropRoundsBeyondPlan(record::Test& test, const record::Structure& structure) {
    const auto planned = static_cast<std::size_t>(test.card.plannedRounds);
    if (planned == 0 || structure.rounds.size() <= planned)
        return 0;
    std::vector<record::Shot> kept;
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (!isBeyond(structure, i, planned))
            kept.push_back(std::move(test.shots[i]));
    test.shots = std::move(kept);
    return structure.rounds.size() - planned;
}

} // namespace knot::judge
