// Hitting without a plan, and putting the record right, by keys in the real window.
#include "app/bay_page/now_view.h"
#include "app/hands.h"
#include "core/bay/hand.h"
#include "core/bay/strike.h"

#include <QAbstractItemModelTester>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QTableView>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;
using knot::test::declareSealed;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::hit;

namespace {

app::NowPicture now(Bench& bench) {
    return bench.find<app::NowView>("now")->picture();
}

// A sitting of two clubs in the bay: three shots of Club 1, then two of Reed.
const record::Test& struckSitting(Bench& bench, Hands& hands) {
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return);
    for (const double carry : {150, 151, 90})
        hit(bench, carry);
    bench.session.bay().step("another club", [](record::Test& test) { bay::takeNewInHand(test, "Reed"); });
    for (const double carry : {160, 161})
        hit(bench, carry);
    return bench.session.test();
}

} // namespace

TEST_CASE("hitting takes two keys, its warm-up apart, and shows averages by club") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hit(bench, 120);
    CHECK(now(bench).caption == "Warm up, not counted");
    CHECK(now(bench).count == "swing 2");
    hands.press(Qt::Key_Return);
    hit(bench, 150);
    hit(bench, 152);
    const auto& test = bench.session.test();
    REQUIRE(test.shots.size() == 3);
    CHECK(test.shots[0].status == record::ShotStatus::warmUp);
    CHECK(test.shots[1].status == record::ShotStatus::counted);
    CHECK(test.builds.size() == 1);
    CHECK(now(bench).name == "Club 1");
    CHECK(now(bench).count == "shot 3 of this stint");
    auto* averages = bench.find<QLabel>("averages");
    CHECK(eventually([&] { return averages->text().contains("Club 1 151"); }));
    hands.press(Qt::Key_U);
    hands.press(Qt::Key_U);
    hands.press(Qt::Key_U); // warm enough
    CHECK(now(bench).caption == "Warm up, not counted");
}

TEST_CASE("another club while hitting is a number, a name, or nothing but Enter") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return);
    hit(bench, 150);
    hands.press(Qt::Key_T);
    for (const char letter : std::string("Reed"))
        QTest::keyClick(bench.window->focusWidget(), letter);
    hands.press(Qt::Key_Return);
    const auto& test = bench.session.test();
    REQUIRE(test.builds.size() == 2);
    CHECK(now(bench).name == "Reed");
    CHECK(now(bench).caption == "In hand"); // whoever is warm stays warm
    hit(bench, 151);
    hands.press(Qt::Key_T);
    hands.press(Qt::Key_1);
    CHECK(now(bench).name == "Club 1");
    hands.press(Qt::Key_T);
    hands.press(Qt::Key_Return);
    CHECK(now(bench).name == "Club 3");
    hands.press(Qt::Key_T);
    for (const char letter : std::string("reed")) // it is there already
        QTest::keyClick(bench.window->focusWidget(), letter);
    hands.press(Qt::Key_Return);
    CHECK(now(bench).name == "Reed");
    CHECK(test.builds.size() == 3);
    hands.press(Qt::Key_U);
    hands.press(Qt::Key_U);
    CHECK(test.builds.size() == 2);
    hands.press(Qt::Key_T);
    hands.press(Qt::Key_Escape);
    CHECK(test.builds.size() == 2);
    CHECK(test.shots.size() == 2);
    CHECK(test.shots[1].build == 1);
    hands.press(Qt::Key_T);
    for (const char letter : std::string("7i")) // there are no seven to choose from
        QTest::keyClick(bench.window->focusWidget(), letter);
    hands.press(Qt::Key_Return);
    CHECK(now(bench).name == "7i");
}

TEST_CASE("a shot struck three shots ago is set aside with four keys, late, and counted again") {
    Bench bench;
    Hands hands(bench);
    const auto& test = struckSitting(bench, hands);
    hands.press(Qt::Key_L);
    hands.press(Qt::Key_Up);
    hands.press(Qt::Key_Up);
    hands.press(Qt::Key_Space);
    CHECK(test.shots[2].status == record::ShotStatus::setAside);
    CHECK(test.shots[2].setAsideWhen == record::SetAsideWhen::afterNumber);
    REQUIRE(test.amendments.size() == 1);
    CHECK(test.amendments.back().text == "shot 3: set aside");
    hands.press(Qt::Key_Space);
    CHECK(test.shots[2].status == record::ShotStatus::counted);
    hands.press(Qt::Key_S);
    hands.type("fat");
    hands.press(Qt::Key_Return);
    CHECK(test.shots[2].reason == "fat");
    hands.press(Qt::Key_U);
    CHECK(test.shots[2].status == record::ShotStatus::counted);
    hands.press(Qt::Key_Escape);
    hit(bench, 162); // back in the bay
    CHECK(test.shots.size() == 6);
}

