// The monitor link with the real window: what is acknowledged, who is heard, and what floods it.
#include "app/bay_page/bay_page.h"
#include "app/bay_page/now_view.h"
#include "app/form/ask_bar.h"
#include "app/line.h"
#include "app/sources/doorkeeper.h"
#include "core/bay/hand.h"
#include "support/failing_disk.h"

#include <QLabel>
#include <QProcess>
#include <QSettings>
#include <QStandardPaths>
#include <QTcpServer>
#include <catch2/catch.hpp>
#include <sqlite3.h>

#include <algorithm>
#include <memory>
#include <set>

using namespace knot;
using knot::test::Bench;
using knot::test::Hands;
using knot::test::hello;
using knot::test::Line;
using knot::test::shots;
using knot::test::sitDown;

TEST_CASE("a link shot is acknowledged when it is on disk; a repeated one again, and not counted") {
    Bench bench;
    sitDown(bench);
    auto& server = bench.find<app::BayPage>("bayPage")->server();
    Line line(server.port());
    line.say(hello());
    REQUIRE(line.hears("welcome"));
    CHECK(line.hears("in_hand"));
    line.strike("a", 150);
    REQUIRE(line.hears("{\"type\":\"ack\",\"id\":\"a\"}"));
    line.strike("a", 150);
    line.say(link::NoRead{"b", "", "no ball"});
    REQUIRE(line.hears("{\"type\":\"ack\",\"id\":\"b\"}"));
    CHECK(shots(bench).size() == 2);
    CHECK(line.heard.count("\"ack\",\"id\":\"a\"") == 2);
    line.socket.write("rubbish\n");
    REQUIRE(line.hears("not JSON"));
    CHECK(bench.message().contains("can't be read"));
    SECTION("a monitor that is gone is said, and comes back") {
        line.socket.abort();
        REQUIRE(QTest::qWaitFor([&] { return server.devices().isEmpty(); }, 3000));
        CHECK(server.status().contains("gone"));
        Line again(server.port());
        again.say(hello());
        again.strike("b", 1); // sent again: it was never sure
        REQUIRE(again.hears("\"ack\",\"id\":\"b\""));
        CHECK(shots(bench).size() == 2);
    }
    SECTION("also after the program was started anew") {
        const auto id = bench.session.test().id;
        REQUIRE(bench.session.openTest(id));
        Line again(server.port());
        again.say(hello());
        again.strike("a", 150);
        REQUIRE(again.hears("\"ack\",\"id\":\"a\""));
        CHECK(shots(bench).size() == 2);
    }
    SECTION("shots for another test stay with the monitor") {
        REQUIRE(bench.session.newTest(record::Stage::test));
        bench.window->showPage(app::PageId::sheet);
        CHECK(!server.isListening());
        CHECK(shots(bench).empty());
    }
}

TEST_CASE("times of a monitor whose clock is wrong are put right by its heartbeats") {
    Bench bench;
    sitDown(bench);
    Line line(bench.find<app::BayPage>("bayPage")->server().port());
    const QDateTime theirs = QDateTime::currentDateTime().addSecs(-3600);
    auto iso = [](const QDateTime& at) { return at.toString(Qt::ISODateWithMs).toStdString(); };
    auto greeting = hello();
    greeting.at = iso(theirs);
    line.say(greeting);
    line.strike("now", 150, iso(theirs.addSecs(-20)));
    REQUIRE(line.hears("\"ack\""));
    const auto taken = QDateTime::fromString(QString::fromStdString(shots(bench)[0].takenAt.text()), Qt::ISODateWithMs);
    CHECK(std::abs(taken.secsTo(QDateTime::currentDateTime()) - 20) <= 2);
}

TEST_CASE("other computers are heard only after a choice, with a pairing code") {
    Bench bench;
    sitDown(bench);
    auto& server = bench.find<app::BayPage>("bayPage")->server();
    REQUIRE(server.listen({.port = 0, .open = true, .code = "271828"}));
    Line wrong(server.port());
    wrong.say(hello("271827"));
    CHECK(wrong.hears("pairing code"));
    CHECK(QTest::qWaitFor([&] { return wrong.socket.state() == QAbstractSocket::UnconnectedState; }, 3000));
    CHECK(bench.message().contains("pairing code"));
    Line soon(server.port()); // whoever guesses has one guess a second
    soon.say(hello("271828"));
    CHECK(soon.hears("try again in a second"));
    CHECK(QTest::qWaitFor(
        [&] {
            Line right(server.port());
            right.say(hello("271828"));
            return right.hears("welcome");
        },
        10000));
    CHECK(app::LinkSettings::newCode().size() == 6);
}

