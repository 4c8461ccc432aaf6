#pragma once

#include "core/record/test.h"

// Ways back: what one step did to a test is taken out of it, or done again, while what came since stays.
namespace knot::record {

/// A test without its shots: what is declared, how it goes, what was said.
Test headOf(const Test& test);
/// The same without the record's history, which only grows: what a step goes back to.
Test stateOf(const Test& test);

/// Does to `present` what led from one state to another, member by member: what is alike in `from` and `to` stays as it
/// is. Clubs, players and planned stints are told by who they are, wherever they stand; what `present` has besides
/// stays. Shots and the record's history are left alone, but for the places of their clubs: one that is gone leaves
/// them pointing `nowhere`.
void carry(Test& present, Test from, Test to);

/// The same of what is declared alone.
Declared carried(Declared present, const Declared& from, const Declared& to);

/// Gives a test these clubs and players; what points at one by its place follows. What is of a club that is not among
/// them points `nowhere`.
void reseat(Test& test, const std::vector<Build>& builds, const std::vector<Player>& players);

/// Whether some club stands in another place than before, or is gone: its shots are to be written anew.
bool anyMoved(const std::vector<Build>& before, const std::vector<Build>& after);

/// Whether something struck or said is of a club that the test has not.
bool pointsNowhere(const Test& test);

} // namespace knot::record
