#pragma once

#include "core/record/text/names.h"

#include <nlohmann/json.hpp>

#include <optional>
#include <string>

namespace knot::files {

/// What makes a test's JSON unreadable; caught where a file is read.
struct Unreadable {
    std::string why;
};

template<typename Value, std::size_t N>
Value valueOrRefuse(const std::array<const char*, N>& names, const std::string& word) {
    if (const auto value = record::valueNamed<Value>(names, word))
        return *value;
    throw Unreadable{"unknown word '" + word + "'"};
}

/// Throws Unreadable for a key of no metric.
record::Metric metricNamed(const std::string& key);

/// A member that is a whole number of at most nine digits, or `otherwise` where there is none. Throws
/// Unreadable for anything else.
int wholeAt(const nlohmann::json& in, const char* name, std::optional<int> otherwise = std::nullopt);
/// The same for a place in a list, from 0.
std::size_t placeAt(const nlohmann::json& in, const char* name);

/// A member that is a number, or nothing where there is none.
std::optional<double> numberAt(const nlohmann::json& in, const char* name);

} // namespace knot::files
