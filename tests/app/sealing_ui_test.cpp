// From nothing to a sealed test, its slip and its reveal with the real window.
#include "app/hands.h"
#include "core/plan/seal.h"
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
using knot::test::Bench;
using knot::test::declareSealed;
using knot::test::eventually;
using knot::test::Hands;

namespace {

const QStringList shafts{"Reed 53", "Alder 62", "Larch 71"};

std::string shotsByTag(const record::Test& test) {
    std::string csv = "build,round,carry_m\n";
    for (int lap = 1; lap <= 3; ++lap)
        for (const auto& build : test.builds)
            for (int i = 0; i < 2; ++i)
                csv += build.name + "," + std::to_string(lap) + "," + std::to_string(150 + lap + 2 * i) + "\n";
    return csv;
}

bool names(const QString& text, const QStringList& clubs) {
    return std::ranges::any_of(clubs, [&](const QString& club) { return text.contains(club); });
}

} // namespace

TEST_CASE("a new user goes from nothing to a sealed test and its order slip by keyboard alone") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, shafts, true);
    const auto& test = bench.session.test();
    CHECK(bench.session.declaring().sealInHand() != nullptr);
    // Printing asks for a printer, saving where.
    for (const auto& [button, name] : {std::pair{"printSlip", "printed.pdf"}, std::pair{"saveSlip", "slip.pdf"}}) {
        bench.prompter->answers << bench.path(name);
        QTest::keyClick(bench.find<QPushButton>(button), Qt::Key_Space);
        CHECK(QFileInfo(bench.path(name)).size() > 1000);
    }
    auto* asking = bench.find<QTextBrowser>("slipText");
    const QString asked = asking->toPlainText();
    knot::test::keepSeal(bench);
    REQUIRE(eventually([&] { return bench.find<QTextBrowser>("slipText") == nullptr; })); // it went with its words
    CHECK(test.question == "Which one holds my line?");
    CHECK(test.card.kind == record::TestKind::shaft);
    CHECK(test.card.margins.at(record::Metric::carry) == Approx(3.5));
    CHECK(!test.card.held.empty());
    CHECK(test.plan.rounds == 6);
    CHECK(test.plan.turnLength == 4);
    CHECK(test.turns.size() == 18);
    CHECK(test.builds[0].name == "Fern");
    CHECK(bench.session.isKept());
    CHECK(words.split(' ').size() == 10);
    // The helper's slip stood open, this once with the words, which nothing else holds.
    const QString text = asked.simplified();
    for (const QString& shaft : shafts)
        CHECK(text.contains(shaft));
    CHECK(text.contains(QString::fromStdString(test.seal.commitment)));
    CHECK(text.contains(words));
    CHECK(text.contains("lap 6"));
    QFile file(bench.session.book().path());
    REQUIRE(file.open(QIODevice::ReadOnly));
    const QByteArray onDisk = file.readAll();
    for (const QString& word : words.split(' '))
        CHECK(!onDisk.contains(word.toUtf8()));
    for (const auto* field : bench.window->findChildren<QLineEdit*>())
        CHECK(!field->text().contains(words.left(11)));
    CHECK(text.contains(QString::fromStdString(plan::sha256(files::declarationText(test)))));
    // Without the words the slip tells the order only, with them the clubs again, and not the words.
    hands.tabTo("slipButton");
    hands.press(Qt::Key_Space);
    REQUIRE(eventually([&] { return bench.window->findChildren<QTextBrowser*>("slipText").size() == 1; }));
    CHECK(!names(bench.window->findChildren<QTextBrowser*>("slipText").last()->toPlainText(), shafts));
    bench.window->activateWindow();
    hands.tabTo("key");
    hands.type(words.toUpper());
    hands.press(Qt::Key_Return);
    REQUIRE(eventually([&] { return bench.window->findChildren<QTextBrowser*>("slipText").size() == 2; }));
    const QString again = bench.window->findChildren<QTextBrowser*>("slipText").last()->toPlainText().simplified();
    CHECK(names(again, shafts));
    CHECK(!again.contains(words));
    CHECK(bench.find<QLineEdit>("key")->text().isEmpty());
}

