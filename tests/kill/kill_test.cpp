// The real program and the simulated monitor, with the program killed at moments nobody chose.
#include "core/bay/correct.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/bay/strike.h"
#include "core/random.h"
#include "core/simulate/scenarios.h"
#include "kill/killed_after.h"
#include "kill/real_program.h"
#include "link/message.h"

#include <QElapsedTimer>
#include <QTcpSocket>

#include <algorithm>
#include <map>

using namespace knot;
using knot::test::isLong;
using knot::test::killedAfter;
using knot::test::OtherWriter;
using knot::test::RealProgram;

namespace {

// Lives are drawn up to a few times what this machine takes from a start to the first acknowledgement.
constexpr qint64 shortestLongest = 300, longestLongest = 3000; // ms

int numberOf(const std::string& readId) {
    return std::stoi(readId.substr(readId.rfind('-') + 1));
}

// Every shot's id once; what was acknowledged is there.
void requireKept(const record::Test& test, const QStringList& acknowledged) {
    std::map<std::string, int> kept;
    for (const auto& shot : test.shots)
        ++kept[shot.readId];
    CHECK(std::ranges::all_of(kept, [](const auto& each) { return each.second == 1; }));
    CHECK(std::ranges::all_of(acknowledged,
                              [&](const QString& each) { return kept.contains("link:" + each.toStdString()); }));
}

} // namespace

TEST_CASE("killed at random moments, the program keeps every acknowledged shot once and in order") {
    const int kills = isLong() ? 200 : 60;
    RealProgram program;
    const auto mine = QFile::ReadOwner | QFile::WriteOwner | QFile::ReadUser | QFile::WriteUser;
    CHECK(QFile::permissions(program.settings()) != mine);
    program.startMonitor({"--pace", "0", "--seed", "3"});
    {
        const OtherWriter other(program.book().toStdString());
        Random random(20261123);
        qint64 longestLife = shortestLongest;
        for (int kill = 0; kill < kills; ++kill) {
            program.start();
            if (kill == 0) {
                QElapsedTimer life;
                life.start();
                while (program.logged("acked").size() < 5 && life.elapsed() < 60000)
                    QThread::msleep(10);
                longestLife = std::clamp(3 * life.elapsed(), shortestLongest, longestLongest);
            } else {
                QThread::msleep(random.below(static_cast<std::size_t>(longestLife)));
            }
            program.end();
        }
        program.stopMonitor();
    }

    auto opened = logbook::Logbook::open(program.book().toStdString());
    REQUIRE(opened);
    CHECK(opened->integrityFaults()->empty());
    const auto test = *opened->load(program.id);
    const QStringList acknowledged = program.logged("acked");
    requireKept(test, acknowledged);
    CHECK(acknowledged.size() > 20); // it did come to shots between the kills
    CHECK(std::ranges::is_sorted(test.shots, {}, [](const record::Shot& shot) { return numberOf(shot.readId); }));
    // At most the one shot that was on its way is there without its acknowledgement.
    CHECK(test.shots.size() <= static_cast<std::size_t>(acknowledged.size()) + 1);
    WARN(test.shots.size() << " shots kept over " << kills << " kills");
    CHECK(QFile::permissions(program.settings()) == mine); // whatever wrote them
}

