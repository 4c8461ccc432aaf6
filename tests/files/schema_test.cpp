// The JSON Schemas that ship (schema/) hold for what the program writes, and name every field that a reading has.
#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"
#include "files/csv_writer.h"
#include "files/import/shot_file.h"
#include "files/reading_json.h"
#include "files/test_json.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>
#include <fstream>

using namespace knot;
using nlohmann::json;

namespace {

json schemaNamed(const std::string& name) {
    std::ifstream in(std::string(KNOT_SOURCE_DIR) + "/schema/" + name);
    return json::parse(in);
}

bool isOfType(const json& value, const std::string& type) {
    return (type == "object" && value.is_object()) || (type == "array" && value.is_array()) ||
           (type == "string" && value.is_string()) || (type == "number" && value.is_number()) ||
           (type == "boolean" && value.is_boolean()) || (type == "null" && value.is_null());
}

// What of JSON Schema these two files use; says where a value is none of it.
void check(const json& value, const json& schema, const std::string& at, std::vector<std::string>& faults) {
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

std::string faultsOf(const std::string& text, const json& schema) {
    std::vector<std::string> faults;
    check(json::parse(text), schema, "", faults);
    std::string all;
    for (std::size_t i = 0; i < std::min<std::size_t>(faults.size(), 5); ++i)
        all += faults[i] + "\n";
    return all;
}

std::string readingOf(record::Test test, record::Comparison comparison) {
    test.card.comparison = comparison;
    return files::readingJson(*judge::judge({.subject = judge::Case::of(test), .seed = 1}));
}

} // namespace

TEST_CASE("what the program writes is as its schemas say") {
    const json reading = schemaNamed("knotcount.reading.json");
    const json whole = schemaNamed("knotcount.test.json");
    for (const auto& scenario : simulate::scenarios()) {
        INFO(scenario.key);
        const auto test = simulate::testFrom(scenario);
        CHECK(faultsOf(files::testJson(test), whole).empty());
        CHECK(faultsOf(readingOf(test, record::Comparison::againstBaseline), reading) == "");
    }
    for (const auto& entry : std::filesystem::directory_iterator(std::string(KNOT_TEST_DATA) + "/reference"))
        if (entry.path().extension() == ".csv") {
            INFO(entry.path().string());
            const auto test = files::readShotFile(entry.path().string());
            REQUIRE(test);
            CHECK(faultsOf(readingOf(test->test, record::Comparison::whichOfThese), reading) == "");
        }
    CHECK(!faultsOf("{\"format\": \"knotcount.test\", \"version\": 2}", whole).empty());
    CHECK(!faultsOf("{\"format\": \"knotcount.reading\", \"version\": 1, \"averge\": []}", reading).empty());
}
