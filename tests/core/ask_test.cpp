// The sentence that says what a test asks: how it reads, what its chips hold, and what typing into them changes.
#include "core/ask/answers.h"
#include "core/ask/outcomes.h"
#include "core/ask/usual_outcomes.h"
#include "core/plan/power.h"
#include "core/plan/requirements.h"
#include "core/plan/worth.h"
#include "core/rack/ties.h"
#include "core/record/check.h"
#include "core/record/roster.h"
#include "core/record/typed/shape_text.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

using namespace knot;
using ask::Part;
using record::Metric;
using record::OutcomeKind;

namespace {

record::Test threeShafts() {
    record::Test test;
    test.builds = {{.name = "Alder 62"}, {.name = "Reed 53"}, {.name = "Larch 71"}};
    test.players = {{.id = "m", .name = "Marit Aasgaard"}};
    test.plan.rounds = 5;
    test.plan.turnLength = 3;
    ask::setKind(test.card, record::TestKind::shaft);
    test.card.baseline = "Alder 62";
    return test;
}

const ask::Known known{.units = {}, .players = {{.id = "m", .name = "Marit Aasgaard"}, {.id = "o", .name = "Odd"}}};

std::string sentence(const record::Test& test) {
    return ask::textOf(ask::sentenceOf(test, {}));
}

// What typing leaves of the test, or the refusal.
std::string say(record::Test& test, Part part, const std::string& text, std::size_t at = 0) {
    const auto edit = ask::taken({part, at}, text, test, known);
    if (!edit)
        return edit.error();
    (*edit)(test);
    return {};
}

} // namespace

TEST_CASE("a test reads as one sentence") {
    record::Test test = threeShafts();
    CHECK(sentence(test) ==
          "Against Alder 62, does another shaft (Reed 53 or Larch 71) give Marit Aasgaard more carry – "
          "worth having from 2.7 m – and less left–right spread from 1.25 times?");
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.covariates = {Metric::strikeHigh, Metric::clubSpeed};
    test.card.aim = record::Aim{150, -4};
    CHECK(sentence(test) ==
          "Which shaft of Alder 62, Reed 53 and Larch 71 gives Marit Aasgaard more carry – worth having "
          "from 2.7 m – and less left–right spread from 1.25 times, with strike height and club speed "
          "taken out, aimed at 150.0 m, 4.0 left?");
    CHECK(sentence({}) == "Against my club, does another club (name the others) give whom more of what?");
}

TEST_CASE("a kind of test brings what it is usually judged by, until something else was said") {
    record::Card card;
    ask::setKind(card, record::TestKind::lie);
    REQUIRE(card.primary.size() == 1);
    CHECK(card.wants.at(card.primary.front()) == record::Want{record::Want::Kind::near, 0});
    ask::setKind(card, record::TestKind::grip);
    CHECK(card.primary.front().kind == OutcomeKind::spread);
    card.primary = {{.metric = Metric::spin, .shape = {}}};
    ask::setKind(card, record::TestKind::shaft);
    CHECK(card.primary.front().metric == Metric::spin);
    for (int kind = 0; kind < 10; ++kind) {
        const auto usual = ask::usualOutcomes(static_cast<record::TestKind>(kind));
        CHECK(!usual.empty());
        CHECK(usual.size() <= 3);
    }
}

TEST_CASE("a few letters find an answer, and every answer is found by itself") {
    const record::Test test = threeShafts();
    for (const Part part :
         {Part::against, Part::tested, Part::player, Part::outcome, Part::causes, Part::factor, Part::another}) {
        const ask::Chip chip{part, 0};
        const auto answers = ask::answersFor(chip, test, known);
        REQUIRE(!answers.empty());
        for (const auto& answer : answers) {
            INFO(answer.text);
            const auto edit = ask::taken(chip, answer.text, test, known);
            REQUIRE(edit);
            record::Test chosen = test;
            record::Test typed = test;
            answer.edit(chosen);
            (*edit)(typed);
            CHECK(chosen == typed);
            CHECK(chosen != record::Test{});
            CHECK(record::faultsOf(chosen).empty());
        }
    }
    CHECK(ask::found(ask::answersFor({Part::outcome, 0}, test, known), "mo ca").front().text == "more carry");
    CHECK(ask::found(ask::answersFor({Part::outcome, 0}, test, known), "sp").front().text == "less left–right spread");
    CHECK(ask::found(ask::answersFor({Part::outcome, 0}, test, known), "less sp").front().text == "less spin");
    CHECK(ask::found(ask::answersFor({Part::outcome, 0}, test, known), "zz").empty());
}

