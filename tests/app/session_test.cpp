// The session without a window: what is open is replaced whole or not at all, and nothing is lost.
#include "app/session/session.h"

#include "app/form/typed.h"
#include "app/session/background.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/judge/judge.h"
#include "core/record/roster.h"
#include "core/simulate/scenarios.h"
#include "files/base/file.h"
#include "support/folder.h"
#include "support/struck.h"

#include <QLineEdit>
#include <QSettings>
#include <QTemporaryDir>
#include <QTest>
#include <catch2/catch.hpp>
#include <sqlite3.h>

#include <filesystem>
#include <fstream>

using namespace knot;
using record::BuildAt;
using record::Metric;

namespace {

// A session with what it says, in a folder of its own.
struct Desk {
    QTemporaryDir folder;
    app::Session session;
    QStringList refused, noted;

    Desk() {
        qputenv("XDG_DATA_HOME", folder.path().toUtf8());
        QObject::connect(&session, &app::Session::refused, [this](const QString& text) { refused << text; });
        const QDateTime morning = QDateTime::fromString(QStringLiteral("2026-05-02T09:05:00"), Qt::ISODate);
        session.bay().setClock([morning] { return morning; });
        QObject::connect(&session, &app::Session::noted, [this](const QString& text) { noted << text; });
    }
    QString path(const char* name) const { return folder.filePath(QLatin1String(name)); }
    // A logbook with a test, opened, the test in hand.
    void open(const char* name) {
        const auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
        const auto id = *logbook::Logbook::create(path(name).toStdString())->save(test);
        REQUIRE(session.openLogbook(path(name)));
        REQUIRE(session.openTest(id));
    }
    record::Test onDisk(const char* name) {
        auto book = logbook::Logbook::read(path(name).toStdString());
        REQUIRE(book);
        return *book->load(session.test().id);
    }
    void hit(double carry, const std::string& readId = {}) {
        record::Readings readings;
        readings.measure(Metric::carry, carry);
        session.bay().arrive({{.readings = readings, .readId = readId}});
    }
};

} // namespace

TEST_CASE("undo does not reach from one logbook into another") {
    Desk desk;
    desk.open("a.knotbook");
    desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; });
    REQUIRE(desk.session.declaring().canUndo());
    REQUIRE(logbook::Logbook::create(desk.path("b.knotbook").toStdString()));
    REQUIRE(desk.session.openLogbook(desk.path("b.knotbook")));
    CHECK(!desk.session.hasTest());
    CHECK(!desk.session.declaring().canUndo());
    CHECK(!desk.session.bay().canUndo());
    desk.session.declaring().undo();
    desk.session.declaring().redo();
    desk.session.bay().undo();
    CHECK(!desk.session.hasTest());
}

TEST_CASE("undo does not reach into a test that was removed") {
    Desk desk;
    desk.open("a.knotbook");
    desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; });
    REQUIRE(desk.session.removeTest(std::string(desk.session.test().id)));
    CHECK(!desk.session.hasTest());
    desk.session.declaring().undo();
    CHECK(!desk.session.hasTest());
    CHECK(desk.session.book().tests().empty());
}

TEST_CASE("a logbook that is refused leaves the open one open, listed and locked") {
    Desk desk;
    desk.open("a.knotbook");
    std::ofstream(desk.path("bad.knotbook").toStdString()) << "no logbook at all";
    for (const char* name : {"bad.knotbook", "missing.knotbook"}) {
        CHECK(!desk.session.openLogbook(desk.path(name)));
        CHECK(!desk.refused.isEmpty());
        CHECK(desk.session.book().path() == desk.path("a.knotbook"));
        CHECK(desk.session.hasTest());
        CHECK(desk.session.book().tests().size() == 1);
        app::Session other;
        CHECK(!other.openLogbook(desk.path("a.knotbook"))); // the lock still holds
    }
    CHECK(!QFileInfo::exists(desk.path("missing.knotbook"))); // and nothing was made on the way
}

