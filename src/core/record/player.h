#pragma once

#include <optional>
#include <string>
#include <vector>

namespace knot::record {

/// The side of the ground that costs a player most.
enum class Side { notSaid, left, right };

/// What is usual for a player with a club, by its name or kind. Internal units.
struct Usual {
    std::string club;
    std::optional<double> carry, ballSpeed, launch, spin;
    bool operator==(const Usual&) const = default;
};

/// Who hits. Speeds in m/s, lengths in mm; what is not known is absent or empty.
struct Player {
    std::string id; ///< UUID; empty until a logbook has kept them
    std::string name;
    bool leftHanded = false;
    std::optional<double> clubSpeed; ///< with a driver
    std::optional<double> ironSpeed; ///< with a seven-iron
    std::string tempo, transition;   ///< in words: smooth, quick, …
    std::string shape, miss;         ///< usual flight and usual miss
    Side costs = Side::notSaid;
    std::optional<double> height, wristToFloor, hand; ///< `hand`: wrist crease to the longest fingertip
    std::string played;                               ///< what was played, and why it was left
    std::string plays;                                ///< where and how much; wind, firmness
    std::string goals, health;                        ///< what is wanted; what to look after
    std::vector<Usual> usual;
    bool operator==(const Player&) const = default;
};

/// Two records of one player, as far as a name and a hand can say it.
inline bool isSamePlayer(const Player& a, const Player& b) {
    return a.name == b.name && a.leftHanded == b.leftHanded;
}

} // namespace knot::record
