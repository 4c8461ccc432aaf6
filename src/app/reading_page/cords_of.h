#pragma once

#include "app/picture/cords_view.h"
#include "core/judge/case.h"
#include "core/judge/reading.h"
#include "core/record/units.h"

namespace knot::app {

/// Joins what the record holds with what the reading found, for one metric.
CordsPicture cordsOf(const judge::Case& subject, const judge::Reading& reading, record::Metric metric,
                     const record::DisplayUnits& units);

} // namespace knot::app
