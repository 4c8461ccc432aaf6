#pragma once

#include "logbook/logbook.h"

#include <QDir>
#include <QFile>
#include <QProcess>
#include <QSettings>
#include <QTcpServer>
#include <QTemporaryDir>
#include <QThread>
#include <catch2/catch.hpp>

#include <sqlite3.h>

#include <atomic>
#include <thread>

namespace knot::test {

/// The real program as a process, with a folder, a port and a logbook of its own that holds one open
/// sitting called "Killed".
class RealProgram {
public:
    RealProgram() {
        record::Test sitting;
        sitting.title = "Killed";
        sitting.stage = record::Stage::openSitting;
        sitting.builds = {{.name = "own club"}};
        sitting.plan.warmUp = 0;
        id = *logbook::Logbook::create(book().toStdString())->save(sitting);
        QTcpServer server;
        server.listen(QHostAddress::LocalHost);
        port = server.serverPort();
        QDir(m_folder.path()).mkdir("Knot Count");
        QFile settings(m_folder.filePath("Knot Count/Knot Count.conf"));
        REQUIRE(settings.open(QIODevice::WriteOnly));
        settings.write("[link]\nport=" + QByteArray::number(port) + "\nknown=Simulated monitor\n");
        m_environment.insert("QT_QPA_PLATFORM", "offscreen");
        m_environment.insert("XDG_CONFIG_HOME", m_folder.path());
        m_environment.insert("XDG_DATA_HOME", m_folder.path());
    }
    ~RealProgram() {
        end();
        m_monitor.kill();
        m_monitor.waitForFinished();
    }
    /// The first start is told where to go; each later one goes on by itself.
    void start() {
        m_program = std::make_unique<QProcess>();
        m_program->setProcessEnvironment(m_environment);
        m_program->setStandardErrorFile(QProcess::nullDevice());
        m_program->start(KNOT_APP,
                         m_starts++ == 0 ? QStringList{"--test", "Killed", "--page", "bay", book()} : QStringList());
        REQUIRE(m_program->waitForStarted());
    }
    void end() {
        if (!m_program)
            return;
        m_program->kill();
        m_program->waitForFinished();
        m_program.reset();
    }
    QString settings() const { return m_folder.filePath("Knot Count/Knot Count.conf"); }
    bool runs() {
        m_program->waitForFinished(0);
        return m_program->state() == QProcess::Running;
    }
    qint64 processId() const { return m_program->processId(); }
    void startMonitor(const QStringList& arguments) {
        m_monitor.setStandardOutputFile(QProcess::nullDevice());
        m_monitor.start(KNOT_MONITOR, QStringList{"--port", QString::number(port), "--log", log()} + arguments);
        REQUIRE(m_monitor.waitForStarted());
    }
    /// Before the first start: a folder whose "last.csv" is taken shot by shot.
    void watchFolder() {
        QDir().mkdir(path("watched"));
        auto opened = *logbook::Logbook::open(book().toStdString());
        REQUIRE(opened.setSetting("watched_folder", "{\"folder\":\"" + path("watched").toStdString() +
                                                        "\",\"test\":\"" + id + "\",\"files\":{}}"));
        QSettings own(m_folder.filePath("Knot Count/Knot Count.conf"), QSettings::IniFormat);
        own.setValue("bay/watched_folder", QStringList{path("watched"), QString::fromStdString(id)});
    }
    /// How many shots are on disk; 0 while they can't be read.
    std::size_t shotsOnDisk() const {
        auto read = logbook::Logbook::read(book().toStdString());
        const auto test = read ? read->load(id) : tl::unexpected(read.error());
        return test ? test->shots.size() : 0;
    }
    /// What the monitor says of its shots: "sent", "acked".
    QStringList logged(const QByteArray& what) const {
        QFile file(log());
        QStringList ids;
        if (!file.open(QIODevice::ReadOnly))
            return ids;
        for (const QByteArray& line : file.readAll().split('\n'))
            if (line.startsWith(what + ' '))
                ids << QString::fromUtf8(line.mid(what.size() + 1));
        return ids;
    }
    void stopMonitor() {
        m_monitor.kill();
        m_monitor.waitForFinished();
    }
    QString path(const QString& name) const { return m_folder.filePath(name); }
    QString book() const { return path("shots.knotbook"); }
    QString log() const { return path("monitor.log"); }

    std::string id; ///< of the sitting
    quint16 port = 0;

private:
    QTemporaryDir m_folder;
    QProcessEnvironment m_environment = QProcessEnvironment::systemEnvironment();
    QProcess m_monitor;
    std::unique_ptr<QProcess> m_program;
    int m_starts = 0;
};

/// Another program that writes into the same logbook now and then, as an import does.
class OtherWriter {
public:
    explicit OtherWriter(std::string book)
        : m_thread([this, name = std::move(book)] { write(name); }) {}
    ~OtherWriter() {
        m_done = true;
        m_thread.join();
    }

private:
    void write(const std::string& name) {
        sqlite3* database = nullptr;
        sqlite3_open(name.c_str(), &database);
        sqlite3_busy_timeout(database, 100);
        auto run = [database](const char* sql) {
            return sqlite3_exec(database, sql, nullptr, nullptr, nullptr) == SQLITE_OK;
        };
        while (!m_done) {
            if (run("BEGIN IMMEDIATE")) {
                run("INSERT OR REPLACE INTO setting VALUES('other', 'written')");
                QThread::msleep(15);
                run("COMMIT");
            }
            QThread::msleep(1500);
        }
        sqlite3_close(database);
    }
    std::atomic<bool> m_done = false;
    std::thread m_thread;
};

} // namespace knot::test
