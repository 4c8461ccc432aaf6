// Everything that the judge can be asked, asked on the Sheet and seen on the Reading page: causes taken out, a number
// to go along, a second factor, shapes, an aim; and what if without a shot.
#include "app/form/number_field.h"
#include "app/hands.h"
#include "app/picture/picture_view.h"
#include "app/pictures/pictures.h"
#include "app/reading_page/ledger.h"
#include "app/reading_page/picture_tabs.h"
#include "app/support.h"
#include "core/record/typed/shape_text.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QMenu>
#include <QSettings>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;
using record::Metric;

namespace {

const QByteArray heading = "round,build,delivery,shaft_g,carry_m,side_m,ball_speed_ms,club_speed_ms,launch_deg,"
                           "spin_rpm,descent_deg,attack_deg,dynamic_loft_deg,strike_toe_mm,strike_high_mm\n";

// Three clubs over eight laps of three, four laps with each delivery; heavier shafts carry less.
QByteArray shots() {
    QByteArray text = heading;
    int i = 0;
    for (int lap = 1; lap <= 8; ++lap)
        for (int place = 0; place < 3; ++place) {
            const int club = (place + lap) % 3;
            for (int shot = 0; shot < 3; ++shot) {
                const double a = ((++i * 7919) % 101) / 50.0 - 1;
                const double b = ((i * 6007) % 97) / 48.0 - 1;
                const bool isHigh = lap > 4;
                const QList<double> numbers = {150 - 3.0 * club + 3 * a + 2 * b,
                                               7 * b - club,
                                               53 - 0.4 * club + a,
                                               38 + 0.7 * a,
                                               15 + b + (isHigh ? 2 : 0),
                                               5200 + 200 * b,
                                               46 + b,
                                               -3 + b,
                                               21 + b + (isHigh ? 2 : 0),
                                               6 * a,
                                               4 * b};
                text += QByteArray::number(lap) + ",Club " + QByteArray::number(club + 1) + ',' +
                        (isHigh ? "high" : "usual") + ',' + QByteArray::number(55 + 7 * club);
                for (const double number : numbers)
                    text += ',' + QByteArray::number(number, 'f', 2);
                text += '\n';
            }
        }
    return text;
}

void openShots(Bench& bench) {
    bench.readFile(bench.writeFile("asked.csv", shots()));
    REQUIRE(bench.waitForReading());
    bench.window->resize(1280, 800);
}

void press(Bench& bench, int key) {
    QTest::keyClick(bench.find<QListView>("ledger"), static_cast<Qt::Key>(key));
}

// Chooses an entry of a box as a user does.
void choose(QComboBox* box, const QString& text) {
    const int at = box->findText(text);
    REQUIRE(at >= 0);
    box->setCurrentIndex(at);
    emit box->activated(at);
}

} // namespace

TEST_CASE("causes, a number to go along, shapes and an aim are clauses of the sentence") {
    Bench bench;
    Hands hands(bench);
    openShots(bench);
    bench.window->showPage(app::PageId::sheet);
    const auto& card = [&]() -> const record::Card& { return bench.session.test().card; };
    auto fault = [&] { return bench.find<QLabel>("sentenceFault")->text(); };

    hands.say("clause", "with strike h, club sp");
    CHECK(card().covariates == std::vector{Metric::strikeHigh, Metric::clubSpeed});
    hands.say("causes", "club speed");
    CHECK(card().covariates == std::vector{Metric::clubSpeed});
    hands.say("causes", "spin");
    CHECK(fault().startsWith(QString::fromUtf8("“spin” can't be taken out")));
    CHECK(bench.find<QLineEdit>("causes")->text() == "spin"); // nothing typed is lost
    hands.press(Qt::Key_Escape);
    CHECK(bench.find<QLineEdit>("causes")->text() == "club speed");
    hands.say("causes", "");
    CHECK(card().covariates.empty());

    hands.say("clause", "al sh");
    CHECK(card().trendColumn == "shaft_g");
    hands.say("clause", "by de");
    CHECK(card().factorColumn == "delivery");

    hands.say("clause", "on circle 12");
    CHECK(fault().contains("how far out"));
    hands.say("clause", "on circle 12 at 150");
    REQUIRE(card().shapes.size() == 1);
    CHECK(card().shapes[0].name == "circle 12 at 150");
    hands.say("clause", "on circle 12 at 150");
    CHECK(card().shapes.size() == 1);
    CHECK(fault() == "That shape is there already.");
    hands.press(Qt::Key_Escape);

    hands.say("clause", "aimed at 152");
    REQUIRE(card().aim);
    CHECK(card().aim->carry == Approx(152));
    hands.say("aim", "150, 4 left");
    CHECK(card().aim->side == Approx(-4));
    hands.say("clause", "nonsense");
    CHECK(fault().startsWith("A clause begins with"));
    hands.press(Qt::Key_Escape);

    // A share of it can be declared; taken back, so is what was declared of it.
    hands.say("outcome1", "share in circle");
    CHECK(card().primary.front().shape == "circle 12 at 150");
    hands.say("groundShape1", "circle 14 at 150");
    CHECK(card().primary.front().shape == "circle 14 at 150");
    hands.say("groundShape1", "");
    CHECK(card().shapes.empty());
    for (const auto& outcome : card().primary)
        CHECK(outcome.kind != record::OutcomeKind::share);

    // The whole reads as a sentence, and who can't see it hears it.
    const QString heard = bench.find<QWidget>("sentence")->accessibleName();
    CHECK(heard.contains("along shaft"));
    CHECK(heard.contains(", by delivery, aimed at 150.0 m, 4.0 left?"));
    for (auto* chip : bench.find<QWidget>("sentence")->findChildren<QLineEdit*>())
        CHECK_FALSE(chip->accessibleName().isEmpty());
}

