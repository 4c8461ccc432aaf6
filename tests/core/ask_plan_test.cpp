// How a test is struck, as a sentence whose chips are typed into.
#include "core/ask/plan_sentence.h"
#include "core/plan/planner.h"
#include "core/plan/schedule.h"

#include <catch2/catch.hpp>

using namespace knot;
using ask::Chip;
using ask::Part;

namespace {

record::Test three() {
    record::Test test;
    test.builds = {{.name = "Alder 62"}, {.name = "Larch 71"}, {.name = "Reed 53"}};
    test.players = {{.name = "Marit"}};
    test.card.kind = record::TestKind::shaft;
    test.plan = {.rounds = 5, .turnLength = 2, .changeSeconds = 40};
    return test;
}

// What typing makes of the test, or why not.
std::string typed(record::Test& test, const Chip& chip, const std::string& text,
                  record::DecimalMark mark = record::DecimalMark::open) {
    const auto edit = ask::taken(chip, text, test, {.units = {}, .players = {}, .mark = mark});
    if (!edit)
        return edit.error();
    record::Declared declared = test;
    (*edit)(declared);
    static_cast<record::Declared&>(test) = declared;
    return "";
}

} // namespace

TEST_CASE("the plan reads as a sentence, and what does not belong to its order is not in it") {
    record::Test test = three();
    const std::string text = ask::textOf(ask::planSentenceOf(test));
    CHECK(text.find("three shafts are hit in rotated laps: 5 laps of 2 shots, after 8 to warm up. A change takes 40 s "
                    "(an adapter), a shot 30 s; after 25 swings a rest of 3 min.") != std::string::npos);
    CHECK(text.find("Everybody knows the clubs; comparisons are for nobody") != std::string::npos);
    CHECK(text.find("hands over") == std::string::npos);
    test.card.blinding = record::Blinding::playerBlind;
    CHECK(ask::textOf(ask::planSentenceOf(test)).find("Marit is blind, a helper hands over, the tags say") !=
          std::string::npos);
    test.plan.schedule = record::Schedule::oneRunEach;
    CHECK(ask::textOf(ask::planSentenceOf(test)).find("one run each: 2 shots") != std::string::npos);
    test.plan.schedule = record::Schedule::shotByShot;
    CHECK(ask::textOf(ask::planSentenceOf(test)).find("5 laps of one shot, after") != std::string::npos);
    test.plan.restEvery = 0;
    CHECK(ask::textOf(ask::planSentenceOf(test)).find("a shot 30 s; no rest.") != std::string::npos);
}

TEST_CASE("what is typed into the plan's chips is taken with its unit and the words beside it, or answered") {
    using record::DecimalMark;
    struct Row {
        Part part;
        const char* text;
        double expected;
        DecimalMark mark = DecimalMark::open;
    };
    auto valueOf = [](const record::Plan& plan, Part part) -> double {
        switch (part) {
        case Part::laps:
            return plan.rounds;
        case Part::stint:
            return plan.turnLength;
        case Part::warmUp:
            return plan.warmUp;
        case Part::restEvery:
            return plan.restEvery;
        case Part::change:
            return plan.changeSeconds;
        case Part::shot:
            return plan.shotSeconds;
        default:
            return plan.restSeconds;
        }
    };
    for (const Row& row :
         {Row{Part::laps, "8", 8}, Row{Part::laps, "8 laps", 8}, Row{Part::stint, "3 shots", 3},
          Row{Part::warmUp, "10 to warm up", 10}, Row{Part::warmUp, "none", 0}, Row{Part::warmUp, "no warm-up", 0},
          Row{Part::restEvery, "never", 0}, Row{Part::restEvery, "30 swings", 30}, Row{Part::change, "40", 40},
          Row{Part::change, "1.5 min", 90}, Row{Part::change, "2,5", 2.5, DecimalMark::comma},
          Row{Part::change, "adapter", 40}, Row{Part::change, "bag", 10}, Row{Part::change, "3 minutes", 180},
          Row{Part::shot, "25 s", 25}, Row{Part::rest, "4", 240}, Row{Part::rest, "240 s", 240},
          Row{Part::rest, "2,5 min", 150, DecimalMark::comma}}) {
        INFO(row.text);
        record::Test test = three();
        CHECK(typed(test, {row.part}, row.text, row.mark) == "");
        CHECK(valueOf(test.plan, row.part) == Approx(row.expected));
    }
    struct Refused {
        Part part;
        const char* text;
        const char* why;
    };
    for (const Refused& row :
         {Refused{Part::laps, "0", "From 1 to 60."}, Refused{Part::laps, "61 laps", "From 1 to 60."},
          Refused{Part::stint, "2.5", "Only whole numbers here."}, Refused{Part::laps, "", "A number is needed here."},
          Refused{Part::laps, "some", "“some” is not a number."},
          Refused{Part::laps, "5 laps of 3", "One number belongs here."},
          Refused{Part::shot, "0", "From 1 to 600 seconds."}, Refused{Part::rest, "240", "From 0 to 60 minutes."},
          Refused{Part::minutes, "2", "Not one lap with every club fits into 2 minutes."},
          Refused{Part::slower, "Alder 120", "Two clubs and their seconds belong here: “Alder 62 / Larch 71 120”."}}) {
        INFO(row.text);
        record::Test test = three();
        const record::Plan before = test.plan;
        CHECK(typed(test, {row.part}, row.text) == row.why);
        CHECK(test.plan == before);
    }
}

