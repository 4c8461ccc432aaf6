// Every picture of the reading by keyboard: what it says, what pointing at a shot says, and where there is little.
#include "app/picture/cords_view.h"
#include "app/picture/picture_view.h"
#include "app/reading_page/picture_tabs.h"
#include "app/style/palette.h"
#include "app/support.h"

#include <QClipboard>
#include <QGuiApplication>
#include <QImage>
#include <QLabel>
#include <QListView>
#include <QPainter>
#include <QPushButton>
#include <catch2/catch.hpp>

using namespace knot;
using knot::test::Bench;

namespace {

const QByteArray heading = "round,build,carry_m,side_m,ball_speed_ms,club_speed_ms,launch_deg,spin_rpm\n";

// Shots of clubs over laps, rotated, with everything that the pictures ask for.
QByteArray shots(int clubs, int laps, int stint, const QByteArray& name = "Club") {
    QByteArray text = heading;
    int i = 0;
    for (int lap = 1; lap <= laps; ++lap)
        for (int place = 0; place < clubs; ++place) {
            const int club = (place + lap) % clubs;
            for (int shot = 0; shot < stint; ++shot) {
                const double wobble = ((++i * 7919) % 101) / 50.0 - 1;
                text += QByteArray::number(lap) + ',' + name + ' ' + QByteArray::number(club + 1) + ',' +
                        QByteArray::number(150 + 2.0 * club + 4 * wobble) + ',' +
                        QByteArray::number(8 * wobble - club) + ',' + QByteArray::number(52 + 0.5 * club + wobble) +
                        ',' + QByteArray::number(38 + 0.3 * club + 0.7 * wobble) + ',' +
                        QByteArray::number(15 + wobble) + ',' + QByteArray::number(5200 - 100 * club + 200 * wobble) +
                        '\n';
            }
        }
    return text;
}

// Whether anything was painted that is not the ground.
bool hasInk(QWidget* widget) {
    const QImage image = widget->grab().toImage();
    const QRgb ground = image.pixel(2, image.height() - 3);
    for (int y = 0; y < image.height(); y += 3)
        for (int x = 0; x < image.width(); x += 3)
            if (image.pixel(x, y) != ground)
                return true;
    return false;
}

void press(Bench& bench, int key) {
    QTest::keyClick(bench.find<QListView>("ledger"), static_cast<Qt::Key>(key));
}

} // namespace

TEST_CASE("each picture comes by its number, says what it shows and answers to the arrows") {
    Bench bench;
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    REQUIRE(bench.waitForReading());
    bench.window->resize(1280, 800);
    auto* tabs = bench.find<app::PictureTabs>("pictures");
    auto* view = bench.find<app::PictureView>("picture");
    auto* finding = bench.find<QLabel>("finding");
    CHECK(bench.find<app::CordsView>("cords")->isVisible());
    struct Row {
        Qt::Key key;
        const char* says;
        bool hasMarks;
    };
    for (const Row& row : {Row{Qt::Key_1, "ranked by", false}, Row{Qt::Key_3, "came down", true},
                           Row{Qt::Key_4, "in the order struck", true}, Row{Qt::Key_5, "luck gives", false},
                           Row{Qt::Key_6, "from shot to shot", false}}) {
        press(bench, row.key);
        INFO(row.says);
        CHECK(tabs->currentIndex() == row.key - Qt::Key_1);
        REQUIRE(view->isVisible());
        CHECK(view->accessibleName().contains(QLatin1String(row.says)));
        CHECK(
            (row.key == Qt::Key_6 || finding->text() == view->accessibleName())); // the parts have their words in them
        CHECK(hasInk(view));
        REQUIRE(view->picture() != nullptr);
        CHECK(view->picture()->marks().empty() == !row.hasMarks);
        if (!row.hasMarks)
            continue;
        QTest::keyClick(view, Qt::Key_Right);
        const QString first = view->litText();
        const QString club = first.section(',', 0, 0);
        CHECK(first.startsWith(club + ", shot "));
        CHECK(view->accessibleDescription() == first);
        CHECK(bench.find<QLabel>("caption")->text() == first);
        QTest::keyClick(view, Qt::Key_Right);
        CHECK(view->litText() != first);
        QTest::keyClick(view, Qt::Key_Down);
        CHECK(view->litText().startsWith("Club "));
        CHECK(!view->litText().startsWith(club));
    }
    press(bench, Qt::Key_2);
    CHECK(bench.find<app::CordsView>("cords")->isVisible());
    CHECK(!finding->isVisible());
}

