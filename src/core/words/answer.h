#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::words {

/// The answer to one thing that was asked, as somebody would read it aloud: one sentence, mostly under fourteen words.
struct Answer {
    record::Outcome outcome;
    judge::Verdict verdict = judge::Verdict::open; ///< the surest that it speaks of
    bool isAsked = true;                           ///< declared beforehand
    std::string text;                              ///< "Reed 53 carries farther than Alder 62: 4.1 m, real and enough."
};

/// For each declared outcome, in their order, what to believe: what is real, that there is no gap that matters, or,
/// where it is open, the bet. Where nothing was declared: who is likely the best in carry and ball speed, and what that
/// hangs on, marked as unasked. Nothing where there are no two clubs to compare.
std::vector<Answer> answersOf(const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