TEST_CASE("a change on a logbook that was deleted puts it back, and on one that was replaced is refused") {
    Desk desk;
    desk.open("a.knotbook");
    const auto path = desk.path("a.knotbook");
    REQUIRE(QFile::remove(path));
    REQUIRE(desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "One"; }));
    CHECK(QFileInfo::exists(path));
    CHECK(desk.noted.last().contains("written anew"));
    CHECK(desk.onDisk("a.knotbook").question == "One");
    REQUIRE(QFile::remove(path));
    desk.session.book().setUnits({.speed = record::SpeedUnit::mph});
    CHECK(QFileInfo::exists(path));
    REQUIRE(QFile::remove(path));
    desk.session.book().setSetting("start_speed", "x");
    CHECK(QFileInfo::exists(path));
    CHECK(desk.session.book().setting("start_speed") == "x");
    REQUIRE(QFile::remove(path));
    QFile other(path);
    REQUIRE(other.open(QIODevice::WriteOnly));
    other.write("something else");
    other.close();
    CHECK(!desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Two"; }));
    CHECK(desk.refused.last().contains("another file now"));
    CHECK(desk.session.test().question == "One");
}

TEST_CASE("what can't be read back is refused and changes nothing") {
    Desk desk;
    desk.open("a.knotbook");
    const auto before = desk.session.test();
    desk.session.declaring().setMargin(Metric::carry, std::numeric_limits<double>::infinity());
    desk.session.declaring().setMargin(Metric::carry, 0);
    CHECK(desk.refused.size() == 2);
    CHECK(desk.session.test() == before);
    CHECK(desk.onDisk("a.knotbook") == before);
    CHECK(!desk.session.declaring().canUndo());
}

TEST_CASE("shots that come while no test takes them are not taken, and say so to their source") {
    Desk desk;
    int kept = 0;
    QObject::connect(&desk.session.bay(), &app::BayRun::kept,
                     [&](const std::vector<std::string>& ids) { kept += static_cast<int>(ids.size()); });
    CHECK(!desk.session.bay().arrive({{.readId = "link:1"}}));
    desk.open("a.knotbook"); // a read test without a plan
    CHECK(!desk.session.bay().arrive({{.readId = "link:1"}}));
    CHECK(kept == 0);
    REQUIRE(desk.session.newTest(record::Stage::openSitting));
    CHECK(!desk.session.bay().arrive({{.readId = "link:1"}})); // no club yet
    desk.session.declaring().change("a club", [](record::Declared& test) { test.builds.push_back({.name = "Reed"}); });
    CHECK(desk.session.bay().arrive({{.readId = "link:1"}, {.readId = "link:2"}}));
    CHECK(kept == 2);
}

TEST_CASE("a set-aside finds its shot, wherever late ones have moved it") {
    Desk desk;
    REQUIRE(desk.session.newTest(record::Stage::test));
    desk.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}};
        test.plan.warmUp = 0;
        test.plan.turnLength = 4;
    });
    desk.session.bay().step("a hand-over", [](record::Test& test) { bay::confirm(test, "2026-05-02T09:00:00.000"); });
    desk.hit(120);
    desk.hit(155);
    const auto meant = desk.session.test().shots[1].id;
    record::Readings readings;
    readings.measure(Metric::carry, 133);
    desk.session.bay().arrive({{.readings = readings, .at = "2026-05-02T09:00:01.000", .readId = "link:late"}});
    REQUIRE(desk.session.test().shots[0].readings.at(Metric::carry) == 133); // filed before both
    desk.session.bay().changeStatus("a set-aside", meant, record::ShotStatus::setAside, bay::Moment::afterNumber,
                                    "fat");
    for (const auto& shot : desk.session.test().shots)
        CHECK((shot.status == record::ShotStatus::setAside) == (shot.readings.at(Metric::carry) == 155));
    // A shot that is gone is said.
    desk.session.bay().changeStatus("a set-aside", record::ShotId{99}, record::ShotStatus::setAside,
                                    bay::Moment::afterNumber);
    CHECK(desk.refused.last() == "That shot is gone.");
}

TEST_CASE("a test made from a screening has its clubs and nothing that was said or struck there") {
    Desk desk;
    REQUIRE(desk.session.newTest(record::Stage::screening));
    desk.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}, {.name = "Larch"}};
    });
    desk.hit(150);
    desk.session.bay().step("a feel", [](record::Test& test) {
        bay::setFeel(test, {.turn = "1", .build = BuildAt(0), .scores = {7}, .words = "dead"});
        bay::addEvent(test, record::EventKind::note, "2026-05-02T09:00:00", "wind got up");
    });
    REQUIRE(desk.session.copyDeclaration({"Alder", "Larch"}));
    const auto& made = desk.session.test();
    CHECK(made.stage == record::Stage::test);
    CHECK(made.builds.size() == 2);
    CHECK(made.shots.empty());
    CHECK(made.feels.empty());
    CHECK(made.events.empty());
    CHECK(made.sittings.empty());
    CHECK(made.progress == record::Progress{});
    CHECK(made.plan.warmUp == 0); // who comes from a screening just now is warm
    CHECK(bay::standOf(made).phase() == bay::Phase::handOver);
    CHECK(made.turns.size() == 2 * static_cast<std::size_t>(made.plan.rounds)); // as many as the minutes hold
    CHECK(desk.session.copyDeclaration());
}

