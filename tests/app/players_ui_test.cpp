// Players kept once: chosen by name on the Sheet, known about on a page of their own, taking turns in the Bay.
#include "app/bay_page/now_view.h"
#include "app/hands.h"
#include "app/picture/picture_view.h"
#include "app/player_page/player_page.h"
#include "core/bay/correct.h"
#include "core/bay/strike.h"

#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QTableView>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::addClubs;
using knot::test::Bench;
using knot::test::Hands;
using knot::test::hit;

namespace {

// A test of two clubs, two laps of two shots, without warm-up, by two players.
const record::Test& twoPlayers(Bench& bench, Hands& hands) {
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.tabTo("player");
    QTest::keyClicks(bench.window->focusWidget(), "Marit Aasgaard");
    hands.press(Qt::Key_Tab);
    hands.say("clause", "for Odd Farstad");
    hands.press(Qt::Key_3, Qt::AltModifier);
    addClubs(hands, {"Fern", "Slate"});
    bench.session.declaring().change("laps", [](record::Declared& test) {
        test.plan.rounds = 2;
        test.plan.turnLength = 2;
        test.plan.warmUp = 0;
        test.card.visibility.shots = record::Sees::everyone;
    });
    return bench.session.test();
}

QString caption(Bench& bench) {
    return bench.find<app::NowView>("now")->picture().caption;
}

} // namespace

TEST_CASE("a player is found again by name, and is nobody new") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.fill("player", "Marit Aasgaard");
    const std::string id = bench.session.test().firstPlayer().id;
    REQUIRE(!id.empty());
    record::Player marit = bench.session.book().players().front().player;
    marit.shape = "low fade";
    REQUIRE(bench.session.book().savePlayer(marit));
    CHECK(bench.session.test().firstPlayer().shape == "low fade");
    CHECK(bench.find<QLabel>("aboutPlayer")->text().contains("low fade"));
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.fill("player", "marit aasgaard");
    CHECK(bench.session.test().firstPlayer() == marit);
    CHECK(bench.session.book().players().size() == 1);
    // Thought better of: nobody stays behind.
    hands.fill("player", "Run");
    hands.fill("player", "Runa Veld");
    CHECK(bench.session.book().players().size() == 2);
    bench.trigger("actionUndo");
    CHECK(bench.session.test().firstPlayer().name == "Run");
    bench.trigger("actionUndo");
    CHECK(bench.session.test().firstPlayer() == marit);
    hands.say("clause", "for Marit Aasgaard");
    CHECK(bench.find<QLabel>("sentenceFault")->text() == "Marit Aasgaard is in this test already.");
    CHECK(bench.session.test().players.size() == 1);
}

TEST_CASE("what is known of a player is typed once, kept at once and taken back") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
    auto* page = bench.find<app::PlayerPage>("playerPage");
    REQUIRE(page->isVisible()); // also where nobody is kept
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.fill("player", "Marit");
    hands.press(Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
    auto marit = [&] { return bench.session.book().players().front().player; };
    hands.fill("speed", "41.5");
    hands.fill("height", "168");
    hands.fill("miss", "high and left");
    hands.choose("hand", 1);
    hands.choose("costs", 1);
    hands.fill("usualClub1", "five-wood");
    hands.fill("usual1_carry_m", "160");
    hands.fill("usual1_spin_rpm", "3900");
    const auto known = marit();
    CHECK(known.clubSpeed == 41.5);
    CHECK(known.height == 1680.0);
    CHECK(known.miss == "high and left");
    CHECK(known.leftHanded);
    CHECK(known.costs == record::Side::left);
    REQUIRE(known.usual.size() == 1);
    CHECK(known.usual[0].carry == 160.0);
    CHECK(known.usual[0].spin == 3900.0);
    CHECK(bench.session.test().firstPlayer() == known);
    bench.trigger("actionUndo");
    CHECK(!marit().usual[0].spin);
    hands.fill("playerName", "Marit Aasgaard");
    CHECK(bench.session.test().firstPlayer().name == "Marit Aasgaard");
    CHECK(bench.find<QLabel>("title")->text() == "Marit Aasgaard");
    hands.fill("usualClub1", "");
    hands.press(Qt::Key_Delete);
    hands.press(Qt::Key_Tab);
    CHECK(marit().usual.empty());
    hands.press(Qt::Key_2, Qt::AltModifier);
    CHECK(bench.find<QLineEdit>("player")->text() == "Marit Aasgaard");
}

