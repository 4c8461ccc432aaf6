// Somebody's shots on their way in, by keys and mouse: dropped, pasted, corrected, refused, remembered.
#include "app/hands.h"
#include "app/import_page/column_list.h"
#include "app/import_page/import_page.h"
#include "app/picture/runs.h"
#include "core/words/struck.h"

#include <QAbstractItemModelTester>
#include <QClipboard>
#include <QComboBox>
#include <QDialog>
#include <QDropEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QSettings>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;

namespace {

QString corpusFile(const char* name) {
    return QStringLiteral(KNOT_TEST_DATA) + "/import/" + name;
}

void drop(Bench& bench, const QString& path) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(path)});
    QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(bench.window.get(), &enter);
    QDropEvent event(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(bench.window.get(), &event);
}

void press(Bench& bench, Qt::Key key, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    QTest::keyClick(bench.window->focusWidget(), key, modifiers);
    QApplication::processEvents();
}

QString rowText(Bench& bench, int row) {
    return bench.find<app::ColumnList>("columnList")->model()->index(row, 0).data(Qt::AccessibleTextRole).toString();
}

QDialog* chooserIn(Bench& bench) {
    return bench.find<QDialog>("testChooser");
}

} // namespace

TEST_CASE("a dropped file is read with one key") {
    QSettings().clear();
    Bench bench;
    drop(bench, corpusFile("short_brackets.csv"));
    CHECK(bench.find<QLabel>("title")->text() == "short_brackets.csv");
    CHECK(bench.find<QLabel>("subtitle")->text() == "24 shots · 13 columns");
    CHECK(bench.find<QLabel>("columnCount")->text() == "13 understood");
    CHECK(rowText(bench, 3) == "Ball Spd (mph): ball speed, mph");
    CHECK(bench.find<QLabel>("struckFacts")->text().contains("3 clubs, 2 runs each."));
    CHECK(!bench.session.hasTest()); // nothing is kept before it is chosen
    press(bench, Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.session.test().shots.size() == 24);
}

TEST_CASE("cells pasted from a spreadsheet are a file like any other") {
    QSettings().clear();
    Bench bench;
    QApplication::clipboard()->setText("Club\tBall Speed (mph)\tCarry (yds)\nFern\t110\t150\nReed\t112\t156\n");
    QTest::keyClick(bench.window.get(), Qt::Key_V, Qt::ControlModifier);
    CHECK(bench.find<QLabel>("subtitle")->text() == "2 shots · 3 columns");
    press(bench, Qt::Key_Return);
    REQUIRE(bench.session.hasTest());
    CHECK(bench.session.test().shots[1].readings.at(record::Metric::carry) == Approx(156 * 0.9144));
}

TEST_CASE("what is asked is in hand first, answered with an arrow, and remembered with the logbook") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    drop(bench, corpusFile("plain_none_mph.csv"));
    CHECK(bench.find<QLabel>("columnCount")->text() == "8 understood · 1 asked");
    CHECK(rowText(bench, 7) == "Carry Distance: carry, yd. yd go with 153.6; m would too. Which?");
    CHECK(bench.find<app::ColumnList>("columnList")->currentIndex().row() == 7);
    CHECK(bench.find<QLabel>("columnHint")->text().startsWith("Carry Distance: yd go with 153.6; m would too. Which?"));
    press(bench, Qt::Key_Right);
    CHECK(rowText(bench, 7) == "Carry Distance: carry, m");
    CHECK(rowText(bench, 8).startsWith("Offline: side, m")); // what hangs on it follows
    press(bench, Qt::Key_Return);
    REQUIRE(bench.session.hasTest());
    CHECK(bench.session.test().shots[0].readings.at(record::Metric::carry) == Approx(153.6));
    QSettings().clear(); // the logbook remembers by itself
    drop(bench, corpusFile("plain_none_mph.csv"));
    CHECK(bench.find<QLabel>("columnCount")->text() == "9 understood");
    CHECK(rowText(bench, 7) == "Carry Distance: carry, m");
    QSettings().clear();
}

TEST_CASE("a meaning is typed over where it is read; what means nothing is refused and the rest stays") {
    QSettings().clear();
    Bench bench;
    drop(bench, bench.writeFile("odd.csv", "Club,Flight\nA,150\nB,160\n"));
    CHECK(bench.find<QLabel>("struckFacts")->text().contains("no column holds a measurement"));
    press(bench, Qt::Key_Down);
    auto type = [&](const char* text) {
        press(bench, Qt::Key_F2);
        auto* editor = qobject_cast<QLineEdit*>(bench.window->focusWidget());
        REQUIRE(editor != nullptr);
        editor->setText(text);
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
    };
    type("birds");
    CHECK(
        knot::test::eventually([&] { return bench.message().contains("“birds” is nothing that a column can hold"); }));
    type("carry yards");
    CHECK(knot::test::eventually([&] { return rowText(bench, 1) == "Flight: carry, yd"; }));
    press(bench, Qt::Key_Return);
    REQUIRE(bench.session.hasTest());
    CHECK(*bench.session.test().shots[0].readings.at(record::Metric::carry) == Approx(137.16));
    QSettings().clear();
}