TEST_CASE("what is declared is undone without what the bay added meanwhile") {
    Desk desk;
    REQUIRE(desk.session.newTest(record::Stage::test));
    desk.session.declaring().change("clubs", [](record::Declared& test) {
        test.builds = {{.name = "Reed"}, {.name = "Alder"}};
        test.plan.warmUp = 0;
    });
    desk.session.bay().step("a hand-over", [](record::Test& test) { bay::confirm(test, "2026-05-02T09:00:00.000"); });
    desk.hit(150);
    desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; });
    desk.session.bay().step("a feel", [](record::Test& test) {
        bay::setFeel(test, {.turn = "1", .build = test.shots[0].build, .scores = {7}});
    });
    desk.session.declaring().undo();
    CHECK(desk.session.test().question.empty());
    CHECK(desk.session.test().feels.size() == 1);
    CHECK(desk.session.test().progress.confirmed == 1);
    CHECK(desk.session.test().shots.size() == 1);
    desk.session.declaring().redo();
    CHECK(desk.session.test().question == "Which?");
    desk.session.bay().undo();
    CHECK(desk.session.test().feels.empty());
    CHECK(desk.session.test().question == "Which?");
}

namespace {

// A planned test, kept, with its first stints struck.
void strikeFirst(Desk& desk, std::size_t clubs, int shots) {
    record::Test begun = test::planned(clubs, 5);
    test::strike(begun, shots);
    const auto id = *logbook::Logbook::create(desk.path("p.knotbook").toStdString())->save(begun);
    REQUIRE(desk.session.openLogbook(desk.path("p.knotbook")));
    REQUIRE(desk.session.openTest(id));
}

} // namespace

TEST_CASE("a club that comes or goes after the first shot leaves the plan whole, also on disk and after a night") {
    Desk desk;
    strikeFirst(desk, 2, 5);
    const auto planned = desk.session.test().turns;
    REQUIRE(planned.size() == 10);
    desk.session.declaring().change("the clubs",
                                    [](record::Declared& test) { test.builds.push_back({.name = "Larch"}); });
    CHECK(desk.session.test().builds.size() == 3);
    CHECK(desk.session.test().turns.size() == 14); // in the four laps that were not begun
    CHECK(bay::standOf(desk.session.test()).phase() == bay::Phase::striking);
    CHECK(desk.onDisk("p.knotbook") == desk.session.test());
    desk.session.declaring().undo();
    CHECK(desk.session.test().turns == planned);
    desk.session.declaring().redo();
    CHECK(desk.session.test().turns.size() == 14);
    const auto id = desk.session.test().id;
    REQUIRE(desk.session.openLogbook(desk.path("p.knotbook")));
    REQUIRE(desk.session.openTest(id));
    CHECK(desk.session.test().turns.size() == 14);
    desk.hit(151);
    CHECK(desk.session.test().shots.size() == 6);
    CHECK(desk.session.declaring().removeClub(BuildAt(2))); // not struck yet
    CHECK(desk.session.test().turns == planned);
    CHECK(desk.onDisk("p.knotbook") == desk.session.test());
    CHECK_FALSE(desk.session.declaring().removeClub(BuildAt(0)));
    CHECK(desk.refused.last() == "Shots were struck with A, so it stays; strike it off instead.");
}

TEST_CASE("a club that finds every lap begun is refused, and nothing changes") {
    Desk desk;
    strikeFirst(desk, 2, 26);
    const auto before = desk.session.test();
    desk.session.declaring().change("the clubs",
                                    [](record::Declared& test) { test.builds.push_back({.name = "Larch"}); });
    CHECK(desk.session.test() == before);
    CHECK(desk.refused.last().contains("Every lap was begun, so Larch can't join this test any more"));
}

