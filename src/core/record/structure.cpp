#include "core/record/structure.h"

#include <algorithm>
#include <map>
#include <optional>
#include <set>
#include <tuple>

namespace knot::record {
namespace {

using RoundKey = std::tuple<std::string, std::string, std::string, std::string>; // sitting, player, delivery, round

RoundKey roundOf(const Shot& shot) {
    return {shot.sitting, shot.player, shot.delivery, shot.round};
}

// Rounds that look like those of a rotated plan: struck in one piece, with two builds or more.
struct ProperRounds {
    std::set<RoundKey> all;
    std::set<RoundKey> ofOneStintEach; ///< of them those in which every build was struck in one run
    bool isHandedOver = false;         ///< somewhere; then the record says itself where stints end
};

ProperRounds properRounds(const Test& test) {
    std::map<RoundKey, std::set<std::size_t>> builds;
    std::map<RoundKey, std::size_t> pieces, runs;
    ProperRounds proper;
    const Shot* last = nullptr;
    RoundKey current;
    for (const Shot& shot : test.shots) {
        RoundKey key = roundOf(shot);
        builds[key].insert(shot.build);
        const bool isNew = last == nullptr || key != current;
        pieces[key] += isNew ? 1 : 0;
        runs[key] += isNew || last->build != shot.build ? 1 : 0;
        proper.isHandedOver = proper.isHandedOver || shot.handedOver;
        current = std::move(key);
        last = &shot;
    }
    for (const auto& [key, count] : pieces)
        if (count == 1 && !std::get<3>(key).empty() && builds[key].size() >= 2) {
            proper.all.insert(key);
            if (runs[key] == builds[key].size())
                proper.ofOneStintEach.insert(key);
        }
    return proper;
}

// Whether one build's run is two stints because a round ended in it: by the stints that the record names, or, where it
// names none and logs no hand-over, because either round has one stint a build.
bool roundParts(const Shot& before, const Shot& after, const ProperRounds& proper) {
    if (before.round == after.round)
        return false;
    auto bothIn = [&](const std::set<RoundKey>& rounds) {
        return rounds.contains(roundOf(before)) && rounds.contains(roundOf(after));
    };
    if (!before.turn.empty() && !after.turn.empty())
        return before.turn != after.turn && bothIn(proper.all);
    return before.turn.empty() && after.turn.empty() && !proper.isHandedOver && bothIn(proper.ofOneStintEach);
}

bool turnEnds(const Shot& before, const Shot& after, const ProperRounds& proper) {
    return before.build != after.build || before.sitting != after.sitting || before.player != after.player ||
           before.delivery != after.delivery || after.handedOver || after.mark != Mark::none ||
           roundParts(before, after, proper);
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