TEST_CASE("a watched file written over with each shot, the program killed in between, gives each shot once") {
    const int rewrites = isLong() ? 1000 : 30;
    RealProgram program;
    program.watchFolder();
    Random random(20261125);
    program.start();
    int ends = 0;
    for (int shot = 0; shot < rewrites; ++shot) {
        // Before, after or in the middle of a rewrite, or not at all; the first start finds its way first.
        const auto when = shot == 0 ? 7 : random.below(8);
        if (when == 0)
            program.end();
        {
            QFile file(program.path("watched/last.csv"));
            REQUIRE(file.open(QIODevice::WriteOnly));
            file.write("Carry (m),Ball Speed (m/s)\n" + QByteArray::number(100 + shot % 100) + ".5,58\n");
        }
        if (when <= 2) {
            QThread::msleep(random.below(400));
            program.end();
            program.start();
            ++ends;
        }
        QElapsedTimer waited;
        waited.start();
        while (program.shotsOnDisk() < static_cast<std::size_t>(shot) + 1 && waited.elapsed() < 30000)
            QThread::msleep(20);
        REQUIRE(program.shotsOnDisk() == static_cast<std::size_t>(shot) + 1);
    }
    program.end();
    const auto test = *logbook::Logbook::open(program.book().toStdString())->load(program.id);
    REQUIRE(test.shots.size() == static_cast<std::size_t>(rewrites));
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        REQUIRE(test.shots[i].readings.at(record::Metric::carry) == 100.5 + static_cast<double>(i % 100));
    WARN(rewrites << " rewrites with " << ends << " kills");
}

namespace {

record::Test twoPlayersSitting() {
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.stage = record::Stage::openSitting;
    test.nameShots();
    test.players = {{.id = "aa", .name = "Marit"}};
    bay::takeNewPlayer(test, {.id = "bb", .name = "Odd"});
    test.question = "0";
    return test;
}

// The n-th thing that is put right or said: the same for whoever asks.
void putRight(record::Test& test, int n) {
    Random random(static_cast<std::uint64_t>(n));
    const auto shot = [&] { return test.shots[random.below(test.shots.size())].id; };
    const bay::Shots some{shot(), shot()};
    const auto before = test.shots;
    switch (random.below(9)) {
    case 0:
        std::ignore = bay::moveToClub(test, some, record::BuildAt(random.below(test.builds.size())));
        break;
    case 1:
        std::ignore = bay::moveToPlayer(test, some, record::PlayerAt(random.below(test.players.size())));
        break;
    case 2:
        std::ignore = bay::setReading(test, shot(), record::Metric::carry, 100.0 + n);
        break;
    case 3:
        std::ignore = bay::changeStatus(test, shot(), record::ShotStatus::setAside, bay::Moment::afterNumber, "thin");
        break;
    case 4:
        std::ignore = bay::splitStint(test, shot());
        break;
    case 5:
        bay::takeOtherPart(test, record::PartKind::shaft, "Reed " + std::to_string(n % 3));
        break;
    case 6:
        test.decision = {.what = record::Action::change,
                         .club = test.builds.front().who(),
                         .reason = "reason " + std::to_string(n),
                         .at = "2026-05-02T10:00:00"};
        break;
    case 7:
        test.choices.byFeel = {.tag = test.builds.back().who(), .at = std::to_string(n)};
        break;
    default:
        if (const auto stint = bay::stintInQuestion(test))
            bay::compareToLast(test, *stint, static_cast<record::Versus>(1 + n % 3));
    }
    record::Amendment amendment{"2026-05-02T10:00:00", "change " + std::to_string(n), {}};
    for (std::size_t i = 0; i < before.size(); ++i)
        if (test.shots[i] != before[i])
            amendment.was.push_back(before[i]);
    if (!amendment.was.empty() && test.amendments.size() < 30)
        test.amendments.push_back(amendment);
    test.question = std::to_string(n); // how far it is stands in the same transaction
}

} // namespace

TEST_CASE("what is put right is there whole or not at all, whenever the program is killed") {
    const QTemporaryDir folder;
    const std::string path = folder.filePath("a.knotbook").toStdString();
    std::string id;
    {
        auto book = *logbook::Logbook::create(path);
        id = *book.save(twoPlayersSitting());
    }
    auto expected = *logbook::Logbook::read(path)->load(id);
    Random random(20261126);
    int done = 0;
    for (int kill = 0; kill < 60; ++kill) {
        killedAfter(20000 + random.below(180000), [&] {
            auto book = logbook::Logbook::open(path);
            auto test = *book->load(id);
            for (int n = std::stoi(test.question) + 1;; ++n) {
                putRight(test, n);
                if (!book->saveShotsAndHead(test, 0))
                    return;
            }
        });
        auto book = logbook::Logbook::open(path);
        REQUIRE(book);
        const auto kept = *book->load(id);
        for (const int last = std::stoi(kept.question); done < last;)
            putRight(expected, ++done);
        REQUIRE(kept == expected);
        REQUIRE(book->integrityFaults()->empty());
    }
    CHECK(done > 60);
    WARN(done << " changes over 60 kills");
}

