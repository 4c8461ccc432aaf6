#include "app/picture/picture_view.h"
#include "app/reading_page/ledger.h"
#include "app/support.h"
#include "core/judge/judge.h"

#include <QAbstractItemDelegate>
#include <QAbstractItemModelTester>
#include <QComboBox>
#include <QDropEvent>
#include <QImage>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QMimeData>
#include <QPainter>
#include <QPushButton>
#include <QSignalSpy>
#include <QStyleOptionViewItem>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;

namespace {

const QByteArray twoClubs = "round,build,carry_m,ball_speed_ms\n"
                            "1,Oak,150,60\n1,Oak,151,60.2\n1,Elm,158,62\n1,Elm,159,62.1\n"
                            "2,Elm,158.5,62.2\n2,Elm,158,62\n2,Oak,150.5,60.1\n2,Oak,150,60\n"
                            "3,Oak,151,60.3\n3,Oak,150,60.1\n3,Elm,158,62.3\n3,Elm,159.5,62\n"
                            "4,Elm,158.2,62\n4,Oak,150.2,60\n";

} // namespace

TEST_CASE("opening the demo and a test shows its verdict in words") {
    Bench bench;
    bench.openDemo();
    auto* list = bench.find<QListView>("testList");
    REQUIRE(list->model()->rowCount() == 14);
    list->setCurrentIndex(list->model()->index(13, 0));
    QTest::keyClick(list, Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.find<QLabel>("title")->text() == "Which five-wood shaft holds Marit’s line?");
    CHECK(bench.ledgerSentence().startsWith("Fern carries farther than Slate by 9.7 m"));
    CHECK(bench.ledgerSentence().contains("real, and big enough to matter: better"));
    CHECK(bench.find<QLabel>("subtitle")->text().startsWith("45 shots · 5 laps · 6 to warm up"));
}

TEST_CASE("no line of the ledger is painted over the next one, however much it says") {
    Bench bench;
    bench.readFile(bench.writeFile("plain.csv", "build,round,carry_m,ball_speed_ms\n"
                                                "Reed,1,150,52\nAlder,1,153,52.5\nReed,2,151,51\nAlder,2,152,53\n"
                                                "Reed,3,149,52.2\nAlder,3,155,52\nReed,4,152,52.6\nAlder,4,151,53\n"));
    REQUIRE(bench.waitForReading());
    auto* list = bench.find<QListView>("ledger");
    REQUIRE(list->model()->rowCount() > 2);
    for (int row = 0; row < list->model()->rowCount(); ++row) {
        const QModelIndex index = list->model()->index(row, 0);
        const QSize size(list->viewport()->width(), list->visualRect(index).height());
        QImage image(size.width(), size.height() + 80, QImage::Format_ARGB32);
        image.fill(Qt::transparent);
        QPainter painter(&image);
        QStyleOptionViewItem option;
        option.rect = QRect({0, 0}, size);
        list->itemDelegate()->paint(&painter, option, index);
        painter.end();
        bool isOver = false;
        for (int y = size.height(); y < image.height(); ++y)
            for (int x = 0; x < image.width(); ++x)
                isOver = isOver || qAlpha(image.pixel(x, y)) != 0;
        INFO(index.data(Qt::AccessibleTextRole).toString().toStdString());
        CHECK_FALSE(isOver);
    }
}

TEST_CASE("the baseline changes with the keyboard and is kept") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    QSignalSpy judged(&bench.session.judging(), &app::Judging::changed);
    QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_B);
    REQUIRE(judged.wait(10000));
    CHECK(bench.find<QLabel>("against")->text() == "against Fern");
    CHECK(bench.ledgerSentences().filter("Slate carries shorter than Fern").size() == 1);
    auto* baseline = bench.find<QLineEdit>("baseline");
    baseline->setFocus();
    QTest::keyClicks(baseline, "oc");
    QTest::keyClick(baseline, Qt::Key_Return);
    REQUIRE(judged.wait(10000));
    CHECK(bench.session.test().nameOf(bench.session.test().card.baseline) == "Ochre");
    const auto id = bench.session.test().id;
    auto again = logbook::Logbook::read(bench.path("Demo.knotbook").toStdString());
    REQUIRE(again);
    CHECK(again->load(id)->nameOf(again->load(id)->card.baseline) == "Ochre");
}

