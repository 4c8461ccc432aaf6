// The real program and the simulated monitor, with the program killed at moments nobody chose.
#include "core/random.h"
#include "logbook/logbook.h"

#include <QDir>
#include <QElapsedTimer>
#include <QFile>
#include <QProcess>
#include <QTcpServer>
#include <QTemporaryDir>
#include <QThread>
#include <catch2/catch.hpp>

#include <sqlite3.h>

#include <algorithm>
#include <atomic>
#include <map>
#include <thread>

using namespace knot;

namespace {

constexpr int kills = 200;
// Lives are drawn up to a few times what this machine takes from a start to the first acknowledgement.
constexpr qint64 shortestLongest = 300, longestLongest = 3000; // ms

quint16 freePort() {
    QTcpServer server;
    server.listen(QHostAddress::LocalHost);
    return server.serverPort();
}

QStringList loggedIds(const QString& log, const QByteArray& what) {
    QFile file(log);
    QStringList ids;
    if (!file.open(QIODevice::ReadOnly))
        return ids;
    for (const QByteArray& line : file.readAll().split('\n'))
        if (line.startsWith(what + ' '))
            ids << QString::fromUtf8(line.mid(what.size() + 1));
    return ids;
}

int numberOf(const std::string& readId) {
    return std::stoi(readId.substr(readId.rfind('-') + 1));
}

} // namespace

TEST_CASE("killed at two hundred random moments, the program keeps every acknowledged shot once and in order") {
    const QTemporaryDir folder;
    const QString book = folder.filePath("shots.knotbook");
    record::Test sitting;
    sitting.title = "Killed";
    sitting.stage = record::Stage::openSitting;
    sitting.builds = {{.name = "own club"}};
    const auto id = *logbook::Logbook::create(book.toStdString())->save(sitting);
    const quint16 port = freePort();
    QDir(folder.path()).mkdir("Knot Count");
    QFile settings(folder.filePath("Knot Count/Knot Count.conf"));
    REQUIRE(settings.open(QIODevice::WriteOnly));
    settings.write("[link]\nport=" + QByteArray::number(port) + "\nknown=Simulated monitor\n");
    settings.close();

    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert("QT_QPA_PLATFORM", "offscreen");
    environment.insert("XDG_CONFIG_HOME", folder.path());
    environment.insert("XDG_DATA_HOME", folder.path());
    const QString log = folder.filePath("monitor.log");
    QProcess monitor;
    monitor.setStandardOutputFile(QProcess::nullDevice());
    monitor.start(KNOT_MONITOR, {"--port", QString::number(port), "--pace", "0", "--log", log, "--seed", "3"});
    REQUIRE(monitor.waitForStarted());

    // Another program that writes into the same file now and then, as an import does.
    std::atomic<bool> done = false;
    std::thread other([&done, name = book.toStdString()] {
        sqlite3* database = nullptr;
        sqlite3_open(name.c_str(), &database);
        sqlite3_busy_timeout(database, 100);
        while (!done) {
            if (sqlite3_exec(database, "BEGIN IMMEDIATE", nullptr, nullptr, nullptr) == SQLITE_OK) {
                sqlite3_exec(database, "INSERT OR REPLACE INTO setting VALUES('other', 'written')", nullptr, nullptr,
                             nullptr);
                QThread::msleep(15);
                sqlite3_exec(database, "COMMIT", nullptr, nullptr, nullptr);
            }
            QThread::msleep(1500);
        }
        sqlite3_close(database);
    });

    Random random(20261123);
    qint64 longestLife = shortestLongest;
    for (int kill = 0; kill < kills; ++kill) {
        QProcess program;
        program.setProcessEnvironment(environment);
        program.setStandardErrorFile(QProcess::nullDevice());
        // The first start is told where to go; each later one goes on by itself.
        program.start(KNOT_APP, kill == 0 ? QStringList{"--test", "Killed", "--page", "bay", book} : QStringList());
        REQUIRE(program.waitForStarted());
        if (kill == 0) {
            QElapsedTimer life;
            life.start();
            while (loggedIds(log, "acked").size() < 5 && life.elapsed() < 60000)
                QThread::msleep(10);
            longestLife = std::clamp(3 * life.elapsed(), shortestLongest, longestLongest);
        } else {
            QThread::msleep(random.below(static_cast<std::size_t>(longestLife)));
        }
        program.kill();
        REQUIRE(program.waitForFinished());
    }
    monitor.kill();
    monitor.waitForFinished();
    done = true;
    other.join();

    auto opened = logbook::Logbook::open(book.toStdString());
    REQUIRE(opened);
    CHECK(opened->integrityFaults()->empty());
    const auto test = *opened->load(id);
    std::map<std::string, int> kept;
    for (const auto& shot : test.shots)
        ++kept[shot.readId];
    CHECK(std::ranges::all_of(kept, [](const auto& each) { return each.second == 1; }));
    const QStringList acknowledged = loggedIds(log, "acked");
    CHECK(acknowledged.size() > 20); // it did come to shots between the kills
    CHECK(std::ranges::all_of(acknowledged,
                              [&](const QString& each) { return kept.contains("link:" + each.toStdString()); }));
    CHECK(std::ranges::is_sorted(test.shots, {}, [](const record::Shot& shot) { return numberOf(shot.readId); }));
    // At most the one shot that was on its way is there without its acknowledgement.
    CHECK(test.shots.size() <= static_cast<std::size_t>(acknowledged.size()) + 1);
    WARN(test.shots.size() << " shots kept over " << kills << " kills");
}