TEST_CASE("a seal whose words nobody kept is none, and what was struck in the open does not come back under it") {
    Bench bench;
    Hands hands(bench);
    declareSealed(bench, hands, shafts, true);
    const auto onDisk = [&] { return bench.session.book().peek(bench.session.test().id)->seal.commitment; };
    CHECK(onDisk().empty());
    QTest::keyClick(bench.find<QPushButton>("leaveOpen"), Qt::Key_Space);
    CHECK_FALSE(bench.session.isSealed());
    CHECK(bench.session.declaring().sealInHand() == nullptr);
    CHECK_FALSE(bench.session.declaring().keepSeal());
    // Struck in the open, taken back, sealed, done again: nothing.
    bay::Arrival swing;
    swing.readings.measure(record::Metric::carry, 150);
    REQUIRE(bench.session.bay().arrive({swing}));
    bench.session.bay().undo();
    REQUIRE(bench.session.test().shots.empty());
    CHECK(bench.session.bay().canRedo());
    bench.session.declaring().seal();
    REQUIRE(eventually([&] { return bench.session.declaring().sealInHand() != nullptr; }));
    // A test that is changed meanwhile is not the one that was sealed.
    bench.session.declaring().change("title", [](record::Declared& test) { test.title = "Another"; });
    CHECK_FALSE(bench.session.declaring().keepSeal());
    bench.session.declaring().seal();
    REQUIRE(eventually([&] { return bench.session.declaring().sealInHand() != nullptr; }));
    REQUIRE(bench.session.declaring().keepSeal());
    CHECK(onDisk() == bench.session.test().seal.commitment);
    CHECK_FALSE(bench.session.bay().canRedo());
    bench.session.bay().redo();
    CHECK(bench.session.test().shots.empty());
}

TEST_CASE("a player alone puts the tags on blind and names the clubs in the end: no helper, no slip") {
    Bench bench;
    Hands hands(bench);
    knot::test::declareToSeal(bench, hands, shafts, 1);
    const QString question = bench.find<QLabel>("sealQuestion")->text();
    CHECK(question.contains("Fern, Slate, Ochre"));
    CHECK_FALSE(question.contains("helper"));
    CHECK_FALSE(names(question, shafts));
    hands.tabTo("sealYes");
    hands.press(Qt::Key_Space);
    REQUIRE(bench.session.isSealed());
    CHECK(bench.find<QWidget>("orderSlip") == nullptr);
    CHECK_FALSE(bench.find<QPushButton>("slipButton")->isVisible());
    CHECK_FALSE(bench.find<QLineEdit>("key")->isVisible());
    const auto& test = bench.session.test();
    CHECK(test.card.alone);
    CHECK(test.seal.isBag());
    CHECK(test.builds[1].name == "Slate");
    CHECK(bench.session.book().peek(test.id)->seal.isClosed());
    CHECK(bench.find<QLabel>("sealState")->text().contains("To somebody else it proves nothing"));
    CHECK(bench.find<QLabel>("sealState")->text().contains("mix the clubs in a bag"));
    REQUIRE(bench.addFile(bench.writeFile("tags.csv", QByteArray::fromStdString(shotsByTag(test)))));
    REQUIRE(bench.waitForReading());
    bench.window->showPage(app::PageId::decision);
    for (const auto* label : bench.window->findChildren<QLabel*>())
        if (label->isVisible())
            CHECK_FALSE(names(label->text(), shafts));
    auto* tags = bench.find<QWidget>("tags");
    auto* asked = bench.find<QWidget>("revealPanel")->findChild<QLabel*>("askQuestion");
    hands.tabTo("lookAtClubs");
    hands.press(Qt::Key_Space);
    CHECK(asked->text() == "The club with the tag Fern is");
    hands.press(Qt::Key_2);
    CHECK(asked->text() == "The club with the tag Slate is");
    CHECK(tags->accessibleName() == "Fern is Alder 62, Slate, Ochre");
    SECTION("left half way nothing is named") {
        hands.press(Qt::Key_Escape);
        CHECK(tags->accessibleName() == "Fern, Slate, Ochre");
        CHECK_FALSE(bench.find<QPushButton>("clubsNamed")->isVisible());
        CHECK(bench.session.isSealed());
    }
    SECTION("named, the clubs are known for good, and one that is renamed since is told") {
        hands.press(Qt::Key_2);
        CHECK(tags->accessibleName() == "Fern is Alder 62, Slate is Larch 71, Ochre is Reed 53");
        CHECK(bench.session.isSealed());
        hands.press(Qt::Key_Space);
        REQUIRE_FALSE(bench.session.isSealed());
        CHECK(test.builds[0].name == "Alder 62");
        CHECK(test.builds[0].tag == "Fern");
        CHECK(test.amendments.empty());
        CHECK_FALSE(bench.session.declaring().canUndo());
        auto* said = bench.find<QLabel>("revealText");
        CHECK(eventually([&] { return said->text().contains("The clubs kept the secret"); }));
        bench.session.declaring().change("name", [](record::Declared& one) { one.builds[0].name = "Alder 63"; });
        bench.window->showPage(app::PageId::decision);
        CHECK(eventually([&] { return said->text().contains("Fern was named Alder 62, called Alder 63 since"); }));
    }
}

