// The Rack: what is the same on all typed once, a row a club typed in place, the club drawn beside it.
#include "app/form/number_field.h"
#include "app/hands.h"
#include "app/rack_page/club_rows.h"
#include "core/rack/figures.h"

#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::addClubs;
using knot::test::Bench;
using knot::test::Hands;

namespace {

// On the Rack of a new test of shafts.
void openRack(Bench& bench) {
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("kind", [](record::Declared& test) { test.card.kind = record::TestKind::shaft; });
    bench.window->resize(1280, 800);
    bench.window->showPage(app::PageId::rack);
}

} // namespace

TEST_CASE("three shafts are three lines, and what is the same on all is typed once") {
    Bench bench;
    Hands hands(bench);
    openRack(bench);
    addClubs(hands, {"Alder 62, 62 g graphite R", "Reed 53, 53 g graphite A", "Larch 71, 71g graphite S"});
    hands.fill("allHead", "Tarn 5 18° 58.5° 218 g 152 cc");
    hands.fill("allGrip", "Oakum 50 g");
    hands.fill("allLength", "42¼ in");
    hands.fill("allBall", "Lapwing");
    const auto& builds = bench.session.test().builds;
    REQUIRE(builds.size() == 3);
    for (const auto& build : builds) {
        CHECK(build.club.head.name == "Tarn 5");
        CHECK(build.club.head.lie == 58.5);
        CHECK(build.club.grip.mass == 50.0);
        CHECK(*build.club.length == Approx(1073.15));
        CHECK(build.club.ball == "Lapwing");
        CHECK(rack::figuresOf(build.club).swingWeight);
    }
    CHECK(builds[2].club.shaft.flex == "S");
    // One more is like them but for its shaft.
    addClubs(hands, {"Yew, 58 g"});
    CHECK(builds[3].club.head.name == "Tarn 5");
    CHECK(builds[3].club.shaft.mass == 58.0);
    CHECK(builds[3].club.shaft.flex.empty());

    // Where one differs it is said, there and in its row.
    bench.session.declaring().change("grip", [](record::Declared& test) { test.builds[1].club.grip.mass = 46; });
    CHECK(bench.find<QLabel>("allGripLabel")->text() == "grip differs");
    CHECK(bench.find<QLineEdit>("allGrip")->text().isEmpty());
    const auto& shown = bench.find<app::ClubRows>("clubs")->shown();
    CHECK(shown.slips[1] == "grip mass 46 g");
    CHECK(shown.slips[0].isEmpty());
    hands.fill("allGrip", "50 g");
    CHECK(builds[1].club.grip.mass == 50.0);
    CHECK(builds[1].club.grip.name == "Oakum");
    bench.trigger("actionUndo");
    CHECK(bench.session.test().builds[1].club.grip.mass == 46.0);
}

