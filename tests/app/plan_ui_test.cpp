// The plan by keyboard: how long a change takes, the ways to spend the minutes there are, and taking one of them.
#include "app/hands.h"
#include "app/plan_page/ways_view.h"
#include "core/plan/strike_off.h"

#include <QLabel>
#include <QLineEdit>
#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;

namespace {

// The demo's planned shaft test, on its Plan page.
void openPlanned(Bench& bench, Hands& hands) {
    bench.openDemo();
    for (const auto& entry : bench.session.book().tests())
        if (entry.title == "Does the lighter shaft cost me my line?")
            REQUIRE(bench.session.openTest(entry.id));
    hands.press(Qt::Key_4, Qt::AltModifier);
}

} // namespace

TEST_CASE("how long a change takes is said in words, and what earlier tests took is offered") {
    Bench bench;
    Hands hands(bench);
    openPlanned(bench, hands);
    const auto& plan = bench.session.test().plan;
    auto* change = bench.find<QLineEdit>("changeSeconds");
    CHECK(change->text() == "90 s");
    const double minutes = plan::minutesOf(plan, bench.session.test().turns);
    hands.say("changeSeconds", "bag");
    CHECK(plan.changeSeconds == 10);
    CHECK(plan::minutesOf(plan, bench.session.test().turns) < minutes);
    CHECK(change->text() == "10 s (both in the bag)");
    REQUIRE(eventually([&] { return bench.session.earlier().learnt().pace.changeSeconds.has_value(); }));
    hands.say("changeSeconds", "earlier"); // the half-struck one has times
    CHECK(plan.changeSeconds == Approx(*bench.session.earlier().learnt().pace.changeSeconds).margin(0.5));
    bench.trigger("actionUndo");
    bench.trigger("actionUndo");
    CHECK(plan.changeSeconds == 90);
}

TEST_CASE("minutes and a way are picked on the curves by keys, and Enter takes the way into the plan") {
    Bench bench;
    Hands hands(bench);
    openPlanned(bench, hands);
    auto* ways = bench.find<app::WaysView>("ways");
    auto* said = bench.find<QLabel>("wayText");
    REQUIRE(ways->isVisible());
    CHECK(said->text().startsWith("best stints, "));
    hands.tabTo("ways");
    hands.press(Qt::Key_Right);
    hands.press(Qt::Key_Right);
    CHECK(said->text().contains("in 8")); // eighty-five minutes' worth of laps take a little less
    const record::Plan before = bench.session.test().plan;
    hands.press(Qt::Key_Return);
    const record::Plan& plan = bench.session.test().plan;
    CHECK(plan.rounds * plan::shotsATurn(plan) != before.rounds * before.turnLength);
    CHECK(plan::minutesOf(plan, bench.session.test().turns) <= 85.5);
    CHECK(said->text().contains(QString::number(plan.rounds) + " laps of " + QString::number(plan::shotsATurn(plan))));
    bench.trigger("actionUndo");
    CHECK(bench.session.test().plan.rounds == before.rounds);

    ways->setFocus();
    hands.press(Qt::Key_Down);
    CHECK(said->text().startsWith("at equal delivery, "));
    CHECK(ways->accessibleDescription() == ways->said());
    hands.press(Qt::Key_Return);
    const auto& card = bench.session.test().card;
    CHECK(card.primary.front().kind == record::OutcomeKind::equal);
    CHECK(card.primary.front().metric == record::Metric::carry);
    CHECK_FALSE(card.covariates.empty());
    CHECK(card.want(card.primary.front()).kind == record::Want::Kind::more);

    emit bench.find<QLabel>("curvesBy")->linkActivated("gap");
    CHECK_FALSE(ways->isVisible());
    CHECK(bench.find<QWidget>("power")->isVisible());
    emit bench.find<QLabel>("curvesBy")->linkActivated("proof");
    CHECK(ways->isVisible());
}

TEST_CASE("a look after each lap is taken with its way, and after the first ball nothing is taken any more") {
    Bench bench;
    Hands hands(bench);
    openPlanned(bench, hands);
    auto* ways = bench.find<app::WaysView>("ways");
    emit bench.find<QLabel>("curvesBy")->linkActivated("proof");
    ways->setFocus();
    for (int i = 0; i < 9; ++i)
        hands.press(Qt::Key_Down);
    CHECK(bench.find<QLabel>("wayText")->text().startsWith("three shots each"));
    hands.press(Qt::Key_Up);
    CHECK(bench.find<QLabel>("wayText")->text().startsWith("with a look each lap"));
    hands.press(Qt::Key_Return);
    CHECK(bench.session.test().card.looks == record::Looks::eachRound);
    hands.press(Qt::Key_5, Qt::AltModifier);
    for (int i = 0; i < 12; ++i) {
        if (bench.session.bay().stand().phase() == bay::Phase::handOver)
            hands.press(Qt::Key_Return);
        test::hit(bench, 150);
    }
    hands.press(Qt::Key_4, Qt::AltModifier);
    const record::Plan before = bench.session.test().plan;
    ways->setFocus();
    hands.press(Qt::Key_Up);
    hands.press(Qt::Key_Return);
    CHECK(bench.session.test().plan == before);
}

