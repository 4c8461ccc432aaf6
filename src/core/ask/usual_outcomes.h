#pragma once

#include "core/record/card.h"

#include <utility>
#include <vector>

namespace knot::ask {

/// What a kind of test is judged by where nothing else is said, with what is wanted: from the table data/asked.csv.
std::vector<std::pair<record::Outcome, record::Want>> usualOutcomes(record::TestKind kind);

/// Makes a card one of another kind: what it holds constant, and what it is judged by where that was still what is
/// usual of the kind before, or nothing.
void setKind(record::Card& card, record::TestKind kind);

} // namespace knot::ask
