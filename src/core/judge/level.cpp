#include "core/judge/level.h"

#include "core/plan/looks.h"

#include <algorithm>
#include <map>
#include <set>

namespace knot::judge {
namespace {

// A turn is beyond the plan when its club has had all its planned rounds. A lap that was parted, by a
// night between two sittings or by a change of the player, makes two rounds with some clubs each.
std::vector<bool> turnsBeyond(const record::Structure& structure, std::size_t planned) {
    std::map<std::size_t, std::set<std::size_t>> roundsOf;
    std::vector<bool> beyond;
    for (const auto& turn : structure.turns) {
        auto& had = roundsOf[turn.build];
        const bool over = turn.round != record::Turn::noRound && !had.contains(turn.round) && had.size() >= planned;
        if (turn.round != record::Turn::noRound && !over)
            had.insert(turn.round);
        beyond.push_back(over);
    }
    return beyond;
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
    const std::vector<bool> beyond = turnsBeyond(structure, planned);
    std::vector<record::Shot> kept;
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (!beyond[structure.turnOfShot[i]])
            kept.push_back(std::move(test.shots[i]));
    test.shots = std::move(kept);
    std::set<std::size_t> rounds;
    for (std::size_t turn = 0; turn < structure.turns.size(); ++turn)
        if (beyond[turn])
            rounds.insert(structure.turns[turn].round);
    return rounds.size();
}

} // namespace knot::judge
