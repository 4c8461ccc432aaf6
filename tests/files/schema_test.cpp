// The JSON Schemas that ship (schema/) hold for what the program writes, and name every field that a reading has.
#include "core/judge/judge.h"
#include "core/simulate/scenarios.h"
#include "files/bag_json.h"
#include "files/csv_writer.h"
#include "files/import/shot_file.h"
#include "files/reading_json.h"
#include "files/test_json.h"
#include "support/json_schema.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>

using namespace knot;
using knot::test::faultsOf;
using knot::test::schemaNamed;
using nlohmann::json;

namespace {

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

TEST_CASE("a bag as JSON is as its schema says") {
    const json schema = schemaNamed("knotcount.bag.json");
    const auto read = files::readShotFile(std::string(KNOT_TEST_DATA) + "/bag.csv");
    REQUIRE(read);
    const auto bag = bag::bagOf({read->test});
    REQUIRE(bag.gaps.size() == 10);
    CHECK(faultsOf(files::bagJson(bag), schema) == "");
    CHECK(faultsOf(files::bagJson(bag, -6.0), schema) == "");
    CHECK(faultsOf(files::bagJson({}), schema) == "");
    const auto out = json::parse(files::bagJson(bag, -6.0));
    CHECK(out["gaps"][1]["is"] == "hole");
    CHECK(out["clubs"][0]["carry_in_wind_m"] < out["clubs"][0]["carry_m"]);
    CHECK(!faultsOf("{\"format\": \"knotcount.bag\", \"clubs\": 3}", schema).empty());
}
