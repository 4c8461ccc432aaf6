#pragma once

#include "core/record/test.h"

#include <string>

// How what is declared becomes a course, and how one that has begun follows what is declared after.
namespace knot::plan {

/// Makes the stints of a test by the rule of its plan, and says on its card how many rounds are planned. Only while a
/// test has no shots; under two clubs there are no stints.
void makeCourse(record::Test& test);

/// Adds the laps of a player to a course that has those of the first: the same with each club the next one, without
/// clubs that are out. Where clubs were to be struck off and none was, all laps of the plan come first: with several
/// players they are rotated ones.
void addLapsOf(record::Test& test, record::PlayerAt player);

/// Puts a declaration in the place of a test's own; what points at clubs and players follows, and so does the course.
/// While nothing is struck it is made anew. Else a club that is new joins the laps that were not begun (in one run each
/// the end of the run), a new player gets laps, and the stints of who is gone go. Where that can't be it says why, as a
/// sentence, and nothing changes: no lap is left for a club, or something was struck or said of one that would go.
std::string declare(record::Test& test, record::Declared next);

} // namespace knot::plan