TEST_CASE("a refused file leaves the page and the logbook as they were") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    drop(bench, bench.writeFile("empty.csv", ""));
    CHECK(bench.message() == "empty.csv is empty; expected a heading row and one row a shot.");
    CHECK(bench.find<QLabel>("title")->text() == "Demo");
    drop(bench, bench.writeFile("odd.xlsx", "PK\x03\x04 and then nothing"));
    CHECK(bench.message().contains("can't be read as a spreadsheet: it is damaged"));
    CHECK(bench.session.book().tests().size() == 14);
}

TEST_CASE("a file without clubs becomes a sitting; one of the test's clubs another sitting of it") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    drop(bench, bench.writeFile("range.csv", "Ball Speed (mph),Carry (m)\n110,150\n112,152\n"));
    press(bench, Qt::Key_Return);
    REQUIRE(bench.session.hasTest());
    CHECK(bench.session.test().stage == record::Stage::openSitting);
    CHECK(bench.session.test().builds.front().name == "Club 1");
    drop(bench, bench.writeFile("more.csv", "Club,Carry (m)\nClub 1,149\n"));
    press(bench, Qt::Key_A);
    QTest::keyClick(chooserIn(bench)->focusWidget(), Qt::Key_Return); // the one in hand comes first
    CHECK(bench.session.test().shots.size() == 3);
    CHECK(bench.session.test().shots.back().sitting == "more");
}

TEST_CASE("shots are added to another test of the logbook, chosen by its name") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().front().id));
    const std::string wanted = bench.session.book().tests().back().id;
    const std::size_t before = bench.session.book().load(wanted)->shots.size();
    drop(bench, bench.writeFile("more.csv", "Club,Ball Speed (m/s),Carry (m)\nFern,61,180\nFern,62,183\n"));
    press(bench, Qt::Key_A);
    auto* chooser = chooserIn(bench);
    QTest::keyClick(chooser->focusWidget(), Qt::Key_Escape);
    QApplication::processEvents();
    CHECK(chooserIn(bench) == nullptr);
    press(bench, Qt::Key_A);
    chooser = chooserIn(bench);
    QTest::keyClicks(chooser->focusWidget(), "five-wood");
    QTest::keyClick(chooser->focusWidget(), Qt::Key_Return);
    CHECK(bench.session.test().id == wanted);
    CHECK(bench.session.test().shots.size() == before + 2);
    CHECK(bench.session.test().shots.back().sitting == "more");
}

TEST_CASE("pasted cells are laid on the plan as a file is") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("the clubs", [](record::Declared& test) {
        test.builds = {{"Larch", {}}, {"Reed", {}}};
        test.plan.rounds = 2;
        test.plan.turnLength = 2;
    });
    QApplication::clipboard()->setText("Carry (m)\n150\n151\n152\n");
    QTest::keyClick(bench.window.get(), Qt::Key_V, Qt::ControlModifier);
    press(bench, Qt::Key_L);
    CHECK(bench.find<QLabel>("layTotals")->text().contains("3 matched"));
    press(bench, Qt::Key_Return);
    REQUIRE(bench.session.test().shots.size() == 3);
    CHECK(bench.session.test().shots[1].readings.at(record::Metric::carry) == 151);
}

TEST_CASE("a label of two parts is taken apart as is said") {
    QSettings().clear();
    Bench bench;
    drop(bench,
         bench.writeFile("l.csv", "Club,Carry (m)\n7i - full,150\n7i - punch,130\n8i - full,140\n8i - punch,120\n"));
    auto* second = bench.find<QComboBox>("secondPart");
    REQUIRE(second->isVisible());
    second->setCurrentIndex(1);
    emit second->activated(1);
    QApplication::processEvents();
    CHECK(bench.find<app::ImportPage>("importPage")->imported()->test.builds.size() == 2);
    CHECK(bench.find<app::ImportPage>("importPage")->imported()->test.shots[1].delivery == "punch");
}

