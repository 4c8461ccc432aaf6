#pragma once

#include <nlohmann/json.hpp>

#include <algorithm>
#include <fstream>
#include <string>
#include <vector>

namespace knot::test {

using nlohmann::json;

/// A schema of schema/ by its file's name.
inline json schemaNamed(const std::string& name) {
    std::ifstream in(std::string(KNOT_SOURCE_DIR) + "/schema/" + name);
    return json::parse(in);
}

inline bool isOfType(const json& value, const std::string& type) {
    return (type == "object" && value.is_object()) || (type == "array" && value.is_array()) ||
           (type == "string" && value.is_string()) || (type == "number" && value.is_number()) ||
           (type == "boolean" && value.is_boolean()) || (type == "null" && value.is_null());
}

// What of JSON Schema these files use; says where a value is none of it.
inline void check(const json& value, const json& schema, const std::string& at, std::vector<std::string>& faults) {
    if (schema.contains("const") && value != schema["const"])
        faults.push_back(at + " is " + value.dump());
    if (schema.contains("type")) {
        const json types = schema["type"].is_array() ? schema["type"] : json::array({schema["type"]});
        if (std::ranges::none_of(types, [&](const json& type) { return isOfType(value, type.get<std::string>()); }))
            faults.push_back(at + " is of another type: " + value.dump().substr(0, 40));
    }
    if (value.is_array() && schema.contains("items"))
        for (std::size_t i = 0; i < value.size(); ++i)
            check(value[i], schema["items"], at + "[]", faults);
    if (!value.is_object())
        return;
    for (const json& name : schema.value("required", json::array()))
        if (!value.contains(name.get<std::string>()))
            faults.push_back(at + " lacks " + name.get<std::string>());
    const json properties = schema.value("properties", json::object());
    const json others = schema.contains("additionalProperties") ? schema["additionalProperties"] : json(true);
    for (const auto& [name, member] : value.items())
        if (properties.contains(name))
            check(member, properties[name], at + "." + name, faults);
        else if (others.is_object())
            check(member, others, at + ".*", faults);
        else if (others == false)
            faults.push_back(at + " has " + name);
}

/// What of a text is not as a schema says, a line each, five at most; empty where it is.
inline std::string faultsOf(const std::string& text, const json& schema) {
    std::vector<std::string> faults;
    check(json::parse(text), schema, "", faults);
    std::string all;
    for (std::size_t i = 0; i < std::min<std::size_t>(faults.size(), 5); ++i)
        all += faults[i] + "\n";
    return all;
}

} // namespace knot::test
