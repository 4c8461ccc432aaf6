#pragma once

#include "core/judge/may_see.h"
#include "core/judge/reading.h"
#include "core/record/test.h"
#include "core/record/units.h"

#include <optional>
#include <string>

namespace knot::words {

/// What a reading comes to, in a line for lists: the surest thing that it says.
struct Headline {
    judge::Verdict verdict = judge::Verdict::open;
    std::string text; ///< "Reed 53 carries farther: real"
};
Headline headlineOf(const judge::Reading& reading, const record::DisplayUnits& units);

/// Whether a test in a list is told by what was found: its plan is done, and it was struck. What is under
/// way says no finding, and an open sitting or a screening has none.
bool isToldByReading(const record::Test& test);

/// How a test stands in a list: what was found, else how far it is ("lap 3 of 5: go on", "a screening").
struct Standing {
    std::optional<judge::Verdict> verdict; ///< none where it only says how far it is
    std::string text;
    bool operator==(const Standing&) const = default;
};
/// `reading` may be null. Of a sealed test nothing is said but what its reading says.
Standing standingOf(const record::Test& test, const judge::Reading* reading, const record::DisplayUnits& units);

/// What is said in the place of comparisons that nobody sees before the plan is done.
std::string withheldSentences(const judge::Withheld& laps);

} // namespace knot::words
