#pragma once

#include "core/judge/reading.h"

namespace knot::judge {

/// Whether each pair was delivered alike: club speed, attack, path, face, dynamic loft and the strike, by
/// the average's own method and gap, in a group of their own (Benjamini and Hochberg).
std::vector<SameSwing> sameSwings(const std::vector<AverageGap>& averages);

} // namespace knot::judge
