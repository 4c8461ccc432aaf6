// Declaring a test with the real window: sheet, rack, plan and seal, by keyboard.
#include "app/form/typed.h"
#include "app/hands.h"
#include "app/reading_page/reading_page.h"
#include "app/sheet_page/sheet_page.h"
#include "core/plan/seal.h"
#include "core/record/roster.h"
#include "files/test_json.h"

#include <QComboBox>
#include <QCompleter>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTextBrowser>
#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using knot::test::addClubs;
using knot::test::Bench;
using knot::test::Hands;

TEST_CASE("expectations are kept for numbers that are not declared, too") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.press(Qt::Key_X, Qt::AltModifier);
    hands.choose("expectMetric", static_cast<int>(record::Metric::spin));
    hands.choose("expect", 3);
    CHECK(bench.session.test().card.expectations.at(record::Metric::spin) == record::Expectation::down);
    CHECK(bench.find<QAbstractButton>("expected")->accessibleName() == "Expected: spin down");
    hands.choose("expect", 0);
    CHECK(bench.session.test().card.expectations.empty());
}

TEST_CASE("a screening of five heads ends in a test of two on fresh shots") {
    Bench bench;
    Hands hands(bench);
    REQUIRE(bench.session.newTest(record::Stage::screening));
    bench.window->showPage(app::PageId::rack);
    addClubs(hands, {"Tarn", "Mere", "Fell", "Beck", "Scree"});
    auto* clubs = bench.find<QListWidget>("clubs");
    for (int club = 0; club < 5; ++club) {
        clubs->setCurrentRow(club);
        for (int shot = 0; shot < 3; ++shot) {
            hands.fill("shot", QString::number(140 + 2 * club + shot));
            hands.press(Qt::Key_Return);
        }
    }
    CHECK(bench.session.test().shots.size() == 15);
    CHECK(bench.find<QLabel>("leads")->text().startsWith("Scree: 149.0 m on average of 3 shots"));
    CHECK(bench.find<QLabel>("leads")->text().contains("drops the best one"));
    for (const char* reason : {"too low", "harsh", "too short"}) {
        hands.tabTo("clubs");
        const int row = reason == std::string("too low") ? 0 : reason == std::string("harsh") ? 1 : 2;
        while (clubs->currentRow() != row)
            hands.press(clubs->currentRow() < row ? Qt::Key_Down : Qt::Key_Up);
        hands.press(Qt::Key_X);
        hands.type(reason);
        hands.press(Qt::Key_Return);
    }
    CHECK(record::Roster(bench.session.test()).whyOut(record::BuildAt(1)) == "harsh");
    CHECK(bench.session.test().frozenHash.empty());
    hands.tabTo("confirm");
    hands.press(Qt::Key_Space);
    const auto& test = bench.session.test();
    CHECK(test.stage == record::Stage::test);
    CHECK(test.shots.empty());
    REQUIRE(test.builds.size() == 2);
    CHECK(test.buildIndex("Scree"));
    CHECK(test.buildIndex("Beck"));
    CHECK(test.turns.size() == 2U * static_cast<std::size_t>(test.plan.rounds));
    CHECK(bench.session.book().tests().size() == 2);
}

TEST_CASE("what can't be taken is answered beside its field, stays there, and the value before stands") {
    Bench bench;
    Hands hands(bench);
    bench.session.newTest(record::Stage::test);
    bench.window->showPage(app::PageId::rack);
    addClubs(hands, {"Reed", "Alder"});
    struct Bad {
        app::PageId page;
        const char* field;
        const char* typed;
        const char* answer;
    };
    bench.session.declaring().change("outcome",
                                     [](record::Declared& t) { t.card.primary = {{.metric = record::Metric::carry}}; });
    const auto before = bench.session.test();
    using Page = app::PageId;
    for (const Bad& bad : {Bad{Page::rack, "headMass", "-5", "More than 0, up to 1000."},
                           Bad{Page::rack, "shaftMass", "heavy", "“heavy” is not a number."},
                           Bad{Page::sheet, "alpha", "2", "More than 0, up to 0.5."}}) {
        INFO(bad.field);
        bench.window->showPage(bad.page);
        auto* edit = bench.find<QLineEdit>((std::string(bad.field) + "Edit").c_str());
        REQUIRE(edit != nullptr);
        edit->setFocus();
        QTest::keyClick(edit, Qt::Key_A, Qt::ControlModifier);
        QTest::keyClick(edit, Qt::Key_Delete);
        QTest::keyClicks(edit, QString::fromUtf8(bad.typed));
        CHECK(edit->text() == QString::fromUtf8(bad.typed));
        CHECK(edit->accessibleDescription().contains(QString::fromUtf8(bad.answer)));
    }
    CHECK(bench.session.test().plan.rounds == before.plan.rounds);
    CHECK(bench.session.test().card.margins == before.card.margins);
    CHECK(!bench.session.test().builds[1].club.head.mass);
}

