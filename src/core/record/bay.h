#pragma once

#include "core/record/shot.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace knot::record {

/// What a player says of a stint, each from 1 to 10: dead to alive, weight in the hands to weight in
/// the head, soft to harsh, and how much control, liking for its look, and confidence.
enum class FeelScale { liveliness, weight, harshness, control, look, confidence };
inline constexpr std::size_t feelScaleCount = 6;

/// What a player says of a club against the one before it; `same`: can't tell.
enum class Versus { notSaid, better, worse, same };

struct Feel {
    std::string turn; ///< the label of its stint; empty in an open sitting before the first
    BuildAt build;
    std::array<int, feelScaleCount> scores{}; ///< 0: not said
    std::string words;
    Versus versus = Versus::notSaid;
    std::string against; ///< the label of the stint that it was compared with
    bool isEmpty() const {
        return scores == std::array<int, feelScaleCount>{} && words.empty() && versus == Versus::notSaid;
    }
    bool operator==(const Feel&) const = default;
};

enum class Place { notSaid, indoors, outdoors };

struct Conditions {
    Place place = Place::notSaid;
    std::optional<double> wind;        ///< m/s
    std::optional<double> temperature; ///< °C
    std::string ball, surface;
    bool operator==(const Conditions&) const = default;
};

/// Conditions from a moment on.
struct ConditionsAt {
    std::string at;             ///< ISO 8601
    std::size_t afterShots = 0; ///< how many shots the test had then
    Conditions conditions;
    bool operator==(const ConditionsAt&) const = default;
};

/// One visit to the bay. `label` is what its shots name as their sitting.
struct Sitting {
    std::string label;
    std::string startedAt; ///< ISO 8601
    Conditions conditions; ///< as it began
    std::vector<ConditionsAt> later;
    /// Those that hold now.
    const Conditions& present() const { return later.empty() ? conditions : later.back().conditions; }
    Conditions& present() { return later.empty() ? conditions : later.back().conditions; }
    bool operator==(const Sitting&) const = default;
};

/// A flag marks a moment whose words may come later; without any its text is empty.
enum class EventKind { note, rest, stop, flag };

/// Something that happened in the bay and is no shot.
struct Event {
    EventKind kind = EventKind::note;
    std::string at;             ///< ISO 8601
    std::size_t afterShots = 0; ///< how many shots the test had then
    std::string text;
    bool operator==(const Event&) const = default;
};

/// How far a test is in the bay, as far as its shots don't say it.
struct Progress {
    bool warmedUp = false;      ///< the warm-up of the sitting in hand was ended
    int confirmed = 0;          ///< planned stints whose hand-over was confirmed
    int named = 0;              ///< alone: stints whose tag was entered
    std::string handedOverAt;   ///< of the last confirmed hand-over, ISO 8601
    BuildAt inHand;             ///< the club in hand where nothing is planned
    PlayerAt player;            ///< who hits
    std::string delivery;       ///< the delivery or shot that is asked for until another is
    bool handOverNext = false;  ///< where nothing is planned: the next shot begins a stint
    Mark nextMark = Mark::none; ///< falls on the next shot
    bool operator==(const Progress&) const = default;
};

} // namespace knot::record
