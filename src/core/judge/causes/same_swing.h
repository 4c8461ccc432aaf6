#pragma once

#include "core/judge/reading.h"

namespace knot::judge {

/// Whether each pair was delivered alike: club speed, attack, path, face, dynamic loft and the strike, by
/// the average's own method and gap, in a group of their own (Benjamini and Hochberg). What is built in, static loft
/// and the sleeve's face, is taken off first; where loft or lie is compared and it is not known, loft and face are
/// open. And what a difference may be put down to (judgement §28). Needs the reading's averages and guesses.
std::vector<SameSwing> sameSwings(const record::Test& test, const Reading& reading);

} // namespace knot::judge