TEST_CASE("what is typed into a chip changes the test, or says what is not understood") {
    record::Test test = threeShafts();
    record::Card& card = test.card;
    CHECK(say(test, Part::tested, "he").empty());
    CHECK(card.kind == record::TestKind::head);
    CHECK(say(test, Part::tested, "tee height").empty()); // nobody's kind
    CHECK(card.kind == record::TestKind::own);
    CHECK(card.factor == "tee height");
    CHECK(say(test, Part::against, "Reed 53").empty());
    CHECK(card.baseline == "Reed 53");
    CHECK(say(test, Part::clubs, "Fern 48, reed 53; Fern 48,, Yew").empty());
    CHECK(test.builds.size() == 5);
    CHECK(say(test, Part::clubs, "Alder 62 or Larch 71").empty()); // what stood there is no new name
    CHECK(test.builds.size() == 5);
    CHECK(say(test, Part::gap, "3.5 m").empty());
    CHECK(card.margin(card.primary.front().metric) > 0);
    CHECK(say(test, Part::gap, "0") == "A worthwhile gap is more than 0.");
    CHECK(say(test, Part::outcome, "spin near 2600").empty());
    CHECK(card.want(card.primary.front()) == record::Want{record::Want::Kind::near, 2600});
    CHECK(say(test, Part::outcome, "gravity") ==
          "“gravity” is no outcome; the down arrow shows them all, and “carry near 150” is one too.");
    CHECK(say(test, Part::another, "and less landing").empty());
    CHECK(card.primary.back().kind == OutcomeKind::area);
    CHECK(say(test, Part::gap, "0.9", card.primary.size() - 1) ==
          "A spread is worth it from a ratio above 1, such as 1.25.");
    CHECK(say(test, Part::another, "for Odd").empty());
    CHECK(test.players.back().id == "o");
    CHECK(say(test, Part::another, "for Marit Aasgaard") == "Marit Aasgaard is in this test already.");
    CHECK(say(test, Part::player, "", 1).empty());
    CHECK(test.players.size() == 1);
    CHECK(say(test, Part::another, "wanted launch 12 to 15").empty());
    CHECK(card.targets.back() == record::Target{Metric::launch, {}, 12, 15});

    // A fourth outcome is one too many.
    while (card.primary.size() < 3)
        card.primary.push_back({.metric = Metric::apex, .shape = {}});
    CHECK(say(test, Part::another, "and more smash") == "Three outcomes are the most that one test can be judged by.");

    // Under a seal nobody joins.
    test.sealedBuilds = test.builds;
    test.seal.commitment = "0";
    CHECK(say(test, Part::clubs, "Yew 2") == "The clubs are sealed; “Yew 2” can't join them.");
    for (const auto& build : test.builds)
        CHECK(sentence(test).find(build.name) == std::string::npos);
    CHECK(say(test, Part::against, "Yew 2") == "The clubs are sealed; “Yew 2” can't join them.");
}

TEST_CASE("a window is said in a letter and two numbers") {
    const record::Test test = threeShafts();
    auto window = [&](const char* text, record::DisplayUnits units = {}) {
        return ask::windowFromText(text, test, {units});
    };
    CHECK(*window("d42 48") == record::Target{Metric::descent, {}, 42, 48});
    CHECK(*window("spin 2400-2900 for re") == record::Target{Metric::spin, "Reed 53", 2400, 2900});
    CHECK(*window("l12.5") == record::Target{Metric::launch, {}, 12.5, 12.5});
    CHECK(*window("launch direction -2 to 2") == record::Target{Metric::launchDirection, {}, -2, 2});
    CHECK(window("c 160 170", {.distance = record::DistanceUnit::yd})->low == Approx(160 * 0.9144));
    for (const char* bad : {"", "12 15", "zz 1 2", "launch", "l 15 12", "l 1 2 3", "l 1 2 for Oak"})
        CHECK_FALSE(window(bad));
    for (const char* text : {"d42 48", "l12.5", "spin 2400 2900 for Larch"})
        CHECK(*window(ask::windowText(*window(text), test, {}).c_str()) == *window(text));
}