TEST_CASE("a player's other name is in all their shots or in none, a deleted test gone whole or there whole") {
    const QTemporaryDir folder;
    const std::string path = folder.filePath("a.knotbook").toStdString();
    std::string id;
    std::string other;
    {
        auto book = *logbook::Logbook::create(path);
        id = *book.save(twoPlayersSitting());
        other = *book.save(twoPlayersSitting());
    }
    const auto whole = *logbook::Logbook::read(path)->load(id);
    Random random(20261127);
    int named = 0;
    int gone = 0;
    for (int kill = 0; kill < 40; ++kill) {
        killedAfter(20000 + random.below(120000), [&] {
            auto book = logbook::Logbook::open(path);
            for (int n = kill * 1000;; ++n) {
                auto odd = book->load(other)->players[1];
                odd.name = "Odd " + std::to_string(n);
                if (!book->savePlayer(odd))
                    return;
                const auto test = book->load(id);
                if (test ? !book->remove(id) : !book->save(whole))
                    return;
            }
        });
        auto book = logbook::Logbook::open(path);
        REQUIRE(book);
        REQUIRE(book->integrityFaults()->empty());
        const auto kept = *book->load(other);
        for (const auto& shot : kept.shots)
            REQUIRE(kept.playerIndex(shot.player).has_value());
        named += kept.players[1].name != "Odd" ? 1 : 0;
        if (const auto test = book->load(id)) {
            REQUIRE(test->shots.size() == whole.shots.size());
            REQUIRE(test->amendments == whole.amendments);
        } else {
            ++gone;
        }
    }
    CHECK(named > 20);
    WARN(gone << " times it was away");
}

TEST_CASE("the simulated monitor ends in order when its swings are kept") {
    QTcpServer server;
    REQUIRE(server.listen(QHostAddress::LocalHost));
    QProcess monitor;
    monitor.setProcessChannelMode(QProcess::MergedChannels);
    monitor.start(KNOT_MONITOR, {"--port", QString::number(server.serverPort()), "--pace", "0", "--shots", "4"});
    REQUIRE(monitor.waitForStarted());
    REQUIRE(server.waitForNewConnection(10000));
    QTcpSocket* line = server.nextPendingConnection();
    QByteArray heard;
    bool isWelcome = false;
    for (int turn = 0; turn < 200 && monitor.state() == QProcess::Running; ++turn) {
        line->waitForReadyRead(100);
        heard += line->readAll();
        for (qsizetype end = heard.indexOf('\n'); end >= 0; end = heard.indexOf('\n')) {
            const QByteArray said = heard.left(end);
            heard.remove(0, end + 1);
            if (!isWelcome)
                line->write(QByteArray::fromStdString(link::lineOf(link::Welcome{})));
            isWelcome = true;
            const qsizetype at = said.indexOf("\"id\":\"");
            if (at >= 0) {
                const qsizetype from = at + 6;
                line->write(QByteArray::fromStdString(
                    link::lineOf(link::Ack{said.mid(from, said.indexOf('"', from) - from).toStdString()})));
            }
        }
        line->waitForBytesWritten(100);
        monitor.waitForFinished(1);
    }
    REQUIRE((monitor.state() == QProcess::NotRunning || monitor.waitForFinished(5000)));
    CHECK(monitor.exitStatus() == QProcess::NormalExit);
    CHECK(monitor.exitCode() == 0);
    CHECK_FALSE(monitor.readAll().contains("lost")); // a line that closes while it goes is heard by nobody
}
