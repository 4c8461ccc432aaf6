#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>

namespace knot::words {

/// What a reading comes to, in a line for lists: the surest thing that it says.
struct Headline {
    judge::Verdict verdict = judge::Verdict::open;
    std::string text; ///< "Reed 53 carries farther: real"
};
Headline headlineOf(const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
