#pragma once

#include "core/judge/reading.h"

#include <nlohmann/json.hpp>

namespace knot::files {

/// The ratios of spreads: where they are average distances, a row of the SDs stands before each.
nlohmann::ordered_json consistencyJson(const judge::Reading& reading);
nlohmann::ordered_json dispersionJson(const judge::Reading& reading);

} // namespace knot::files
