// Sittings as they come: hit first, named on the way, gone back to a favourite, with two players and two deliveries.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/now_view.h"
#include "app/decision_page/club_card.h"
#include "app/hands.h"
#include "app/reading_page/one_run_view.h"
#include "app/stand_in.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/record/roster.h"
#include "core/words/message.h"
#include "core/words/tried.h"
#include "core/words/while_hitting.h"

#include <QLabel>
#include <QPushButton>
#include <QSettings>
#include <QTextDocument>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::StandIn;
using record::Metric;

namespace {

app::NowPicture now(Bench& bench) {
    return bench.find<app::NowView>("now")->picture();
}

// A shot as a monitor gives it.
void strike(Bench& bench, double carry, double launch, double spin, double ballSpeed = 51, double clubSpeed = 37.5) {
    record::Readings readings;
    readings.measure(Metric::carry, carry);
    readings.measure(Metric::launch, launch);
    readings.measure(Metric::spin, spin);
    readings.measure(Metric::ballSpeed, ballSpeed);
    readings.measure(Metric::clubSpeed, clubSpeed);
    readings.measure(Metric::descent, 45 + launch - 17);
    REQUIRE(bench.session.bay().arrive({bay::Arrival{.readings = readings}}));
}

// With what one player's hand adds.
void strikes(Bench& bench, int count, double carry, double launch, double spin) {
    for (int i = 0; i < count; ++i)
        strike(bench, carry + (i * 7) % 5 - 2, launch + 0.4 * ((i * 3) % 4 - 1.5), spin + 90 * ((i * 5) % 4 - 1.5));
}

QString shown(const QLabel* label) {
    QTextDocument text;
    text.setHtml(label->text());
    return text.toPlainText();
}

} // namespace

TEST_CASE("a fitting with a customer: named on the way, own club, four candidates, a tip, a favourite, to its page") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    const auto& test = bench.session.test();
    CHECK(now(bench).below.startsWith("Clear room all round and above"));
    keys.press(Qt::Key_T);
    keys.letters("Own 7");
    keys.press(Qt::Key_Return);
    CHECK(test.builds.size() == 1); // the first club named is the first club
    strikes(bench, 2, 120, 17, 6000);
    keys.press(Qt::Key_O);
    keys.letters("Kaia");
    keys.press(Qt::Key_Return);
    CHECK(test.players.size() == 1);
    keys.press(Qt::Key_Return); // warm
    strikes(bench, 5, 150, 17, 6500);
    REQUIRE(test.shots.size() == 7);
    CHECK(std::ranges::count(test.shots, record::ShotStatus::counted, &record::Shot::status) == 5);
    CHECK(test.playerNames() == "Kaia");

    keys.press(Qt::Key_T);
    keys.letters("Bo");
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_E);
    keys.letters("lower, more spin");
    keys.press(Qt::Key_Return);
    CHECK(now(bench).caption.contains("expected: lower, more spin"));
    strikes(bench, 4, 146, 15, 6400);
    keys.press(Qt::Key_T);
    keys.letters("Li");
    keys.press(Qt::Key_Return);
    // At its end: what was expected of Bo.
    INFO(bench.message().toStdString());
    CHECK(bench.message().startsWith("Bo: expected lower, more spin: 1.9° less launch, as said, "));
    CHECK(bench.message().contains("less spin, not as said, as seen"));
    strikes(bench, 4, 158, 18, 6300);
    keys.press(Qt::Key_F);
    keys.press(Qt::Key_8);
    keys.press(Qt::Key_F);
    keys.press(Qt::Key_T);
    keys.letters("Mu");
    keys.press(Qt::Key_Return);
    strikes(bench, 3, 148, 17, 6600);
    keys.press(Qt::Key_Minus); // worse than the one before
    keys.press(Qt::Key_P);
    keys.letters("slow");
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_3); // back to Li
    strikes(bench, 3, 157, 18, 6350);
    bench.session.declaring().strikeOff(record::BuildAt(1), "too low");
    keys.press(Qt::Key_P, Qt::ControlModifier);
    CHECK(keys.keys() <= 60);
    REQUIRE(bench.waitForReading());

    const auto reading = bench.session.judging().reading();
    REQUIRE(reading);
    CHECK(reading->builds[reading->baseline].name == "Own 7");
    const auto tried = words::tried(test, {});
    REQUIRE(tried.size() == 4);
    CHECK(tried[0].name == "Own 7");
    CHECK(tried[1].left == "too low");
    CHECK(tried[2].seen ==
          std::vector<std::string>{"7 shots: carry 157.4 m (155.0 to 160.0), launch 18.0° (17.4 to 18.6), "
                                   "spin 6302 rpm (6165 to 6435), descent 46.0° (45.4 to 46.6)"});
    CHECK(tried[2].said.find("liveliness 8") != std::string::npos);
    const std::string text = words::message(test, *reading, {});
    CHECK(text.find("Tried, in this order:\n- Own 7, 5 shots: ") != std::string::npos);
    CHECK(text.find("Left: too low.") != std::string::npos);
    CHECK(text.find("laps lack") == std::string::npos);
    CHECK(words::tradeOff(test, *reading, record::BuildAt(2), {}).find("farther than Own 7") != std::string::npos);
    CHECK(words::tradeOff(test, *reading, record::BuildAt(2), {}).ends_with("liked best"));

    // The reading: bets against the own club, and the very test that the button makes.
    keys.press(Qt::Key_6, Qt::AltModifier);
    CHECK(reading->kind.kind == "7-iron");
    auto* view = bench.find<app::OneRunView>("oneRun");
    REQUIRE(eventually([&] { return view->isVisible(); }));
    const QString promise = shown(bench.find<QLabel>("oneRunTest"));
    CHECK(promise.contains("one question: Own 7 and Li, "));
    CHECK(promise.contains("stop where anything hurts"));
    bench.find<QPushButton>("oneRunFairTest")->click();
    CHECK(promise.contains(QString("%1 laps of %2").arg(test.plan.rounds).arg(test.plan.turnLength)));
    CHECK(test.builds[test.baselineIndex()].name == "Own 7");
    CHECK(test.builds[1].name == "Li");
}