TEST_CASE("what cannot be is asked about with the likely answer, and an arrow gives the other") {
    QSettings().clear();
    Bench bench;
    bench.window->openPath(bench.writeFile(
        "zeros.csv", "Club,Carry (yds),Spin (rpm)\nFern,150,6100\nFern,151,0\nReed,152,6200\nReed,149,6300\n"));
    CHECK(bench.find<QLabel>("columnCount")->text() == "2 understood · 1 asked");
    CHECK(rowText(bench, 2) == "Spin (rpm): spin, rpm. Line 3 says “0”: not measured?");
    const auto* page = bench.find<app::ImportPage>("importPage");
    CHECK(!page->imported()->test.shots[1].readings.has(record::Metric::spin));
    press(bench, Qt::Key_Right);
    CHECK(rowText(bench, 2).startsWith("Spin (rpm): spin, rpm; as it stands"));
    CHECK(page->imported()->test.shots[1].readings.at(record::Metric::spin) == 0);
    press(bench, Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.session.test().shots[1].readings.at(record::Metric::spin) == 0);
    // The file speaks yards, and so does what is said of it; until the user says otherwise.
    CHECK(bench.session.book().units().distance == record::DistanceUnit::yd);
    bench.trigger("actionUnitDistance0");
    bench.readFile(bench.writeFile("more.csv", "Club,Carry (yds)\nFern,150\nReed,152\n"));
    CHECK(bench.session.book().units().distance == record::DistanceUnit::m);
}

TEST_CASE("an answer that hangs on a file's values is not remembered for the next one") {
    QSettings().clear();
    Bench bench;
    const QByteArray heads = "Club,Club Speed [mph],Ball Speed [mph]\n";
    bench.readFile(bench.writeFile("swapped.csv", heads + "A,112,84\nA,113,85\nB,115,86\nB,114,85\n"));
    CHECK(bench.session.test().shots[0].readings.at(record::Metric::ballSpeed) == Approx(112 * 0.44704));
    bench.window->openPath(bench.writeFile("right.csv", heads + "A,84,112\nA,85,113\nB,86,115\nB,85,114\n"));
    CHECK(bench.find<QLabel>("columnCount")->text() == "3 understood");
    CHECK(bench.find<app::ImportPage>("importPage")->imported()->test.shots[0].readings.at(record::Metric::ballSpeed) ==
          Approx(112 * 0.44704));
}