TEST_CASE("on a full disk shots stay in memory, are not acknowledged, and go to disk when there is room") {
    knot::test::FailingDisk disk;
    Bench bench;
    sitDown(bench);
    Line line(bench.find<app::BayPage>("bayPage")->server().port());
    line.say(hello());
    line.strike("a", 150);
    REQUIRE(line.hears("\"ack\",\"id\":\"a\""));
    disk.failAt(1, SQLITE_FULL, knot::test::FailingDisk::Lasts::fromThenOn);
    line.strike("b", 151);
    line.strike("c", 152);
    auto* trouble = bench.find<QLabel>("trouble");
    REQUIRE(QTest::qWaitFor([&] { return bench.session.bay().unsavedShots() == 2; }, 3000));
    CHECK(trouble->isVisible());
    CHECK(trouble->text().contains("no space left"));
    CHECK(trouble->text().contains("Not on disk: 2 shots"));
    CHECK(shots(bench).size() == 3);
    CHECK(!line.heard.contains("\"ack\",\"id\":\"b\""));
    disk.mend();
    CHECK(line.hears("\"ack\",\"id\":\"c\"")); // tried again by itself
    CHECK(line.heard.contains("\"ack\",\"id\":\"b\""));
    CHECK(!trouble->isVisible());
    CHECK(logbook::Logbook::read(bench.session.book().path().toStdString())
              ->load(bench.session.test().id)
              ->shots.size() == 3);
}

TEST_CASE("who guesses codes keeps nobody else out: one a second and twenty an address, a hundred in all") {
    using link::Admission;
    app::Doorkeeper keeper;
    CHECK(keeper.admits("a", false, 0) == Admission::no);
    CHECK(keeper.admits("a", true, 500) == Admission::later);
    CHECK(keeper.admits("b", true, 500) == Admission::yes); // whatever another one does
    CHECK(keeper.admits("a", true, 1000) == Admission::yes);
    for (int i = 0; i < app::Doorkeeper::mostOfOne; ++i)
        CHECK(keeper.admits("a", false, 2000 + 1000 * i) == Admission::no);
    CHECK(keeper.admits("a", true, 100000) == Admission::no);
    CHECK(keeper.admits("b", true, 100000) == Admission::yes);
    for (int i = 0; !keeper.wantsAnotherCode(); ++i) {
        REQUIRE(i < app::Doorkeeper::mostOfAll);
        keeper.admits(QString::number(i), false, 100000);
    }
    keeper.forget();
    CHECK(keeper.admits("a", true, 100000) == Admission::yes);
}

TEST_CASE("silent lines of one address leave room for the monitor of another") {
    Bench bench;
    sitDown(bench);
    auto& server = bench.find<app::BayPage>("bayPage")->server();
    REQUIRE(server.listen({.port = 0, .open = true, .code = "271828"}));
    std::vector<std::unique_ptr<QTcpSocket>> silent;
    for (int i = 0; i < 10; ++i) {
        silent.push_back(std::make_unique<QTcpSocket>());
        silent.back()->bind(QHostAddress(QStringLiteral("127.0.0.7")));
        silent.back()->connectToHost(QHostAddress::LocalHost, server.port());
    }
    CHECK(QTest::qWaitFor(
        [&] {
            return std::ranges::count_if(silent, [](const auto& socket) {
                       return socket->state() == QAbstractSocket::ConnectedState;
                   }) == 3;
        },
        5000));
    Line right(server.port());
    right.say(hello("271828"));
    CHECK(right.hears("welcome"));
}

