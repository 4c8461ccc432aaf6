// Where shots come from, and what fails on the way: folders, links, disks, clocks, locks.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/now_view.h"
#include "app/form/ask_bar.h"
#include "app/line.h"
#include "app/session/session.h"
#include "app/sources/cues.h"
#include "app/sources/peer.h"
#include "support/failing_disk.h"

#include <QDir>
#include <QLabel>
#include <QProcess>
#include <QSettings>
#include <QStandardPaths>
#include <QTcpServer>
#include <QTcpSocket>
#include <catch2/catch.hpp>
#include <sqlite3.h>
#include <unistd.h>

#include <algorithm>
#include <memory>
#include <set>

using namespace knot;
using knot::test::Bench;
using knot::test::eventually;
using knot::test::Hands;
using knot::test::shots;
using knot::test::sitDown;

namespace {

void append(const QString& path, const QByteArray& text) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::Append));
    file.write(text);
}

// The folder is looked at when it changes and every second.
bool waitForShots(Bench& bench, std::size_t count) {
    return QTest::qWaitFor([&] { return shots(bench).size() >= count; }, 4000);
}

// Until the folder has been looked at anew, twice: a look that was under way may have come too early.
void looked(Bench& bench) {
    auto* page = bench.find<app::BayPage>("bayPage");
    for (int i = 0; i < 2; ++i) {
        const int before = page->folder().looks();
        REQUIRE(QTest::qWaitFor([&] { return page->folder().looks() > before; }, 5000));
    }
}

double carryOf(Bench& bench, std::size_t shot) {
    return shots(bench).at(shot).readings.at(record::Metric::carry).value_or(0);
}

// A folder with one shot in its file, watched.
QString watchFolder(Bench& bench, const QByteArray& text) {
    QDir(bench.folder.path()).mkdir("watched");
    const QString file = bench.path("watched/session.csv");
    append(file, text);
    bench.prompter->answers << bench.path("watched");
    bench.trigger("actionWatch");
    return file;
}

} // namespace

TEST_CASE("a file that grows in a watched folder gives its new shots, once each, when their line is whole") {
    Bench bench;
    sitDown(bench);
    const QString file = watchFolder(bench, "Carry (m),Ball Speed (m/s)\n140,55\n");
    append(file, "150,58\n151,");
    REQUIRE(waitForShots(bench, 1));
    looked(bench);
    CHECK(shots(bench).size() == 1); // neither what stood there nor half a line
    CHECK(carryOf(bench, 0) == 150);
    append(file, "59\n152,60\n");
    REQUIRE(waitForShots(bench, 3));
    CHECK(carryOf(bench, 1) == 151);
    SECTION("the device begins a new file and keeps the old under another name") {
        QFile::rename(file, bench.path("watched/session.1.csv"));
        append(file, "Carry (m),Ball Speed (m/s)\n153,60\n");
        REQUIRE(waitForShots(bench, 4));
        looked(bench);
        CHECK(shots(bench).size() == 4);
    }
    SECTION("the device copies the file away and empties it") {
        QFile::copy(file, bench.path("watched/session.1.csv"));
        QFile(file).resize(0);
        append(file, "Carry (m),Ball Speed (m/s)\n153,60\n");
        REQUIRE(waitForShots(bench, 4));
        looked(bench);
        CHECK(shots(bench).size() == 4);
        CHECK(carryOf(bench, 3) == 153);
    }
    SECTION("one file a shot") {
        for (int i = 0; i < 3; ++i)
            append(bench.path(QString("watched/shot%1.csv").arg(i)), "Carry (m),Ball Speed (m/s)\n160,61\n");
        REQUIRE(waitForShots(bench, 6)); // three shots alike are three shots
    }
    SECTION("averages written anew below each shot") {
        append(file, "Average,,\n");
        looked(bench);
        CHECK(shots(bench).size() == 3);
    }
    SECTION("a line that can't be read is said, and read once it is mended") {
        append(file, "far,60\n");
        REQUIRE(QTest::qWaitFor([&] { return bench.message().contains("session.csv"); }, 3000));
        CHECK(shots(bench).size() == 3);
    }
}

namespace {

// As devices do that keep the last shot alone.
void writeOver(const QString& path, double carry) {
    QFile file(path);
    REQUIRE(file.open(QIODevice::WriteOnly));
    file.write("Carry (m),Ball Speed (m/s)\n" + QByteArray::number(carry, 'f', 1) + ",58\n");
}

} // namespace