TEST_CASE("a shot and a club are left out by a key, and come back") {
    QSettings().clear();
    Bench bench;
    bench.window->openPath(bench.writeFile("rows.csv", "Club,Carry (m)\nFern,150\nFern,151\nOdd 9,152\nReed,149\n"
                                                       "Reed,148\n"));
    auto* struck = bench.find<QWidget>("struckView");
    struck->setFocus();
    auto* page = bench.find<app::ImportPage>("importPage");
    REQUIRE(page->imported()->test.builds.size() == 3);
    press(bench, Qt::Key_Down);
    CHECK(struck->accessibleDescription() == "Odd 9, run 2 of 3. Delete leaves it out.");
    press(bench, Qt::Key_Delete);
    CHECK(struck->accessibleDescription() == "Odd 9, run 2 of 3, left out. Delete brings it back.");
    CHECK(page->forKeeping().test.builds.size() == 2);
    CHECK(bench.find<QLabel>("subtitle")->text() == "5 shots · 2 columns · 1 left out");
    press(bench, Qt::Key_Down);
    press(bench, Qt::Key_Right);
    press(bench, Qt::Key_Right);
    press(bench, Qt::Key_Delete);
    CHECK(page->forKeeping().test.shots.size() == 3);
    press(bench, Qt::Key_Up);
    press(bench, Qt::Key_Delete); // it comes back
    const auto kept = page->forKeeping();
    CHECK(kept.test.shots.size() == 4);
    CHECK(kept.test.shots[3].readings.at(record::Metric::carry) == 149);
    press(bench, Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    CHECK(bench.session.test().shots.size() == 4);
}

TEST_CASE("a file of several is left out whole by a key, and comes back") {
    QSettings().clear();
    Bench bench;
    bench.window->openPaths({bench.writeFile("Monday.csv", "Club,Player,Carry (m)\nFern,Odd,150\nReed,Odd,151\n"),
                             bench.writeFile("Sunday.csv", "Club,Player,Carry (m)\nReed,Marit,152\nFern,Marit,149\n")});
    auto* struck = bench.find<QWidget>("struckView");
    auto* page = bench.find<app::ImportPage>("importPage");
    struck->setFocus();
    press(bench, Qt::Key_Down);
    press(bench, Qt::Key_Down);
    CHECK(bench.find<QLabel>("columnHint")->text() ==
          "Reed, run 3 of 4, in “Sunday”. Delete leaves it out. Shift+Delete: all of “Sunday”.");
    QTest::keyClick(struck, Qt::Key_Delete, Qt::ShiftModifier);
    const auto kept = page->forKeeping();
    CHECK(kept.test.shots.size() == 2);
    CHECK(kept.test.players.size() == 1);
    CHECK(bench.find<QLabel>("subtitle")->text() == "2 files · 4 shots · 3 columns · 2 left out");
    CHECK(struck->accessibleDescription() ==
          "Reed, run 3 of 4, in “Sunday”, left out with all of it. Delete brings it back.");
    press(bench, Qt::Key_Delete);
    CHECK(page->forKeeping().test.shots.size() == 4);
    QTest::keyClick(struck, Qt::Key_Delete, Qt::ShiftModifier);
    press(bench, Qt::Key_Right); // a shot of it: as well
    press(bench, Qt::Key_Delete);
    CHECK(page->forKeeping().test.shots.size() == 4);
    CHECK(page->forKeeping().test.players.size() == 2);
}

TEST_CASE("several files dropped are one record, and what each is is asked once") {
    QSettings().clear();
    Bench bench;
    QMimeData data;
    QList<QUrl> urls;
    for (const char* name : {"Alder", "Briar", "Cedar"})
        urls << QUrl::fromLocalFile(bench.writeFile(QStringLiteral("%1.csv").arg(QLatin1String(name)),
                                                    "Carry (m),Ball Speed (m/s)\n150,50\n151,51\n"));
    urls << QUrl::fromLocalFile(bench.writeFile("letter.csv", "Dear all,\nno shots here\n"));
    data.setUrls(urls);
    QDragEnterEvent enter(QPoint(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(bench.window.get(), &enter);
    QDropEvent event(QPointF(400, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(bench.window.get(), &event);
    auto* page = bench.find<app::ImportPage>("importPage");
    REQUIRE(page->imported() != nullptr);
    CHECK(bench.find<QLabel>("title")->text() == "Alder.csv and 3 more");
    CHECK(page->imported()->test.builds.size() == 3);
    CHECK(page->imported()->test.builds[1].name == "Briar");
    CHECK(bench.find<QLabel>("rowNotes")->text().contains("Left out: letter.csv"));
    auto* each = bench.find<QComboBox>("eachFile");
    REQUIRE(each->isVisible());
    CHECK(each->currentText() == "a club");
    each->setFocus();
    QTest::keyClick(each, Qt::Key_Down);
    QApplication::processEvents();
    CHECK(page->imported()->test.shots[2].sitting == "Briar");
    CHECK(page->imported()->test.builds.size() == 1);
}

TEST_CASE("the columns keep Qt's rules") {
    app::ColumnModel model;
    QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::Fatal);
    model.setColumns(*files::columnsIn("a.csv", "Club,Carry (m)\nA,1\n"));
    model.setColumns({});
    CHECK(model.rowCount() == 0);
}

TEST_CASE("runs lie one under another, side by side where they are many, and are counted where there is no room") {
    const auto few = picture::layoutRuns({5, 6, 4}, 300, 300);
    REQUIRE(few.runs.size() == 3);
    CHECK(few.runs[1].y > few.runs[0].y);
    CHECK(few.runs[0].knots.size() == 5);
    const auto many = picture::layoutRuns(std::vector<std::size_t>(40, 3), 300, 260);
    CHECK(many.leftOut == 0);
    for (const auto& run : many.runs)
        CHECK(run.right <= 301);
    const auto crowd = picture::layoutRuns(std::vector<std::size_t>(4000, 2), 300, 260);
    CHECK(crowd.leftOut > 0);
    CHECK(crowd.runs.size() + crowd.leftOut == 4000);
    CHECK(picture::layoutRuns({}, 300, 300).runs.empty());
}

TEST_CASE("how a record was struck is said in sentences") {
    auto said = [](const char* csv) {
        const auto read = files::readShots("a.csv", csv);
        REQUIRE(read);
        std::string all;
        for (const auto& fact : words::struckFacts(read->test))
            all += fact + " ";
        return all;
    };
    CHECK(said("build,carry_m\nA,1\nA,2\n") == "1 club, 2 shots. ");
    CHECK(said("build,carry_m\nA,1\nA,2\nB,3\nC,3\n") == "3 clubs, one run each. ");
    CHECK(said("build,taken_at,carry_m\nA,2031-05-04T10:00:00,1\nA,2031-05-04T15:10:00,2\nA,2031-06-05T15:10:00,2\n") ==
          "1 club, 3 shots. A pause of 5 h after shot 1. A pause of 32 days after shot 2. ");
    CHECK(said("build,carry_m\nA,1\nB,2\nA,3\nC,3\n") == "3 clubs, one run each; A was gone back to. ");
    CHECK(said("build,carry_m\nA,1\nB,2\nB,3\nA,3\nA,1\nB,2\n") ==
          "2 clubs, 2 runs each. 2 whole laps: each club once in each. ");
    CHECK(
        said("build,player,taken_at,carry_m,spin_rpm\nA,R,2031-05-04T10:00:00,1,5000\n"
             "B,S,2031-05-04T10:11:00,2,\n") ==
        "2 clubs, one run each. A pause of 11 min after shot 1. 2 players: R and S. Shots without a reading: spin 1. ");
}
