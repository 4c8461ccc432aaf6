// Faults of the bay and of pages as a user met them, by keys and mouse.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/entry/face_view.h"
#include "app/bay_page/keys/commands.h"
#include "app/bay_page/now_view.h"
#include "app/hands.h"
#include "app/shell/prompter.h"
#include "app/style/palette.h"
#include "core/bay/hand.h"

#include <QComboBox>
#include <QFile>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QListWidget>
#include <QPushButton>
#include <QTcpSocket>
#include <catch2/catch.hpp>

using namespace knot;
using bay::Phase;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;
using record::BuildAt;
using record::Metric;

namespace {

void open(Bench& bench, int warmUp, int clubs = 2, bool alone = false) {
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("clubs", [=](record::Declared& test) {
        for (int i = 0; i < clubs; ++i)
            test.builds.push_back({.name = "Club " + std::string(1, static_cast<char>('A' + i))});
        test.plan.warmUp = warmUp;
        test.plan.rounds = 2;
        test.plan.turnLength = 2;
        test.card.alone = alone;
        test.card.primary = {{.metric = Metric::carry}};
    });
    bench.window->showPage(app::PageId::bay);
    REQUIRE(bench.session.bay().takesShots());
}

bay::Stand stand(Bench& bench) {
    return bay::standOf(bench.session.test());
}

const std::vector<record::Shot>& shots(Bench& bench) {
    return bench.session.test().shots;
}

} // namespace

TEST_CASE("Space in the warm-up calls nothing, and the next swings stay warm-up") {
    Bench bench;
    Hands hands(bench);
    open(bench, 3);
    for (const Qt::Key key : {Qt::Key_Space, Qt::Key_PageUp}) {
        hands.press(key);
        CHECK(!bench.session.bay().isComingCalled());
    }
    hit(bench, 120);
    hit(bench, 121);
    hands.press(Qt::Key_Space);
    hands.press(Qt::Key_Space);
    for (const auto& shot : shots(bench))
        CHECK(shot.status == record::ShotStatus::warmUp);
    CHECK(stand(bench).phase() == Phase::warmUp);
}

TEST_CASE("a call while the ball is in the air travels with its shot, and undo takes back both") {
    Bench bench;
    Hands hands(bench);
    open(bench, 0);
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_Space);
    CHECK(bench.session.bay().isComingCalled());
    hit(bench, 90);
    REQUIRE(shots(bench).size() == 1);
    CHECK(shots(bench)[0].status == record::ShotStatus::setAside);
    CHECK(shots(bench)[0].setAsideWhen == record::SetAsideWhen::called);
    CHECK(!bench.session.bay().isComingCalled());
    hit(bench, 150);
    CHECK(shots(bench)[1].status == record::ShotStatus::counted);
    hands.press(Qt::Key_U);
    hands.press(Qt::Key_U);
    CHECK(shots(bench).empty());
}

TEST_CASE("in an open sitting Space sets the last shot aside, not the coming one") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return); // warm enough
    hit(bench, 150);
    hit(bench, 90);
    hands.press(Qt::Key_Space);
    CHECK(shots(bench)[1].status == record::ShotStatus::setAside);
    hit(bench, 151);
    CHECK(shots(bench)[2].status == record::ShotStatus::counted);
    hands.press(Qt::Key_U);
    hands.press(Qt::Key_Space); // counts it after all
    CHECK(shots(bench)[1].status == record::ShotStatus::counted);
}

TEST_CASE("alone with twelve clubs each tag can be named by a key") {
    Bench bench;
    Hands hands(bench);
    open(bench, 0, 12, true);
    const Qt::Key keys[] = {Qt::Key_B, Qt::Key_A, Qt::Key_0, Qt::Key_9};
    for (const Qt::Key key : keys) {
        hands.press(Qt::Key_Return);
        hit(bench, 150);
        hit(bench, 151);
        REQUIRE(stand(bench).phase() == Phase::nameTag);
        const auto bag = stand(bench).stint()->inBag;
        hands.press(key);
        CHECK(shots(bench).back().build == bag.back()); // the last of those that are left
        CHECK(stand(bench).phase() == Phase::handOver);
    }
}

