#include "support/reference.h"

#include <catch2/catch.hpp>

using namespace knot::test;

namespace {

const nlohmann::json* rowFor(const nlohmann::json& rows, const nlohmann::json& wanted) {
    for (const auto& row : rows)
        if (row.at("metric") == wanted.at("metric") && row.at("build") == wanted.at("build"))
            return &row;
    return nullptr;
}

} // namespace

TEST_CASE("averages agree with the reference in every field") {
    const std::string name = GENERATE("one_run_each", "few_rounds", "shot_by_shot", "rotated_turns", "gaps_in_record",
                                      "long_test", "weight_ladder", "strike_and_drift");
    const Reference reference = loadReference(name);
    const auto reading = readingOf(reference.test);
    CHECK(differences(reference.expected.at("margins"), reading.at("margins"), 1e-12, name).empty());
    for (const auto& row : reference.expected.at("average")) {
        const auto* own = rowFor(reading.at("average"), row);
        REQUIRE(own != nullptr);
        const std::string place = name + "/" + row.at("metric").get<std::string>() + "/" + row.at("build").get<std::string>();
        for (const auto& line : differences(row, *own, 1e-8, place))
            FAIL_CHECK(line);
    }
}
