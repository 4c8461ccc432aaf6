// What leaves the Sheet, Rack and Plan, and what comes to them from outside: the sheet on paper, a shop's stock, units.
#include "app/hands.h"
#include "app/picture/power_view.h"
#include "app/rack_page/club_rows.h"
#include "app/sheet_page/sheet_html.h"

#include <QAction>
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QLineEdit>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::addClubs;
using knot::test::Bench;
using knot::test::Hands;

TEST_CASE("the sheet prints as it reads, and names no club while it is sealed") {
    Bench bench;
    bench.openDemo();
    const auto& tests = bench.session.book().tests();
    const auto shafts = std::ranges::find_if(
        tests, [](const auto& one) { return one.title.find("lighter shaft") != std::string::npos; });
    REQUIRE(bench.session.openTest(shafts->id));
    const QString path = bench.path("sheet.pdf");
    bench.prompter->answers = {path};
    bench.trigger("actionPrintSheet");
    QFile pdf(path);
    REQUIRE(pdf.open(QIODevice::ReadOnly));
    CHECK(pdf.read(5) == "%PDF-");
    record::Test test = bench.session.test();
    const auto takes = plan::takesOf(
        test, [](const record::Outcome& outcome) { return plan::usualSpreads(outcome.metric, plan::Level::club); });
    const QString html = app::sheetHtml(test, takes, {});
    for (const char* part : {"Against Alder 62, does another shaft", "the same grip", "Reed came with a lighter one",
                             "descent 42.0 to 48.0°", "left-handed", "three shots each"})
        CHECK(html.contains(QString::fromUtf8(part)));
    test.title = "<script>x</script>";
    CHECK_FALSE(app::sheetHtml(test, takes, {}).contains("<script>"));
    test.sealedBuilds = test.builds;
    test.seal.commitment = "00";
    for (const auto& build : test.builds)
        CHECK_FALSE(app::sheetHtml(test, takes, {}).contains(QString::fromStdString(build.name)));
}

TEST_CASE("a shop's stock brings its parts to the Rack, and a bracket to start from") {
    Bench bench;
    Hands hands(bench);
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.prompter->answers = {bench.writeFile("stock.csv", "name,mass,flex,material\nReed 45,45,A,graphite\n"
                                                            "Larch 71,71,S,graphite\n")};
    bench.trigger("actionStock");
    CHECK(bench.message() == "2 parts of the stock can be typed on the Clubs page from now on.");
    bench.session.declaring().change("kind", [](record::Declared& test) {
        test.card.kind = record::TestKind::shaft;
        test.players = {{.id = "r", .name = "Runa Veld", .clubSpeed = 40, .height = 1750, .hand = 183}};
    });
    bench.window->showPage(app::PageId::rack);
    addClubs(hands, {"Larch 71"}); // known by its name
    CHECK(bench.session.test().builds[0].club.shaft.mass == 71.0);
    CHECK(bench.session.test().builds[0].club.shaft.flex == "S");
    const QString starting = bench.find<QLabel>("starting")->text();
    CHECK(starting.contains("Bracket it: Reed 45"));
    CHECK(starting.contains("Length, by the body"));
    CHECK(starting.contains("Grip, by the hand: standard."));
    bench.prompter->answers = {bench.writeFile("odd.csv", "weight\n53\n")};
    bench.trigger("actionStock");
    CHECK(bench.message().contains("name"));

    // The same a degree up and flat is a test of lies by one key.
    auto* rows = bench.find<app::ClubRows>("clubs");
    bench.session.declaring().change("lie", [](record::Declared& test) { test.builds[0].club.head.lie = 60; });
    rows->setFocus();
    rows->setCurrentRow(0);
    QTest::keyClick(rows, Qt::Key_L);
    const auto& test = bench.session.test();
    REQUIRE(test.builds.size() == 3);
    CHECK(test.card.kind == record::TestKind::lie);
    CHECK(test.nameOf(test.card.baseline) == "Larch 71");
    CHECK(test.builds[1].club.bentLie == 1);
    CHECK(test.builds[2].club.bentLie == -1);
}

TEST_CASE("units are one choice for the whole program, and lengths of clubs among them") {
    Bench bench;
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Oak"}};
        test.builds[0].club.length = 1073.15;
    });
    bench.window->showPage(app::PageId::rack);
    CHECK(bench.find<QLineEdit>("allLength")->text() == "1073 mm");
    bench.trigger("actionUnitLength1");
    CHECK(bench.find<QLineEdit>("allLength")->text() == QString::fromUtf8("42¼ in"));
    CHECK(bench.find<QAction>("actionUnitLength1")->isChecked());
    Hands hands(bench);
    hands.fill("allLength", "42");
    CHECK(*bench.session.test().builds[0].club.length == Approx(42 * 25.4));
    // The logbook keeps the choice.
    CHECK(logbook::Logbook::read(bench.session.book().path().toStdString())->units()->length == record::LengthUnit::in);
}

TEST_CASE("the plan's curve is of the outcome that is chosen, a spread's by its ratio") {
    Bench bench;
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Oak"}, {.name = "Elm"}};
        test.card.primary = {{.metric = record::Metric::carry, .shape = {}},
                             {.kind = record::OutcomeKind::spread, .metric = record::Metric::side, .shape = {}}};
    });
    bench.window->showPage(app::PageId::plan);
    Hands hands(bench);
    emit bench.find<QLabel>("curvesBy")->linkActivated("gap");
    CHECK(bench.find<QLabel>("answers")->text().contains("sees a gap of"));
    hands.say("seenIn", "spread");
    CHECK(bench.find<QLabel>("answers")->text().contains("times as large 80 times in 100"));
    CHECK(!bench.find<app::PowerView>("power")->grab().isNull());

    hands.say("restMinutes", "4");
    CHECK(bench.session.test().plan.restSeconds == 240);
    bench.session.declaring().change("blind",
                                     [](record::Declared& test) { test.card.blinding = record::Blinding::bothBlind; });
    hands.say("tagWords", "Red, Blue");
    CHECK(bench.session.test().plan.tagWords == std::vector<std::string>{"Red", "Blue"});
    bench.session.declaring().seal();
    REQUIRE(knot::test::eventually([&] { return bench.session.declaring().sealInHand() != nullptr; }));
    REQUIRE(bench.session.declaring().keepSeal());
    CHECK(bench.session.test().builds[0].name == "Red");
}
