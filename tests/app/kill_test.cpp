// The real program and the simulated monitor, with the program killed at moments nobody chose.
#include "app/real_program.h"
#include "core/random.h"

#include <QElapsedTimer>

#include <algorithm>
#include <cstdlib>
#include <map>

using namespace knot;
using knot::test::OtherWriter;
using knot::test::RealProgram;

namespace {

constexpr int kills = 200;
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

TEST_CASE("killed at two hundred random moments, the program keeps every acknowledged shot once and in order") {
    RealProgram program;
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
}

// 1,000 with KNOT_LONG=1.
TEST_CASE("a watched file written over with each shot, the program killed in between, gives each shot once") {
    const char* wanted = std::getenv("KNOT_LONG");
    const int rewrites = wanted != nullptr && *wanted == '1' ? 1000 : 30;
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
