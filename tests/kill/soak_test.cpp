// The real program for as long as is asked (`./check --soak`: half an hour), with faults all the time: a monitor
// with a little of every fault, lines cut, another program that writes, junk and strangers at the port, a watched
// file written over, and a kill now and then.
#include "core/random.h"
#include "kill/real_program.h"

#include <QElapsedTimer>
#include <QTcpSocket>

#include <algorithm>
#include <cstdlib>
#include <iostream>
#include <map>

using namespace knot;
using knot::test::OtherWriter;
using knot::test::RealProgram;

namespace {

struct Load {
    double megabytes = 0;
    qint64 processorTicks = 0;
    int files = 0;
};

// Memory, processor time and open files of a process, as the kernel counts them.
Load loadOf(qint64 process) {
    Load load;
    const QString at = QStringLiteral("/proc/%1/").arg(process);
    QFile memory(at + "statm");
    if (memory.open(QIODevice::ReadOnly))
        load.megabytes = memory.readAll().split(' ').value(1).toDouble() * 4096 / 1e6;
    QFile stat(at + "stat");
    if (stat.open(QIODevice::ReadOnly)) {
        const auto fields = stat.readAll().split(' ');
        load.processorTicks = fields.value(13).toLongLong() + fields.value(14).toLongLong();
    }
    load.files = static_cast<int>(QDir(at + "fd").entryList(QDir::AllEntries | QDir::System).size());
    return load;
}

// What somebody else sends to the port.
void bother(quint16 port, std::size_t how) {
    QTcpSocket socket;
    socket.connectToHost("127.0.0.1", port);
    if (!socket.waitForConnected(500))
        return;
    const QByteArray sent[] = {QByteArray(200000, 'x'), QByteArray("x\n").repeated(5000),
                               "POST / HTTP/1.1\r\nHost: x\r\n\r\n{\"type\":\"hello\",\"protocol\":1}\n"
                               "{\"type\":\"shot\",\"id\":\"evil\",\"metrics\":{\"carry_m\":1}}\n",
                               "{\"type\":\"hello\",\"protocol\":1,\"device\":\"<b>Stranger</b>\"}\n"
                               "{\"type\":\"shot\",\"id\":\"evil\",\"metrics\":{\"carry_m\":1}}\n",
                               "{\"type\":"};
    socket.write(sent[how % std::size(sent)]);
    socket.waitForBytesWritten(500);
    socket.waitForReadyRead(50);
}

} // namespace

TEST_CASE("half an hour of faults loses no acknowledged shot and leaves memory, files and processor as they were",
          "[.soak]") {
    const char* wanted = std::getenv("KNOT_SOAK_MINUTES");
    const double minutes = wanted != nullptr ? std::max(0.5, std::atof(wanted)) : 30;
    RealProgram program;
    program.watchFolder();
    program.startMonitor({"--faulty", "--pace", "0.4", "--seed", "5", "--disconnect", "0.02"});
    int botherings = 0;
    int rewrites = 0;
    int kills = 0;
    {
        const OtherWriter other(program.book().toStdString());
        Random random(20261126);
        program.start();
        QThread::sleep(5);
        Load first = loadOf(program.processId());
        QElapsedTimer all;
        QElapsedTimer life;
        all.start();
        life.start();
        double lastKill = 0;
        std::size_t firstShots = 0;
        const double length = minutes * 60000;
        // The last half of the time is one life, so that what grows is seen to grow.
        while (static_cast<double>(all.elapsed()) < length) {
            REQUIRE(program.runs());
            bother(program.port, random.below(5));
            ++botherings;
            if (random.below(4) == 0) {
                QFile file(program.path("watched/last.csv"));
                REQUIRE(file.open(QIODevice::WriteOnly));
                file.write("Carry (m)\n" + QByteArray::number(100 + ++rewrites % 100) + ".5\n");
            }
            const auto now = static_cast<double>(all.elapsed());
            if (now < length / 2 && now - lastKill > length / 20) {
                program.end();
                program.start();
                ++kills;
                lastKill = now;
                QThread::sleep(5);
                first = loadOf(program.processId());
                firstShots = program.shotsOnDisk();
                life.restart();
            }
            QThread::msleep(200 + random.below(600));
        }
        const Load last = loadOf(program.processId());
        const auto more = static_cast<double>(program.shotsOnDisk() - firstShots);
        const double share = static_cast<double>(last.processorTicks - first.processorTicks) * 10 /
                             static_cast<double>(std::max<qint64>(1, life.elapsed()));
        std::cout << "memory " << first.megabytes << " to " << last.megabytes << " MB over " << more << " shots, files "
                  << first.files << " to " << last.files << ", processor " << 100 * share << " % of a core, " << kills
                  << " kills, " << rewrites << " rewrites, " << botherings << " strangers\n";
        CHECK(last.megabytes < first.megabytes + 20 + more * 0.02);
        CHECK(last.files < first.files + 10);
    }
    program.stopMonitor();
    QThread::sleep(2);
    program.end();

    auto opened = logbook::Logbook::open(program.book().toStdString());
    REQUIRE(opened);
    CHECK(opened->integrityFaults()->empty());
    const auto test = *opened->load(program.id);
    std::map<std::string, int> kept;
    for (const auto& shot : test.shots)
        ++kept[shot.readId];
    CHECK(std::ranges::all_of(kept, [](const auto& each) { return each.second == 1; }));
    CHECK(!kept.contains("link:evil"));
    const QStringList acknowledged = program.logged("acked");
    CHECK(acknowledged.size() > 10);
    CHECK(std::ranges::all_of(acknowledged,
                              [&](const QString& each) { return kept.contains("link:" + each.toStdString()); }));
    std::cout << acknowledged.size() << " shots acknowledged, " << test.shots.size() << " kept\n";
}
