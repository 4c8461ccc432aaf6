// From a sealed plan to a report: what is said before the tags come off, the reveal, the decision, and what is handed
// over.
#include "app/decision_page/club_card.h"
#include "app/hands.h"
#include "core/plan/seal.h"
#include "core/words/decide.h"

#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::Bench;
using knot::test::declareSealed;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::hit;

namespace {

// Strikes all that is planned.
void strikeAll(Bench& bench, Hands& hands) {
    hands.press(Qt::Key_5, Qt::AltModifier);
    for (int i = 0; i < 400 && bench.session.bay().stand().phase() != bay::Phase::done; ++i) {
        const auto phase = bench.session.bay().stand().phase();
        if (phase == bay::Phase::handOver || phase == bay::Phase::warmUp)
            hands.press(Qt::Key_Return);
        hit(bench, 150 + std::sin(1.7 * i));
    }
    REQUIRE(bench.session.bay().stand().phase() == bay::Phase::done);
}

} // namespace

TEST_CASE("what is said before the tags come off stands, and the decision follows the reveal") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, {"Reed 53", "Alder 62"});
    strikeAll(bench, hands);
    hands.press(Qt::Key_7, Qt::AltModifier);
    REQUIRE(bench.waitForReading());
    const auto& test = bench.session.test();
    auto* first = bench.find<QPushButton>("byFeel0");
    REQUIRE(first->isVisible());
    CHECK(first->accessibleName() == QString::fromStdString(test.builds[0].name));
    first->setFocus();
    hands.press(Qt::Key_Space);
    CHECK(test.choices.byFeel.tag == test.builds[0].name);
    CHECK(!test.choices.byFeel.at.empty());
    CHECK_FALSE(bench.find<QPushButton>("byFeel1")->isEnabled()); // said once
    bench.trigger("actionUndo");
    CHECK(!bench.session.test().choices.byFeel.at.empty());
    for (const char* name : {"Reed", "Alder"}) // nothing tells
        for (const auto* label : bench.window->findChildren<QLabel*>())
            CHECK_FALSE((label->isVisible() && label->text().contains(QLatin1String(name))));

    hands.fill("decisionKey", words);
    hands.press(Qt::Key_Return);
    REQUIRE(eventually([&] { return !bench.session.isSealed(); }));
    // The tags come off one by one, by key; then the seal is checked.
    auto* card = bench.find<app::ClubCard>("card1");
    REQUIRE(eventually([&] { return card->picture().isVeiled; }));
    CHECK_FALSE(bench.find<QLabel>("revealText")->isVisible());
    CHECK(bench.find<QPushButton>("unveil")->text().contains(QString::fromStdString(test.builds[0].tag)));
    hands.press(Qt::Key_Return);
    CHECK_FALSE(bench.find<app::ClubCard>("card0")->picture().isVeiled);
    CHECK(card->picture().isVeiled);
    hands.press(Qt::Key_Space);
    CHECK_FALSE(card->picture().isVeiled);
    CHECK_FALSE(bench.find<QPushButton>("unveil")->isVisible());
    REQUIRE(eventually([&] { return bench.find<QLabel>("revealText")->text().contains("nothing was switched"); }));
    CHECK(bench.find<QLabel>("revealText")->text().contains("Preferred blind: "));
    CHECK(bench.find<QLineEdit>("decisionKey")->text().isEmpty()); // the key is kept nowhere
    bench.prompter->answers = {bench.path("sealed.txt")};
    hands.tabTo("decisionSealedText");
    hands.press(Qt::Key_Space);
    QFile sealed(bench.path("sealed.txt"));
    REQUIRE(sealed.open(QIODevice::ReadOnly));
    CHECK(plan::sha256(sealed.readAll().toStdString()) == test.seal.commitment);

    hands.press(Qt::Key_C);                                // change
    const auto club = test.buildIndex(test.decision.club); // the reason is drafted from what was found
    REQUIRE(club);
    const std::string drafted = words::reasonFor(bench.session.test(), *bench.session.judging().reading(), *club, {});
    CHECK(test.decision.reason == drafted);
    hands.fill("decisionReason", "six metres more, and she trusts it");
    const auto& decision = bench.session.test().decision;
    CHECK(decision.what == record::Action::change);
    CHECK(decision.reason == "six metres more, and she trusts it");
    CHECK(!decision.club.empty());
    CHECK(bench.find<QLabel>("subtitle")->text().contains("Change to"));
    // It is on disk, and one step back is one step.
    auto book = *logbook::Logbook::read(bench.session.book().path().toStdString());
    CHECK(book.load(bench.session.test().id)->decision == bench.session.test().decision);
    bench.trigger("actionUndo");
    CHECK(bench.session.test().decision.reason == drafted);
    bench.trigger("actionRedo");
    CHECK(bench.session.test().decision.what == record::Action::change);

    REQUIRE(bench.waitForReading());
    hands.press(Qt::Key_P, Qt::ControlModifier);
    bench.prompter->answers = {bench.path("report.pdf"), bench.path("report.html")};
    for (const char* file : {"report.pdf", "report.html"}) {
        hands.press(Qt::Key_Return);
        CHECK(QFile::exists(bench.path(file)));
    }
    CHECK(bench.message().startsWith("The report is in "));
}