TEST_CASE("a club that was never hit is no baseline, no lead and no choice") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    const auto& test = bench.session.test();
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_T);
    keys.letters("Alder");
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_T);
    keys.letters("Reed");
    keys.press(Qt::Key_Return);
    REQUIRE(test.builds.size() == 2);
    strikes(bench, 3, 150, 17, 6500);
    CHECK(test.builds[test.baselineIndex()].name == "Reed");
    SECTION("nor a card on the decision") {
        keys.press(Qt::Key_T);
        keys.letters("Yew");
        keys.press(Qt::Key_Return);
        strikes(bench, 3, 155, 17, 6500);
        keys.press(Qt::Key_7, Qt::AltModifier);
        REQUIRE(bench.waitForReading());
        const auto cards = bench.window->findChildren<app::ClubCard*>();
        REQUIRE(std::ranges::count_if(cards, [](const auto* card) { return card->isVisible(); }) == 2);
        for (const auto* card : cards)
            CHECK(card->picture().name != "Alder");
        keys.press(Qt::Key_C); // change: to the other one that was hit
        CHECK(test.nameOf(test.decision.club) == "Yew");
        keys.say("decidedClub", "Reed");
        CHECK(test.nameOf(test.decision.club) == "Reed");
    }
    SECTION("the club that is called own is the baseline") {
        keys.press(Qt::Key_T);
        keys.letters("my 7");
        keys.press(Qt::Key_Return);
        CHECK(test.builds[test.baselineIndex()].name == "my 7");
    }
    SECTION("and B says it of another") {
        keys.press(Qt::Key_T);
        keys.letters("Yew");
        keys.press(Qt::Key_Return);
        keys.press(Qt::Key_B);
        CHECK(test.builds[test.baselineIndex()].name == "Yew");
        keys.press(Qt::Key_U);
        CHECK(test.builds[test.baselineIndex()].name == "Reed");
    }
}