TEST_CASE("two that are one become one by hand") {
    Bench bench;
    Hands hands(bench);
    for (const char* name : {"M. Aasgaard", "Marit"}) {
        hands.press(Qt::Key_N, Qt::ControlModifier);
        hands.fill("player", name);
    }
    hands.press(Qt::Key_P, Qt::ControlModifier | Qt::ShiftModifier);
    auto* list = bench.find<QListWidget>("playerList");
    REQUIRE(list->count() == 2);
    list->setFocus();
    list->setCurrentRow(1); // Marit
    hands.choose("samePlayer", 1);
    auto* join = bench.find<QPushButton>("joinPlayers");
    REQUIRE(join->isVisible());
    // Choosing alone is no decision.
    CHECK(bench.session.book().players().size() == 2);
    QTest::keyClick(bench.find<QComboBox>("samePlayer"), Qt::Key_Return);
    emit bench.find<QComboBox>("samePlayer")->activated(1);
    join->click();
    REQUIRE(bench.session.book().players().size() == 1);
    CHECK(bench.session.book().players()[0].player.name == "Marit");
    CHECK(bench.session.book().players()[0].tests == 2);
    CHECK(bench.message().startsWith("They are one now: Marit"));
}

TEST_CASE("two players take turns in a planned test, and nothing is mixed up") {
    Bench bench;
    Hands hands(bench);
    const auto& test = twoPlayers(bench, hands);
    REQUIRE(test.players.size() == 2);
    REQUIRE(test.turns.size() == 8);
    hands.press(Qt::Key_5, Qt::AltModifier);
    hands.press(Qt::Key_Return);
    CHECK(caption(bench) == "Marit Aasgaard · Swing");
    hit(bench, 150);
    hands.press(Qt::Key_O);
    hands.press(Qt::Key_2);
    CHECK(caption(bench) == "Marit Aasgaard · Swing"); // her stint is struck to its end
    hit(bench, 151);
    CHECK(caption(bench) == "Now Odd Farstad hits");
    hands.press(Qt::Key_Return);
    CHECK(caption(bench) == "Odd Farstad · Swing");
    for (int i = 0; i < 40 && bench.session.bay().stand().phase() != bay::Phase::done; ++i) {
        if (bench.session.bay().stand().phase() == bay::Phase::handOver)
            hands.press(Qt::Key_Return);
        hit(bench, 150 + i % 5);
    }
    REQUIRE(bench.session.bay().stand().phase() == bay::Phase::done);
    REQUIRE(test.shots.size() == 16);
    for (const auto& shot : test.shots) {
        const auto turn = bay::plannedTurn(test, shot);
        REQUIRE(turn);
        CHECK(test.turns[*turn].build == shot.build);
        CHECK(test.players[test.turns[*turn].player].name == shot.player);
    }
    CHECK(*bench.session.book().load(test.id) == test);
    hands.press(Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    // Pictures of shots are one player's, until both are asked for.
    bench.window->showPage(app::PageId::reading);
    auto* whose = bench.find<QComboBox>("whose");
    REQUIRE(whose->isVisible());
    REQUIRE(whose->count() == 3);
    CHECK(whose->currentText() == "Marit Aasgaard");
    hands.press(Qt::Key_1);
    const auto table = [&] { return bench.find<app::PictureView>("picture")->picture()->asText(); };
    const QString marits = table();
    CHECK(marits.contains("Fern\t4"));
    whose->setCurrentIndex(1);
    emit whose->activated(1);
    CHECK(table() != marits);
    whose->setCurrentIndex(2);
    emit whose->activated(2);
    CHECK(table().contains("Fern\t8"));
    // On the sheet whose shots they are is settled.
    hands.press(Qt::Key_2, Qt::AltModifier);
    CHECK(bench.find<QLineEdit>("player")->isReadOnly());
}

TEST_CASE("shots of the wrong player are put right in the list") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return);
    hit(bench, 150);
    hands.press(Qt::Key_L);
    hands.press(Qt::Key_P);
    CHECK(bench.message().startsWith("One player struck them all"));
    hands.press(Qt::Key_Escape);
    hands.press(Qt::Key_J);
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_Return);
    hit(bench, 140);
    const auto& test = bench.session.test();
    hands.press(Qt::Key_L);
    auto* model = bench.find<QTableView>("shotTable")->model();
    CHECK(model->index(1, 2).data().toString() == "Club 1 · Player 2");
    hands.press(Qt::Key_P);
    hands.press(Qt::Key_1);
    CHECK(test.shots[1].player == "Player 1");
    CHECK(test.amendments.back().text == "shot 2: struck by Player 1 after all");
    REQUIRE(test.amendments.back().was.size() == 1);
    CHECK(test.amendments.back().was[0].player == "Player 2");
    hands.press(Qt::Key_U);
    CHECK(test.shots[1].player == "Player 2");
}
