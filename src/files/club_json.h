#pragma once

#include "core/record/test.h"

#include <nlohmann/json.hpp>

namespace knot::files {

/// What is known of a part, a club and a build; what is not known is left out. The readers throw
/// Unreadable or nlohmann::json::exception.
nlohmann::ordered_json partJson(const record::Part& part);
record::Part partFrom(const nlohmann::json& in);
nlohmann::ordered_json buildJson(const record::Build& build);
record::Build buildFrom(const nlohmann::json& in);
nlohmann::ordered_json playerJson(const record::Player& player);
record::Player playerFrom(const nlohmann::json& in);
/// Who they are, without what is known of them.
nlohmann::ordered_json playerNameJson(const record::Player& player);

} // namespace knot::files