TEST_CASE("a file that is written over with each shot, at the same length, gives each shot once") {
    Bench bench;
    sitDown(bench);
    const QString file = watchFolder(bench, "Carry (m),Ball Speed (m/s)\n140.0,58\n");
    looked(bench);
    for (std::size_t i = 0; i < 10; ++i) {
        writeOver(file, 150 + static_cast<double>(i % 7)); // the eighth is like the first
        REQUIRE(waitForShots(bench, i + 1));
        CHECK(carryOf(bench, i) == 150 + static_cast<double>(i % 7));
    }
    SECTION("the very same shot again is said, since it may be another swing") {
        QTest::qWait(1200);
        writeOver(file, 152); // as the tenth
        CHECK(QTest::qWaitFor([&] { return bench.message().contains("the very same shot"); }, 4000));
        CHECK(shots(bench).size() == 10);
    }
    SECTION("a change without a new shot is said") {
        QFile changed(file);
        REQUIRE(changed.open(QIODevice::WriteOnly));
        changed.write("Carry (m),Ball Speed (m/s)\nAverage,58\n");
        changed.close();
        CHECK(QTest::qWaitFor([&] { return bench.message().contains("no new shot is in it"); }, 4000));
        CHECK(shots(bench).size() == 10);
    }
    SECTION("and goes on after an end of the program, with what was written meanwhile") {
        const std::string id = bench.session.test().id;
        for (int end = 0; end < 5; ++end) {
            REQUIRE(bench.session.newTest(record::Stage::openSitting)); // closes the bay as an end does
            if (end % 2 == 0)
                writeOver(file, 160 + end);
            REQUIRE(bench.session.openTest(id));
            bench.window->showPage(app::PageId::logbook);
            bench.window->showPage(app::PageId::bay);
            looked(bench);
        }
        std::vector<double> last;
        for (std::size_t i = 10; i < shots(bench).size(); ++i)
            last.push_back(carryOf(bench, i));
        CHECK(last == std::vector<double>{160, 162, 164});
    }
}

TEST_CASE("shots written to a watched folder while the program was down are there afterwards") {
    Bench bench;
    sitDown(bench);
    const QString file = watchFolder(bench, "Carry (m)\n140\n");
    append(file, "150\n");
    REQUIRE(waitForShots(bench, 1));
    const auto id = bench.session.test().id;
    bench.window->showPage(app::PageId::logbook);
    REQUIRE(bench.session.openLogbook(bench.session.book().path())); // as after a restart
    append(file, "151\n152\n");
    REQUIRE(bench.session.openTest(id));
    bench.window->showPage(app::PageId::bay);
    REQUIRE(waitForShots(bench, 3));
    CHECK(carryOf(bench, 0) == 150);
    CHECK(carryOf(bench, 2) == 152);
    CHECK(shots(bench).size() == 3);
}

TEST_CASE("a port that is taken is said where shots are awaited") {
    Bench bench;
    sitDown(bench);
    auto& server = bench.find<app::BayPage>("bayPage")->server();
    QTcpServer other;
    REQUIRE(other.listen(QHostAddress::LocalHost));
    CHECK(!server.listen({.port = other.serverPort()}));
    CHECK(bench.find<QLabel>("source")->text().contains("is taken by another program"));
}

TEST_CASE("a file deleted while shots come is written anew, and one replaced keeps its shots in memory") {
    Bench bench;
    sitDown(bench);
    Hands hands(bench);
    hands.type("150");
    hands.press(Qt::Key_Return);
    const QString path = bench.session.book().path();
    SECTION("deleted") {
        QFile::remove(path);
        hands.type("151");
        hands.press(Qt::Key_Return);
        CHECK(bench.message().contains("written anew"));
        CHECK(!bench.session.bay().hasUnsaved());
        CHECK(logbook::Logbook::read(path.toStdString())->load(bench.session.test().id)->shots.size() == 2);
    }
    SECTION("replaced") {
        QFile::rename(path, path + ".away");
        QFile other(path);
        REQUIRE(other.open(QIODevice::WriteOnly));
        other.write("else");
        other.close();
        hands.type("151");
        hands.press(Qt::Key_Return);
        auto* trouble = bench.find<QLabel>("trouble");
        CHECK(trouble->isVisible());
        CHECK(trouble->text().contains("Not on disk: 1 shot"));
        CHECK(bench.session.bay().unsavedShots() == 1);
        CHECK(!bench.session.newTest(record::Stage::test)); // not while shots would be lost
        bench.window->close();
        CHECK(bench.window->isVisible());
        bench.prompter->answers << bench.path("rescued.knotbook");
        bench.trigger("actionKeep");
        CHECK(!bench.session.bay().hasUnsaved());
        CHECK(!trouble->isVisible());
        CHECK(logbook::Logbook::read(bench.path("rescued.knotbook").toStdString())
                  ->load(bench.session.test().id)
                  ->shots.size() == 2);
    }
    SECTION("away and back") {
        QFile::rename(path, path + ".away");
        QFile other(path);
        REQUIRE(other.open(QIODevice::WriteOnly));
        other.close();
        hands.type("151");
        hands.press(Qt::Key_Return);
        CHECK(bench.session.bay().hasUnsaved());
        QFile::remove(path);
        QFile::rename(path + ".away", path);
        CHECK(QTest::qWaitFor([&] { return !bench.session.bay().hasUnsaved(); }, 5000)); // tried again by itself
        CHECK(bench.message().contains("works again"));
    }
}