TEST_CASE("one run each is a page of bets with its table, and the fair test of the two is a key away") {
    Bench bench;
    bench.readFile(bench.writeFile("heads.csv", shots(4, 1, 6)));
    REQUIRE(bench.waitForReading());
    bench.window->resize(1280, 800);
    CHECK_FALSE(bench.find<QListView>("ledger")->isVisible());
    CHECK(bench.find<QLabel>("oneRunOpening")->text().startsWith("One run each"));
    CHECK(bench.find<QLabel>("oneRunHeading")->text() == "If you had to bet on carry");
    auto* bets = bench.find<QWidget>("bets");
    CHECK(bets->isVisible());
    CHECK(bets->accessibleName().contains("above "));
    CHECK(hasInk(bets));
    CHECK(bench.find<app::PictureTabs>("pictures")->currentIndex() == 0);
    CHECK(bench.find<QLabel>("finding")->text().contains("ranked by carry"));
    auto* test = bench.find<QPushButton>("oneRunFairTest");
    CHECK(bench.window->focusWidget() == test);
    QTest::keyClick(test, Qt::Key_Space);
    CHECK(bench.session.test().builds.size() == 2);
    REQUIRE(bench.session.test().card.primary.size() == 1);
    CHECK(bench.session.test().card.primary.front().metric == record::Metric::carry);
}

TEST_CASE("a picture that was chosen stays while the same test is read again, and not for another") {
    Bench bench;
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    REQUIRE(bench.waitForReading());
    press(bench, Qt::Key_4);
    QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_P);
    REQUIRE(bench.waitForReading());
    CHECK(bench.find<app::PictureTabs>("pictures")->currentIndex() == 3);
    bench.readFile(bench.writeFile("two.csv", shots(2, 5, 4)));
    REQUIRE(bench.waitForReading());
    CHECK(bench.find<app::PictureTabs>("pictures")->currentIndex() == 1);
}

TEST_CASE("the table is ranked by the number in hand, and copied as text") {
    Bench bench;
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    REQUIRE(bench.waitForReading());
    press(bench, Qt::Key_1);
    auto* view = bench.find<app::PictureView>("picture");
    QTest::keyClick(view, Qt::Key_C, Qt::ControlModifier);
    const QStringList lines = QGuiApplication::clipboard()->text().split('\n');
    REQUIRE(lines.size() == 4);
    CHECK(lines[0].startsWith("club\tshots\tclub speed m/s\t± club speed\tball speed m/s"));
    CHECK(lines[1].startsWith("Club 3\t20\t"));
    CHECK(lines[1].split('\t').size() == lines[0].split('\t').size());
}

TEST_CASE("pictures of one club, eight, one shot, long names and nothing read are painted without a fault") {
    const QByteArray longName(38, 'W');
    const std::pair<const char*, QByteArray> cases[] = {{"one club", shots(1, 1, 6)},
                                                        {"two, one run each", shots(2, 1, 6)},
                                                        {"eight", shots(8, 4, 2)},
                                                        {"one shot", shots(1, 1, 1)},
                                                        {"long names", shots(3, 4, 3, longName)},
                                                        {"only a carry", "build,carry_m\nOak,150\nElm,152\nOak,151\n"}};
    for (const app::Theme theme : {app::Theme::light, app::Theme::dark}) {
        Bench bench;
        app::applyTheme(theme);
        for (const auto& [what, text] : cases) {
            INFO(what);
            bench.readFile(bench.writeFile("case.csv", text));
            REQUIRE(bench.waitForReading());
            for (int key = Qt::Key_1; key <= Qt::Key_6; ++key) {
                press(bench, key);
                auto* view = bench.find<app::PictureView>("picture");
                if (view->isVisible()) {
                    const bool hasWords = view->picture() != nullptr && !view->picture()->finding().isEmpty();
                    CHECK((hasWords || !bench.find<QLabel>("finding")->text().isEmpty()));
                    QTest::keyClick(view, Qt::Key_Right);
                    QTest::keyClick(view, Qt::Key_Down);
                    view->grab();
                }
            }
        }
        app::applyTheme(app::Theme::light);
    }
}

TEST_CASE("a picture takes no longer to come when nothing has one, and says so") {
    Bench bench;
    bench.readFile(bench.writeFile("carry.csv", "build,carry_m\nOak,150\nElm,152\nOak,151\nElm,149\n"));
    REQUIRE(bench.waitForReading());
    press(bench, Qt::Key_3);
    CHECK(bench.find<QLabel>("finding")->text() == "There is no such picture of this number.");
    CHECK(bench.find<app::PictureView>("picture")->picture() == nullptr);
}

TEST_CASE("of a sealed test no picture tells which club is the baseline") {
    Bench bench;
    bench.openDemo();
    for (const auto& entry : bench.session.book().tests()) {
        REQUIRE(bench.session.openTest(entry.id));
        if (!bench.session.test().seal.isClosed())
            continue;
        bench.window->showPage(app::PageId::reading);
        if (!bench.waitForReading())
            continue;
        for (int key = Qt::Key_1; key <= Qt::Key_6; ++key) {
            press(bench, key);
            CHECK(!bench.find<QLabel>("finding")->text().contains("baseline"));
            if (const auto* picture = bench.find<app::PictureView>("picture")->picture())
                CHECK(!picture->asText().contains("baseline"));
        }
    }
}
