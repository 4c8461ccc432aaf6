#pragma once

#include "app/support.h"

#include <QProcess>

namespace knot::test {

/// The simulated monitor as a process of its own, swinging when told to.
class StandIn {
public:
    StandIn(Bench& bench, quint16 port, const QStringList& arguments)
        : m_bench(bench)
        , m_log(bench.path("monitor.log")) {
        m_process.setProgram(QStringLiteral(KNOT_MONITOR));
        m_process.setArguments(QStringList{"--port", QString::number(port), "--key", "--seed", "11", "--log", m_log} +
                               arguments);
        m_process.start();
    }
    ~StandIn() {
        m_process.kill();
        m_process.waitForFinished();
    }
    /// One swing; true when a shot came of it (a late one comes with the next).
    bool swing() {
        const auto before = m_bench.session.test().shots.size();
        m_process.write("\n");
        return QTest::qWaitFor([&] { return m_bench.session.test().shots.size() > before; }, 700);
    }
    QStringList logged(const QString& what) const {
        QFile file(m_log);
        (void)file.open(QIODevice::ReadOnly);
        QStringList ids;
        for (const QByteArray& line : file.readAll().split('\n'))
            if (line.startsWith(what.toUtf8() + ' '))
                ids << QString::fromUtf8(line.mid(what.size() + 1));
        return ids;
    }

private:
    Bench& m_bench;
    QString m_log;
    QProcess m_process;
};

} // namespace knot::test