TEST_CASE("the order that clubs are expected in is typed in a few letters, with who expects it") {
    Bench bench;
    openShots(bench);
    bench.window->showPage(app::PageId::sheet);
    const auto& card = [&]() -> const record::Card& { return bench.session.test().card; };
    const auto& builds = bench.session.test().builds;
    Hands hands(bench);
    hands.press(Qt::Key_X, Qt::AltModifier);
    auto* order = bench.find<QLineEdit>("expectedOrder");
    REQUIRE(order->isVisible());
    auto say = [&](const QString& text) {
        order->setFocus();
        order->selectAll();
        if (text.isEmpty())
            QTest::keyClick(order, Qt::Key_Delete);
        QTest::keyClicks(order, text);
        QTest::keyClick(order, Qt::Key_Return);
    };
    const std::string first = builds[0].name;
    const std::string second = builds[1].name;
    say(QString::fromStdString(second).toLower() + " > " + QString::fromStdString(first));
    CHECK(bench.session.test().namesOf(card().expectedOrder) == std::vector{second, first});
    say("nobody's club");
    CHECK(bench.session.test().namesOf(card().expectedOrder) == std::vector{second, first});
    CHECK(bench.find<QLabel>("orderFault")->text() ==
          QString::fromUtf8("No club on the Clubs page is called “nobody's club”."));
    CHECK(order->text() == "nobody's club"); // nothing typed is lost
    say("");
    CHECK(card().expectedOrder.empty());

    auto* by = bench.find<QLineEdit>("expectedBy");
    by->setFocus();
    QTest::keyClicks(by, "the fitter");
    QTest::keyClick(by, Qt::Key_Return);
    CHECK(card().expectedBy == "the fitter");
}

TEST_CASE("an outcome at equal delivery brings its causes with it") {
    Bench bench;
    openShots(bench);
    bench.window->showPage(app::PageId::sheet);
    Hands hands(bench);
    hands.say("outcome1", "more carry at eq");
    const auto& card = bench.session.test().card;
    REQUIRE(card.primary.size() >= 1);
    CHECK(card.primary.front().kind == record::OutcomeKind::equal);
    CHECK(card.covariates == std::vector{Metric::clubSpeed, Metric::strikeHigh, Metric::strikeToe});
    const bool hasTwo = bench.session.test().card.primary.size() > 1;
    hands.say(hasTwo ? "outcome2" : "clause", hasTwo ? "more typical carry" : "and more typical carry");
    CHECK(bench.session.test().card.primary.size() >= 2);
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    REQUIRE(eventually([&] { return bench.ledgerSentences().join('\n').contains("at equal delivery"); }));
    CHECK(bench.ledgerSentences().join('\n').contains("typical"));
}

TEST_CASE("shapes are said in words and come back as they were said") {
    const record::DisplayUnits metric;
    for (const char* said : {"strip 20", "strip 20 at 5", "circle 12 at 150", "oval 20 x 12 at 150",
                             "box 8 x 30 at 140, −3", "left 15", "right 7.5"}) {
        INFO(said);
        const auto shape = record::shapeFromText(said, {metric});
        REQUIRE(shape);
        CHECK(record::shapeText(*shape, metric) == said);
        CHECK(shape->name == said);
    }
    CHECK(record::shapeFromText("  Fairway 25 ", {metric})->width == Approx(25));
    CHECK(record::shapeFromText("left 15", {metric})->holds(-16, 100));
    CHECK_FALSE(record::shapeFromText("left 15", {metric})->holds(-14, 100));
    for (const char* wrong :
         {"", "green", "strip", "strip 0", "strip -4", "circle 10", "box 10 at 150", "oval 1 2 3 at 5"})
        CHECK_FALSE(record::shapeFromText(wrong, {metric}));
    const record::DisplayUnits yards{.distance = record::DistanceUnit::yd};
    CHECK(record::shapeFromText("strip 20", {yards})->width == Approx(18.288));
}