TEST_CASE("shots under the wrong club are moved together, a stint is split and joined, and all is undone") {
    Bench bench;
    Hands hands(bench);
    const auto& test = struckSitting(bench, hands);
    const auto shots = test.shots;
    hands.press(Qt::Key_L);
    hands.press(Qt::Key_Up, Qt::ShiftModifier);
    hands.press(Qt::Key_1);
    CHECK(test.shots[3].build == 0);
    CHECK(test.shots[4].build == 0);
    CHECK(test.amendments.back().text == "shots 4, 5: struck with Club 1 after all");
    hands.press(Qt::Key_U);
    CHECK(test.shots == shots);
    hands.press(Qt::Key_Home, Qt::ControlModifier);
    hands.press(Qt::Key_Down);
    hands.press(Qt::Key_N);
    CHECK(test.shots[1].turn != test.shots[0].turn);
    hands.press(Qt::Key_J);
    CHECK(test.shots == shots);
    hands.press(Qt::Key_J);
    CHECK(bench.message() == "It is like that already.");
    const auto kept = bench.session.book().load(test.id);
    REQUIRE(kept);
    CHECK(kept->shots == test.shots);
    CHECK(kept->amendments == test.amendments);
}

TEST_CASE("a typed number is put right in the list; one that a device read stays") {
    Bench bench;
    Hands hands(bench);
    const auto& test = struckSitting(bench, hands);
    auto* table = bench.find<QTableView>("shotTable");
    hands.press(Qt::Key_L);
    const auto column = [&](const char* heading) {
        for (int i = 0; i < table->model()->columnCount(); ++i)
            if (table->model()->headerData(i, Qt::Horizontal).toString().startsWith(heading))
                return i;
        return -1;
    };
    REQUIRE(column("carry") > 0);
    table->setCurrentIndex(table->model()->index(4, column("carry")));
    auto typeOver = [&](const char* text) {
        hands.press(Qt::Key_F2);
        auto* editor = qobject_cast<QLineEdit*>(bench.window->focusWidget());
        REQUIRE(editor != nullptr);
        editor->setText(text);
        QTest::keyClick(editor, Qt::Key_Return);
        QApplication::processEvents();
        table->setFocus();
    };
    typeOver("155.5");
    CHECK(eventually([&] { return test.shots[4].readings.at(record::Metric::carry) == 155.5; }));
    REQUIRE(!test.amendments.empty());
    CHECK(test.amendments.back().text == "shot 5: carry is 155.5 m, not 161.0 m");
    typeOver("far");
    CHECK(eventually([&] { return bench.message().contains("“far” is not a number"); }));
    CHECK(test.shots[4].readings.at(record::Metric::carry) == 155.5);
    hands.press(Qt::Key_Delete);
    CHECK(!test.shots[4].readings.has(record::Metric::carry));
    hands.press(Qt::Key_U);
    REQUIRE(test.shots.size() == 5);
    CHECK(test.shots[4].readings.at(record::Metric::carry) == 155.5);
    bench.session.bay().stepOn("read", test.shots[4].id, [](record::Shot& shot) { shot.readId = "link:5"; });
    typeOver("155");
    CHECK(eventually([&] { return bench.message().contains("stays as it was read"); }));
}

TEST_CASE("the reading's own shots are put right too, and the reading is looked at again") {
    Bench bench;
    Hands hands(bench);
    bench.openDemo();
    REQUIRE(bench.session.openTest(bench.session.book().tests().back().id));
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    const auto before = bench.session.test().shots.back().build;
    hands.press(Qt::Key_L);
    REQUIRE(bench.find<QTableView>("shotTable")->hasFocus());
    hands.press(before == 0 ? Qt::Key_2 : Qt::Key_1);
    CHECK(bench.session.test().shots.back().build != before);
    hands.press(Qt::Key_Escape);
    CHECK(bench.find<QListView>("ledger")->isVisible());
    CHECK(bench.waitForReading());
    hands.press(Qt::Key_L);
    hands.press(Qt::Key_1, Qt::AltModifier); // left by another way
    hands.press(Qt::Key_5, Qt::AltModifier);
    hands.press(Qt::Key_Escape);
    CHECK(!bench.find<QListView>("ledger")->isVisible());
}

