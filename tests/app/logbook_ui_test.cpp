#include "app/import/heading_dialog.h"
#include "app/logbook_page/test_list.h"
#include "app/shell/spine.h"
#include "app/style/palette.h"
#include "app/support.h"
#include "logbook/logbook.h"

#include <QAbstractItemModelTester>
#include <QComboBox>
#include <QLabel>
#include <QListView>
#include <QPushButton>
#include <QSettings>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;

TEST_CASE("without a logbook the page says what to do first") {
    Bench bench;
    CHECK(bench.find<QLabel>("title")->text() == "No logbook open");
    CHECK(bench.find<QLabel>("emptyText")->text().contains("import a shot file"));
    bench.prompter->answers = {bench.writeFile("s.csv", "build,carry_m\nA,150\nB,160\n")};
    QTest::mouseClick(bench.find<QPushButton>("importButton"), Qt::LeftButton);
    CHECK(bench.prompter->asked == QStringList{"Import shots"});
    CHECK(bench.session.hasTest());
}

TEST_CASE("an empty logbook asks for shots, and imports go straight into it") {
    Bench bench;
    { auto book = logbook::Logbook::create(bench.path("new.knotbook").toStdString()); }
    bench.prompter->answers = {bench.path("new.knotbook")};
    bench.trigger("actionOpen");
    CHECK(bench.find<QLabel>("title")->text() == "new");
    CHECK(bench.find<QLabel>("emptyText")->text() == "No tests yet. Plan one, import a shot file, or drop one here.");
    bench.window->openPath(bench.writeFile("s.csv", "build,carry_m\nA,150\nB,160\n"));
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

TEST_CASE("a file with unknown headings asks what they mean, and remembers") {
    QSettings().clear();
    Bench bench;
    const auto path = bench.writeFile("odd.csv", "Club,Flight\nA,150\nB,160\n");
    bench.window->openPath(path);
    CHECK(bench.prompter->askedHeadings == std::vector<std::string>{"Club", "Flight"});
    CHECK(bench.message().contains("no column says which club was struck"));
    CHECK(!bench.session.hasTest());
    bench.prompter->headings = files::HeadingMap{{"Club", "build"}, {"Flight", "carry_yd"}};
    bench.window->openPath(path);
    CHECK(bench.message().isEmpty());
    REQUIRE(bench.session.hasTest());
    CHECK(*bench.session.test().shots[0].readings.at(record::Metric::carry) == Approx(137.16));
    Bench later;
    later.window->openPath(path);
    CHECK(later.session.hasTest());
    CHECK(later.prompter->askedHeadings.empty());
    QSettings().clear();
}

TEST_CASE("the heading dialog starts from what it understands and answers with what is chosen") {
    app::HeadingDialog dialog("odd.csv", {"Build", "Flight", "Mood"}, {{"Flight", "carry_yd"}});
    CHECK(dialog.map() == files::HeadingMap{{"Build", "build"}, {"Flight", "carry_yd"}, {"Mood", ""}});
    auto* mood = dialog.findChild<QComboBox*>("heading2");
    mood->setCurrentIndex(mood->findText("spin_rpm"));
    CHECK(dialog.map().at("Mood") == "spin_rpm");
}

TEST_CASE("rows read as sentences, and the model keeps Qt's rules") {
    app::TestListModel model;
    QAbstractItemModelTester tester(&model, QAbstractItemModelTester::FailureReportingMode::Fatal);
    Bench bench;
    bench.openDemo();
    model.setTests(bench.session.book().tests());
    CHECK(model.index(7).data(Qt::AccessibleTextRole).toString() ==
          "Which five-wood shaft holds Marit’s line?. Marit Aasgaard · 14 March 2026 · 45 knots · 15 stints");
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