TEST_CASE("what a test takes agrees with the planner, outcome by outcome") {
    record::Test test = threeShafts();
    const plan::Spreads spreads{.sdTurn = 2, .sdShot = 6};
    const auto takes = plan::takesOf(test, [&](const record::Outcome&) { return spreads; });
    REQUIRE(takes.size() == 2);
    const double level = 0.05 / 4; // two clubs against the first, two outcomes
    CHECK(plan::levelOfOne(test) == Approx(level));
    const plan::PairPlan pair{.varTurn = 4, .varShot = 36, .rounds = 5, .turnLength = 3};
    CHECK(*takes[0].thisPlan == Approx(plan::powerToSee(pair, 2.7, level)));
    CHECK(*takes[0].twoSittings > *takes[0].thisPlan);
    const double tau = plan::scaleOf(test, takes[0].outcome);
    CHECK(takes[0].worth == Approx(plan::worthOfPlan(test, takes[0].outcome, spreads, tau).worth.share));
    CHECK(takes[0].worthByHand < takes[0].worth);
    CHECK(takes[0].worth < takes[0].worthOnTwoDays);
    CHECK(plan::powerToSee(pair, *takes[0].smallest, level) == Approx(0.8).epsilon(1e-3));
    CHECK(*takes[1].thisPlan == Approx(plan::powerToSeeSpread(10, 1.25, level)));
    test.plan.schedule = record::Schedule::oneRunEach;
    CHECK_FALSE(plan::takesOf(test, [&](const record::Outcome&) { return spreads; })[0].thisPlan);
    test.card.primary = {{.kind = OutcomeKind::share, .shape = "strip 20"}};
    CHECK(plan::takesOf(test, [&](const record::Outcome&) { return spreads; }).empty());
}

TEST_CASE("what is held constant is told by the Rack") {
    using State = rack::Tie::State;
    record::Test test = threeShafts();
    auto tie = [&](const char* what) { return rack::tieOf(what, record::buildsIn(test), record::TestKind::shaft); };
    CHECK(tie("the same grip").state == State::unknown);
    CHECK(tie("a rested player").state == State::notOnRack);
    for (auto& build : test.builds)
        build.club.grip = {.kind = record::PartKind::grip, .name = "Oakum", .mass = 50};
    CHECK(tie("the same grip").state == State::same);
    CHECK(tie("the same grip").text == "Oakum, 50 g");
    test.builds[1].club.grip.mass = 46;
    CHECK(tie("the same grip").state == State::differs);
    CHECK(tie("the same grip").text == "46 g with Reed 53, else 50 g");
    setStanding(test, record::BuildAt(1), record::Standing::What::struckOff, 1, "too harsh");
    CHECK(tie("the same grip").state == State::same);
    CHECK(tie("the same shaft").state == State::unknown);
    test.builds[0].club.shaft.mass = 62;
    test.builds[2].club.shaft.mass = 71;
    CHECK(tie("the same shaft").state == State::factor);
    test.builds[0].club.length = 1073;
    CHECK(tie("the same length").state == State::unknown); // of one club alone
    test.builds[2].club.length = 1080;
    CHECK(tie("the same length").text == "1073 mm with Alder 62, 1080 mm with Larch 71");
}

TEST_CASE("a unit, a comma and a sign that are typed into a chip count") {
    struct Row {
        Part part;
        const char* typed;
        double is; ///< metres of what the part is about
    };
    for (const Row& row : {Row{Part::gap, "2,7", 2.7}, Row{Part::gap, "3 yd", 2.7432}, Row{Part::gap, "from 3 m", 3},
                           Row{Part::another, "aimed at 160 yd", 146.304}, Row{Part::another, "aimed at 150,5", 150.5},
                           Row{Part::another, "on circle 12 yd at 150 yd", 137.16},
                           Row{Part::another, "wanted carry 150 yd to 160 yd", 137.16},
                           Row{Part::another, "and carry near 150 yd", 137.16}}) {
        record::Test test = threeShafts();
        record::Card& card = test.card;
        if (row.part == Part::another)
            card.primary = {{.metric = Metric::apex, .shape = {}}};
        INFO(row.typed);
        REQUIRE(say(test, row.part, row.typed).empty());
        const double got = row.part == Part::gap     ? card.margin(Metric::carry)
                           : card.aim                ? card.aim->carry
                           : !card.targets.empty()   ? card.targets.front().low
                           : card.primary.size() > 1 ? card.want(card.primary.back()).value
                                                     : card.shapes.front().carry;
        CHECK(got == Approx(row.is));
    }
    record::Test test = threeShafts();
    for (const char* bad : {"12 m/s", ",", "-", "2.7.1", "3 °", "2,400 3"})
        CHECK_FALSE(say(test, Part::gap, bad).empty());
    CHECK(say(test, Part::another, "aimed at 150, 4 left").empty());
    CHECK(test.card.aim->side == -4);
}

