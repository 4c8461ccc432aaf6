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
    declareSealed(bench, hands, shafts, 0);
    const auto& test = bench.session.test();
    CHECK(test.question == "Which one holds my line?");
    CHECK(test.card.kind == record::TestKind::shaft);
    CHECK(test.card.margins.at(record::Metric::carry) == Approx(3.5));
    CHECK(!test.card.held.empty());
    CHECK(test.plan.rounds == 6);
    CHECK(test.plan.turnLength == 4);
    CHECK(test.plan.turns.size() == 18);
    CHECK(test.builds[0].name == "Fern");
    CHECK(bench.session.isKept());
    // The PIN still stands in its field: Enter shows the slip to the helper.
    hands.press(Qt::Key_Return);
    REQUIRE(eventually([&] { return bench.find<QTextBrowser>("slipText") != nullptr; }));
    auto* slip = bench.find<QTextBrowser>("slipText");
    const QString text = slip->toPlainText();
    for (const QString& shaft : shafts)
        CHECK(text.contains(shaft));
    CHECK(text.contains(QString::fromStdString(test.seal.commitment)));
    CHECK(text.contains("lap 6"));
    CHECK(text.contains(QString::fromStdString(plan::sha256(files::declarationText(test)))));
    // Printing asks where and writes a page.
    const QString pdf = bench.path("slip.pdf");
    bench.prompter->answers << pdf;
    QTest::keyClick(bench.find<QPushButton>("printSlip"), Qt::Key_Space);
    CHECK(QFileInfo(pdf).size() > 1000);
    // Without the PIN the slip tells the order only.
    hands.tabTo("slipButton");
    hands.press(Qt::Key_Space);
    const auto slips = bench.window->findChildren<QTextBrowser*>("slipText");
    REQUIRE(slips.size() == 2);
    CHECK(!names(slips.last()->toPlainText(), shafts));
}

TEST_CASE("a player alone seals the same test, and is told how to draw blind") {
    Bench bench;
    Hands hands(bench);
    declareSealed(bench, hands, shafts, 1);
    CHECK(bench.session.test().card.alone);
    CHECK(bench.find<QLabel>("sealState")->text().contains("mix the clubs in a bag"));
    hands.press(Qt::Key_Return);
    REQUIRE(eventually([&] { return bench.find<QTextBrowser>("slipText") != nullptr; }));
    CHECK(bench.find<QTextBrowser>("slipText")->toPlainText().contains("in which you draw them"));
}

TEST_CASE("while the seal is closed nothing that leaves, and no page but the rack's list, names a club") {
    Bench bench;
    Hands hands(bench);
    declareSealed(bench, hands, shafts, 0);
    const QString csv = bench.writeFile("tags.csv", QByteArray::fromStdString(shotsByTag(bench.session.test())));
    REQUIRE(bench.session.addShots(csv));
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
    // An export comes back, and its seal opens with the same PIN to the same clubs.
    auto exported = files::readTestFile(bench.path("out.json").toStdString());
    REQUIRE(exported);
    auto opened = std::get<plan::Opened>(plan::openSeal(exported->test.seal, "4711"));
    REQUIRE(files::restoreHiddenParts(exported->test, opened.attachment));
    const auto revealed = plan::revealed(exported->test, opened, "now");
    REQUIRE(revealed);
    for (const QString& shaft : shafts)
        CHECK(revealed->buildIndex(shaft.toStdString()));
}

TEST_CASE("the reveal needs the PIN, and shows that nothing was switched") {
    Bench bench;
    Hands hands(bench);
    declareSealed(bench, hands, shafts, 0);
    const std::string hash = bench.session.test().seal.commitment;
    bench.session.declaring().reveal("0000");
    CHECK(eventually([&] { return bench.message().contains("does not open the seal"); }));
    CHECK(bench.session.isSealed());
    hands.tabTo("sealButton");
    hands.press(Qt::Key_Space); // the PIN stands in its field
    REQUIRE(eventually([&] { return !bench.session.isSealed(); }));
    CHECK(plan::sha256(bench.session.test().seal.sealedText) == hash);
    CHECK(bench.find<QLabel>("sealState")->text().contains("nothing was switched"));
    CHECK(bench.session.test().buildIndex("Reed 53"));
    CHECK(!bench.session.declaring().canUndo());
}

TEST_CASE("where the PIN is lost the clubs are named from their tags, and the reading says so") {
    Bench bench;
    Hands hands(bench);
    declareSealed(bench, hands, shafts, 0);
    hands.fill("byHand", "Reed 53, Reed 53, Larch 71");
    hands.press(Qt::Key_Return);
    CHECK(bench.message().contains("Name every club of the rack once"));
    CHECK(bench.find<QLineEdit>("byHand")->text() == "Reed 53, Reed 53, Larch 71");
    REQUIRE(bench.session.isSealed());
    hands.fill("byHand", "Larch 71, Reed 53,Alder 62");
    hands.press(Qt::Key_Return);
    REQUIRE(!bench.session.isSealed());
    CHECK(bench.session.test().builds[0].name == "Larch 71");
    CHECK(bench.session.test().builds[0].tag == "Fern");
    CHECK(bench.session.test().amendments.back().text.find("without the PIN") != std::string::npos);
    CHECK(bench.find<QLabel>("sealState")->text().contains("by hand"));
}