TEST_CASE("while the seal is closed nothing that leaves, and no page but the rack's list, names a club") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, shafts);
    const QString csv = bench.writeFile("tags.csv", QByteArray::fromStdString(shotsByTag(bench.session.test())));
    REQUIRE(bench.addFile(csv));
    REQUIRE(bench.waitForReading());
    for (const char* file : {"out.csv", "out.json"}) {
        REQUIRE(bench.session.exportShots(bench.path(file)));
        QFile written(bench.path(file));
        REQUIRE(written.open(QIODevice::ReadOnly));
        CHECK(!names(QString::fromUtf8(written.readAll()), shafts));
    }
    for (const auto page : {app::PageId::logbook, app::PageId::sheet, app::PageId::plan, app::PageId::reading}) {
        bench.window->showPage(page);
        for (const auto* label : bench.window->findChildren<QLabel*>())
            if (label->isVisible())
                CHECK(!names(label->text() + label->toolTip() + label->accessibleDescription(), shafts));
        for (const auto* field : bench.window->findChildren<QLineEdit*>())
            if (field->isVisible())
                CHECK(!names(field->text() + field->placeholderText() + field->accessibleDescription(), shafts));
        for (const auto* button : bench.window->findChildren<QAbstractButton*>())
            if (button->isVisible())
                CHECK(!names(button->text() + button->accessibleName(), shafts));
        for (const auto* box : bench.window->findChildren<QComboBox*>())
            for (int i = 0; box->isVisible() && i < box->count(); ++i)
                CHECK(!names(box->itemText(i), shafts));
        CHECK(!names(bench.window->windowTitle(), shafts));
    }
    for (const QString& sentence : bench.ledgerSentences())
        CHECK(!names(sentence, shafts));
    for (const auto& entry : bench.session.book().tests())
        for (const auto& build : entry.builds)
            CHECK(!names(QString::fromStdString(build.name), shafts));
    // An export comes back, and its seal opens with the same words to the same clubs.
    auto exported = files::readTestFile(bench.path("out.json").toStdString());
    REQUIRE(exported);
    auto opened = std::get<plan::Opened>(plan::openSeal(exported->test.seal, words.toStdString()));
    REQUIRE(files::restoreHiddenParts(exported->test, opened.attachment));
    const auto revealed = plan::revealed(exported->test, opened, "now");
    REQUIRE(revealed);
    for (const QString& shaft : shafts)
        CHECK(revealed->buildIndex(shaft.toStdString()));
}