TEST_CASE("two heads by two players and two deliveries: each number for the club in hand, by who hits and how") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    const auto& test = bench.session.test();
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_O);
    keys.letters("Kaia");
    keys.press(Qt::Key_Return);
    strikes(bench, 4, 150, 17, 6500);
    keys.press(Qt::Key_D);
    keys.letters("low");
    keys.press(Qt::Key_Return);
    strikes(bench, 4, 140, 12, 6900);
    keys.press(Qt::Key_T);
    keys.letters("Head B");
    keys.press(Qt::Key_Return);
    strikes(bench, 4, 146, 12, 6800);
    const auto low = words::numbersSoFar(judge::Case::of(test), record::BuildAt(1), std::vector{Metric::carry});
    REQUIRE(low.size() == 1);
    CHECK(low[0].shots == 4);
    CHECK(*low[0].onOwn == Approx(6)); // against the own club as it was asked for, not against all of its shots
    CHECK(eventually([&] { return now(bench).soFar.size() == 4 && now(bench).soFar[0].contains("+6.0 on Club 1"); }));
    keys.press(Qt::Key_J);
    keys.letters("Odd");
    keys.press(Qt::Key_Return);
    CHECK(test.players.size() == 2);
    keys.press(Qt::Key_Return);
    strikes(bench, 3, 170, 12, 6800);
    CHECK(test.shots.back().player == "Odd");
    CHECK(test.shots.front().player == "Kaia");
    const auto odd = words::numbersSoFar(judge::Case::of(test), record::BuildAt(1), std::vector{Metric::carry});
    REQUIRE(odd.size() == 1);
    CHECK(odd[0].shots == 3);
    CHECK_FALSE(odd[0].onOwn); // who has not hit it yet
}

TEST_CASE("who hits is asked in the line that is there, with the first club and not again") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    CHECK_FALSE(now(bench).below.contains("who hits?"));
    strikes(bench, 2, 150, 17, 6500);
    CHECK(eventually([&] { return now(bench).below.endsWith("last shot: kept · who hits? O"); }, 8000));
    keys.press(Qt::Key_T);
    keys.letters("Yew");
    keys.press(Qt::Key_Return);
    strikes(bench, 1, 150, 17, 6500);
    CHECK(eventually([&] { return now(bench).below.endsWith("last shot: kept"); }, 8000));
    // Who is named at once is not asked for.
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_O);
    keys.letters("Kaia");
    keys.press(Qt::Key_Return);
    strikes(bench, 1, 150, 17, 6500);
    CHECK(eventually([&] { return now(bench).below.endsWith("last shot: kept"); }, 8000));
}

TEST_CASE("the numbers in the bay are chosen once for a kind, in golfers' words") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    strikes(bench, 4, 150, 17, 6500);
    auto labels = [&] {
        QStringList all;
        for (const QString& one : now(bench).last)
            all << one.section('\n', 1);
        return all;
    };
    REQUIRE(eventually([&] { return !now(bench).last.isEmpty(); }, 5000));
    CHECK(labels() == QStringList{"carry", "launch", "spin", "descent"});
    keys.press(Qt::Key_N, Qt::ShiftModifier);
    keys.press(Qt::Key_A, Qt::ControlModifier);
    keys.letters("distance, landing angle");
    keys.press(Qt::Key_Return);
    CHECK(eventually([&] { return labels() == QStringList{"carry", "descent"}; }));
    // Another sitting of the same kind has them too.
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    strikes(bench, 2, 151, 17, 6450);
    CHECK(eventually([&] { return labels() == QStringList{"carry", "descent"}; }));
}

TEST_CASE("one shot is explained beside the others with its club, and a stranger at the club is noticed") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    const auto& test = bench.session.test();
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_O);
    keys.letters("Kaia");
    keys.press(Qt::Key_Return);
    strikes(bench, 5, 150, 17, 6500);
    strike(bench, 138, 20, 7400, 47, 36);
    keys.press(Qt::Key_I);
    CHECK(
        bench.message().startsWith("Shot 6, Club 1: Delivered with 1.5 m/s less club speed than usual; it flew with "));
    CHECK(bench.message().contains("Carry 138.0 m, 12.0 m less than its usual 150.0 m"));
    CHECK(bench.message().endsWith("As seen beside 5 other shots; why is a guess."));
    strike(bench, 190, 15, 6500, 62, 46);
    CHECK_FALSE(bench.message().contains("somebody else"));
    strike(bench, 192, 15, 6500, 62, 46.5);
    CHECK(bench.message().contains("faster than Kaia's others with Club 1: somebody else?"));
    strike(bench, 192, 15, 6500, 62, 46.5); // said once
    CHECK(words::somebodyElse(test, {}).empty());
}