TEST_CASE("the list of shots keeps Qt's rules") {
    Bench bench;
    Hands hands(bench);
    struckSitting(bench, hands);
    auto* model = bench.find<QTableView>("shotTable")->model();
    QAbstractItemModelTester tester(model, QAbstractItemModelTester::FailureReportingMode::Fatal);
    hands.press(Qt::Key_L);
    CHECK(model->rowCount() == 5);
    CHECK(model->index(2, 0).data(Qt::AccessibleTextRole).toString().contains("Club Club 1, Stint 1, Counted? yes"));
    hands.press(Qt::Key_Escape);
    hit(bench, 1);
    hands.press(Qt::Key_L);
    CHECK(model->rowCount() == 6);
}

TEST_CASE("two clubs that were hit go into a fair test, warm as the player is") {
    Bench bench;
    Hands hands(bench);
    struckSitting(bench, hands);
    const std::string sitting = bench.session.test().id;
    SECTION("the only two at once") {
        hands.press(Qt::Key_Y);
    }
    SECTION("of three the two that are named") {
        bench.session.bay().step("another club", [](record::Test& test) { bay::takeNewInHand(test, "Alder"); });
        hands.press(Qt::Key_Y);
        hands.press(Qt::Key_2);
        hands.press(Qt::Key_1);
    }
    const auto& test = bench.session.test();
    CHECK(test.id != sitting);
    CHECK(test.stage == record::Stage::test);
    REQUIRE(test.builds.size() == 2);
    CHECK(test.builds[0].name == "Club 1");
    CHECK(test.builds[1].name == "Reed");
    CHECK(!test.turns.empty());
    CHECK(test.plan.warmUp == 0);
    CHECK(!test.card.held.empty());
    CHECK(test.shots.empty());
    hands.press(Qt::Key_5, Qt::AltModifier);
    hands.press(Qt::Key_Return);
    hit(bench, 150);
    CHECK(test.shots.front().status == record::ShotStatus::counted);
}

TEST_CASE("a sealed test stays sealed in the list of its shots, in what is put right and in what is said") {
    Bench bench;
    Hands hands(bench);
    const QStringList clubs{"Alder 62", "Reed 53", "Larch 71"};
    declareSealed(bench, hands, clubs);
    bench.session.declaring().change("no warm-up", [](record::Declared& test) { test.plan.warmUp = 0; });
    hands.press(Qt::Key_5, Qt::AltModifier);
    for (int i = 0; i < 6; ++i) {
        if (bench.session.bay().stand().phase() != bay::Phase::striking)
            hands.press(Qt::Key_Return);
        hit(bench, 150 + i);
    }
    hands.press(Qt::Key_F);
    hands.press(Qt::Key_Escape);
    hands.press(Qt::Key_L);
    hands.press(Qt::Key_2);
    hands.press(Qt::Key_S);
    hands.type("fat");
    hands.press(Qt::Key_Return);
    const auto& test = bench.session.test();
    REQUIRE(test.amendments.size() >= 1);
    QStringList said;
    for (const auto& amendment : test.amendments)
        said << QString::fromStdString(amendment.text);
    auto* model = bench.find<QTableView>("shotTable")->model();
    for (int row = 0; row < model->rowCount(); ++row)
        said << model->index(row, 0).data(Qt::AccessibleTextRole).toString();
    for (const auto* label : bench.window->findChildren<QLabel*>())
        if (label->isVisible())
            said << label->text();
    said << bench.message() << now(bench).name << now(bench).caption;
    for (const QString& club : clubs)
        CHECK(!said.join('\n').contains(club));
}

TEST_CASE("a tip is marked by a key that asks for it, and its words stand where it changed something") {
    Bench bench;
    Hands hands(bench);
    const record::Test& test = struckSitting(bench, hands);
    hands.press(Qt::Key_P);
    hands.type("slower takeaway");
    hands.press(Qt::Key_Return);
    hit(bench, 155);
    REQUIRE(test.shots.size() == 6);
    CHECK(test.shots[5].mark == record::Mark::player);
    REQUIRE(test.events.size() == 1);
    CHECK(test.events[0].text == "slower takeaway");
    CHECK(test.events[0].afterShots == 5);
}
