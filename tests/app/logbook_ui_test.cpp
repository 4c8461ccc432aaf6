#include "app/lists/test_list.h"
#include "app/shell/spine.h"
#include "app/start_page/door.h"
#include "app/style/palette.h"
#include "app/support.h"
#include "logbook/logbook.h"

#include <QAbstractItemModelTester>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QSettings>
#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;

TEST_CASE("whoever comes in finds three doors, and later what was open") {
    QSettings().clear();
    {
        Bench bench;
        CHECK(bench.find<QLabel>("title")->text() == "Knot Count");
        CHECK(bench.find<QLabel>("nothingLately")->isVisible());
        bench.prompter->answers = {bench.writeFile("s.csv", "build,carry_m\nA,150\nB,160\n")};
        QTest::mouseClick(bench.find<app::Door>("doorShots"), Qt::LeftButton);
        CHECK(bench.prompter->asked == QStringList{"Import shots"});
        CHECK(bench.find<QLabel>("title")->text() == "s.csv");
        bench.trigger("actionStart");
        QTest::mouseClick(bench.find<app::Door>("doorHit"), Qt::LeftButton);
        CHECK(bench.session.test().stage == record::Stage::openSitting);
        bench.trigger("actionStart");
        QTest::mouseClick(bench.find<app::Door>("doorTest"), Qt::LeftButton);
        CHECK(bench.session.test().stage == record::Stage::test);
    }
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    bench.trigger("actionStart");
    auto* list = bench.find<QListView>("latelyList");
    REQUIRE(list->model()->rowCount() == 1);
    const QString said = list->model()->index(0, 0).data(Qt::AccessibleTextRole).toString();
    CHECK(said.startsWith("Which five-wood shaft holds Marit’s line?. Demo · "));
    CHECK(said.endsWith(": real"));
    REQUIRE(bench.session.openTest(bench.session.book().tests().front().id));
    bench.trigger("actionStart");
    CHECK(list->model()->rowCount() == 2);
    list->setCurrentIndex(list->model()->index(1, 0));
    QTest::keyClick(list, Qt::Key_Return);
    CHECK(bench.session.test().title == "Which five-wood shaft holds Marit’s line?");
    CHECK(bench.find<QLabel>("title")->text() == "Which five-wood shaft holds Marit’s line?");
    QSettings().clear();
}

TEST_CASE("an empty logbook asks for shots, and imports go straight into it") {
    Bench bench;
    { auto book = logbook::Logbook::create(bench.path("new.knotbook").toStdString()); }
    bench.prompter->answers = {bench.path("new.knotbook")};
    bench.trigger("actionOpen");
    CHECK(bench.find<QLabel>("title")->text() == "new");
    CHECK(bench.find<QLabel>("emptyText")->text() == "No tests yet. Plan one, import a shot file, or drop one here.");
    bench.readFile(bench.writeFile("s.csv", "build,carry_m\nA,150\nB,160\n"));
    CHECK(bench.session.isKept());
    CHECK(bench.session.book().tests().size() == 1);
}

TEST_CASE("files that are no logbook are refused with a sentence and the open one stays") {
    Bench bench;
    bench.openDemo();
    bench.window->openPath(bench.writeFile("x.knotbook", "not a logbook at all"));
    CHECK(bench.message().contains("is not a Knot Count logbook"));
    CHECK(bench.session.book().path() == bench.path("Demo.knotbook"));
    bench.window->openPath(bench.path("none.knotbook"));
    CHECK(bench.message().contains("there is no such file"));
}

TEST_CASE("the spine leads to the reading once a test is open") {
    Bench bench;
    auto* spine = bench.find<app::Spine>("spine");
    spine->setFocus();
    QTest::keyClick(spine, Qt::Key_Down);
    CHECK(spine->current() == 0);
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().front().id));
    QTest::keyClick(spine, Qt::Key_Down);
    CHECK(spine->current() == 1);
    QTest::keyClick(spine, Qt::Key_Up);
    CHECK(spine->current() == 0);
    CHECK(bench.find<QLabel>("title")->text() == "Demo");
}

TEST_CASE("a test is exported as CSV or as a whole") {
    Bench bench;
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().front().id));
    bench.prompter->answers = {bench.path("out.csv"), bench.path("out.json"), bench.path("no/folder.csv")};
    bench.trigger("actionExport");
    bench.trigger("actionExport");
    CHECK(QFile::exists(bench.path("out.csv")));
    const auto before = bench.session.test().shots;
    bench.window->openPath(bench.path("out.json"));
    CHECK(bench.session.test().shots == before);
    bench.trigger("actionExport");
    CHECK(bench.message().contains("can't be written"));
}

TEST_CASE("rows read as sentences, and the model keeps Qt's rules") {
    app::TestListModel model;
    QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::Fatal);
    Bench bench;
    bench.openDemo();
    model.setTests(bench.session.book().tests());
    CHECK(model.index(13).data(Qt::AccessibleTextRole).toString() ==
          "Which five-wood shaft holds Marit’s line?. 14 March 2026. Marit Aasgaard · 45 shots · 15 stints");
    model.setTests({});
    CHECK(model.rowCount() == 0);
}

TEST_CASE("light and dark change every colour that matters") {
    const auto light = app::colours().ground;
    Bench bench;
    bench.trigger("actionTheme");
    CHECK(app::theme() == app::Theme::dark);
    CHECK(app::colours().ground != light);
    bench.trigger("actionTheme");
    CHECK(app::colours().ground == light);
}