TEST_CASE("a shot file is read at once, kept in a new logbook, and comes back the same") {
    Bench bench;
    bench.prompter->answers = {bench.writeFile("shots.csv", twoClubs), bench.path("mine")};
    bench.trigger("actionImport");
    QTest::keyClick(bench.window->focusWidget(), Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.find<QLabel>("title")->text() == "shots");
    CHECK(bench.find<QLabel>("subtitle")->text().contains("not saved yet"));
    const QStringList before = bench.ledgerSentences();
    REQUIRE(!before.isEmpty());
    QTest::mouseClick(bench.find<QPushButton>("keepButton"), Qt::LeftButton);
    CHECK(bench.session.isKept());
    CHECK(bench.session.book().path() == bench.path("mine.knotbook"));
    CHECK(!bench.find<QPushButton>("keepButton")->isVisible());

    bench.openDemo(); // lets go of the other logbook
    Bench later;
    later.window->openPath(bench.path("mine.knotbook"));
    auto* list = later.find<QListView>("testList");
    REQUIRE(list->model()->rowCount() == 1);
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualRect(list->model()->index(0, 0)).center());
    REQUIRE(later.waitForReading());
    CHECK(later.ledgerSentences() == before);
}

TEST_CASE("a broken file is refused with its place, and nothing of it stays") {
    Bench bench;
    bench.openDemo();
    bench.prompter->answers = {bench.writeFile("broken.csv", "build,carry_m\nA,150\nB,151,9\n")};
    bench.trigger("actionImport");
    CHECK(bench.find<QLabel>("struckFacts")->text().toStdString() ==
          "broken.csv, line 3, column 3: 3 cells in this row; expected at most 2, one for each heading.");
    QTest::keyClick(bench.window->focusWidget(), Qt::Key_Return); // there is nothing to read
    CHECK(bench.session.book().tests().size() == 14);
    CHECK(!bench.session.hasTest());
}

TEST_CASE("files dropped on the window are opened") {
    Bench bench;
    QMimeData mime;
    mime.setUrls({QUrl::fromLocalFile(bench.writeFile("shots.csv", twoClubs))});
    QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(bench.window.get(), &enter);
    CHECK(enter.isAccepted());
    QDropEvent drop(QPointF(400, 300), Qt::CopyAction, &mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(bench.window.get(), &drop);
    QTest::keyClick(bench.window->focusWidget(), Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.session.test().shots.size() == 14);
}

TEST_CASE("worthwhile gap, declaration, wanted direction and units are set beside the picture") {
    Bench bench;
    bench.readFile(bench.writeFile("shots.csv", twoClubs));
    REQUIRE(bench.waitForReading());
    QSignalSpy judged(&bench.session.judging(), &app::Judging::changed);
    CHECK(bench.ledgerSentences().first().contains("not declared"));
    auto* metric = bench.find<QComboBox>("metric");
    metric->setCurrentIndex(metric->findText("carry"));
    emit metric->activated(metric->currentIndex());
    QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_P);
    REQUIRE(judged.wait(10000));
    CHECK(bench.ledgerSentences().first() == "Declared");
    CHECK(bench.find<QLineEdit>("declared")->text() == "declared");

    QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_G);
    auto* gap = bench.find<QLineEdit>("gap");
    CHECK(gap->hasFocus());
    QTest::keyClicks(gap, "12");
    QTest::keyClick(gap, Qt::Key_Return);
    REQUIRE(judged.wait(10000));
    CHECK(bench.session.test().card.margin(record::Metric::carry) == 12);
    CHECK(bench.ledgerSentences().at(1).contains("real, but too small to matter"));
    for (const char* bad : {"0", "-3", "many"}) {
        gap->setFocus();
        gap->selectAll();
        QTest::keyClicks(gap, bad);
        QTest::keyClick(gap, Qt::Key_Return);
        CHECK(!bench.find<QLabel>("judgedByFault")->text().isEmpty());
        CHECK(gap->text() == bad); // it stays, with the reason
        CHECK(bench.session.test().card.margin(record::Metric::carry) == 12);
    }
    QTest::keyClick(gap, Qt::Key_Escape);
    CHECK(gap->text() == "12.0 m");
    auto* want = bench.find<QLineEdit>("want");
    want->setFocus();
    QTest::keyClicks(want, "more");
    QTest::keyClick(want, Qt::Key_Return);
    REQUIRE(judged.wait(10000));
    CHECK(bench.ledgerSentences().at(1).endsWith("better."));
    bench.trigger("actionUnitDistance1");
    CHECK(bench.ledgerSentences().at(1).contains(" yd "));
    CHECK(gap->text() == "13.12 yd");
}