TEST_CASE("the bet is drawn for each declared outcome, and without one it says what is missing") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::decision);
    REQUIRE(bench.waitForReading());
    const auto pictures = words::bestPictures(*bench.session.judging().reading(), {});
    REQUIRE(!pictures.empty());
    for (const auto& picture : pictures) {
        double sum = 0;
        for (const auto& line : picture.lines)
            sum += line.chance;
        CHECK(sum == Approx(1).margin(0.01));
        CHECK(picture.lines.front().chance >= picture.lines.back().chance);
    }
    auto* card = bench.find<app::ClubCard>("card0");
    REQUIRE(eventually([&] { return card->picture().best.size() == pictures.size(); }));
    CHECK(card->accessibleName().contains(" in 100"));
    CHECK_FALSE(card->picture().shots.empty());
    card->setFocus();
    QTest::keyClick(card, Qt::Key_Return); // Enter presses what has the focus: it takes the club
    CHECK(bench.session.test().builds[0].isCalled(bench.session.test().decision.club));
    bench.trigger("actionUndo");
    CHECK(bench.session.test().decision.what == record::Action::none);
    bench.session.declaring().change("nothing", [](record::Declared& test) { test.card.primary.clear(); });
    REQUIRE(eventually(
        [&] { return bench.find<QLabel>("betText")->text().startsWith("No outcome with a wanted direction"); }));
}

TEST_CASE("the same on another day is a test of its own that says whether it held; on from a club, others join it") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, {"Reed 53", "Alder 62"});
    auto strike = [&](double reed) {
        hands.press(Qt::Key_5, Qt::AltModifier);
        for (int i = 0; i < 400 && bench.session.bay().stand().phase() != bay::Phase::done; ++i) {
            const auto phase = bench.session.bay().stand().phase();
            if (phase == bay::Phase::handOver || phase == bay::Phase::warmUp)
                hands.press(Qt::Key_Return);
            hit(bench, 150 + std::sin(1.7 * i) + reed);
        }
    };
    strike(0);
    hands.press(Qt::Key_7, Qt::AltModifier);
    REQUIRE(bench.waitForReading());
    auto* follows = bench.find<QLabel>("follows");
    CHECK_FALSE(follows->text().contains("another day")); // a copy would tell which club is which
    bench.session.declaring().reveal(words);
    REQUIRE(eventually([&] { return follows->text().contains("another day"); }));
    const std::string first = bench.session.test().id;
    emit follows->linkActivated("again");
    CHECK(bench.session.test().repeats == first);
    CHECK(bench.session.test().title.ends_with(", another day"));
    CHECK(bench.session.test().shots.empty());
    CHECK(bench.session.test().builds.size() == 2);
    CHECK(bench.session.test().choices == record::Choices{});
    strike(0);
    hands.press(Qt::Key_7, Qt::AltModifier);
    REQUIRE(
        eventually([&] { return bench.find<QLabel>("expectedFound")->text().contains("The same test on 2 days: "); }));
    const std::string second = bench.session.test().id;
    emit follows->linkActivated("further");
    CHECK(bench.session.test().repeats == first); // the first of them all
    CHECK(bench.session.test().builds.size() == 1);
    CHECK(bench.find<QLabel>("subtitle")->text().startsWith("Clubs"));
    REQUIRE(bench.session.openTest(second));
    bench.window->showPage(app::PageId::decision);
    emit follows->linkActivated("adjust");
    REQUIRE(bench.session.test().builds.size() == 2);
    CHECK(bench.session.test().builds[1].name == bench.session.test().builds[0].name + ", adjusted");
}
