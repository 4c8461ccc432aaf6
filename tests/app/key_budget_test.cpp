// How many keys it takes from nothing to what a fitter wants with a customer waiting (design: key budget).
#include "app/hands.h"

#include <QLineEdit>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::hit;

namespace {

// Sealed and at the tee: the clubs of the test in hand, both blind. The slip is looked at and closed.
void sealAndGo(Bench& bench, Hands& hands) {
    hands.press(Qt::Key_4, Qt::AltModifier);
    hands.press(Qt::Key_W, Qt::AltModifier);
    hands.letters("fi"); // nobody knows
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_S, Qt::AltModifier);
    auto* yes = bench.find<QWidget>("sealYes");
    REQUIRE(eventually([&] { return yes->isVisible() && yes->isEnabled(); }));
    hands.press(Qt::Key_Tab); // past "not now"
    hands.press(Qt::Key_Space);
    REQUIRE(eventually([&] { return bench.find<QWidget>("keepSeal") != nullptr; }));
    QTest::keyClick(bench.find<QWidget>("keepSeal"), Qt::Key_Return);
    REQUIRE(bench.session.isSealed());
    hands.press(Qt::Key_5, Qt::AltModifier);
    bench.window->activateWindow();
    (void)QTest::qWaitForWindowActive(bench.window.get());
}

// As far as who hits them.
void nameThreeShafts(Hands& hands) {
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.letters("Alder 62");
    hands.press(Qt::Key_Tab);
    hands.letters("sh");
    hands.press(Qt::Key_Tab);
    hands.letters("Reed 53, Larch 71");
    hands.press(Qt::Key_Tab);
}

void declareThreeShafts(Hands& hands, const QString& player) {
    nameThreeShafts(hands);
    hands.letters(player);
    hands.press(Qt::Key_Tab);
}

} // namespace

TEST_CASE("a sealed test of three shafts takes sixty keys at most from an empty logbook") {
    Bench bench;
    Hands hands(bench);
    declareThreeShafts(hands, "Runa Veld");
    const record::Test& test = bench.session.test();
    REQUIRE(test.builds.size() == 3);
    CHECK(test.card.kind == record::TestKind::shaft);
    CHECK(test.nameOf(test.card.baseline) == "Alder 62");
    CHECK(test.firstPlayer().name == "Runa Veld");
    REQUIRE(test.card.primary.size() == 2); // what a shaft is usually judged by
    CHECK(test.card.want(test.card.primary[0]).kind == record::Want::Kind::more);
    sealAndGo(bench, hands);
    CHECK(test.seal.isClosed());
    CHECK(!test.turns.empty());
    hands.press(Qt::Key_Return); // warm-up, then the first tag
    CHECK(hands.keys() <= 60);
    hit(bench, 150);
    CHECK(test.shots.size() == 1);
}

TEST_CASE("with a player who is known it takes forty-five keys at most") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.say("player", "Runa Veld"); // from another test
    const int before = hands.keys();
    nameThreeShafts(hands);
    hands.letters("Ru");
    hands.press(Qt::Key_Down);
    hands.press(Qt::Key_Return);
    const record::Test& test = bench.session.test();
    CHECK(test.firstPlayer().name == "Runa Veld");
    CHECK(bench.session.book().players().size() == 1);
    sealAndGo(bench, hands);
    hands.press(Qt::Key_Return);
    CHECK(test.seal.isClosed());
    CHECK(test.card.blinding == record::Blinding::bothBlind);
    CHECK(hands.keys() - before <= 45);
}

TEST_CASE("with a player who is known, two wanted windows are a letter and two numbers each") {
    Bench bench;
    Hands hands(bench);
    declareThreeShafts(hands, "Runa Veld");
    const int before = hands.keys();
    hands.press(Qt::Key_W, Qt::AltModifier);
    hands.letters("d42 48");
    hands.press(Qt::Key_Return);
    hands.letters("l12 15");
    hands.press(Qt::Key_Return);
    CHECK(hands.keys() - before <= 16);
    const auto& targets = bench.session.test().card.targets;
    REQUIRE(targets.size() == 2);
    CHECK(targets[0] == record::Target{record::Metric::descent, {}, 42, 48});
    CHECK(targets[1] == record::Target{record::Metric::launch, {}, 12, 15});

    // Everything of it is undone, the last first.
    bench.trigger("actionUndo");
    CHECK(bench.session.test().card.targets.empty()); // said in one go
    bench.trigger("actionRedo");
    CHECK(bench.session.test().card.targets.size() == 2);
}

TEST_CASE("another shaft in the same head takes ten keys at most while hitting, and no page is turned") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return);
    hit(bench, 150);
    const int before = hands.keys();
    hands.press(Qt::Key_A);
    hands.letters("Larch");
    hands.press(Qt::Key_Return);
    hit(bench, 151);
    CHECK(hands.keys() - before <= 10);
    CHECK(bench.session.test().builds.size() == 2);
    CHECK(bench.session.test().shots.back().build != bench.session.test().shots.front().build);
}