TEST_CASE("the list is searched as one types, and says what was found of each test") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    auto* list = bench.find<QListView>("testList");
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    bench.window->showPage(app::PageId::logbook);
    const auto* model = list->model();
    CHECK(model->index(model->rowCount() - 1, 0)
              .data(Qt::AccessibleTextRole)
              .toString()
              .contains("carries farther: real"));
    list->setFocus();
    QTest::keyClicks(bench.window->focusWidget(), "marit wood");
    REQUIRE(model->rowCount() == 1);
    CHECK(model->index(0, 0).data().toString() == "Which five-wood shaft holds Marit’s line?");
    QTest::keyClick(bench.window->focusWidget(), Qt::Key_Escape);
    CHECK(model->rowCount() == 14);
    QTest::keyClicks(bench.window->focusWidget(), "farther: real");
    CHECK(model->rowCount() == 1);
    QTest::keyClick(bench.window->focusWidget(), Qt::Key_Return);
    CHECK(bench.session.test().title == "Which five-wood shaft holds Marit’s line?");
    QSettings().clear();
}

TEST_CASE("while the list is looked at, tests that nobody opened say what was found of them") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    const auto& tests = bench.session.book().tests();
    const auto struck = [](const auto& test) { return test.counted + test.setAside > 0; };
    const auto told = [](const auto& test) { return !test.finding.text.empty(); };
    REQUIRE(std::ranges::none_of(tests, told));
    CHECK(eventually([&] { return std::ranges::all_of(tests, [&](const auto& t) { return !struck(t) || told(t); }); },
                     60000));
    const auto* model = bench.find<QListView>("testList")->model();
    CHECK(model->index(13, 0).data(Qt::AccessibleTextRole).toString().contains("carries farther: real"));

    // Another gap that is worthwhile takes it away, and what is found then is told.
    const std::string id = tests.back().id;
    REQUIRE(bench.session.openTest(id));
    bench.session.declaring().change("the gap",
                                     [](record::Declared& test) { test.card.margins[record::Metric::carry] = 60; });
    const auto now = [&] {
        return std::ranges::find(bench.session.book().tests(), id, &logbook::TestEntry::id)->finding;
    };
    CHECK(eventually(
        [&] { return !now().text.empty() && now().text.find("carries farther: real") == std::string::npos; }));
}

TEST_CASE("a test is deleted with a key, and comes back whole with another") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    auto* list = bench.find<QListView>("testList");
    list->setCurrentIndex(list->model()->index(8, 0));
    const auto before = *bench.session.book().load(bench.session.book().tests()[8].id);
    QTest::keyClick(list, Qt::Key_Delete);
    CHECK(bench.session.book().tests().size() == 13);
    CHECK(bench.message().contains("was deleted. Ctrl+Z brings it back."));
    bench.trigger("actionUndo");
    REQUIRE(bench.session.book().tests().size() == 14);
    CHECK(*bench.session.book().load(before.id) == before);
    bench.trigger("actionUndo"); // once is all
    CHECK(bench.session.book().tests().size() == 14);

    // Also the one in hand; another logbook is not where it comes back.
    REQUIRE(bench.session.openTest(before.id));
    bench.window->showPage(app::PageId::logbook);
    list->setCurrentIndex(list->model()->index(8, 0));
    QTest::keyClick(list, Qt::Key_Delete);
    CHECK(!bench.session.hasTest());
    REQUIRE(bench.session.book().openOrMake(bench.path("other.knotbook")));
    CHECK(!bench.session.canUndoListed());
}

TEST_CASE("a test gets another title where it stands in the list, and the one before with Ctrl+Z") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    auto* list = bench.find<QListView>("testList");
    auto typeOver = [&](int row, const QString& title) {
        list->setFocus();
        list->setCurrentIndex(list->model()->index(row, 0));
        QTest::keyClick(list, Qt::Key_F2);
        auto* editor = qobject_cast<QLineEdit*>(bench.window->focusWidget());
        REQUIRE(editor != nullptr);
        REQUIRE(editor != bench.find<QLineEdit>("logbookSearch"));
        editor->setText(title);
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
    };
    auto titleAt = [&](int row) { return list->model()->index(row, 0).data().toString(); };
    const QString first = titleAt(2);
    const auto before = *bench.session.book().load(bench.session.book().tests()[2].id);
    typeOver(2, "A better title");
    REQUIRE(eventually([&] { return titleAt(2) == "A better title"; }));
    auto now = *bench.session.book().load(before.id);
    CHECK(now.title == "A better title");
    now.title = before.title;
    CHECK(now == before);
    typeOver(2, "  "); // no title is none
    CHECK(titleAt(2) == "A better title");
    // Also the one in hand.
    REQUIRE(bench.session.openTest(before.id));
    bench.window->showPage(app::PageId::logbook);
    typeOver(2, "Better still");
    REQUIRE(eventually([&] { return titleAt(2) == "Better still"; }));
    CHECK(bench.session.test().title == "Better still");
    list->setFocus();
    bench.trigger("actionUndo");
    CHECK(bench.session.test().title == "A better title");
    bench.trigger("actionUndo");
    CHECK(titleAt(2) == first);
    CHECK(!bench.session.canUndoListed());
}

TEST_CASE("the test in hand in the list is copied, its declaration without its shots") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    const std::size_t before = bench.session.book().tests().size();
    auto* list = bench.find<QListView>("testList");
    list->setCurrentIndex(list->model()->index(2, 0));
    const auto from = *bench.session.book().load(bench.session.book().tests()[2].id);
    QTest::keyClick(list, Qt::Key_L, Qt::ControlModifier);
    REQUIRE(bench.session.hasTest());
    const auto& test = bench.session.test();
    CHECK(test.id != from.id);
    CHECK(test.shots.empty());
    CHECK(test.card.primary == from.card.primary);
    CHECK(test.players == from.players);
    CHECK(bench.session.book().tests().size() == before + 1);
}
