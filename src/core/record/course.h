#pragma once

#include "core/record/shot.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::record {

/// A stint as it is to be struck.
struct PlannedTurn {
    BuildAt build; ///< a tag while sealed
    int round = 1; ///< of its player, from 1
    int shots = 1;
    bool ended = false; ///< cut short or left out in the bay
    PlayerAt player;
    int id = 0; ///< what its shots are labelled with; 0: its place from 1
    bool operator==(const PlannedTurn&) const = default;
};

/// A club leaves the test for good or for now, or comes back into it.
struct Standing {
    enum class What { struckOff, leftOut, putBack } what = What::struckOff;
    std::string club; ///< which one, as `Build::who` gives it
    int lap = 1;      ///< the first one that it is out of, or in again
    std::string why;
    bool operator==(const Standing&) const = default;
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
    Moment startedAt;
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
    Moment handedOverAt;        ///< of the last confirmed hand-over
    BuildAt inHand;             ///< the club in hand where nothing is planned; `nowhere` when that one is gone
    PlayerAt player;            ///< who hits
    std::string delivery;       ///< the delivery or shot that is asked for until another is
    bool handOverNext = false;  ///< where nothing is planned: the next shot begins a stint
    Mark nextMark = Mark::none; ///< falls on the next shot
    bool operator==(const Progress&) const = default;
};

/// How a test goes: the stints as they are to be struck, who left when, the visits to the bay, how far it is. It is
/// first made by the rule that was declared, and the bay's from then on.
struct Course {
    std::vector<PlannedTurn> turns;
    std::vector<Standing> standings; ///< in the order in which they came about
    std::vector<Sitting> sittings;   ///< those of the bay; a file's shots may name others
    std::vector<Event> events;
    Progress progress;
    std::string frozenAt, frozenHash; ///< the first counted shot, and the SHA-256 of what was declared then
    bool operator==(const Course&) const = default;
};

/// The label that shots of a planned stint carry, and back.
std::string turnLabel(const Course& course, PlannedAt turn);
std::optional<PlannedAt> plannedTurn(const Course& course, const Shot& shot);
/// Gives every stint an id of its own, so that others can be put between them or taken away.
void numberTurns(std::vector<PlannedTurn>& turns);
/// Takes the ids away again where each is its place.
void unnumberTurns(std::vector<PlannedTurn>& turns);
/// One stint more, at the end.
void addTurn(std::vector<PlannedTurn>& turns, PlannedTurn turn);

} // namespace knot::record
