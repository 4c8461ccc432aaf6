#pragma once

#include "core/bay/stand.h"
#include "core/bay/status.h"

namespace knot::bay {

/// What was in hand when a shot was struck that was held back: a stint of the plan, or a club where nothing is planned.
struct InHand {
    std::optional<record::PlannedAt> turn;
    record::BuildAt build;
    bool isWarmUp = false; ///< what is struck now does not count, whatever counts later
};
/// Nothing where no club is in hand.
std::optional<InHand> inHand(const record::Test& test);

/// A swing as it came in. No readings: the ball was struck and nothing was read.
struct Arrival {
    record::Readings readings;
    record::Moment at;                      ///< when it was struck, or when it came
    std::string readId;                     ///< "SOURCE:NAME" at what read it; empty by hand
    std::string reason;                     ///< why nothing was read
    bool called = false;                    ///< the player called it a mishit while it was in the air
    record::Call call = record::Call::none; ///< good, so-so or bad, called as early
    std::string callWords = {};             ///< that say more: "good swing, bad strike"
    bool timed = true;                      ///< `at` is its source's own; else it is not moved by it
    std::optional<InHand> struckWith = {};  ///< of one that was held back
};

/// A shot that comes late finds its place among this many of the last ones; those before stand.
inline constexpr std::size_t reach = 64;

/// Whether a source gave this shot before, in the sitting in hand.
bool isKnown(const record::Test& test, const std::string& readId);

/// Adds a shot where it belongs: warm-up, the stint in hand, or, when it was struck before the last
/// hand-over and comes late, the stint before. Later shots of a stint stand after earlier ones. The
/// same swing from another source within five seconds is filled in, not added. Begins a sitting if
/// none is begun. A called mishit is set aside where the shot would count; a warm-up swing stays one.
/// Not for a test without a plan, or without a club in hand.
From addShot(record::Test& test, const Arrival& arrival);
/// The same with a tally of the test at hand, which it keeps up.
From addShot(record::Test& test, const Arrival& arrival, Tally& tally);

/// Confirms what stands next: the end of the warm-up, a hand-over, or a new stint where nothing is
/// planned. False where there is nothing to confirm.
bool confirm(record::Test& test, const std::string& at);

/// Shots that came before the hand-over was confirmed go to the stint before: the club had not
/// changed yet. Nothing where there are none, or no stint before.
std::optional<From> stillLast(record::Test& test);

/// Alone: the tag on the club that struck the stint in question. The lap's other stints take what is
/// left. Nothing when this lap has had that club.
std::optional<From> nameTag(record::Test& test, BuildAt build);

/// Begins another visit to the bay: its warm-up and the hand-over are due again. Its label is the
/// date, numbered where the day has one already.
void beginSitting(record::Test& test, const std::string& at);
/// Whether the last shot is so long ago (four hours) that this is another visit.
bool isAnotherVisit(const record::Test& test, const std::string& now);

void addEvent(record::Test& test, record::EventKind kind, const std::string& at, const std::string& text);

/// Ends the stint in hand as it stands. False where none is in hand.
bool endStint(record::Test& test);
/// Leaves out what is left of a club.
void leaveOut(record::Test& test, BuildAt build);

/// In a plan that strikes off: the clubs so far, the best first, by the first declared average that was read and has a
/// wanted direction (carry where none has), from the means of their stints. Clubs without a reading come last.
std::vector<BuildAt> orderSoFar(const record::Test& test);
/// The clubs that stay after the laps struck; the others are struck off, and the laps of those left are planned. False,
/// and no change, where no cut is due or not as many stay as are to.
bool strikeOff(record::Test& test, const std::vector<BuildAt>& stay);
/// Leaves out everything that is left.
void endHere(record::Test& test);
/// Adds a lap at the end, in an order drawn from `seed`; clubs that were left out stay out. False
/// where fewer than two clubs are left.
bool addRound(record::Test& test, std::uint64_t seed);

} // namespace knot::bay