TEST_CASE("a number along the clubs, a second factor, a window and the delivery are pictures by key") {
    Bench bench;
    openShots(bench);
    bench.session.declaring().change("asked", [](record::Declared& test) {
        test.card.trendColumn = "shaft_g";
        test.card.primary = {*record::outcomeFromText("carry_m")};
    });
    REQUIRE(eventually([&] { return bench.find<app::PictureTabs>("pictures")->isTabVisible(8); }));
    choose(bench.find<QComboBox>("metric"), "carry");
    auto* view = bench.find<app::PictureView>("picture");
    press(bench, Qt::Key_9);
    CHECK(view->accessibleName().startsWith("Each further 10 g of shaft: carry less by"));
    press(bench, Qt::Key_0); // deliveries are a second factor by themselves
    CHECK(view->accessibleName().contains("at “high”"));
    press(bench, Qt::Key_Minus);
    CHECK(view->accessibleName().contains("of 12")); // of one delivery
    QTest::keyClick(view, Qt::Key_Right);
    CHECK(view->litText().contains("°, 1")); // an iron or wood: descent and carry
    press(bench, Qt::Key_Equal);
    CHECK(view->accessibleName().contains("Club 1, high: "));
    CHECK(view->accessibleName().contains("attack −3"));
    CHECK(view->accessibleName().contains("2° more loft on Club "));
}

TEST_CASE("a spread is drawn as distances from the middle of the stint") {
    Bench bench;
    openShots(bench);
    bench.session.declaring().change(
        "asked", [](record::Declared& test) { test.card.primary = {*record::outcomeFromText("spread:side_m")}; });
    auto* view = bench.find<app::PictureView>("picture");
    auto* ledger = bench.find<QListView>("ledger");
    const auto* model = qobject_cast<app::LedgerModel*>(ledger->model());
    REQUIRE(eventually(
        [&] { return model->rowCount() > 1 && model->at(1).line.outcome.kind == record::OutcomeKind::spread; }));
    ledger->setCurrentIndex(model->index(1)); // the declared one
    REQUIRE(eventually([&] { return view->accessibleName().startsWith("Average distance from the middle"); }));
    QTest::keyClick(view, Qt::Key_Right);
    CHECK(view->litText().endsWith("from the middle"));
}

TEST_CASE("a shot held out shows what would be said without it, and lets go of it") {
    Bench bench;
    openShots(bench);
    auto* view = bench.find<app::PictureView>("picture");
    auto* ledger = bench.find<QListView>("ledger");
    const auto* model = qobject_cast<app::LedgerModel*>(ledger->model());
    auto heldOut = [&] {
        int rows = 0;
        for (int row = 0; row < model->rowCount(); ++row)
            rows += model->at(row).without.startsWith("without it: ") ? 1 : 0;
        return rows;
    };
    const auto before = bench.session.test();
    view->setFocus();
    QTest::keyClick(view, Qt::Key_Right);
    CHECK(bench.find<QLabel>("caption")->text().contains("hold X"));
    QTest::keyPress(view, Qt::Key_X);
    REQUIRE(eventually([&] { return heldOut() > 0; }));
    view->grab();
    ledger->grab();
    QTest::keyRelease(view, Qt::Key_X);
    CHECK(heldOut() == 0);
    CHECK(bench.session.test() == before);
    // The mouse does the same.
    QTest::mousePress(view, Qt::LeftButton, {}, view->picture()->marks().front().at.toPoint());
    QTest::mouseRelease(view, Qt::LeftButton);
    QTest::mouseMove(view, view->picture()->marks().front().at.toPoint());
    QTest::mousePress(view, Qt::LeftButton, {}, view->picture()->marks().front().at.toPoint());
    REQUIRE(eventually([&] { return heldOut() > 0; }));
    QTest::mouseRelease(view, Qt::LeftButton);
    CHECK(heldOut() == 0);
}