TEST_CASE("Enter opens a verdict to its arithmetic, and closes it again") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    auto* foot = bench.find<QLabel>("checks");
    const QString checks = foot->text();
    auto* ledger = bench.find<QListView>("ledger");
    QTest::keyClick(ledger, Qt::Key_Return);
    CHECK(foot->text().contains("paired t"));
    CHECK(foot->text().contains("4 degrees of freedom"));
    CHECK(foot->text().contains("No more than 2.7 m"));
    const QString first = foot->text();
    QTest::keyClick(ledger, Qt::Key_Down);
    CHECK(foot->text() != first);
    QTest::keyClick(ledger, Qt::Key_Return);
    CHECK(foot->text() == checks);
}

TEST_CASE("no more than three outcomes can be declared") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    REQUIRE(bench.waitForReading());
    bench.session.declaring().togglePrimary(*record::outcomeFromText("side_m"));
    bench.session.declaring().togglePrimary(*record::outcomeFromText("spin_rpm"));
    CHECK(bench.session.test().card.primary.size() == 3);
    CHECK(bench.message() == "Three outcomes can be declared at most; take one back first.");
}

TEST_CASE("pointing at a knot, by mouse or by key, says which shot it is") {
    Bench bench;
    bench.readFile(bench.writeFile("shots.csv", twoClubs));
    REQUIRE(bench.waitForReading());
    auto* cords = bench.find<app::PictureView>("picture");
    REQUIRE(knot::test::eventually([&] { return cords->picture() && !cords->picture()->marks().empty(); }, 2000));
    QTest::mouseMove(cords, cords->picture()->marks()[0].at.toPoint());
    CHECK(bench.find<QLabel>("caption")->text().contains("shot"));
    QTest::mouseMove(cords, QPoint(3, 3));
    CHECK(bench.find<QLabel>("caption")->text().startsWith("every dot is a counted shot"));
    cords->setFocus();
    QTest::keyClick(cords, Qt::Key_Right);
    const QString first = cords->litText();
    CHECK(first.contains("lap"));
    QTest::keyClick(cords, Qt::Key_Right);
    CHECK(cords->litText() != first);
    QTest::keyClick(cords, Qt::Key_Down);
    CHECK(cords->litText().startsWith("Elm"));
}

TEST_CASE("odd tests show their reason and no stray numbers") {
    struct Row {
        const char* text;
        const char* words;
    };
    const Row rows[] = {{"build,carry_m\nA,150\n", "A comparison needs a second club"},
                        {"build,carry_m\nA,150\nB,160\n", "a verdict needs three"},
                        {"build,carry_m\nA,--\nB,--\n", "No counted shot has a reading"},
                        {"build,carry_m\nA,150\nB,150\nA,150\nB,150\nA,150\nB,150\n", "lap"}};
    for (const Row& row : rows) {
        Bench bench;
        bench.readFile(bench.writeFile("odd.csv", row.text));
        REQUIRE(bench.waitForReading());
        CHECK(bench.find<QLabel>("checks")->text().contains(row.words));
        for (const QString& line : bench.ledgerSentences())
            CHECK(!line.contains("nan", Qt::CaseInsensitive));
        CHECK(!bench.window->grab().isNull());
    }
}

TEST_CASE("the ledger model keeps Qt's rules while readings come and go") {
    app::LedgerModel model;
    QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::Fatal);
    Bench bench;
    bench.readFile(bench.writeFile("shots.csv", twoClubs));
    REQUIRE(bench.waitForReading());
    model.setReading(bench.session.judging().reading(), {}, {});
    CHECK(model.rowCount() > 2);
    CHECK(!(model.flags(model.index(0)) & Qt::ItemIsSelectable));
    model.setReading(nullptr, {}, {});
    CHECK(model.rowCount() == 0);
}