TEST_CASE("what was struck off, who joined and what was taken up stay when an older change is taken back") {
    Desk desk;
    strikeFirst(desk, 4, 2);
    desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; });
    SECTION("a club left out") {
        desk.session.bay().step("leave it out", [](record::Test& test) { bay::leaveOut(test, BuildAt(3)); });
        desk.session.declaring().undo();
        CHECK(record::Roster(desk.session.test()).left().size() == 3);
    }
    SECTION("a second player") {
        desk.session.bay().step("another player", 0, [](record::Test& test) -> bay::From {
            return bay::takeNewPlayer(test, {.id = "o", .name = "Odd"}, {.id = "m", .name = "Marit"});
        });
        desk.hit(140);
        desk.session.declaring().undo();
        CHECK(desk.session.test().players.size() == 2);
    }
    SECTION("another shaft") {
        desk.session.bay().step("another shaft", [](record::Test& test) {
            test.stage = record::Stage::openSitting;
            bay::takeOtherPart(test, record::PartKind::shaft, "Reed 53");
        });
        desk.hit(140);
        desk.session.declaring().undo();
        CHECK(desk.session.test().builds.size() == 5);
    }
    CHECK(desk.session.test().question.empty());
    CHECK(desk.refused.isEmpty());
    CHECK(desk.onDisk("p.knotbook") == desk.session.test());
    auto now = desk.session.test();
    desk.session.bay().undo();
    desk.session.bay().redo();
    CHECK(desk.onDisk("p.knotbook") == desk.session.test());
    now.amendments = desk.session.test().amendments; // what was noted is never taken back
    CHECK(desk.session.test() == now);
}

TEST_CASE("a test that was struck off to two keeps its verdict when an older change is taken back") {
    Desk desk;
    record::Test four = test::planned(4, 7, record::Schedule::strikingOff);
    test::strike(four, 2);
    const auto id = *logbook::Logbook::create(desk.path("p.knotbook").toStdString())->save(four);
    REQUIRE(desk.session.openLogbook(desk.path("p.knotbook")));
    REQUIRE(desk.session.openTest(id));
    desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; });
    desk.session.bay().step("to the end", 2, [](record::Test& test) {
        test::strike(test, 1000);
        REQUIRE(bay::strikeOff(test, {BuildAt(2), BuildAt(3)}));
        test::strike(test, 1000);
        return bay::From(2);
    });
    desk.session.declaring().undo();
    CHECK(desk.session.test().question.empty());
    CHECK(record::Roster(desk.session.test()).left().size() == 2);
    CHECK(judge::judge({.subject = judge::Case::of(desk.session.test())})->average.size() == 1);
    CHECK(desk.onDisk("p.knotbook") == desk.session.test());
}

TEST_CASE("what is typed is taken when it is read, without waiting for the pause") {
    Desk desk;
    desk.open("a.knotbook");
    QLineEdit field;
    QStringList taken;
    app::Typed::in(&field, [&](const QString& text) { taken << text; });
    QTest::keyClicks(&field, "abc");
    CHECK(taken.isEmpty()); // a letter costs nothing
    REQUIRE(desk.session.readyToLeave());
    CHECK(taken == QStringList{"abc"});
    QTest::keyClicks(&field, "d");
    REQUIRE(QTest::qWaitFor([&] { return taken.size() == 2; }, 5000)); // by itself after the pause
    CHECK(taken.last() == "abcd");
    app::Typed::commitAll();
    CHECK(taken.size() == 2);
}

TEST_CASE("an export that fails leaves no half of a file, and the old one whole") {
    QTemporaryDir folder;
    const std::string path = folder.filePath("out.csv").toStdString();
    REQUIRE(files::writeFile(path, "old"));
    // What another program called alike is let be.
    REQUIRE(QDir(folder.path()).mkdir("out.csv.part"));
    REQUIRE(files::writeFile(path, "new"));
    CHECK(*files::readFile(path) == "new");
    CHECK(QDir(folder.path()).exists("out.csv.part"));
    // The place itself is a folder: the rename fails, and nothing stays behind.
    REQUIRE(QDir(folder.path()).mkdir("place"));
    CHECK(!files::writeFile(folder.filePath("place").toStdString(), "new"));
    CHECK(QDir(folder.path()).entryList(QDir::Files | QDir::Hidden) == QStringList{"out.csv"});
}

TEST_CASE("work in the background that fails answers too, so that nobody waits for ever") {
    QObject context;
    int answered = 0;
    std::optional<int> answer = 1;
    app::inBackground(
        &context, []() -> int { throw std::runtime_error("no"); },
        [&](std::optional<int> given) {
            ++answered;
            answer = given;
        });
    QTRY_COMPARE(answered, 1);
    CHECK_FALSE(answer);
    app::inBackground(
        &context, [] { return 7; },
        [&](std::optional<int> given) {
            ++answered;
            answer = given;
        });
    QTRY_COMPARE(answered, 2);
    CHECK(answer == 7);
}

