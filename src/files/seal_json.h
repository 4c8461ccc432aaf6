#pragma once

#include "files/json_read.h"

namespace knot::files {

/// The seal of a test; what it proves stands beside it for who reads the file, and is not read.
nlohmann::ordered_json sealJson(const record::Test& test);
/// Throws nlohmann::json::exception.
record::Seal sealFrom(const nlohmann::json& in);

} // namespace knot::files
