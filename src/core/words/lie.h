#pragma once

#include "core/judge/shots/lie_help.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::words {

/// What the shots say of lies, a sentence or two for each club, and what they move, with what is and is not
/// established.
std::vector<std::string> lieSentences(const judge::Case& subject, const judge::LieReading& reading);

} // namespace knot::words
