#pragma once

#include "core/judge/reading.h"

#include <nlohmann/json.hpp>

namespace knot::files {

/// Writes what single shots, calls, words and models of flight tell: `parts`, `unread`, `called`, `called_gaps`,
/// `call_agreement`, `misses`, `beats`, `ten_shots`, `feels`, `versus`, `expected` and `usual`.
void writeShotFacts(nlohmann::ordered_json& json, const judge::Reading& reading);

} // namespace knot::files