TEST_CASE("what hurts stops the club first, is kept with club and player, and is asked about next time") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_O);
    keys.letters("Kaia");
    keys.press(Qt::Key_Return);
    strikes(bench, 2, 150, 17, 6500);
    keys.press(Qt::Key_T);
    keys.letters("Stiff");
    keys.press(Qt::Key_Return);
    strikes(bench, 2, 150, 17, 6500);
    keys.press(Qt::Key_X);
    keys.letters("pain in the wrist");
    keys.press(Qt::Key_Return);
    keys.press(Qt::Key_1);
    const auto& test = bench.session.test();
    CHECK(test.events.back().text == "pain in the wrist with Stiff");
    CHECK(record::Roster(test).isIn(record::BuildAt(0)));
    CHECK_FALSE(record::Roster(test).isIn(record::BuildAt(1)));
    CHECK(record::Roster(test).whyOut(record::BuildAt(1)) == "pain in the wrist");
    CHECK(bench.message().contains("physiotherapist"));
    REQUIRE(bench.session.book().players().size() == 1);
    CHECK(bench.session.book().players()[0].player.health.starts_with("pain in the wrist with Stiff ("));
    // Next time.
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_O);
    keys.letters("Kaia");
    keys.press(Qt::Key_Return);
    CHECK(now(bench).below.contains("To look after: pain in the wrist with Stiff"));
    CHECK(now(bench).below.contains("How is it today?"));
}

TEST_CASE("swing and strike are called apart, and the words stay with the shot") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    const auto& test = bench.session.test();
    keys.press(Qt::Key_Q);
    keys.press(Qt::Key_4);
    strike(bench, 138, 20, 7400);
    CHECK(test.shots[0].call == record::Call::bad);
    CHECK(test.shots[0].note == "good swing, bad strike");
    strike(bench, 150, 17, 6500);
    CHECK(test.shots[1].note.empty());
    keys.press(Qt::Key_Q); // of the one whose number is still hidden
    keys.press(Qt::Key_5);
    CHECK(test.shots[1].call == record::Call::good);
    CHECK(test.shots[1].note == "bad swing, good strike");
}

TEST_CASE("a figure is a club, more of them a shot, with a monitor and without one") {
    Bench bench;
    Hands keys(bench);
    keys.press(Qt::Key_H, Qt::ControlModifier);
    keys.press(Qt::Key_Return);
    knot::test::hit(bench, 150);
    bench.session.bay().step("another club", [](record::Test& test) { bay::takeNewInHand(test, "Reed"); });
    auto* page = bench.find<app::BayPage>("bayPage");
    QSettings().setValue("link/known", QStringList{"Simulated monitor"});
    REQUIRE(page->server().listen({.port = 0}));
    std::optional<StandIn> monitor;
    SECTION("none") {}
    SECTION("one") {
        monitor.emplace(bench, page->server().port(), QStringList());
        REQUIRE(eventually([&] { return !page->server().devices().isEmpty(); }));
    }
    const auto& test = bench.session.test();
    keys.press(Qt::Key_1);
    CHECK(now(bench).name == "Club 1");
    QTest::qWait(800); // two clubs one after another are no number
    // Three figures: the club is as it was, and they are a shot's.
    keys.press(Qt::Key_2);
    CHECK(now(bench).name == "Reed");
    QTest::qWait(800);
    keys.type("163");
    CHECK(now(bench).name == "Reed");
    keys.press(Qt::Key_Return);
    REQUIRE(test.shots.size() == 2);
    CHECK(test.shots[1].build == 1);
    CHECK(test.shots[1].readings.at(record::Metric::carry) == 163.0);
    keys.press(Qt::Key_Escape);
    // A decimal mark says it with fewer.
    keys.type("9.5");
    keys.press(Qt::Key_Return);
    REQUIRE(test.shots.size() == 3);
    CHECK(test.shots[2].readings.at(record::Metric::carry) == 9.5);
    keys.press(Qt::Key_Escape);
    // One or two figures and Enter are a club's number, or nothing.
    keys.type("95");
    keys.press(Qt::Key_Return);
    CHECK(test.shots.size() == 3);
    CHECK(bench.message().startsWith("A shot has three figures"));
    keys.press(Qt::Key_Escape);
    keys.press(Qt::Key_H);
    keys.type("95");
    keys.press(Qt::Key_Return);
    REQUIRE(test.shots.size() == 4);
    CHECK(test.shots[3].readings.at(record::Metric::carry) == 95.0);
}
