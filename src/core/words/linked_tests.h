#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::words {

/// "; it held up in 2 of 3"; empty where the pooled gap is not settled, since nothing is there to hold up.
std::string heldUpText(const judge::SittingsPooled& pooled);

/// Whether a declared gap held up on another day, a sentence each: "The same test on 2 days: Reed 53 against Alder 62
/// in carry, 4.1 m (1.2 to 7.0); it held up in 2 of 2." Then the clubs that met in no test, by way of one that met
/// both.
std::vector<std::string> heldSentences(const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