TEST_CASE("names of clubs are parted as the sentence itself parts them, and a name on the rack is that club") {
    record::Test test = threeShafts();
    test.card.comparison = record::Comparison::whichOfThese;
    CHECK(say(test, Part::clubs, "Oak 1 or Elm 2, Ash 3 and Yew 4").empty());
    REQUIRE(test.builds.size() == 7);
    CHECK(test.builds[3].name == "Oak 1");
    CHECK(test.builds[6].name == "Yew 4");
    for (const char* typed : {"Alder 62", "alder 62", "Alder"}) {
        record::Test which = threeShafts();
        which.card.comparison = record::Comparison::whichOfThese;
        CHECK(say(which, Part::against, typed).empty());
        CHECK(which.builds.size() == 3);
        CHECK(record::faultsOf(which).empty());
        CHECK(which.builds[which.baselineIndex()].name == "Alder 62");
        CHECK(which.card.comparison == record::Comparison::againstBaseline);
    }
}

TEST_CASE("a fourth outcome is refused whatever it says, and none of the three is touched") {
    record::Test test = threeShafts();
    test.card.primary.push_back({.metric = Metric::apex, .shape = {}});
    const record::Card before = test.card;
    for (const char* typed : {"and launch near 14", "and carry near 150", "and more smash", "and launch"}) {
        INFO(typed);
        CHECK_FALSE(say(test, Part::another, typed).empty());
        CHECK(test.card == before);
    }
    CHECK(say(test, Part::another, "and launch near 14") ==
          "Three outcomes are the most that one test can be judged by.");
}

TEST_CASE("choosing a declared outcome at another place swaps the two, and equal delivery keeps the causes chosen") {
    record::Test test = threeShafts();
    const auto before = test.card.primary;
    REQUIRE(before.size() == 2);
    CHECK(say(test, Part::outcome, "less left–right spread", 0).empty());
    REQUIRE(test.card.primary.size() == 2);
    CHECK(test.card.primary[0] == before[1]);
    CHECK(test.card.primary[1] == before[0]);

    test.card.covariates = {Metric::strikeHigh};
    const record::Outcome equal{.kind = OutcomeKind::equal, .metric = Metric::ballSpeed, .shape = {}};
    ask::setOutcome(test.card, 0, equal, {});
    CHECK(test.card.covariates == std::vector{Metric::strikeHigh});
    test.card.covariates.clear();
    ask::setOutcome(test.card, 0, equal, {});
    CHECK_FALSE(test.card.covariates.empty());
}

TEST_CASE("a shape that is moved takes what is declared of it along, and never becomes another's twin") {
    record::Card card;
    card.shapes = {*record::shapeFromText("strip 20", {}), *record::shapeFromText("strip 30", {})};
    const record::Outcome share{.kind = OutcomeKind::share, .shape = "strip 30"};
    card.primary = {share};
    card.wants[share] = {record::Want::Kind::more, 0};
    CHECK(ask::moveShape(card, 1, *record::shapeFromText("strip 20", {}), {}) == "There is a strip 20 already.");
    CHECK(card.shapes[1].name == "strip 30");
    CHECK(ask::moveShape(card, 1, *record::shapeFromText("strip 26", {}), {}).empty());
    CHECK(card.shapes[1].width == 26);
    CHECK(card.primary.front().shape == "strip 26");
    CHECK(card.wants.begin()->first.shape == "strip 26");
    CHECK(card.wants.size() == 1);
}