TEST_CASE("a logbook that is open in another Knot Count is refused with the reason") {
    Bench bench;
    sitDown(bench);
    app::Session other;
    QString said;
    QObject::connect(&other, &app::Session::refused, [&](const QString& text) { said = text; });
    CHECK(!other.openLogbook(bench.session.book().path()));
    CHECK(said.contains("open in another Knot Count"));
    CHECK(!other.book().isOpen());
    // A logbook that was only just made by keeping a test is locked as well.
    REQUIRE(bench.session.keepIn(bench.path("kept.knotbook")));
    CHECK(!other.openLogbook(bench.path("kept.knotbook")));
}

TEST_CASE("a clock that goes back leaves the order of shots and says so") {
    Bench bench;
    sitDown(bench);
    QDateTime clock = QDateTime::currentDateTime();
    bench.session.bay().setClock([&] { return clock; });
    Hands hands(bench);
    hands.type("150");
    hands.press(Qt::Key_Return);
    clock = clock.addSecs(-3600);
    hands.type("151");
    hands.press(Qt::Key_Return);
    REQUIRE(shots(bench).size() == 2);
    CHECK(carryOf(bench, 1) == 151);
    CHECK(shots(bench)[0].takenAt.text() <= shots(bench)[1].takenAt.text());
    CHECK(bench.message().contains("clock went back"));
    const auto id = bench.session.test().id;
    REQUIRE(bench.session.openTest(id)); // and so after a restart
    hands.type("152");
    hands.press(Qt::Key_Return);
    CHECK(carryOf(bench, 2) == 152);
    CHECK(shots(bench)[1].takenAt.text() <= shots(bench)[2].takenAt.text());
    CHECK(bench.session.test().sittings.size() == 1);
}

TEST_CASE("after an end in the middle the test goes on where it stood, and says so") {
    Bench bench;
    Hands hands(bench);
    hands.press(Qt::Key_N, Qt::ControlModifier);
    hands.press(Qt::Key_3, Qt::AltModifier);
    knot::test::addClubs(hands, {"Larch", "Reed"});
    hands.press(Qt::Key_5, Qt::AltModifier);
    hands.press(Qt::Key_Return);
    hands.press(Qt::Key_Return);
    hands.type("150");
    hands.press(Qt::Key_Return);
    const auto before = bench.session.test();
    const auto id = before.id;
    bench.window->showPage(app::PageId::logbook);
    REQUIRE(bench.session.openLogbook(bench.session.book().path()));
    REQUIRE(bench.session.openTest(id));
    bench.window->showPage(app::PageId::bay);
    CHECK(bench.session.test() == before);
    CHECK(bench.message().contains("Resumed in lap 1"));
    CHECK(bench.message().contains("shot 2 of 3"));
}

TEST_CASE("sound cues are sound: whole waves with soft ends, each its own") {
    std::set<QByteArray> waves;
    for (const auto cue :
         {app::Cue::shotKept, app::Cue::noReading, app::Cue::handOver, app::Cue::restOver, app::Cue::done}) {
        const QByteArray wave = app::waveOf(app::tonesOf(cue));
        CHECK(wave.startsWith("RIFF"));
        CHECK(wave.size() > 44 + 2000);
        CHECK(wave.size() % 2 == 0);
        const auto* samples = reinterpret_cast<const qint16*>(wave.constData() + 44);
        const auto count = static_cast<std::size_t>(wave.size() - 44) / 2;
        int loudest = 0;
        for (std::size_t i = 0; i < count; ++i)
            loudest = std::max(loudest, std::abs(static_cast<int>(samples[i])));
        CHECK(loudest > 4000);
        CHECK(loudest < 12000);
        CHECK(std::abs(static_cast<int>(samples[0])) < 200);
        waves.insert(wave);
    }
    CHECK(waves.size() == 5);
}

