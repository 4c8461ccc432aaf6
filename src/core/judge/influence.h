#pragma once

#include "core/judge/columns.h"
#include "core/judge/judge.h"

namespace knot::judge {

/// Verdicts on declared averages that change when one counted shot is left out, family and all.
/// `columns` are those of the reading's metrics in order; rows of `reading` are finished.
std::vector<Influence> influenceOfShots(const Reading& reading, const std::vector<Column>& columns);

} // namespace knot::judge
