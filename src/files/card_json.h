#pragma once

#include "files/json_read.h"

namespace knot::files {

nlohmann::ordered_json cardJson(const record::Card& card);
/// Throws Unreadable or nlohmann::json::exception.
record::Card cardFrom(const nlohmann::json& in);

} // namespace knot::files