TEST_CASE("a way that is taken asks nothing that another one asked before") {
    Bench bench;
    Hands hands(bench);
    openPlanned(bench, hands);
    auto* ways = bench.find<app::WaysView>("ways");
    auto* said = bench.find<QLabel>("wayText");
    emit bench.find<QLabel>("curvesBy")->linkActivated("proof");
    const auto take = [&](const QString& way) {
        ways->setFocus();
        for (int i = 0; i < 9; ++i)
            hands.press(Qt::Key_Up);
        for (int i = 0; i < 9 && !said->text().startsWith(way); ++i)
            hands.press(Qt::Key_Down);
        REQUIRE(said->text().startsWith(way));
        hands.press(Qt::Key_Return);
    };
    const record::Card& card = bench.session.test().card;
    take("with a look each lap");
    CHECK(card.looks == record::Looks::eachRound);
    take("best stints");
    CHECK(card.looks == record::Looks::none);
    const record::Plan best = bench.session.test().plan;
    take("at equal delivery");
    CHECK(card.primary.front().kind == record::OutcomeKind::equal);
    take("the typical shot");
    CHECK(card.primary.front().kind == record::OutcomeKind::typical);
    take("best stints");
    CHECK(card.primary.front().kind == record::OutcomeKind::average);
    CHECK(bench.session.test().plan == best);
    take("two sittings of that");
    CHECK(bench.session.test().plan.rounds == 2 * best.rounds);
}

TEST_CASE("laps that are too few to strike off say so, and propose what works") {
    Bench bench;
    Hands hands(bench);
    openPlanned(bench, hands);
    hands.press(Qt::Key_3, Qt::AltModifier);
    test::addClubs(hands, {"Fell", "Beck", "Mere"});
    const auto clubs = bench.session.test().builds.size();
    REQUIRE(clubs >= 5);
    hands.press(Qt::Key_4, Qt::AltModifier);
    hands.say("schedule", "strike");
    hands.say("rounds", "5");
    auto* limits = bench.find<QLabel>("cautions");
    CHECK(limits->text().contains("5 laps leave 3 clubs, and all pairs of them are judged."));
    const int comesToTwo = plan::fewestLaps(clubs);
    emit limits->linkActivated(QString::number(comesToTwo));
    CHECK(bench.session.test().plan.rounds == comesToTwo);
    CHECK_FALSE(limits->text().contains("leave 3 clubs"));
    CHECK(limits->text().contains("The claim is about them"));
}

TEST_CASE("four heads in forty minutes: half are struck off after the third lap, and the last two get their verdict") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.say("tested", "he");
    hands.say("outcome1", "carry");
    hands.say("outcome2", "");
    hands.say("gap1", "2");
    hands.say("player", "Runa Veld");
    hands.press(Qt::Key_3, Qt::AltModifier);
    test::addClubs(hands, {"Tarn", "Mere", "Fell", "Beck"});
    hands.press(Qt::Key_4, Qt::AltModifier);
    hands.say("schedule", "strike");
    hands.say("rounds", "7");
    hands.say("turnLength", "2");
    hands.say("warmUp", "0");
    hands.say("changeSeconds", "40");
    const auto& test = bench.session.test();
    CHECK(test.turns.size() == 12); // three laps of four; the rest hangs on who stays
    CHECK(bench.find<QLabel>("totals")->text().startsWith("40 swings")); // and four of two
    CHECK(bench.find<QLabel>("cautions")->text().contains("The claim is about them"));
    REQUIRE(bench.find<app::WaysView>("ways")->isVisible());

    hands.press(Qt::Key_5, Qt::AltModifier);
    const auto strikePlanned = [&] {
        for (int i = 0; i < 200 && bench.session.bay().stand().phase() != bay::Phase::done; ++i) {
            if (bench.session.bay().stand().phase() == bay::Phase::handOver)
                hands.press(Qt::Key_Return);
            const auto* stint = bench.session.bay().stand().stint();
            test::hit(bench, 150 + 3.0 * static_cast<double>(stint->build) + 0.4 * std::sin(1.7 * i));
        }
    };
    strikePlanned();
    CHECK(test.shots.size() == 24);
    hands.press(Qt::Key_Return);
    auto* line = qobject_cast<QLineEdit*>(bench.window->focusWidget());
    REQUIRE(line != nullptr);
    CHECK(line->objectName() == "askLine");
    CHECK(line->text() == "Beck, Fell");
    hands.press(Qt::Key_Escape); // thought better of it
    CHECK(test.turns.size() == 12);
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_A, Qt::ControlModifier);
    hands.letters("tarn");
    hands.press(Qt::Key_Return);
    CHECK(test.turns.size() == 12); // two stay, not one
    CHECK(bench.message().contains("2 clubs stay"));
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_Return);
    CHECK(test.turns.size() == 20);
    CHECK(record::Roster(test).whyOut(record::BuildAt(0)) == "after lap 3");
    strikePlanned();
    CHECK(test.shots.size() == 40);
    hands.press(Qt::Key_Return); // nobody goes any more: the reading
    REQUIRE(bench.waitForReading());
    const auto* reading = bench.session.judging().reading();
    CHECK(reading->declared == 1);
    REQUIRE_FALSE(reading->average.empty());
    CHECK(reading->average.front().rounds == 7);
    CHECK(reading->average.front().claim.verdict == judge::Verdict::real);
    bool isSaid = false;
    for (const auto* label : bench.window->findChildren<QLabel*>())
        isSaid = isSaid || label->text().contains("Struck off as planned: Tarn after lap 3, Mere after lap 3");
    CHECK(isSaid);
}

