#pragma once

#include "core/bay/tally.h"

#include <cstddef>
#include <optional>
#include <string>
#include <variant>
#include <vector>

/// Running a test in the bay: where it stands, and what each thing done there changes. Pure functions
/// over a test; times come from the caller as ISO 8601 texts of one zone.
namespace knot::bay {

using record::BuildAt;

/// A stint of the plan that is due or in hand.
struct PlannedStint {
    PlannedAt turn;
    BuildAt build; ///< nothing to go by while `drawn`
    record::PlayerAt player;
    bool anotherPlayer = false;  ///< not the one who hit last
    bool drawn = false;          ///< alone: which club it is shows only after the stint
    bool anew = false;           ///< the same club as before, handed over anew
    std::optional<BuildAt> next; ///< the club after this stint
    int shot = 1, shots = 1;     ///< the shot to be struck next, of so many
    int round = 1;
    std::vector<BuildAt> inBag; ///< alone: clubs that this lap has not had yet
};

/// A test without a plan: nothing can be struck.
struct NoPlan {};
/// An open sitting or a screening: any club, any time. No club where all were struck off.
struct Free {
    std::optional<BuildAt> build;
    int shot = 1;           ///< of its stint
    bool warmingUp = false; ///< swings are not counted yet
};
/// Uncounted swings before the first hand-over of a sitting.
struct WarmUp {
    PlannedStint first; ///< what comes after
};
/// The next club is to be handed over, or drawn when alone.
struct HandOver {
    PlannedStint stint;
};
struct Striking {
    PlannedStint stint;
    bool confirmed = true; ///< false: shots came before the hand-over was confirmed
};
/// Alone: the stint is struck and its tag not entered yet.
struct NameTag {
    PlannedStint stint;
};
struct Done {};

/// The same as the alternatives of `Stand::at`, in their order.
enum class Phase { noPlan, free, warmUp, handOver, striking, nameTag, done };

/// Where a test stands in the bay. What only one phase has can't be asked for in another.
struct Stand {
    std::variant<NoPlan, Free, WarmUp, HandOver, Striking, NameTag, Done> at;
    int rounds = 1;
    int warmUp = 0, warmUpPlanned = 0; ///< uncounted swings of the sitting
    int swings = 0;                    ///< of the player in hand in the sitting, all of them
    int sinceRest = 0;                 ///< theirs since the last rest

    Phase phase() const { return static_cast<Phase>(at.index()); }
    template<typename At> const At* as() const { return std::get_if<At>(&at); }
    /// The planned stint that is due, in hand or to be named; nullptr where none is.
    const PlannedStint* stint() const;
};

Stand standOf(const record::Test& test);
/// The same with a tally of the test at hand.
Stand standOf(const record::Test& test, const Tally& tally);

/// How many good shots a planned stint asks for.
int wantedShots(const record::Test& test, PlannedAt turn);

/// Alone: the stint of this shot has no tag yet, so nobody knows which club struck it.
bool isUnnamed(const record::Test& test, const record::Shot& shot);
/// The test without shots of unknown clubs, as it may be judged.
record::Test withoutUnnamed(record::Test test);

} // namespace knot::bay
