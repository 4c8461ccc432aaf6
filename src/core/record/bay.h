#pragma once

#include "core/record/shot.h"

#include <array>
#include <optional>
#include <string>

namespace knot::record {

/// What a player says of a stint, each from 1 to 10: dead to alive, weight in the hands to weight in
/// the head, soft to harsh, and how much control, liking for its look, and confidence.
enum class FeelScale { liveliness, weight, harshness, control, look, confidence };
inline constexpr std::size_t feelScaleCount = 6;

struct Feel {
    std::string turn; ///< the label of its stint; empty in an open sitting before the first
    BuildAt build;
    std::array<int, feelScaleCount> scores{}; ///< 0: not said
    std::string words;
    bool isEmpty() const { return scores == std::array<int, feelScaleCount>{} && words.empty(); }
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

/// One visit to the bay. `label` is what its shots name as their sitting.
struct Sitting {
    std::string label;
    std::string startedAt; ///< ISO 8601
    Conditions conditions;
    bool operator==(const Sitting&) const = default;
};

enum class EventKind { note, rest, stop };

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
    bool handOverNext = false;  ///< where nothing is planned: the next shot begins a stint
    Mark nextMark = Mark::none; ///< falls on the next shot
    bool operator==(const Progress&) const = default;
};

} // namespace knot::record