TEST_CASE(
    "the plan says what it is worth in a sentence's minutes, and at a lap's end the bay says what is had so far") {
    Bench bench;
    Hands hands(bench);
    openPlanned(bench, hands);
    auto worth = [&] { return bench.find<QLabel>("worth")->text().section(u'>', 1).section(u'<', 0, 0).toInt(); };
    const int before = worth();
    CHECK(before > 50);
    hands.say("minutes", "30");
    const auto& test = bench.session.test();
    CHECK(plan::minutesOf(test.plan, test.turns) <= 30.5);
    CHECK(worth() < before);
    CHECK(bench.find<QWidget>("futures")->accessibleName().startsWith("A hundred futures: "));
    hands.say("seenIn", "spread");
    CHECK(worth() < before);
    CHECK(bench.find<QLabel>("others")->text().contains("carry: "));
    hands.say("level", "occasional");
    CHECK(bench.find<QLineEdit>("level")->text() == "an occasional player");
    // What can't be taken stays, with the reason.
    auto* laps = bench.find<QLineEdit>("rounds");
    const int rounds = test.plan.rounds;
    hands.say("rounds", "99");
    CHECK(bench.find<QLabel>("planSentenceFault")->text() == "From 1 to 60.");
    CHECK(laps->text() == "99");
    CHECK(test.plan.rounds == rounds);
    hands.press(Qt::Key_Escape);
    // In the bay the laps' number alone says it, whatever the shots.
    hands.press(Qt::Key_5, Qt::AltModifier);
    const auto subtitle = [&] { return bench.find<QLabel>("subtitle")->text(); };
    CHECK_FALSE(subtitle().contains("for the choice"));
    for (int i = 0;
         i < 200 && (bench.session.bay().stand().stint() == nullptr || bench.session.bay().stand().stint()->round == 1);
         ++i) {
        const auto phase = bench.session.bay().stand().phase();
        if (phase == bay::Phase::handOver || phase == bay::Phase::warmUp)
            hands.press(Qt::Key_Return);
        else
            test::hit(bench, 150 + i % 3);
    }
    CHECK(subtitle().contains("so far "));
    CHECK(subtitle().contains(" of 100 for the choice; one more lap, "));
}

TEST_CASE("a record that came without a plan shows how it was struck, and the test that its clubs would have") {
    Bench bench;
    Hands hands(bench);
    bench.openDemo();
    for (const auto& entry : bench.session.book().tests())
        if (QString::fromStdString(entry.title).contains("five-wood"))
            REQUIRE(bench.session.openTest(entry.id));
    REQUIRE(bench.session.test().turns.empty());
    hands.press(Qt::Key_4, Qt::AltModifier);
    CHECK(bench.find<QLabel>("subtitle")->text() == "Plan · struck as it came");
    CHECK(bench.find<QLabel>("totals")->text().startsWith("Planned, these clubs get "));
    CHECK_FALSE(bench.find<QWidget>("sealButton")->isVisible());
    CHECK(bench.find<QLabel>("worth")->text().contains("of 100"));
    CHECK(bench.find<QLabel>("ifBetter")->text().startsWith("of the planned test: "));
}
