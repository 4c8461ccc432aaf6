#include "core/record/structure.h"

#include <algorithm>
#include <map>
#include <optional>
#include <set>
#include <tuple>

namespace knot::record {
namespace {

using RoundKey = std::pair<std::string, std::string>; // sitting, round

// Rounds that were struck in one piece and hold two builds or more.
std::set<RoundKey> properRounds(const Test& test) {
    std::map<RoundKey, std::set<std::size_t>> builds;
    std::map<RoundKey, int> pieces;
    const RoundKey* last = nullptr;
    RoundKey current;
    for (const Shot& shot : test.shots) {
        RoundKey key{shot.sitting, shot.round};
        builds[key].insert(shot.build);
        if (last == nullptr || key != current) {
            ++pieces[key];
            current = std::move(key);
            last = &current;
        }
    }
    std::set<RoundKey> proper;
    for (const auto& [key, count] : pieces)
        if (count == 1 && !key.second.empty() && builds[key].size() >= 2)
            proper.insert(key);
    return proper;
}

bool turnEnds(const Shot& before, const Shot& after, const std::set<RoundKey>& proper) {
    if (before.build != after.build || before.sitting != after.sitting || before.player != after.player ||
        before.delivery != after.delivery || after.handedOver || after.mark != Mark::none)
        return true;
    return !before.turn.empty() && !after.turn.empty() && before.turn != after.turn && before.round != after.round &&
           proper.contains({before.sitting, before.round}) && proper.contains({after.sitting, after.round});
}

std::size_t indexOf(std::vector<std::string>& names, const std::string& name) {
    const auto at = std::ranges::find(names, name);
    if (at != names.end())
        return static_cast<std::size_t>(at - names.begin());
    names.push_back(name);
    return names.size() - 1;
}

void cutIntoTurns(const Test& test, Structure& structure) {
    const auto proper = properRounds(test);
    structure.turnOfShot.resize(test.shots.size());
    structure.orderInSitting.resize(test.shots.size());
    std::map<std::size_t, std::size_t> struck;
    std::size_t phase = 0;
    for (std::size_t i = 0; i < test.shots.size(); ++i) {
        const Shot& shot = test.shots[i];
        phase += shot.mark == Mark::player || shot.mark == Mark::day ? 1 : 0;
        if (i == 0 || turnEnds(test.shots[i - 1], shot, proper))
            structure.turns.push_back({.build = shot.build,
                                       .round = std::nullopt,
                                       .sitting = indexOf(structure.sittings, shot.sitting),
                                       .player = indexOf(structure.players, shot.player),
                                       .delivery = indexOf(structure.deliveries, shot.delivery),
                                       .lap = 0,
                                       .phase = phase,
                                       .shots = {}});
        Turn& turn = structure.turns.back();
        turn.shots.emplace_back(i);
        structure.turnOfShot[i] = TurnAt(structure.turns.size() - 1);
        structure.orderInSitting[i] = ++struck[turn.sitting];
    }
}

// The round that the file gives to a turn: nothing when it gives none or several. Warm-up does not
// count.
std::optional<std::string> givenRound(const Test& test, const Turn& turn) {
    std::optional<std::string> label;
    for (const std::size_t shot : turn.shots) {
        if (test.shots[shot].status == ShotStatus::warmUp)
            continue;
        const std::string& given = test.shots[shot].round;
        if (given.empty() || (label && *label != given))
            return std::nullopt;
        label = given;
    }
    return label;
}

bool onlyWarmUp(const Test& test, const Turn& turn) {
    return std::ranges::all_of(turn.shots,
                               [&](std::size_t shot) { return test.shots[shot].status == ShotStatus::warmUp; });
}

// What a round is of: nothing is paired over its borders.
struct Setting {
    std::size_t sitting = 0, player = 0, delivery = 0;

    explicit Setting(const Turn& turn)
        : sitting(turn.sitting)
        , player(turn.player)
        , delivery(turn.delivery) {}
    friend auto operator<=>(const Setting&, const Setting&) = default;
};

std::string roundName(const Structure& structure, const Turn& turn, const std::string& label) {
    std::string name;
    auto put = [&](const std::string& part) { name += part.empty() ? "" : part + " · "; };
    put(structure.sittings.size() > 1 ? structure.sittings[turn.sitting] : "");
    put(structure.players.size() > 1 ? structure.players[turn.player] : "");
    put(structure.deliveries.size() > 1 ? structure.deliveries[turn.delivery] : "");
    return name + label + (turn.phase > 0 ? ", after change " + std::to_string(turn.phase) : "");
}

// A build's given rounds stand unless one of its turns in the setting spans two of them or has none.
void nameRounds(const Test& test, Structure& structure) {
    using BuildInSetting = std::pair<Setting, std::size_t>;
    std::set<BuildInSetting> renumbered;
    for (const Turn& turn : structure.turns)
        if (!onlyWarmUp(test, turn) && !givenRound(test, turn))
            renumbered.insert({Setting(turn), turn.build});
    std::map<BuildInSetting, int> count;
    std::map<std::tuple<Setting, std::string, std::size_t>, RoundAt> seen;
    std::map<std::tuple<std::size_t, std::size_t, std::string, std::size_t>, std::size_t> laps;
    for (Turn& turn : structure.turns) {
        if (onlyWarmUp(test, turn))
            continue;
        const BuildInSetting key{Setting(turn), turn.build};
        const int nth = ++count[key];
        const std::string label = renumbered.contains(key) ? std::to_string(nth) : *givenRound(test, turn);
        const auto [at, added] = seen.try_emplace({Setting(turn), label, turn.phase}, RoundAt(structure.rounds.size()));
        if (added)
            structure.rounds.push_back(roundName(structure, turn, label));
        turn.round = at->second;
        turn.lap = laps.try_emplace({turn.sitting, turn.player, label, turn.phase}, laps.size()).first->second;
    }
}

} // namespace

Successors withSuccessors(Test test) {
    // The build that now stands for each original one.
    std::vector<BuildAt> current(test.builds.size());
    for (BuildAt b; b < current.size(); ++b)
        current[b] = b;
    std::vector<BuildAt> originals = current;
    for (Shot& shot : test.shots) {
        const BuildAt original = shot.build;
        if (shot.mark == Mark::club) {
            Build successor = test.builds[current[original]];
            successor.name += ", changed";
            successor.id += successor.id.empty() ? "" : ", changed"; // no other test has it
            current[original] = BuildAt(test.builds.size());
            originals.push_back(original);
            test.builds.push_back(std::move(successor));
        }
        shot.build = current[original];
    }
    return {std::move(test), std::move(originals)};
}

Structure structureOf(const Test& test) {
    Structure structure;
    cutIntoTurns(test, structure);
    nameRounds(test, structure);
    structure.shotByShot = std::ranges::all_of(structure.turns, [&](const Turn& turn) {
        return std::ranges::count_if(
                   turn.shots, [&](std::size_t shot) { return test.shots[shot].status == ShotStatus::counted; }) <= 1;
    });
    return structure;
}

} // namespace knot::record