TEST_CASE("the arrows reach the face, by Tab or after a click") {
    Bench bench;
    Hands hands(bench);
    open(bench, 0);
    hands.press(Qt::Key_Return);
    hit(bench, 150);
    auto* face = bench.find<app::FaceView>("face");
    QTest::mouseClick(face, Qt::LeftButton, {}, face->rect().center());
    REQUIRE(face->hasFocus());
    const auto high = shots(bench)[0].readings.at(Metric::strikeHigh);
    REQUIRE(high);
    hands.press(Qt::Key_Up);
    CHECK(*shots(bench)[0].readings.at(Metric::strikeHigh) > *high);
    hands.press(Qt::Key_N); // keys of the bay still work from there
    CHECK(shots(bench).size() == 2);
}

TEST_CASE("a screening whose club in hand is struck off goes on with another, and none where all are out") {
    Bench bench;
    REQUIRE(bench.session.newTest(record::Stage::screening));
    bench.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}};
    });
    bench.session.bay().step("another club", [](record::Test& test) { bay::takeInHand(test, BuildAt(1)); });
    bench.window->showPage(app::PageId::bay);
    auto* now = bench.find<app::NowView>("now");
    CHECK(now->picture().name == "Alder");
    bench.session.declaring().strikeOff(record::BuildAt(1), "x");
    CHECK(now->picture().name == "Reed");
    hit(bench, 150);
    CHECK(shots(bench).back().build == 0);
    bench.session.declaring().strikeOff(record::BuildAt(0), "x");
    CHECK(!bench.session.bay().takesShots());
    CHECK(!bench.session.bay().arrive({bay::Arrival{}}));
    CHECK(shots(bench).size() == 1);
    CHECK(!bench.session.bay().hasUnsaved());
    bench.window->showPage(app::PageId::reading);
    CHECK(bench.waitForReading());
}

TEST_CASE("leads follow the shots of the bay") {
    Bench bench;
    REQUIRE(bench.session.newTest(record::Stage::screening));
    bench.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}};
        test.plan.warmUp = 0;
    });
    bench.window->showPage(app::PageId::bay);
    hit(bench, 150);
    bench.session.bay().step("another club", [](record::Test& test) { bay::takeInHand(test, BuildAt(1)); });
    hit(bench, 160);
    bench.window->showPage(app::PageId::rack);
    CHECK(bench.find<QLabel>("leads")->text().startsWith("Alder: 160.0 m on average of 1 shot"));
}

TEST_CASE("the reading that is looked at is judged anew when shots come, also after the plan") {
    Bench bench;
    Hands hands(bench);
    open(bench, 0);
    bench.session.declaring().change(
        "who sees", [](record::Declared& test) { test.card.visibility.comparisons = record::Sees::everyone; });
    for (int stint = 0; stint < 4; ++stint) {
        hands.press(Qt::Key_Return);
        hit(bench, 150 + stint);
        hit(bench, 151);
    }
    REQUIRE(stand(bench).phase() == Phase::done);
    bench.window->showPage(app::PageId::reading);
    REQUIRE(bench.waitForReading());
    hit(bench, 170); // after the plan: kept, not counted
    CHECK(bench.waitForReading());
    auto* subtitle = bench.find<QLabel>("subtitle");
    CHECK(eventually([&] { return subtitle->text().contains("1 to warm up"); }));
    CHECK(!subtitle->text().contains("judging"));
}