TEST_CASE("the rack holds no more clubs than a test can take, and no two of one name") {
    Bench bench;
    Hands hands(bench);
    bench.session.newTest(record::Stage::test);
    bench.window->showPage(app::PageId::rack);
    QStringList many;
    for (int i = 1; i <= 14; ++i)
        many << QStringLiteral("Club %1").arg(i);
    addClubs(hands, many);
    CHECK(bench.session.test().builds.size() == 12);
    CHECK(bench.message().contains("12 clubs are the most"));
    bench.find<QLineEdit>("newClub")->clear();
    addClubs(hands, {"Club 3"});
    CHECK(bench.find<QLabel>("newClubFault")->text() == "Another club has this name.");
    auto* clubs = bench.find<QListWidget>("clubs");
    clubs->setCurrentRow(0);
    bench.find<QPushButton>("everyPart")->click();
    auto* name = bench.find<QLineEdit>("clubName");
    name->setFocus();
    QTest::keyClick(name, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(name, "Club 2");
    CHECK(bench.find<QLabel>("clubNameFault")->text() == "Another club has this name.");
    CHECK(bench.session.test().builds[0].name != "Club 2");
}

TEST_CASE("edits are undone and done again, and a draft is on disk as it is typed") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.fill("question", "Is it the loft?");
    const auto id = bench.session.test().id;
    auto book = *logbook::Logbook::read(bench.session.book().path().toStdString());
    CHECK(book.load(id)->question == "Is it the loft?");
    hands.say("tested", "lo");
    CHECK(!bench.session.test().card.held.empty());
    bench.trigger("actionUndo");
    CHECK(bench.session.test().card.kind == record::TestKind::own);
    bench.trigger("actionUndo"); // the whole typing at once
    CHECK(bench.session.test().question.empty());
    bench.trigger("actionRedo");
    bench.trigger("actionRedo");
    CHECK(bench.session.test().question == "Is it the loft?");
    CHECK(bench.session.test().card.kind == record::TestKind::loft);
    CHECK(book.load(id)->card.kind == record::TestKind::loft);
}

TEST_CASE("the first counted shot freezes the sheet; later edits are amendments that the reading lists") {
    Bench bench;
    bench.session.newTest(record::Stage::test);
    bench.session.declaring().change("clubs", [](record::Declared& t) {
        t.builds.resize(2);
        t.builds[0].name = "Oak";
        t.builds[1].name = "Elm";
        t.card.primary = {{.metric = record::Metric::carry}};
    });
    CHECK(!bench.session.isFrozen());
    const QString csv = bench.writeFile("shots.csv", "build,round,carry_m\nOak,1,150\nOak,1,151\nElm,1,155\nElm,1,156\n"
                                                     "Elm,2,155\nElm,2,157\nOak,2,149\nOak,2,150\n");
    REQUIRE(bench.addFile(csv));
    REQUIRE(bench.waitForReading());
    REQUIRE(bench.session.isFrozen());
    const auto frozen = bench.session.test();
    CHECK(frozen.frozenHash == plan::sha256(files::declarationText(frozen)));
    // The plan is not done, and the sheet has no looks: the reading stays behind its curtain.
    bench.window->showPage(app::PageId::reading);
    const auto* page = bench.window->findChild<app::ReadingPage*>();
    CHECK(page->findChild<QLabel*>("curtain")->isVisible());
    CHECK(page->findChild<QLabel*>("curtain")->text().startsWith("Laps done: 2 of 5."));
    CHECK(!bench.find<QWidget>("ledger")->isVisible());
    bench.session.declaring().setMargin(record::Metric::carry, 5);
    bench.session.declaring().setMargin(record::Metric::carry, 6); // one thing, one amendment
    REQUIRE(bench.session.test().amendments.size() == 1);
    CHECK(bench.session.test().amendments[0].text == "the worthwhile gap in carry was changed");
    QTest::keyClick(page->findChild<QPushButton*>("lookNow"), Qt::Key_Space);
    CHECK(QTest::qWaitFor([&] { return bench.find<QWidget>("ledger")->isVisible(); }));
    CHECK(bench.session.test().amendments.size() == 2);
    const auto& checks = bench.session.judging().reading()->checks;
    CHECK(std::ranges::count_if(checks, [](const auto& check) { return check.code == "amended"; }) == 2);
    bench.session.declaring().undo();
    bench.session.declaring().redo();
    CHECK(bench.session.test().amendments.size() == 4); // what was noted is never taken back
    CHECK(!bench.addFile(bench.writeFile("other.csv", "build,carry_m\nAsh,150\n")));
    CHECK(bench.message().contains("“Ash”"));
    REQUIRE(bench.session.copyDeclaration());
    CHECK(bench.session.test().shots.empty());
    CHECK(bench.session.test().amendments.empty());
    CHECK(!bench.session.isFrozen());
}

