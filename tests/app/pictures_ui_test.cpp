// Every picture of the reading by keyboard: what it says, what pointing at a shot says, and where there is little.
#include "app/picture/ground.h"
#include "app/picture/picture_view.h"
#include "app/pictures/pictures.h"
#include "app/reading_page/picture_tabs.h"
#include "app/session/own_chart.h"
#include "app/style/palette.h"
#include "app/support.h"
#include "core/judge/judge.h"

#include <QClipboard>
#include <QFile>
#include <QGuiApplication>
#include <QImage>
#include <QLabel>
#include <QListView>
#include <QPainter>
#include <QPushButton>
#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;

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
    CHECK(view->accessibleName().startsWith("Every counted shot, "));
    struct Row {
        Qt::Key key;
        const char* says;
        bool hasMarks;
    };
    for (const Row& row : {Row{Qt::Key_1, "ranked by", false}, Row{Qt::Key_3, "came down", true},
                           Row{Qt::Key_4, "Mean flights", true}, Row{Qt::Key_6, "in the order struck", true},
                           Row{Qt::Key_7, "luck gives", false}, Row{Qt::Key_8, "from shot to shot", false}}) {
        press(bench, row.key);
        INFO(row.says);
        CHECK(tabs->currentIndex() == row.key - Qt::Key_1);
        REQUIRE(view->isVisible());
        CHECK(view->accessibleName().contains(QLatin1String(row.says)));
        CHECK(
            (row.key == Qt::Key_8 || finding->text() == view->accessibleName())); // the parts have their words in them
        CHECK(hasInk(view));
        REQUIRE(view->picture() != nullptr);
        CHECK(view->picture()->marks().empty() == !row.hasMarks);
        if (!row.hasMarks)
            continue;
        view->light(std::nullopt);
        QTest::keyClick(view, Qt::Key_Right);
        const QString first = view->litText();
        const QString club = first.section(',', 0, 0);
        CHECK(first.startsWith(club + ", shot "));
        CHECK(view->accessibleDescription() == first);
        CHECK(bench.find<QLabel>("caption")->text().startsWith(first));
        QTest::keyClick(view, Qt::Key_Right);
        CHECK(view->litText() != first);
        QTest::keyClick(view, Qt::Key_Down);
        CHECK(view->litText().startsWith("Club "));
        CHECK(!view->litText().startsWith(club));
    }
    press(bench, Qt::Key_3);
    view->light(7);
    const QString shot = view->litText().section(':', 0, 0);
    press(bench, Qt::Key_6); // a shot that is pointed at stays so in the next picture
    CHECK(view->litText().section(':', 0, 0) == shot);
    CHECK(bench.find<QLabel>("caption")->text().startsWith(view->litText()));
    press(bench, Qt::Key_2);
    CHECK(view->litText().section(':', 0, 0) == shot);
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
    press(bench, Qt::Key_6);
    QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_P);
    REQUIRE(bench.waitForReading());
    CHECK(bench.find<app::PictureTabs>("pictures")->currentIndex() == 5);
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
            for (int tab = 0; tab < app::pictureKinds; ++tab) {
                press(bench, app::PictureTabs::keyOf(tab));
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

TEST_CASE("pictures that no number has are not offered, and their keys do nothing") {
    Bench bench;
    bench.readFile(bench.writeFile("carry.csv", "build,carry_m\nOak,150\nElm,152\nOak,151\nElm,149\n"));
    REQUIRE(bench.waitForReading());
    auto* tabs = bench.find<app::PictureTabs>("pictures");
    for (const int index : {2, 3, 4, 8, 9, 10, 11})
        CHECK_FALSE(tabs->isTabVisible(index));
    press(bench, Qt::Key_3);
    CHECK(tabs->currentIndex() == 1);
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    REQUIRE(bench.waitForReading());
    CHECK(tabs->isTabVisible(2));
    CHECK_FALSE(tabs->isTabVisible(4)); // no strikes were read
}

TEST_CASE("of a sealed test no picture tells which club is the baseline, and of an open one the table does") {
    Bench bench;
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    record::Test test = bench.session.test();
    const auto tellsBaseline = [](const record::Test& of) {
        const auto subject = judge::Case::of(of);
        const auto reading = *judge::judge({.subject = subject});
        const record::Structure structure = record::structureOf(subject.seen());
        const record::DisplayUnits units;
        const app::Looked looked{
            subject, reading,  record::Metric::carry, record::BuildAt(1), record::OutcomeKind::average,
            units,   structure};
        QImage image(700, 500, QImage::Format_RGB32);
        image.fill(Qt::white);
        const auto picture = app::tablePicture(looked);
        picture->layOut(image.rect());
        QPainter painter(&image);
        picture->paint(painter, std::nullopt);
        painter.end();
        return image;
    };
    test.card.baseline = "Club 1";
    const QImage open = tellsBaseline(test);
    test.seal.commitment = "00";
    const QImage sealed = tellsBaseline(test);
    CHECK(open != sealed); // the word under the name
    test.card.baseline = "Club 3";
    CHECK(tellsBaseline(test) == sealed);
}

TEST_CASE("strikes are shown on each club's face, mirrored for who plays left-handed") {
    Bench bench;
    bench.readFile(bench.writeFile("struck.csv",
                                   "build,carry_m,strike_toe_mm,strike_high_mm\nOak,150,8,2\nOak,151,-3,1\n"
                                   "Elm,152,12,-9\nElm,149,2,2\n"));
    REQUIRE(bench.waitForReading());
    press(bench, Qt::Key_5);
    auto* view = bench.find<app::PictureView>("picture");
    REQUIRE(view->picture() != nullptr);
    CHECK(view->accessibleName() ==
          "Where the ball met the face: Oak 2 of 2 within 10 mm of the middle; Elm 1 of 2 within "
          "10 mm of the middle.");
    REQUIRE(view->picture()->marks().size() == 4);
    const double toe = view->picture()->marks()[0].at.x() - view->picture()->marks()[1].at.x();
    record::Test lefty = bench.session.test();
    lefty.players = {{.name = "Odd Farstad", .leftHanded = true}};
    bench.session.declaring().change("who hits", [&](record::Declared& test) { test.players = lefty.players; });
    REQUIRE(bench.waitForReading());
    REQUIRE(test::eventually([&] {
        const auto& marks = view->picture()->marks();
        return marks.size() == 4 && (marks[0].at.x() - marks[1].at.x()) * toe < 0;
    }));
    QTest::keyClick(view, Qt::Key_Right);
    CHECK(view->litText().contains("toward the"));
}

TEST_CASE("a picture is saved as a drawing whose words are words, and as an image of the same") {
    Bench bench;
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    REQUIRE(bench.waitForReading());
    bench.window->resize(1280, 800);
    for (int key = Qt::Key_1; key <= Qt::Key_8; ++key) {
        if (key == Qt::Key_5)
            continue; // no strikes were read
        press(bench, key);
        bench.prompter->answers = {bench.path("picture.svg")};
        QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
        QFile file(bench.path("picture.svg"));
        REQUIRE(file.open(QIODevice::ReadOnly));
        const QByteArray svg = file.readAll();
        CHECK(svg.contains("<svg"));
        CHECK(svg.contains("<text"));
        bench.prompter->answers = {bench.path("picture.png")};
        QTest::keyClick(bench.find<QListView>("ledger"), Qt::Key_E, Qt::ControlModifier | Qt::ShiftModifier);
        const QImage image(bench.path("picture.png"));
        QWidget* shown = bench.find<app::PictureView>("picture");
        CHECK(image.size() == 2 * shown->size());
        // The same as the screen but for the fineness: shrunk, hardly a pixel differs much.
        const QImage small = image.scaled(shown->size(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation)
                                 .convertToFormat(QImage::Format_RGB32);
        const QImage screen = shown->grab().toImage().convertToFormat(QImage::Format_RGB32);
        std::size_t differ = 0;
        for (int y = 4; y < small.height() - 4; ++y)
            for (int x = 4; x < small.width() - 4; ++x)
                differ += std::abs(qGray(small.pixel(x, y)) - qGray(screen.pixel(x, y))) > 90 ? 1 : 0;
        INFO("picture " << key - Qt::Key_0);
        CHECK(differ < static_cast<std::size_t>(small.width()) * small.height() / 100);
    }
}

TEST_CASE("text stands out from whatever it is written on, light and dark") {
    const auto luminance = [](const QColor& colour) {
        const auto part = [](float value) {
            const double v = value;
            return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
        };
        return 0.2126 * part(colour.redF()) + 0.7152 * part(colour.greenF()) + 0.0722 * part(colour.blueF());
    };
    const auto contrast = [&](const QColor& a, const QColor& b) {
        const double one = luminance(a);
        const double other = luminance(b);
        return (std::max(one, other) + 0.05) / (std::min(one, other) + 0.05);
    };
    Bench bench;
    for (const app::Theme theme : {app::Theme::light, app::Theme::dark}) {
        app::applyTheme(theme);
        const app::Colours& c = app::colours();
        for (const QColor& text : {c.ink, c.faint, c.link, c.alarm})
            for (const QColor& ground : {c.ground, c.sheet, c.spine, c.selection}) {
                INFO(text.name().toStdString() << " on " << ground.name().toStdString());
                CHECK(contrast(text, ground) >= 4.5);
            }
        CHECK(contrast(c.ink, c.band) >= 4.5);
        // What is no text but has to be told: three to one.
        for (std::size_t build = 0; build < 8; ++build)
            CHECK(contrast(app::tagColour(build), c.sheet) >= 3);
    }
    app::applyTheme(app::Theme::light);
}

TEST_CASE("a screen reader hears every picture's finding, and no picture of a sealed test names the baseline") {
    for (const bool isSealed : {false, true}) {
        Bench bench;
        bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
        REQUIRE(bench.waitForReading());
        record::Test test = bench.session.test();
        test.card.baseline = "Club 2";
        if (isSealed)
            test.seal.commitment = "00";
        const auto subject = judge::Case::of(test);
        const auto reading = *judge::judge({.subject = subject});
        const record::Structure structure = record::structureOf(subject.seen());
        const record::DisplayUnits units;
        for (int kind = 0; kind < app::pictureKinds; ++kind) {
            const auto picture = app::pictureOf(static_cast<app::PictureKind>(kind),
                                                {subject, reading, record::Metric::carry, record::BuildAt(1),
                                                 record::OutcomeKind::average, units, structure});
            if (!picture)
                continue;
            INFO(kind);
            picture->layOut({0, 0, 700, 500});
            CHECK(!picture->finding().isEmpty());
            CHECK(picture->finding().endsWith('.'));
            CHECK_FALSE((picture->finding() + picture->under() + picture->asText()).contains("baseline"));
            for (const auto& mark : picture->marks())
                CHECK(!mark.text.isEmpty());
        }
    }
}

TEST_CASE("what was said of a stint is heard with its order, and misses by side and length are copied as a table") {
    Bench bench;
    bench.readFile(bench.writeFile("two.csv", shots(2, 5, 4)));
    REQUIRE(bench.waitForReading());
    record::Test test = bench.session.test();
    record::Feel feel{.turn = test.shots.front().turn, .build = test.shots.front().build};
    feel.words = "dead off the heel";
    feel.scores[static_cast<std::size_t>(record::FeelScale::control)] = 3;
    feel.versus = record::Versus::worse;
    test.feels = {feel};
    const auto subject = judge::Case::of(test);
    const auto reading = *judge::judge({.subject = subject});
    const record::Structure structure = record::structureOf(subject.seen());
    const record::DisplayUnits units;
    const app::Looked looked{subject, reading,  record::Metric::carry, record::BuildAt(1), record::OutcomeKind::average,
                             units,   structure};
    const auto order = app::orderPicture(looked);
    const QString said = QString::fromUtf8("“dead off the heel”, control 3, worse than the one before");
    CHECK(order->finding().contains(said));
    CHECK_FALSE(order->under().contains(said)); // there it stands in the picture
    const auto landing = app::landingPicture(looked);
    const QString text = landing->asText();
    for (const judge::Misses& misses : reading.misses) {
        QString long_ = "long";
        for (const auto& side : misses.table)
            long_ += QStringLiteral("\t%1").arg(side[2]);
        CHECK(text.contains(long_));
    }
    CHECK(text.count("left\tline\tright") == 2);
}

TEST_CASE("labels that would lie on each other move apart about where they want to be, in their order") {
    std::vector<double> places = {100, 104, 300, 98};
    app::spreadApart(places, 20);
    CHECK(places[2] == 300); // nothing was in its way
    CHECK(places[3] + 20 == Approx(places[0]));
    CHECK(places[0] + 20 == Approx(places[1]));
    CHECK((places[0] + places[1] + places[3]) / 3 == Approx((100 + 104 + 98) / 3.0));
    std::vector<double> none;
    app::spreadApart(none, 20);
    CHECK(none.empty());
}

TEST_CASE("a file of a bag is read with one key and shows its gaps, holes and what outflies what") {
    Bench bench;
    QByteArray bag = "Club,Carry (m)\n";
    for (const auto& [club, carry] :
         {std::pair("5-wood", 190), {"4-hybrid", 178}, {"6-iron", 152}, {"PW", 112}, {"SW", 111}})
        for (int i = 0; i < 8; ++i)
            bag += QByteArray(club) + "," + QByteArray::number(carry + (i * 3) % 7 - 3) + "\n";
    bench.window->openPath(bench.writeFile("bag.csv", bag));
    QTest::keyClick(bench.find<QWidget>("importPage"), Qt::Key_Return);
    REQUIRE(bench.waitForReading());
    auto* view = bench.find<app::PictureView>("picture");
    REQUIRE(eventually([&] { return view->accessibleName().contains("Held against a step of 20 m"); }));
    CHECK(view->accessibleName().contains("hole between 6-iron and PW: 40 m ("));
    CHECK(view->accessibleName().contains("SW outflies PW "));
    CHECK(view->picture()->asText().contains("5-wood\t190\t12 m ("));
    QTest::keyClick(view, Qt::Key_Right);
    CHECK(view->litText().startsWith("5-wood, shot "));
    press(bench, Qt::Key_1);
    press(bench, Qt::Key_BracketLeft);
    CHECK(view->accessibleName().contains("Held against a step"));
    // Rivals have no such picture.
    bench.readFile(bench.writeFile("three.csv", shots(3, 5, 4)));
    REQUIRE(bench.waitForReading());
    CHECK_FALSE(bench.find<app::PictureTabs>("pictures")->isTabVisible(12));
}

TEST_CASE("a driver's shots stand among what lofts can give, and a chart of the shop's own goes before that") {
    Bench bench;
    std::string shots = "Club,Ball Speed (m/s),Launch,Spin,Carry (m),Attack\n";
    for (const char* club : {"Driver 9", "Driver 12"})
        for (int i = 0; i < 12; ++i)
            shots += std::string(club) + "," + std::to_string(60 + i % 3) + ",12." + std::to_string(i % 10) + ",26" +
                     std::to_string(10 + i) + "," + std::to_string(176 + 3 * (i % 3)) + ",1\n";
    bench.readFile(bench.writeFile("drivers.csv", QByteArray::fromStdString(shots)));
    REQUIRE(bench.waitForReading());
    auto* view = bench.find<app::PictureView>("picture");
    press(bench, Qt::Key_Minus);
    CHECK(view->accessibleName().contains("and an attack of +1°, lofts of "));
    CHECK(view->accessibleName().contains(" carries 179 m; this ball speed could carry "));
    bench.window->openPath(bench.writeFile("shop.csv", "kind,ball_speed_from_mph,ball_speed_to_mph,launch_from_deg,"
                                                       "launch_to_deg,spin_from_rpm,spin_to_rpm\n"
                                                       "driver,120,150,13,,,2650\n"));
    CHECK(bench.find<QLabel>("messageText")->text().startsWith("“shop.csv” says from now on"));
    REQUIRE(eventually([&] { return view->accessibleName().contains("by “shop.csv”"); }));
    CHECK(view->accessibleName().contains("launch 13.0° or more, spin 2650 rpm or less"));
    // It is kept with the logbook, and taken back on the sheet.
    REQUIRE(app::ownChart(bench.session.book()));
    CHECK(app::ownChart(bench.session.book())->rows.size() == 1);
    bench.window->showPage(app::PageId::sheet);
    auto* windows = bench.find<QLabel>("windows");
    CHECK(windows->text().contains("shop.csv"));
    emit windows->linkActivated(QStringLiteral("chart"));
    CHECK(!app::ownChart(bench.session.book()));
    CHECK(!windows->text().contains("shop.csv"));
}
