#pragma once

#include "core/bag/bag.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::words {

/// "18 m (14 to 22)": a gap with its interval.
std::string gapText(const bag::Gap& gap, const record::DisplayUnits& units);

/// What it rests on: "on 4 sittings", "on one sitting", "by way of another club", "by their averages".
std::string restsText(const bag::Gap& gap);

/// What is to be said of a bag, each as a sentence: holes, clubs that do the same, those that outfly a longer one
/// often; that none is, where none is; and that a bag is exploratory.
std::vector<std::string> bagSentences(const bag::Bag& bag, const record::DisplayUnits& units);

} // namespace knot::words