TEST_CASE("what is made of a file is kept by itself, and nothing unkept is sealed or left") {
    Desk desk;
    std::ofstream(desk.path("a.csv").toStdString())
        << "build,round,carry_m\nReed,1,150\nAlder,1,152\nReed,2,151\nAlder,2,155\n";
    auto read = [&] {
        auto imported = files::readShotFile(desk.path("a.csv").toStdString());
        REQUIRE(imported);
        REQUIRE(desk.session.takeImported(std::move(*imported)));
    };
    const auto own = app::ownLogbookPath().toStdString();
    auto kept = [&]() -> std::vector<record::Test> {
        std::vector<record::Test> all;
        if (auto book = logbook::Logbook::read(own)) {
            const auto listed = *book->tests();
            for (const auto& entry : listed)
                all.push_back(*book->load(entry.id));
        }
        return all;
    };
    read();
    SECTION("a file that is looked at alone is not") {
        CHECK(desk.session.readyToLeave());
        read(); // in its place
        CHECK(kept().empty());
    }
    SECTION("a fair test of its clubs") {
        REQUIRE(desk.session.copyDeclaration({"Reed", "Alder"}));
        REQUIRE(kept().size() == 1);
        CHECK(desk.session.isKept());
        CHECK(kept()[0].builds.size() == 2);
        CHECK(desk.noted.join(' ').contains("Saved in"));
    }
    SECTION("anything that is declared of it, with its shots") {
        REQUIRE(
            desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; }));
        REQUIRE(kept().size() == 1);
        CHECK(kept()[0].question == "Which?");
        CHECK(kept()[0].shots.size() == 4);
        desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which one?"; });
        REQUIRE(kept().size() == 1);
        CHECK(kept()[0].question == "Which one?");
        desk.session.declaring().undo();
        CHECK(kept()[0].question.empty()); // typed in one go
    }
    SECTION("a decision") {
        desk.session.declaring().say(&record::Choices::byFeel, BuildAt(1));
        REQUIRE(kept().size() == 1);
        CHECK_FALSE(kept()[0].choices.byFeel.at.empty());
    }
    SECTION("tags that go on") {
        REQUIRE(desk.session.copyDeclaration({"Reed", "Alder"}));
        REQUIRE(desk.session.declaring().putInBag());
        CHECK(kept()[0].seal.isClosed());
    }
    SECTION("where one's own logbook can't be had it is tried again, and nothing leaves it") {
        std::filesystem::create_directories(std::filesystem::path(own).parent_path());
        const auto held = logbook::Logbook::create(own);
        REQUIRE(held);
        CHECK(
            desk.session.declaring().change("the question", [](record::Declared& test) { test.question = "Which?"; }));
        CHECK(desk.session.test().question == "Which?");
        CHECK_FALSE(desk.session.isKept());
        CHECK_FALSE(desk.session.readyToLeave());
        CHECK(desk.refused.back().contains("My shots"));
        CHECK_FALSE(desk.session.declaring().putInBag());
        CHECK_FALSE(desk.session.isSealed());
        REQUIRE(desk.session.keepIn(desk.path("b.knotbook")));
        CHECK(desk.session.readyToLeave());
    }
}

TEST_CASE("a test that comes as a file again is the one that stands here, in the version that goes on") {
    Desk desk;
    desk.open("a.knotbook");
    const std::string id = desk.session.test().id;
    REQUIRE(desk.session.exportShots(desk.path("a.json")));
    const std::size_t shots = desk.session.test().shots.size();
    REQUIRE(desk.session.importTest(desk.path("a.json")));
    CHECK(desk.session.test().id == id);
    CHECK(desk.session.book().tests().size() == 1);
    CHECK(desk.noted.join(' ').contains("stands here already"));
    // A logbook of its own goes home with it, and comes back with more.
    REQUIRE(desk.session.exportShots(desk.path("own.knotbook")));
    {
        auto own = *logbook::Logbook::open(desk.path("own.knotbook").toStdString());
        auto test = *own.load(id);
        test.shots.push_back(test.shots.back());
        test.shots.back().id = test.nextShotId();
        REQUIRE(own.saveShots(test, shots));
    }
    const auto merged = desk.session.addLogbook(desk.path("own.knotbook"));
    REQUIRE(merged);
    CHECK(merged->later == std::vector<std::string>{id});
    CHECK(desk.session.test().shots.size() == shots + 1); // also in hand
    REQUIRE(desk.session.undoListed());
    CHECK(desk.session.test().shots.size() == shots);
    CHECK(desk.onDisk("a.knotbook").shots.size() == shots);
}
