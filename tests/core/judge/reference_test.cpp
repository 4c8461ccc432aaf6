#include "core/judge/days/pooling.h"
#include "core/judge/spreads/shares.h"
#include "core/plan/looks.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::test;

namespace {

// Mixed models are compared to 1e-4, closed forms to 1e-8.
double toleranceOf(const std::string& section) {
    const bool model =
        section == "trend" || section == "interaction" || section == "at_equal_strike" || section == "drift_per_shot";
    return model ? 1e-4 : 1e-8;
}

// Rows are found by what they are about, not by where they stand.
const nlohmann::json* rowFor(const nlohmann::json& rows, const nlohmann::json& wanted) {
    for (const auto& row : rows)
        if (row.value("metric", "") == wanted.value("metric", "") && row.at("build") == wanted.at("build"))
            return &row;
    return nullptr;
}

void compareRows(const nlohmann::json& expected, const nlohmann::json& actual, const std::string& place) {
    for (const auto& row : expected) {
        const auto* own = rowFor(actual, row);
        REQUIRE(own != nullptr);
        for (const auto& line : differences(
                 row, *own, 1e-8, place + "/" + row.value("metric", "") + "/" + row.at("build").get<std::string>()))
            FAIL_CHECK(line);
    }
}

} // namespace

TEST_CASE("every section of every reference case agrees in every field") {
    const std::string name = GENERATE("one_run_each", "few_rounds", "shot_by_shot", "rotated_turns", "gaps_in_record",
                                      "long_test", "weight_ladder", "strike_and_drift", "two_deliveries");
    const Reference reference = loadReference(name);
    const auto reading = readingOf(reference.test);
    for (const auto& [section, expected] : reference.expected.items()) {
        if (section == "case" || section == "note" || section == "primary" || section == "baseline")
            continue;
        const std::string place = name + "/" + section;
        if (expected.is_array()) {
            compareRows(expected, reading.at(section), place);
        } else if (section == "dispersion") {
            compareRows(expected.at("builds"), reading.at(section).at("builds"), place);
            compareRows(expected.at("pairs"), reading.at(section).at("pairs"), place);
        } else {
            for (const auto& line : differences(expected, reading.at(section), toleranceOf(section), place))
                FAIL_CHECK(line);
        }
    }
}

TEST_CASE("shares, lucky guesses, looks and pooled sittings agree with the reference") {
    const auto facts = loadJson("facts");
    for (const auto& row : facts.at("wilson")) {
        const auto ci = judge::wilson(row.at("x"), row.at("n"), 0.95);
        CHECK(ci.low == Approx(row.at("ci95")[0].get<double>()).epsilon(1e-8).margin(1e-12));
        CHECK(ci.high == Approx(row.at("ci95")[1].get<double>()).epsilon(1e-8));
    }
    for (const auto& row : facts.at("share_by_turns")) {
        std::vector<std::vector<bool>> turns;
        for (const auto& turn : row.at("turns")) {
            turns.emplace_back();
            for (const auto& hit : turn)
                turns.back().push_back(hit.get<int>() == 1);
        }
        const auto share = judge::shareByTurns(turns);
        REQUIRE(share);
        CHECK(share->share == Approx(row.at("p").get<double>()).epsilon(1e-8));
        CHECK(share->icc == Approx(row.at("icc").get<double>()).epsilon(1e-8));
        CHECK(share->deff == Approx(row.at("deff").get<double>()).epsilon(1e-8));
        CHECK(share->effective == Approx(row.at("ne").get<double>()).epsilon(1e-8));
        CHECK(share->ci95.low == Approx(row.at("ci95")[0].get<double>()).epsilon(1e-8));
        CHECK(share->ci95.high == Approx(row.at("ci95")[1].get<double>()).epsilon(1e-8));
    }
    for (const auto& row : facts.at("guesses"))
        CHECK(judge::luckyMatches(row.at("right"), row.at("builds")) ==
              Approx(row.at("p_at_least").get<double>()).epsilon(1e-8));
    for (const auto& row : facts.at("looks")) {
        const auto looks = plan::lookBoundaries(row.at("information").get<std::vector<double>>(), 0.05);
        for (std::size_t i = 0; i < looks.size(); ++i) {
            CHECK(looks[i].z == Approx(row.at("z")[i].get<double>()).epsilon(1e-5));
            CHECK(looks[i].nominal == Approx(row.at("nominal_p")[i].get<double>()).epsilon(1e-4));
            CHECK(looks[i].level == Approx(0.75 * looks[i].nominal));
        }
    }
}

TEST_CASE("sittings weighted by their laps agree with R") {
    const auto row = knot::test::loadJson("worth").at("over_sittings");
    std::vector<judge::SittingEstimate> sittings;
    for (std::size_t i = 0; i < row.at("gaps").size(); ++i)
        sittings.push_back({.gap = row.at("gaps")[i],
                            .se = std::sqrt(row.at("variances")[i].get<double>()),
                            .laps = row.at("laps")[i]});
    const auto pooled = judge::poolSittings(sittings);
    REQUIRE(pooled);
    CHECK(pooled->pooled == Approx(row.at("gap").get<double>()).epsilon(1e-10));
    CHECK(pooled->se == Approx(row.at("se").get<double>()).epsilon(1e-10));
    CHECK(pooled->ci95.low == Approx(row.at("interval")[0].get<double>()).epsilon(1e-8));
    CHECK(pooled->ci95.high == Approx(row.at("interval")[1].get<double>()).epsilon(1e-8));
    CHECK(pooled->f == Approx(row.at("F").get<double>()).epsilon(1e-10));
    CHECK(pooled->fP == Approx(row.at("p").get<double>()).epsilon(1e-8));
}

TEST_CASE("lucky guesses by turn are binomial, and impossible tasks certain") {
    CHECK(judge::luckyGuesses(0, 5, 3) == 1);
    CHECK(judge::luckyGuesses(1, 1, 4) == Approx(0.25));
    CHECK(judge::luckyGuesses(2, 2, 3) == Approx(1.0 / 9));
    CHECK(judge::luckyMatches(0, 4) == Approx(1));
}

TEST_CASE("pooling needs two sittings with an error, and counts those that held up") {
    CHECK(!judge::poolSittings({{.gap = 1, .se = 1, .laps = 4}}));
    CHECK(!judge::poolSittings({{.gap = 1, .se = 1, .laps = 4}, {.gap = 2, .se = 0, .laps = 4}}));
    CHECK(!judge::poolSittings({{.gap = 1, .se = 1, .laps = 4}, {.gap = 2, .se = 1, .laps = 1}}));
    const auto pooled = judge::poolSittings({{.gap = 3, .se = 0.5, .laps = 4, .ci95 = judge::Interval{2, 4}},
                                             {.gap = 2, .se = 0.5, .laps = 4, .ci95 = judge::Interval{1, 3}},
                                             {.gap = 0.2, .se = 0.5, .laps = 4, .ci95 = judge::Interval{-1, 1.4}}});
    CHECK(pooled->heldUp == 2);
    CHECK(pooled->fP < 0.05);
}
