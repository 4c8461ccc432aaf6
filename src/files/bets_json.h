#pragma once

#include "core/judge/reading.h"

#include <nlohmann/json.hpp>

namespace knot::files {

/// Writes what a reading expects, whose doing it is and whether the swing was the same.
void writeBets(nlohmann::ordered_json& json, const judge::Reading& reading);

} // namespace knot::files