TEST_CASE("a monitor nobody has let in waits with its shots until it is, and is asked about once") {
    Bench bench;
    sitDown(bench);
    Hands hands(bench);
    auto* page = bench.find<app::BayPage>("bayPage");
    auto& server = page->server();
    QSettings().setValue("link/known", QStringList{"Hand-made"});
    Line line(server.port());
    line.say(link::Hello{"Stranger <b>1</b>", 1, {}, {}, {}});
    REQUIRE(line.hears("welcome"));
    auto* question = bench.find<app::AskBar>("askBar");
    REQUIRE(QTest::qWaitFor([&] { return question->isAsking(); }, 3000));
    CHECK(question->question().contains("Stranger <b>1</b>"));
    CHECK(server.status().contains("waits to be let in"));
    line.strike("s1", 150);
    line.strike("s2", 151);
    CHECK(!QTest::qWaitFor([&] { return !shots(bench).empty() || line.heard.contains("ack"); }, 300));
    SECTION("let in, its shots come, and it is known when it comes again") {
        hands.press(Qt::Key_1);
        CHECK(line.hears("\"ack\",\"id\":\"s2\""));
        CHECK(shots(bench).size() == 2);
        Line again(server.port());
        again.say(link::Hello{"Stranger <b>1</b>", 1, {}, {}, {}});
        again.strike("s3", 152);
        CHECK(again.hears("\"ack\",\"id\":\"s3\""));
        CHECK(!question->isAsking());
    }
    SECTION("what waited while the club was changed stays with the club that it was struck with") {
        hands.press(Qt::Key_Escape);
        bench.session.bay().step("another club", [](record::Test& test) {
            test.builds.push_back({.name = "Larch 71"});
            test.nameClubs();
            bay::takeInHand(test, record::BuildAt(test.builds.size() - 1));
        });
        line.strike("s3", 152);
        CHECK(!QTest::qWaitFor([&] { return line.heard.contains("ack"); }, 300));
        hands.press(Qt::Key_M);
        hands.press(Qt::Key_1);
        REQUIRE(line.hears("\"ack\",\"id\":\"s3\""));
        REQUIRE(shots(bench).size() == 3);
        CHECK(shots(bench)[0].build == shots(bench)[1].build);
        CHECK(shots(bench)[2].build != shots(bench)[1].build);
        CHECK(bench.session.test().builds[shots(bench)[2].build].name == "Larch 71");
    }
    SECTION("kept out, none counts, and it is not asked about again") {
        hands.press(Qt::Key_2);
        CHECK(QTest::qWaitFor([&] { return line.socket.state() == QAbstractSocket::UnconnectedState; }, 3000));
        CHECK(shots(bench).empty());
        Line again(server.port());
        again.say(link::Hello{"Stranger <b>1</b>", 1, {}, {}, {}});
        CHECK(QTest::qWaitFor([&] { return again.socket.state() == QAbstractSocket::UnconnectedState; }, 3000));
        CHECK(!question->isAsking());
        CHECK(server.status() == "Stranger <b>1</b> is kept out: M asks again.");
        hands.press(Qt::Key_M); // a wrong key is no end
        REQUIRE(question->isAsking());
        hands.press(Qt::Key_1);
        Line third(server.port());
        third.say(link::Hello{"Stranger <b>1</b>", 1, {}, {}, {}});
        third.strike("s9", 153);
        CHECK(third.hears("\"ack\",\"id\":\"s9\""));
        CHECK(shots(bench).size() == 1);
    }
    SECTION("left unanswered, M asks again") {
        hands.press(Qt::Key_Escape);
        CHECK(!question->isAsking());
        hands.press(Qt::Key_M);
        CHECK(question->isAsking());
        hands.press(Qt::Key_1);
        CHECK(line.hears("\"ack\",\"id\":\"s1\""));
    }
    QSettings().setValue("link/known", QStringList{"Simulated monitor", "Hand-made"});
}

TEST_CASE("a web page's bytes put no shot into a test") {
    Bench bench;
    sitDown(bench);
    Line page(bench.find<app::BayPage>("bayPage")->server().port());
    page.socket.write("POST / HTTP/1.1\r\nHost: 127.0.0.1\r\nOrigin: http://elsewhere.example\r\n"
                      "Content-Type: text/plain;charset=UTF-8\r\nContent-Length: 120\r\n\r\n");
    page.say(hello());
    page.strike("x", 190);
    CHECK(QTest::qWaitFor([&] { return page.socket.state() == QAbstractSocket::UnconnectedState; }, 3000));
    CHECK(shots(bench).empty());
    CHECK(!page.heard.contains("welcome"));
}