TEST_CASE("nothing is in hand for a monitor once the plan is struck") {
    Bench bench;
    Hands hands(bench);
    open(bench, 0);
    auto* page = bench.find<app::BayPage>("bayPage");
    QTcpSocket socket;
    QByteArray heard;
    QObject::connect(&socket, &QTcpSocket::readyRead, [&] { heard += socket.readAll(); });
    socket.connectToHost("127.0.0.1", page->server().port());
    REQUIRE(eventually([&] { return socket.state() == QAbstractSocket::ConnectedState; }));
    socket.write(QByteArray::fromStdString(link::lineOf(link::Hello{"Hand-made", 1, {}, {}, {}})));
    CHECK(eventually([&] { return heard.contains("\"in_hand\",\"build\":\"Club "); }));
    for (int stint = 0; stint < 4; ++stint) {
        hands.press(Qt::Key_Return);
        hit(bench, 150);
        hit(bench, 151);
    }
    CHECK(eventually([&] { return heard.contains("\"in_hand\",\"build\":\"\""); }));
}

TEST_CASE("a shot that no test takes is refused to its monitor, and taken when it comes again") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return); // warm enough
    auto* page = bench.find<app::BayPage>("bayPage");
    QTcpSocket socket;
    QByteArray heard;
    QObject::connect(&socket, &QTcpSocket::readyRead, [&] { heard += socket.readAll(); });
    socket.connectToHost("127.0.0.1", page->server().port());
    REQUIRE(eventually([&] { return socket.state() == QAbstractSocket::ConnectedState; }));
    socket.write(QByteArray::fromStdString(link::lineOf(link::Hello{"Hand-made", 1, {}, {}, {}})));
    bench.session.declaring().strikeOff(record::BuildAt(0), "x");
    record::Readings readings;
    readings.measure(Metric::carry, 150);
    const auto shot = QByteArray::fromStdString(link::lineOf(link::ShotRead{"a", {}, readings, {}}));
    socket.write(shot);
    CHECK(eventually([&] { return heard.contains("no test takes shots now"); }));
    CHECK(!heard.contains("\"ack\""));
    CHECK(shots(bench).empty());
    bench.session.declaring().strikeOff(record::BuildAt(0), {});
    socket.write(shot);
    CHECK(eventually([&] { return heard.contains("\"ack\",\"id\":\"a\""); }));
    CHECK(shots(bench).size() == 1);
}

TEST_CASE("a file that a device writes over for each shot, equally long, gives every shot") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_H, Qt::ControlModifier);
    hands.press(Qt::Key_Return); // warm enough
    auto* page = bench.find<app::BayPage>("bayPage");
    page->watchFolder(bench.folder.path());
    REQUIRE(eventually([&] { return page->folder().looks() > 0; }));
    for (int i = 0; i < 3; ++i) {
        bench.writeFile("last.csv", "Carry (m),Ball Speed (m/s)\n15" + QByteArray::number(i) + ",61\n");
        REQUIRE(eventually([&] { return shots(bench).size() == static_cast<std::size_t>(i) + 1; }, 5000));
    }
    CHECK(shots(bench)[2].readings.at(Metric::carry) == 152);
}

TEST_CASE("a number that can't be taken goes with the club it was typed for") {
    Bench bench;
    Hands hands(bench);
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}};
        test.builds[1].club.head.mass = 210;
    });
    bench.window->showPage(app::PageId::rack);
    auto* list = bench.find<QListWidget>("clubs");
    list->setCurrentRow(0);
    auto* mass = bench.find<QLineEdit>("headMassEdit");
    mass->setFocus();
    QTest::keyClicks(mass, "200x");
    CHECK(mass->accessibleDescription().contains("is not a number"));
    list->setFocus();
    list->setCurrentRow(1);
    CHECK(mass->text() == "210");
    CHECK(mass->accessibleDescription().isEmpty());
    list->setCurrentRow(0);
    CHECK(mass->text().isEmpty());
}

TEST_CASE("conditions that were kept are not wiped by a field that can't be taken") {
    Bench bench;
    Hands hands(bench);
    open(bench, 0);
    hands.press(Qt::Key_K);
    hands.fill("wind", "3");
    hands.fill("wind", "3x");
    hands.fill("surface", "mat");
    const auto& conditions = bench.session.test().sittings.back().conditions;
    CHECK(conditions.wind == 3);
    CHECK(conditions.surface == "mat");
}

