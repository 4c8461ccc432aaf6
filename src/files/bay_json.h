#pragma once

#include "core/record/test.h"

#include <nlohmann/json.hpp>

namespace knot::files {

/// What the bay adds to a test beside its shots: feels, sittings, events and how far it is. Adds the
/// members to the test's head; nothing where the bay was never used.
void writeBay(nlohmann::ordered_json& head, const record::Test& test);
/// Throws Unreadable or nlohmann::json::exception. The test's builds are read already.
void readBay(const nlohmann::json& head, record::Test& test);

} // namespace knot::files
