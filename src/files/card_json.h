#pragma once

#include "core/record/names.h"

#include <nlohmann/json.hpp>

#include <string>

namespace knot::files {

/// What makes a test's JSON unreadable; caught where a file is read.
struct Unreadable {
    std::string why;
};

nlohmann::ordered_json cardJson(const record::Card& card);
/// Throws Unreadable or nlohmann::json::exception.
record::Card cardFrom(const nlohmann::json& in);

template<typename Value, std::size_t N>
Value valueOrRefuse(const std::array<const char*, N>& names, const std::string& word) {
    if (const auto value = record::valueNamed<Value>(names, word))
        return *value;
    throw Unreadable{"unknown word '" + word + "'"};
}

record::Metric metricNamed(const std::string& key);

} // namespace knot::files
