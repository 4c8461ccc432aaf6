#include "core/record/roster.h"
#include "core/simulate/scenarios.h"
#include "files/base/file.h"
#include "files/csv_writer.h"
#include "files/test_json.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace knot;

TEST_CASE("shots written as CSV read back the same") {
    const auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    auto back = files::readShots("x.csv", files::shotCsv(test));
    REQUIRE(back);
    CHECK(back->test.shots == test.shots);
}

TEST_CASE("awkward text survives the way through CSV") {
    auto test = knot::test::loadReference("few_rounds").test;
    test.builds[0].name = "A, \"quoted\"; one";
    test.shots[0].note = "line\nbreak";
    test.shots[1].feel = 3;
    test.shots[2].handedOver = true;
    test.shots[3].status = record::ShotStatus::setAside;
    test.shots[3].setAsideWhen = record::SetAsideWhen::afterNumber;
    test.extraColumns = {"odd, one"};
    for (auto& shot : test.shots)
        shot.extra = {"x;y"};
    auto back = files::readShots("x.csv", files::shotCsv(test));
    REQUIRE(back);
    CHECK(back->test.shots == test.shots);
    CHECK(back->test.extraColumns == test.extraColumns);
    CHECK(back->test.builds == test.builds);
}

TEST_CASE("shots of which nothing was read come back too") {
    auto test = knot::test::loadReference("few_rounds").test;
    for (auto& shot : test.shots)
        shot.readings = {};
    auto back = files::readShots("x.csv", files::shotCsv(test));
    REQUIRE(back);
    CHECK(back->test.shots == test.shots);
}

TEST_CASE("a whole test goes through JSON and back unchanged") {
    auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.margins[record::Metric::carry] = 3.1;
    test.card.covariates = {record::Metric::strikeHigh};
    test.card.setAsideRule = record::SetAsideRule::bestAndWorst;
    test.card.shapes = {{record::Shape::Kind::rectangle, "green", 1, 90, 12, 15}};
    test.card.targets = {{record::Metric::carry, "Birch", 80, 90}};
    test.shots[5].mark = record::Mark::club;
    test.card.wants[*record::outcomeFromText("launch_deg")] = {record::Want::Kind::near, 24.5};
    test.shots[3].readings.model(record::Metric::curve, 1.25);
    test.shots[4].setAsideWhen = record::SetAsideWhen::called;
    test.stage = record::Stage::screening;
    test.players = {{.id = "7c1d",
                     .name = "Runa Veld",
                     .leftHanded = true,
                     .clubSpeed = 38.5,
                     .ironSpeed = 31.5,
                     .tempo = "quick",
                     .costs = record::Side::right,
                     .height = 1780,
                     .played = "a stiffer one; too low",
                     .goals = "height",
                     .usual = {{.club = "five-wood", .carry = 150, .spin = 3900}}},
                    {.id = {}, .name = "Odd Farstad"}};
    test.card.kind = record::TestKind::shaft;
    test.card.looks = record::Looks::eachRound;
    test.card.plannedRounds = 5;
    test.card.expectations = {{record::Metric::spin, record::Expectation::down}};
    test.card.held = {{"length", true, ""}, {"ball", false, "two sleeves of another make"}};
    test.card.blinding = record::Blinding::playerBlind;
    test.card.visibility = {record::Sees::fitter, record::Sees::nobody, record::Sees::everyone};
    test.card.replaceSetAside = false;
    test.card.goodShots = 4;
    test.plan = {.schedule = record::Schedule::sandwich, .rounds = 4, .turnLength = 2, .seed = 1ULL << 63U};
    test.plan.changeTimes = {{record::BuildAt(0), record::BuildAt(1), 240}};
    test.turns = {{record::BuildAt(0), 1, 2}, {record::BuildAt(1), 1, 2}};
    test.seal = {.commitment = "ab",
                 .box = "cd",
                 .nonce = "ef",
                 .keySalt = "01",
                 .sealedAt = "2026-05-01T09:00",
                 .revealedAt = "2026-05-01T11:00"};
    setStanding(test, record::BuildAt(0), record::Standing::What::struckOff, 1, "too low");
    test.builds[1].tag = "Fern";
    test.builds[1].club.head = {.kind = record::PartKind::head, .name = "Tarn 54", .mass = 302, .loft = 54};
    test.builds[1].club.shaft = {.kind = record::PartKind::shaft, .name = "Reed", .mass = 118, .balance = 429};
    test.builds[1].club.lead = 2.5;
    test.builds[1].club.sleeve = {"+1", 1, -0.7, 0.5};
    record::Build hidden;
    hidden.name = "Bent 54";
    test.sealedBuilds = {hidden};
    test.guesses = {{record::BuildAt(1), "Bent 54", "3"}};
    test.amendments = {{"2026-05-01T10:00", "one lap fewer"}};
    test.frozenAt = "2026-05-01T09:30";
    test.frozenHash = "77";
    auto back = files::readTestJson("t.json", files::testJson(test));
    REQUIRE(back);
    CHECK(back->test == test);
}

TEST_CASE("the declaration is one text for one card, whatever was struck or learned since") {
    auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    const auto before = files::declarationText(test);
    test.shots.clear();
    test.builds[0].tag = "Fern";
    test.guesses = {{record::BuildAt(0), "x", ""}};
    CHECK(files::declarationText(test) == before);
    test.card.alpha = 0.1;
    CHECK(files::declarationText(test) != before);
    CHECK(files::readTestHeadJson("t", files::testHeadJson(test))->card == test.card);
    CHECK(!files::readTestHeadJson("t", "{}"));
}

TEST_CASE("a reading as JSON holds no NaN and names its format") {
    const auto json = knot::test::readingOf(knot::test::loadReference("gaps_in_record").test);
    CHECK(json.at("format") == "knotcount.reading");
    CHECK(json.at("version") == 1);
    CHECK(json.dump().find("null") == std::string::npos);
    CHECK(json.at("builds").size() == 3);
    CHECK(json.at("builds")[0].at("set_aside").get<int>() + json.at("builds")[1].at("set_aside").get<int>() +
              json.at("builds")[2].at("set_aside").get<int>() ==
          7);
    CHECK(!json.at("sentences").empty());
}

TEST_CASE("a file that can't be written is said and leaves nothing behind") {
    CHECK(files::sentence(files::writeFile("/nowhere/x.csv", "a").error()).find("/nowhere/x.csv can't be written") ==
          0);
    const auto path = (std::filesystem::temp_directory_path() / "knot_round_trip.csv").string();
    REQUIRE(files::writeFile(path, "a"));
    REQUIRE(files::writeFile(path, "b"));
    CHECK(std::filesystem::file_size(path) == 1);
    CHECK(!std::filesystem::exists(path + ".part"));
    std::filesystem::remove(path);
}