TEST_CASE("the reveal needs the words, asks once, can't be hit twice, and shows that nothing was switched") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, shafts);
    const std::string hash = bench.session.test().seal.commitment;
    bench.session.declaring().reveal("bakin bakin bakin bakin bakin bakin bakin bakin bakin bakin");
    CHECK(eventually([&] { return bench.message().contains("do not open the seal"); }));
    CHECK(bench.session.isSealed());
    auto* reveal = bench.find<QPushButton>("revealButton");
    auto* yes = bench.find<QPushButton>("sealYes");
    auto* key = bench.find<QLineEdit>("key");
    reveal->click();
    CHECK(bench.message().contains("Type the ten words"));
    hands.tabTo("key");
    hands.type(words);
    for (int click = 0; click < 2; ++click)
        QTest::mouseClick(reveal, Qt::LeftButton);
    CHECK(key->text().isEmpty());
    CHECK(bench.find<QLabel>("sealQuestion")->text().contains("no way back"));
    CHECK(!yes->isEnabled());
    yes->click();
    CHECK(bench.session.isSealed());
    SECTION("said no, nothing happens, and nothing is left to say yes to") {
        bench.find<QPushButton>("sealNo")->click();
        CHECK(!yes->isVisible());
        CHECK(!QTest::qWaitFor([&] { return !bench.session.isSealed(); }, 300));
    }
    SECTION("said yes, the clubs are known and their text is saved to the letter") {
        REQUIRE(eventually([&] { return yes->isEnabled(); }));
        yes->click();
        REQUIRE(eventually([&] { return !bench.session.isSealed(); }));
        CHECK(plan::sha256(bench.session.test().seal.sealedText) == hash);
        CHECK(bench.find<QLabel>("sealState")->text().contains("nothing was switched"));
        CHECK(bench.session.test().buildIndex("Reed 53"));
        CHECK(!bench.session.declaring().canUndo());
        bench.prompter->answers << bench.path("sealed.txt");
        bench.find<QPushButton>("saveSealedText")->click();
        QFile saved(bench.path("sealed.txt"));
        REQUIRE(saved.open(QIODevice::ReadOnly));
        CHECK(plan::sha256(saved.readAll().toStdString()) == hash);
        CHECK(!bench.find<QPushButton>("sealButton")->text().contains(QStringLiteral("…"))); // no second seal
    }
}

TEST_CASE("where the slip is lost the clubs are named by hand, and the words, found later, are compared") {
    Bench bench;
    Hands hands(bench);
    const QString words = declareSealed(bench, hands, shafts);
    auto* yes = bench.find<QPushButton>("sealYes");
    auto byHand = [&](const QString& clubs) {
        hands.fill("byHand", clubs);
        hands.press(Qt::Key_Return);
        REQUIRE(eventually([&] { return yes->isEnabled(); }));
        yes->click();
    };
    byHand("Reed 53, Reed 53, Larch 71");
    CHECK(bench.message().contains("Name every club of the rack once"));
    CHECK(bench.find<QLineEdit>("byHand")->text() == "Reed 53, Reed 53, Larch 71");
    REQUIRE(bench.session.isSealed());
    byHand("Larch 71, Reed 53,Alder 62");
    REQUIRE(!bench.session.isSealed());
    CHECK(bench.session.test().builds[0].name == "Larch 71");
    CHECK(bench.session.test().builds[0].tag == "Fern");
    CHECK(bench.session.test().amendments.back().text.find("without the key") != std::string::npos);
    CHECK(bench.find<QLabel>("sealState")->text().contains("by hand"));
    hands.tabTo("key");
    hands.type(words);
    bench.find<QPushButton>("revealButton")->click();
    REQUIRE(eventually([&] { return !bench.session.test().seal.sealedText.empty(); }));
    const auto& test = bench.session.test();
    const auto truth = std::get<plan::Opened>(plan::openSeal(test.seal, words.toStdString()));
    bool right = true;
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(test.builds[i].tag == truth.tags[i].first);
        CHECK(test.builds[i].name == truth.tags[i].second);
    }
    right = truth.tags[0].second == "Larch 71" && truth.tags[1].second == "Reed 53";
    CHECK((test.amendments.back().text.find("put right") == std::string::npos) == right);
    CHECK(plan::sha256(test.seal.sealedText) == test.seal.commitment);
}

TEST_CASE("a seal of an earlier version opens with its PIN") {
    Bench bench;
    record::Test test;
    test.title = "Old seal";
    test.builds = {{.name = "Reed 53"}, {.name = "Alder 62"}};
    test.card.blinding = record::Blinding::bothBlind;
    const auto sealed = *plan::sealed(test, "4711", "2026-05-01T09:00", files::hiddenPartsJson(test));
    CHECK(sealed.seal.keyKind.empty());
    const auto id = *logbook::Logbook::create(bench.path("a.knotbook").toStdString())->save(sealed);
    bench.window->openPath(bench.path("a.knotbook"));
    REQUIRE(bench.session.openTest(id));
    bench.window->showPage(app::PageId::plan);
    CHECK(bench.find<QLabel>("sealState")->text().contains("its PIN opens it"));
    bench.session.declaring().reveal("4711");
    REQUIRE(eventually([&] { return !bench.session.isSealed(); }));
    CHECK(bench.session.test().buildIndex("Reed 53"));
}