TEST_CASE("a page in a real browser puts no shot into a test", "[browser]") {
    const QString browser = QStandardPaths::findExecutable("chromium");
    if (browser.isEmpty()) {
        WARN("No Chromium here: only the bytes it sends were tried.");
        return;
    }
    Bench bench;
    sitDown(bench);
    QTcpServer control; // that the page does what it is meant to
    QByteArray attempted;
    QObject::connect(&control, &QTcpServer::newConnection, [&] {
        auto* socket = control.nextPendingConnection();
        QObject::connect(socket, &QTcpSocket::readyRead, [&attempted, socket] {
            attempted += socket->readAll();
            socket->disconnectFromHost();
        });
    });
    REQUIRE(control.listen(QHostAddress::LocalHost));
    record::Readings readings;
    readings.measure(record::Metric::carry, 190);
    const auto lines =
        QString::fromStdString(link::lineOf(hello()) + link::lineOf(link::ShotRead{"x", {}, readings, {}}));
    QByteArray script;
    for (const quint16 port : {control.serverPort(), bench.find<app::BayPage>("bayPage")->server().port()}) {
        const QByteArray place = "127.0.0.1:" + QByteArray::number(port);
        script += "tell('http://" + place + "/');try{new WebSocket('ws://" + place + "/')}catch(e){}\n";
    }
    const QString page = bench.writeFile(
        "page.html",
        "<textarea id=lines>" + lines.toHtmlEscaped().toUtf8() +
            "</textarea><script>const lines=document.getElementById('lines').value;"
            "function tell(to){fetch(to,{method:'POST',mode:'no-cors',body:lines});navigator.sendBeacon(to,lines);"
            "new Image().src=to+encodeURIComponent(lines)}\n" +
            script + "</script>");
    QProcess run;
    run.start(browser, {"--headless", "--no-sandbox", "--disable-gpu", "--user-data-dir=" + bench.path("browser"),
                        "--timeout=3000", "--dump-dom", "file://" + page});
    CHECK(QTest::qWaitFor([&] { return run.state() == QProcess::NotRunning; }, 60000));
    CHECK(attempted.contains("POST / HTTP/1.1"));
    CHECK(attempted.contains("\"hello\""));
    CHECK(shots(bench).empty());
    CHECK(!bench.message().contains("Hand-made"));
}

TEST_CASE("a flood of junk is over at once, and too many lines at a time are turned away") {
    Bench bench;
    sitDown(bench);
    const quint16 port = bench.find<app::BayPage>("bayPage")->server().port();
    Line good(port);
    good.say(hello());
    REQUIRE(good.hears("welcome"));
    Line flood(port);
    flood.say(hello());
    QByteArray junk;
    for (int i = 0; i < 4000000; ++i)
        junk += "x\n";
    flood.socket.write(junk);
    good.strike("a", 150);
    CHECK(good.hears("\"ack\",\"id\":\"a\"")); // while the flood lasts
    CHECK(QTest::qWaitFor([&] { return flood.socket.state() == QAbstractSocket::UnconnectedState; }, 5000));
    CHECK(flood.heard.size() < 8192);
    std::vector<std::unique_ptr<Line>> many;
    for (int i = 0; i < 30; ++i)
        many.push_back(std::make_unique<Line>(port));
    CHECK(QTest::qWaitFor(
        [&] {
            return std::ranges::count_if(many, [](const auto& each) {
                       return each->socket.state() == QAbstractSocket::UnconnectedState;
                   }) >= 22;
        },
        5000));
    good.strike("b", 151);
    CHECK(good.hears("\"ack\",\"id\":\"b\""));
}

TEST_CASE("after a full disk and a cut line a shot that is sent again is acknowledged") {
    knot::test::FailingDisk disk;
    Bench bench;
    sitDown(bench);
    const quint16 port = bench.find<app::BayPage>("bayPage")->server().port();
    auto line = std::make_unique<Line>(port);
    line->say(hello());
    line->strike("a", 150);
    REQUIRE(line->hears("\"ack\",\"id\":\"a\""));
    disk.failAt(1, SQLITE_FULL, knot::test::FailingDisk::Lasts::fromThenOn);
    line->strike("b", 151);
    line->strike("c", 152);
    REQUIRE(QTest::qWaitFor([&] { return bench.session.bay().unsavedShots() == 2; }, 3000));
    CHECK(bench.find<app::NowView>("now")->picture().below == "last shot: here, not on disk yet");
    line->socket.abort();
    line = std::make_unique<Line>(port);
    line->say(hello());
    line->strike("b", 151);
    line->strike("c", 152);
    REQUIRE(line->hears("welcome"));
    disk.mend();
    CHECK(line->hears("\"ack\",\"id\":\"b\""));
    CHECK(line->hears("\"ack\",\"id\":\"c\""));
    CHECK(shots(bench).size() == 3);
}