TEST_CASE("a part that the logbook knows completes itself and brings its numbers") {
    Bench bench;
    bench.openDemo();
    bench.session.newTest(record::Stage::test);
    bench.window->showPage(app::PageId::rack);
    Hands hands(bench);
    addClubs(hands, {"Reed"});
    bench.window->showPage(app::PageId::rack);
    auto* shaft = bench.find<QLineEdit>("shaftName");
    REQUIRE(shaft->completer() != nullptr);
    emit shaft->completer()->activated(QStringLiteral("Larch 71"));
    CHECK(bench.session.test().builds[0].club.shaft.mass == 71.0);
    CHECK(bench.find<QLineEdit>("shaftMassEdit")->text() == "71");
}

TEST_CASE("the starting tables are edited and kept, and a bad line changes nothing") {
    Bench bench;
    bench.openDemo();
    bench.session.newTest(record::Stage::test);
    bench.session.declaring().change(
        "player", [](record::Declared& t) { t.players = {{.id = {}, .name = "Runa Veld", .clubSpeed = 40}}; });
    bench.window->showPage(app::PageId::rack);
    auto* line = bench.find<QLabel>("starting");
    CHECK(line->text().contains("52 to 66 g, R by speed"));
    emit line->linkActivated("tables");
    CHECK(bench.find<QComboBox>("startTable")->currentIndex() == 0);
    auto* table = bench.find<QPlainTextEdit>("speedTable");
    REQUIRE(table->isVisible());
    table->setPlainText("0, 200, 60, 70, M\n");
    CHECK(line->text().contains("60 to 70 g, M by speed"));
    table->setPlainText("0, 200, heavy\n");
    CHECK(bench.find<QLabel>("tableFault")->text().startsWith("Line 1:"));
    CHECK(line->text().contains("60 to 70 g, M by speed"));
    CHECK(bench.session.book().setting("start_speed") == "0, 200, 60, 70, M\n");
}

TEST_CASE("a slow change is planned around, and keeps the clubs from being sealed") {
    Bench bench;
    bench.session.newTest(record::Stage::test);
    bench.session.declaring().change("clubs", [](record::Declared& t) {
        t.builds.resize(4);
        for (std::size_t i = 0; i < 4; ++i)
            t.builds[i].name = std::string(1, static_cast<char>('A' + i));
        t.plan.rounds = 2;
        t.card.blinding = record::Blinding::playerBlind;
    });
    bench.window->showPage(app::PageId::plan);
    Hands(bench).say("slower1", "A / B 400");
    REQUIRE(bench.session.test().plan.changeTimes.size() == 1);
    const auto& turns = bench.session.test().turns;
    for (std::size_t i = 1; i < turns.size(); ++i)
        CHECK(turns[i].build + turns[i - 1].build != 1); // A and B never follow each other
    bench.session.declaring().seal();
    CHECK(bench.message().contains("share parts"));
}

TEST_CASE("a page that is closed with letters still waiting takes nothing on its way out") {
    Bench bench;
    bench.session.newTest(record::Stage::test);
    auto page = std::make_unique<app::SheetPage>(bench.session.hand(), bench.session.declaring(), bench.session.book(),
                                                 bench.session.earlier());
    page->show();
    page->refreshIfStale();
    auto* edit = page->findChild<QLineEdit*>(QStringLiteral("question"));
    REQUIRE(edit != nullptr);
    edit->setFocus();
    QTest::keyClicks(edit, "x");
    const std::string before = bench.session.test().title;
    page.reset();
    app::Typed::commitAll();
    CHECK(bench.session.test().title == before);
}

TEST_CASE("dragging the strip's end adds a lap, and dragging upward a shot") {
    Bench bench;
    bench.session.newTest(record::Stage::test);
    bench.session.declaring().change("clubs", [](record::Declared& t) {
        t.builds.resize(2);
        t.builds[0].name = "Oak";
        t.builds[1].name = "Elm";
    });
    bench.window->showPage(app::PageId::plan);
    auto* strip = bench.find<QWidget>("strip");
    const int laps = bench.session.test().plan.rounds;
    QTest::mousePress(strip, Qt::LeftButton, {}, {100, 20});
    QTest::mouseMove(strip, {220, 20});
    QTest::mouseRelease(strip, Qt::LeftButton, {}, {220, 20});
    CHECK(bench.session.test().plan.rounds == laps + 1);
    const int shots = bench.session.test().plan.turnLength;
    QTest::mousePress(strip, Qt::LeftButton, {}, {100, 30});
    QTest::mouseMove(strip, {100, 5});
    QTest::mouseRelease(strip, Qt::LeftButton, {}, {100, 5});
    CHECK(bench.session.test().plan.turnLength == shots + 1);
}

TEST_CASE("opening the starting tables leaves the rows of clubs their height") {
    Bench bench;
    bench.window->resize(1280, 800);
    bench.openDemo();
    bench.session.newTest(record::Stage::test);
    Hands hands(bench);
    bench.window->showPage(app::PageId::rack);
    addClubs(hands, {"Reed"});
    emit bench.find<QLabel>("starting")->linkActivated("tables");
    auto* clubs = bench.find<QListWidget>("clubs");
    CHECK(knot::test::eventually([&] { return clubs->height() >= clubs->sizeHintForRow(0); }, 2000));
    CHECK(bench.find<QPlainTextEdit>("speedTable")->isVisible());
}