TEST_CASE("clubs whose names hold commas are named by hand") {
    Bench bench;
    Hands hands(bench);
    knot::test::declareSealed(bench, hands, {"7 iron, new", "7 iron", "7 iron, bent, old"});
    hands.fill("byHand", "7 iron, bent, old, 7 iron, 7 iron, new");
    hands.press(Qt::Key_Return);
    auto* yes = bench.find<QPushButton>("sealYes");
    REQUIRE(knot::test::eventually([&] { return yes->isEnabled(); }));
    yes->click();
    CHECK(!bench.session.isSealed());
    CHECK(bench.session.test().builds[0].name == "7 iron, bent, old");
    CHECK(bench.session.test().builds[2].name == "7 iron, new");
}

TEST_CASE("light and dark change the ink of what was rendered before") {
    Bench bench;
    REQUIRE(bench.session.newTest(record::Stage::test));
    bench.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}};
        test.builds[0].club.head.mass = 200;
        test.builds[1].club.head.mass = 210;
    });
    bench.window->showPage(app::PageId::rack);
    auto* sheet = bench.find<QLabel>("differences");
    const QString faint = app::colours().faint.name();
    REQUIRE(sheet->text().contains(faint));
    bench.trigger("actionTheme");
    CHECK(app::colours().faint.name() != faint);
    CHECK(eventually([&] { return sheet->text().contains(app::colours().faint.name()); }));
    CHECK(!sheet->text().contains(faint));
    bench.trigger("actionTheme");
}

TEST_CASE("saving over a file is asked about, adding to a logbook is not") {
    QFileDialog dialog;
    app::DialogPrompter::configure(dialog, app::Prompter::Existing::replace);
    CHECK(!dialog.testOption(QFileDialog::DontConfirmOverwrite));
    app::DialogPrompter::configure(dialog, app::Prompter::Existing::add);
    CHECK(dialog.testOption(QFileDialog::DontConfirmOverwrite));
    Bench bench;
    bench.readFile(bench.writeFile("s.csv", "build,carry_m\nA,150\nB,160\n"));
    bench.prompter->answers = {bench.path("out.csv"), bench.path("mine.knotbook")};
    bench.trigger("actionExport");
    bench.trigger("actionKeep");
    REQUIRE(bench.prompter->saved.size() == 2);
    CHECK(bench.prompter->saved[0] == app::Prompter::Existing::replace);
    CHECK(bench.prompter->saved[1] == app::Prompter::Existing::add);
}

TEST_CASE("keys, menu, help and docs/keys.md are the same commands") {
    Bench bench;
    open(bench, 0);
    QStringList menu;
    for (const auto& command : app::bayCommands()) {
        if (command.menuName != nullptr)
            REQUIRE(bench.find<QAction>(command.menuName) != nullptr);
        if (command.key == 0 || command.help[0] == '\0')
            continue;
        for (const auto& other : app::bayCommands())
            CHECK((&other == &command || other.key != command.key || other.isShifted != command.isShifted ||
                   other.help[0] == '\0'));
    }
    QFile keys(QStringLiteral(KNOT_SOURCE_DIR "/docs/keys.md"));
    REQUIRE(keys.open(QIODevice::ReadOnly));
    const QString text = QString::fromUtf8(keys.readAll()).simplified();
    INFO(app::keyParagraph().toStdString());
    CHECK(text.contains(app::keyParagraph()));
    bench.find<app::BayPage>("bayPage")->showHelp();
    const QString help = bench.find<QLabel>("bayKeys")->text();
    for (const auto& command : app::bayCommands())
        if (command.key != 0 && command.help[0] != '\0')
            CHECK(help.contains(QString::fromUtf8(command.help).toHtmlEscaped()));
}