TEST_CASE("two pictures stand beside each other, and a shot lights up in both") {
    Bench bench;
    openShots(bench);
    auto* first = bench.find<app::PictureView>("picture");
    auto* second = bench.find<app::PictureView>("secondPicture");
    CHECK_FALSE(second->isVisible());
    press(bench, Qt::Key_3);
    press(bench, Qt::Key_V);
    REQUIRE(second->isVisible());
    CHECK(second->accessibleName().contains("came down"));
    press(bench, Qt::Key_2);
    CHECK(first->accessibleName().startsWith("Every counted shot"));
    QTest::keyClick(first, Qt::Key_Right);
    REQUIRE(first->lit());
    CHECK(second->lit() == first->lit());
    // Another reading leaves both where they are.
    press(bench, Qt::Key_6);
    press(bench, Qt::Key_P);
    REQUIRE(bench.waitForReading());
    REQUIRE(eventually([&] { return first->accessibleName().contains("in the order struck"); }));
    CHECK(second->accessibleName().contains("came down"));
    press(bench, Qt::Key_V);
    CHECK_FALSE(second->isVisible());
}

TEST_CASE("the window's judge knows what earlier tests of the player tell") {
    QSettings().clear();
    Bench bench;
    bench.openDemo();
    for (const auto& entry : bench.session.book().tests())
        if (entry.title.starts_with("Which loft"))
            REQUIRE(bench.session.openTest(entry.id));
    bench.window->showPage(app::PageId::reading);
    REQUIRE(eventually([&] {
        const judge::Reading* reading = bench.session.judging().reading();
        return reading != nullptr && !reading->ownStints.empty();
    }));
    REQUIRE(eventually([&] { return bench.find<QLabel>("checks")->text().contains("own earlier stints"); }));
}

TEST_CASE("the ledger is filtered by what is typed and put in three orders") {
    Bench bench;
    openShots(bench);
    auto* ledger = bench.find<QListView>("ledger");
    const auto* model = qobject_cast<app::LedgerModel*>(ledger->model());
    const int all = model->rowCount();
    press(bench, Qt::Key_Slash);
    auto* filter = bench.find<QLineEdit>("ledgerFilter");
    REQUIRE(filter->hasFocus());
    QTest::keyClicks(filter, "spin Club 3");
    CHECK(model->rowCount() < all);
    for (int row = 0; row < model->rowCount(); ++row)
        if (model->at(row).heading.isEmpty()) {
            CHECK(model->at(row).sentence.contains("Club 3"));
            const auto label = QString::fromStdString(record::outcomeLabel(model->at(row).line.outcome));
            CHECK((model->at(row).sentence.contains("spin") || label.contains("spin")));
        }
    QTest::keyClicks(filter, " nowhere");
    CHECK(model->at(0).heading == "No line holds “spin Club 3 nowhere”");
    QTest::keyClick(filter, Qt::Key_Escape);
    CHECK(model->rowCount() == all);
    CHECK_FALSE(filter->isVisible());
    press(bench, Qt::Key_O);
    CHECK(bench.find<QLabel>("against")->text().endsWith("by number"));
    for (int row = 2; row < model->rowCount(); ++row)
        if (model->at(row).heading.isEmpty() && model->at(row - 1).heading.isEmpty())
            CHECK(model->at(row - 1).metric <= model->at(row).metric);
    press(bench, Qt::Key_O);
    for (int row = 2; row < model->rowCount(); ++row)
        if (model->at(row).heading.isEmpty() && model->at(row - 1).heading.isEmpty())
            CHECK(model->at(row - 1).line.build <= model->at(row).line.build);
    press(bench, Qt::Key_O);
    CHECK_FALSE(bench.find<QLabel>("against")->text().contains(" · by"));
}