TEST_CASE("whose program is at the other end is told by the kernel's table, by both ends whole") {
    const QByteArray table =
        "  sl  local_address rem_address   st tx_queue rx_queue tr tm->when retrnsmt   uid  timeout inode\n"
        "   0: 0200007F:9C40 0100007F:BB1B 01 00000000:00000000 00:00000000 00000000     7        0 1 1\n"
        "   1: 0100007F:9C40 0100007F:BB1B 01 00000000:00000000 00:00000000 00000000    42        0 1 1\n";
    const QByteArray six = "  sl  local_address                         remote_address\n"
                           "   0: 0000000000000000FFFF00000100007F:9C41 0000000000000000FFFF00000100007F:BB1B 01 "
                           "00000000:00000000 00:00000000 00000000    43        0 1 1\n";
    const app::End ours{QHostAddress("127.0.0.1"), 0xBB1B};
    CHECK(app::ownerIn(table, {QHostAddress("127.0.0.1"), 0x9C40}, ours) == 42U);
    CHECK(app::ownerIn(table, {QHostAddress("127.0.0.2"), 0x9C40}, ours) == 7U);
    CHECK(app::ownerIn(six, {QHostAddress("127.0.0.1"), 0x9C41}, ours) == 43U);
    CHECK(!app::ownerIn(table, {QHostAddress("127.0.0.1"), 0x9C41}, ours));
    CHECK(!app::ownerIn("", {QHostAddress("127.0.0.1"), 0x9C40}, ours));
}

TEST_CASE("a program of another user is not heard, by whatever kind of socket") {
    const QString python = QStandardPaths::findExecutable("python3");
    if (::getuid() != 0 || python.isEmpty()) {
        WARN("Another user can't be played here.");
        return;
    }
    Bench bench;
    sitDown(bench);
    const QString port = QString::number(bench.find<app::BayPage>("bayPage")->server().port());
    for (const char* place : {"127.0.0.1", "::ffff:127.0.0.1"})
        for (const bool isOther : {false, true}) {
            QProcess program;
            program.start(python, {"-c",
                                   "import os, socket, sys\n"
                                   "if sys.argv[3] == '1': os.setuid(65534)\n"
                                   "s = socket.create_connection((sys.argv[1], int(sys.argv[2])))\n"
                                   "s.settimeout(5)\n"
                                   "try:\n"
                                   "    s.sendall(b'{\"type\":\"hello\",\"protocol\":1,\"device\":\"Hand-made\"}\\n')\n"
                                   "    print(s.recv(2000))\n"
                                   "except OSError:\n"
                                   "    print('cut')\n",
                                   place, port, isOther ? "1" : "0"});
            REQUIRE(eventually([&] { return program.state() == QProcess::NotRunning; }));
            INFO(place << (isOther ? ", another user" : ", the same user"));
            CHECK(program.readAllStandardOutput().contains("welcome") == !isOther);
        }
}

TEST_CASE("which folder is watched is this computer's to know: a logbook from elsewhere decides nothing") {
    Bench bench;
    sitDown(bench);
    const QString folder = bench.path("elsewhere");
    REQUIRE(QDir().mkpath(folder));
    bench.session.book().setSetting("watched_folder",
                                    QStringLiteral("{\"folder\":\"%1\",\"test\":\"%2\",\"files\":{}}")
                                        .arg(folder, QString::fromStdString(bench.session.test().id)));
    auto& watched = *bench.find<app::BayPage>("bayPage")->findChild<app::WatchedFolder*>();
    QSettings().remove("bay/watched_folder");
    CHECK_FALSE(watched.goOn());
    QSettings().setValue("bay/watched_folder", QStringList{folder, "another test"});
    CHECK_FALSE(watched.goOn());
    QSettings().setValue("bay/watched_folder", QStringList{folder, QString::fromStdString(bench.session.test().id)});
    CHECK(watched.goOn());
    watched.stop();
    QSettings().remove("bay/watched_folder");
}
