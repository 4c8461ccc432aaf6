#pragma once

#include "core/record/struck.h"

#include <string>

namespace knot::words {

/// "liveliness", "weight in the head".
const char* feelWord(record::FeelScale scale);

/// What was said of a stint, the player's own words first: "“dead off the heel”, control 3, worse than the one before".
/// Empty where nothing was said.
std::string feelText(const record::Feel& feel);

} // namespace knot::words
