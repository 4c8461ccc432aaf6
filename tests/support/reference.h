#pragma once

#include "core/judge/judge.h"

#include <nlohmann/json.hpp>
#include <string>

namespace knot::test {

/// A reference case of tests/data/reference: shots with results computed independently.
struct Reference {
    nlohmann::json expected;
    record::Test test; ///< with the case's baseline, primary outcomes and margins on its card
};

Reference loadReference(const std::string& name);
nlohmann::json loadJson(const std::string& name);

/// The reading of a case, by way of the JSON that the program writes.
nlohmann::json readingOf(const record::Test& test);

/// Compares every number under `expected` with the same place in `actual`; returns a line for each
/// that differs by more than `tolerance` relative (and 1e-12 absolute).
std::vector<std::string> differences(const nlohmann::json& expected, const nlohmann::json& actual, double tolerance,
                                     const std::string& place);

} // namespace knot::test
