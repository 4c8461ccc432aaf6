#pragma once

#include "core/flight/impact.h"
#include "core/record/metric.h"

#include <optional>
#include <string>

namespace knot::rack {

/// What is usual of a number with a kind of club, and who says so when: never a verdict.
struct Norm {
    double value = 0; ///< internal units
    std::string source, date;
};

/// From the table data/norms.csv; nothing where it has none. The table is meant to be edited: it ships with what the
/// program's own models say.
std::optional<Norm> normOf(flight::HeadKind kind, record::Metric metric);

} // namespace knot::rack