TEST_CASE("a shape is dragged on the landing, and what is declared of it goes with it") {
    Bench bench;
    openShots(bench);
    const record::DisplayUnits units;
    bench.session.declaring().change("asked", [&](record::Declared& test) {
        test.card.shapes = {*record::shapeFromText("strip 10", {units})};
        test.card.primary = {{.kind = record::OutcomeKind::share, .metric = Metric::carry, .shape = "strip 10"}};
    });
    REQUIRE(eventually([&] { return bench.ledgerSentences().join('\n').contains("strip 10"); }));
    press(bench, Qt::Key_3);
    auto* view = bench.find<app::PictureView>("picture");
    // A place where no shot lies, in the middle of the strip: the lowest edge of the ground, found by taking hold of
    // it.
    std::optional<QPointF> on;
    REQUIRE(eventually([&] {
        auto* picture = const_cast<app::Picture*>(view->picture());
        if (picture == nullptr || picture->marks().empty())
            return false;
        const auto [left, right] =
            std::ranges::minmax(picture->marks(), {}, [](const auto& mark) { return mark.at.x(); });
        for (double x = left.at.x(); x < right.at.x() && !on; x += 4)
            if (picture->grab({x, view->height() - 14.0}) && picture->grab({x + 12, view->height() - 14.0}))
                on = QPointF(x + 12, view->height() - 14.0);
        picture->letGo();
        return on.has_value();
    }));
    QTest::mouseMove(view, {2, 2});
    QTest::mousePress(view, Qt::LeftButton, {}, on->toPoint());
    QTest::mouseMove(view, on->toPoint() + QPoint(60, 0));
    QTest::mouseRelease(view, Qt::LeftButton, {}, on->toPoint() + QPoint(60, 0));
    const auto& card = bench.session.test().card;
    REQUIRE(card.shapes.size() == 1);
    CHECK(card.shapes[0].side > 0.5);
    CHECK(card.shapes[0].width == Approx(10));
    CHECK(card.primary.front().shape == card.shapes[0].name);
}

TEST_CASE("the table's columns are chosen from what was read, and stay so") {
    QSettings().clear();
    Bench bench;
    openShots(bench);
    auto* view = bench.find<app::PictureView>("picture");
    press(bench, Qt::Key_1);
    const auto columns = [&] { return view->picture()->asText().section('\n', 0, 0).split('\t'); };
    const auto all = columns().size();
    QMenu* menu = nullptr;
    REQUIRE(eventually([&] {
        if (menu == nullptr)
            press(bench, Qt::Key_C);
        return (menu = bench.window->findChild<QMenu*>("tableColumns")) != nullptr;
    }));
    for (QCheckBox* box : menu->findChildren<QCheckBox*>())
        if (box->text() == "spin" || box->text() == "launch")
            box->setChecked(false);
    menu->close();
    CHECK(columns().size() < all);
    CHECK_FALSE(columns().contains("spin rpm"));
    CHECK(columns().contains("carry m"));
    QSettings().clear();
}

TEST_CASE("a picture that was put aside keeps its number, flights are seen in a wind, strikes by another number") {
    Bench bench;
    openShots(bench);
    choose(bench.find<QComboBox>("metric"), "carry");
    auto* first = bench.find<app::PictureView>("picture");
    auto* second = bench.find<app::PictureView>("secondPicture");
    press(bench, Qt::Key_2);
    press(bench, Qt::Key_V);
    choose(bench.find<QComboBox>("metric"), "spin");
    CHECK(second->accessibleName().contains("carry"));
    CHECK(first->accessibleName().contains("Spin"));
    press(bench, Qt::Key_V);

    press(bench, Qt::Key_4);
    CHECK(first->accessibleName().startsWith("Mean flights"));
    const auto farthest = [&] {
        return first->accessibleName().section("Club 1 ", 1, 1).section(' ', 0, 0).toDouble();
    };
    const double calm = farthest();
    REQUIRE(calm > 100);
    press(bench, Qt::Key_W);
    CHECK(first->accessibleName().startsWith("Modelled against a wind of 5.0 m/s"));
    CHECK(farthest() < calm - 5);
    CHECK(first->picture()->marks().empty()); // no shot was hit in it
    press(bench, Qt::Key_W);
    CHECK(first->accessibleName().startsWith("Modelled with a wind"));
    CHECK(farthest() > calm + 2);
    press(bench, Qt::Key_W);
    CHECK(farthest() == Approx(calm));

    press(bench, Qt::Key_5);
    CHECK(bench.find<QLabel>("caption")->text() == "larger dots: more spin");
    double least = 1e9;
    double most = 0;
    for (const auto& mark : first->picture()->marks()) {
        least = std::min(least, mark.reach);
        most = std::max(most, mark.reach);
    }
    CHECK(most > 2 * least);
}

TEST_CASE("a club alone is read by its averages, with nothing to be measured against") {
    Bench bench;
    bench.readFile(bench.writeFile("alone.csv", "build,club_speed_ms,carry_m\nOak,40,150\nOak,41,153\nOak,40.5,149\n"));
    REQUIRE(bench.waitForReading());
    auto* view = bench.find<app::PictureView>("picture");
    CHECK(bench.find<app::PictureTabs>("pictures")->currentIndex() == 0);
    CHECK(view->accessibleName().contains("ranked by carry: Oak 150.7"));
    press(bench, Qt::Key_2);
    CHECK(view->accessibleName().startsWith("Every counted shot, carry: Oak"));
    CHECK(bench.find<QLabel>("checks")->text().contains("needs a second club"));
}
