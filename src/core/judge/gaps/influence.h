#pragma once

#include "core/judge/case.h"
#include "core/judge/reading.h"

namespace knot::judge {

/// Finds the counted shots without which the verdict on a declared average would be another, family
/// and all. `columns` are those of the reading's metrics in order; rows of `reading` are finished.
void addInfluence(const Case& subject, const std::vector<Column>& columns, Reading& reading);

} // namespace knot::judge
