#pragma once

#include <optional>
#include <string>

namespace knot::record {

/// Who hits. Speeds in m/s; what is not known is absent or empty.
struct Player {
    std::string name;
    bool leftHanded = false;
    std::optional<double> clubSpeed; ///< with a driver
    std::string tempo, transition;   ///< in words: smooth, quick, …
    std::string shape, miss;         ///< usual flight and usual miss
    std::string goals, health;       ///< what is wanted; what to look after
    bool operator==(const Player&) const = default;
};

} // namespace knot::record
