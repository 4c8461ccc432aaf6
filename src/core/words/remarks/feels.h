#pragma once

#include "core/judge/reading.h"
#include "core/record/struck.h"
#include "core/words/remarks/remarks.h"

#include <string>

namespace knot::words {

/// "liveliness", "weight in the head".
const char* feelWord(record::FeelScale scale);

/// What was said of a stint, the player's own words first: "“dead off the heel”, control 3, worse than the one before".
/// Empty where nothing was said.
std::string feelText(const record::Feel& feel);

/// What was said and what the shots say of it: feels, better or worse, what was expected. A remark that is a test is
/// made at `level` (remarkLevel).
std::vector<Remark> saidRemarks(const judge::Reading& reading, double level);

} // namespace knot::words