TEST_CASE("minutes ask for as many laps as fit into them, and the sentence then says what they take") {
    record::Test test = three();
    for (const int minutes : {20, 30, 45, 90}) {
        CHECK(typed(test, {Part::minutes}, std::to_string(minutes) + " minutes") == "");
        const plan::Question question{.builds = 3};
        const auto takes = [&](int laps) { return plan::minutesFor(question, plan::paceOf(test.plan), laps, 2); };
        CHECK(takes(test.plan.rounds) <= minutes + 0.5);
        CHECK(takes(test.plan.rounds + 1) > minutes + 0.5);
    }
    const int alone = test.plan.rounds;
    test.players.push_back({.name = "Odd"}); // who has laps of his own
    CHECK(typed(test, {Part::minutes}, "90") == "");
    CHECK(test.plan.rounds <= alone / 2);
    test.players.pop_back();
    test.plan.schedule = record::Schedule::oneRunEach;
    CHECK(typed(test, {Part::minutes}, "30") == "");
    CHECK(test.plan.turnLength > 5); // of one run each as many shots as fit
}

TEST_CASE("a change that takes longer names its clubs, is put right, and goes when its chip is emptied") {
    record::Test test = three();
    CHECK(typed(test, {Part::slower, 0}, "Reed 53 / Alder 62 120 s") == "");
    CHECK(test.plan.changeTimes == std::vector<record::ChangeTime>{{record::BuildAt(0), record::BuildAt(2), 120}});
    CHECK(ask::textOf(ask::planSentenceOf(test)).find(", but Alder 62 / Reed 53 120 s, a shot") != std::string::npos);
    CHECK(typed(test, {Part::slower, 1}, "larch reed 90") == "");
    CHECK(typed(test, {Part::slower, 0}, "alder reed 2 min") == "");
    CHECK(test.plan.changeTimes.size() == 2);
    CHECK(test.plan.changeTimes.back().seconds == 120);
    CHECK(typed(test, {Part::slower, 0}, "") == "");
    CHECK(test.plan.changeTimes.size() == 1);
}

TEST_CASE("who knows, who hands over and who sees what are chosen by letters; what shows itself is not hidden") {
    record::Test test = three();
    CHECK(typed(test, {Part::grade}, "marit is") == "");
    CHECK(test.card.blinding == record::Blinding::playerBlind);
    CHECK(typed(test, {Part::grade}, "fitter") == "");
    CHECK(test.card.blinding == record::Blinding::bothBlind);
    CHECK(typed(test, {Part::handsOver}, "alone") == "");
    CHECK(test.card.alone);
    CHECK(typed(test, {Part::seesComparisons}, "fit") == "");
    CHECK(test.card.visibility.comparisons == record::Sees::fitter);
    CHECK(test.card.visibility.shots == record::Sees::everyone);
    CHECK(typed(test, {Part::looks}, "any") == "");
    CHECK(test.card.looks == record::Looks::eachRound);
    CHECK(typed(test, {Part::tags}, "Red, Blue") == "");
    CHECK(test.plan.tagWords == std::vector<std::string>{"Red", "Blue"});
    CHECK(typed(test, {Part::order}, "strike") == "");
    CHECK(test.plan.schedule == record::Schedule::strikingOff);
    CHECK(typed(test, {Part::order}, "backwards").starts_with("“backwards” is not among"));
    test.card.kind = record::TestKind::head;
    test.card.blinding = record::Blinding::open;
    CHECK_FALSE(typed(test, {Part::grade}, "player is blind").empty()); // a head is seen
    CHECK(test.card.blinding == record::Blinding::open);
    for (const auto& piece : ask::planSentenceOf(test))
        if (piece.chip)
            CHECK_FALSE(ask::nameOf(*piece.chip).empty());
}
