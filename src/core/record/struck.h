#pragma once

#include "core/record/decision.h"
#include "core/record/shot.h"

#include <array>
#include <string>
#include <vector>

namespace knot::record {

/// What a player says of a stint, each from 1 to 10: dead to alive, weight in the hands to weight in
/// the head, soft to harsh, how much control, liking for its look, confidence and liking for its sound; how much effort
/// it takes, and what it hurts.
enum class FeelScale { liveliness, weight, harshness, control, look, confidence, sound, effort, discomfort };
inline constexpr std::size_t feelScaleCount = 9;

/// What a player says of a club against the one before it; `same`: can't tell.
enum class Versus { notSaid, better, worse, same };

struct Feel {
    std::string turn; ///< the label of its stint; empty in an open sitting before the first
    BuildAt build;
    std::array<int, feelScaleCount> scores{}; ///< 0: not said
    std::string words;
    std::string expected; ///< what was expected of the club before its stint, in words: "higher, more spin"
    Versus versus = Versus::notSaid;
    std::string against; ///< the label of the stint that it was compared with
    bool isEmpty() const {
        return scores == std::array<int, feelScaleCount>{} && words.empty() && expected.empty() &&
               versus == Versus::notSaid;
    }
    bool operator==(const Feel&) const = default;
};

/// What the player said a build was: once for the whole test (`turn` empty) or for one stint.
struct Guess {
    BuildAt build;    ///< the one in hand
    std::string said; ///< the build it was taken for, as `Build::who` gives it
    std::string turn;
    bool operator==(const Guess&) const = default;
};

/// What was said of clubs and stints.
struct Sayings {
    std::vector<Feel> feels;
    std::vector<Guess> guesses;
    Choices choices;
    bool operator==(const Sayings&) const = default;
};

/// What was struck, in that order, and what was said of it.
struct Struck : Sayings {
    std::vector<std::string> extraColumns; ///< what a file's shots had besides
    std::vector<Shot> shots;
    bool operator==(const Struck&) const = default;
};

} // namespace knot::record