TEST_CASE("a row is typed in place, and a name that another club has is not taken") {
    Bench bench;
    Hands hands(bench);
    openRack(bench);
    addClubs(hands, {"Alder 62, 62 g", "Reed 53, 53 g"});
    auto* rows = bench.find<app::ClubRows>("clubs");
    rows->setFocus();
    rows->setCurrentRow(1);
    QTest::keyClick(rows, Qt::Key_Return);
    auto* line = rows->findChild<QLineEdit*>("clubLine");
    REQUIRE(line != nullptr);
    CHECK(line->text() == "Reed 53, 53 g");
    QTest::keyClick(line, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(line, "Reed 55, 55 g A");
    QTest::keyClick(line, Qt::Key_Return);
    REQUIRE(knot::test::eventually([&] { return bench.session.test().builds[1].name == "Reed 55"; }));
    CHECK(bench.session.test().builds[1].club.shaft.flex == "A");
    CHECK(rows->item(1)->data(Qt::AccessibleTextRole).toString().startsWith(QString::fromUtf8("Reed 55, 55 g · A.")));

    QTest::keyClick(rows, Qt::Key_Return);
    line = rows->findChild<QLineEdit*>("clubLine");
    REQUIRE(line != nullptr);
    QTest::keyClick(line, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(line, "Alder 62");
    QTest::keyClick(line, Qt::Key_Return);
    REQUIRE(knot::test::eventually([&] { return bench.message() == "Another club is called Alder 62."; }));
    CHECK(bench.session.test().builds[1].name == "Reed 55");

    // Every part of it is a key away, and what the drawing shows a click.
    QTest::mouseClick(rows->viewport(), Qt::LeftButton, {}, rows->visualItemRect(rows->item(1)).center());
    CHECK(bench.find<QLineEdit>("shaftMassEdit")->hasFocus());
    CHECK(bench.find<QLineEdit>("shaftMassEdit")->text() == "55");
    bench.find<QAbstractButton>("everyPart")->click();
    rows->setFocus();
    QTest::keyClick(rows, Qt::Key_Right);
    CHECK(bench.find<QLineEdit>("shaftMassEdit")->hasFocus());
    CHECK(bench.find<QLineEdit>("clubName")->isVisible());
    CHECK(bench.find<QLineEdit>("clubName")->text() == "Reed 55");
}

TEST_CASE("clubs of every kind of test are drawn without a fault, few and many, long names too") {
    for (int kind = 0; kind < 10; ++kind)
        for (const std::size_t clubs : {1U, 3U, 12U}) {
            Bench bench;
            REQUIRE(bench.session.newTest(record::Stage::test));
            bench.session.declaring().change("clubs", [&](record::Declared& test) {
                test.card.kind = static_cast<record::TestKind>(kind);
                for (std::size_t i = 0; i < clubs; ++i) {
                    record::Build build{.name = "A club with a name of forty letters " + std::to_string(i)};
                    build.club.head = {
                        .kind = record::PartKind::head, .loft = 20.0 + 3.0 * static_cast<double>(i), .lie = 60};
                    build.club.shaft.mass = 50 + 5.0 * static_cast<double>(i);
                    test.builds.push_back(build);
                }
            });
            bench.window->resize(1280, 800);
            bench.window->showPage(app::PageId::rack);
            auto* rows = bench.find<app::ClubRows>("clubs");
            CHECK(rows->count() == static_cast<int>(clubs));
            CHECK(!rows->grab().isNull());
        }
}

TEST_CASE("the parts of a club are measured in the unit that lengths are shown in") {
    Bench bench;
    Hands hands(bench);
    openRack(bench);
    addClubs(hands, {"Alder 62, 62 g"});
    hands.fill("allLength", "1073 mm");
    bench.find<QAbstractButton>("everyPart")->click();
    auto club = [&]() -> const record::Club& { return bench.session.test().builds[0].club; };
    CHECK(bench.find<QLabel>("clubLengthLabel")->text() == "Club length, mm");
    CHECK(bench.find<QLineEdit>("clubLengthEdit")->text() == "1073");

    bench.trigger("actionUnitLength1");
    CHECK(bench.find<QLabel>("clubLengthLabel")->text() == "Club length, in");
    CHECK(bench.find<QLineEdit>("clubLengthEdit")->text() == "42.244");
    hands.fill("clubLengthEdit", "42.25");
    CHECK(*club().length == Approx(1073.15));
    hands.fill("grippedDownEdit", "0.5");
    CHECK(club().grippedDown == Approx(12.7));
    hands.fill("clubLengthEdit", "1073"); // of millimetres, and no club
    CHECK(*club().length == Approx(1073.15));
    CHECK(bench.find<app::NumberField>("clubLength")->fault().toStdString() == "More than 0, up to 59.");

    // What waits to be taken is taken in the unit it was typed in.
    hands.fill("clubLengthEdit", "42.25");
    auto* lead = bench.find<QLineEdit>("grippedDownEdit");
    lead->setFocus();
    lead->selectAll();
    QTest::keyClicks(lead, "1");
    bench.trigger("actionUnitLength0");
    CHECK(club().grippedDown == Approx(25.4));
    CHECK(lead->text() == "25.4");
    CHECK(bench.find<QLabel>("clubLengthLabel")->text() == "Club length, mm");
}
