#include "monitor/connection.h"

#include <CLI/CLI.hpp>
#include <QCoreApplication>
#include <QRandomGenerator>
#include <QStringList>

#include <cstdio>

namespace {

using namespace knot;

void addFaults(CLI::App& line, monitor::Faults& faults) {
    auto rate = [&](const char* name, double& value, const char* what) {
        line.add_option(name, value, what)->check(CLI::Range(0.0, 1.0))->group("Faults, each from 0 to 1");
    };
    rate("--missed", faults.missed, "Struck and not read");
    rate("--no-spin", faults.noSpin, "Without spin");
    rate("--no-attack", faults.noAttack, "Without attack angle");
    rate("--no-strike", faults.noStrike, "Without strike point");
    rate("--outlier", faults.outlier, "Far off");
    rate("--duplicate", faults.duplicate, "Sent twice");
    rate("--late", faults.late, "Sent behind the next shot");
    rate("--disconnect", faults.disconnect, "The line is cut");
    rate("--junk", faults.junk, "A broken line comes first");
    line.add_flag_callback(
            "--faulty", [&faults] { faults = monitor::Faults::some(); }, "A little of every fault")
        ->group("Faults, each from 0 to 1");
}

} // namespace

int main(int argc, char** argv) {
    CLI::App line("A simulated launch monitor and player with a known truth, for practice and for tests.");
    line.set_version_flag("--version", KNOT_VERSION);
    std::string scenario = "five-wood";
    std::string host = "127.0.0.1";
    std::string code;
    std::string log;
    std::uint64_t seed = QRandomGenerator::system()->generate64();
    quint16 port = link::usualPort;
    monitor::Pace pace;
    monitor::Faults faults;
    line.add_option("--scenario", scenario, "Who strikes with what (see knotcount-cli scenarios)");
    line.add_option("--port", port, "Port of Knot Count");
    line.add_option("--host", host, "Where Knot Count runs");
    line.add_option("--code", code, "Pairing code, where one is asked for");
    line.add_option("--pace", pace.seconds, "Seconds between swings; 0: as fast as they are kept");
    line.add_option("--hand-over", pace.handOver, "Seconds to wait after a new club");
    line.add_option("--shots", pace.shots, "Swings in all; 0: until stopped");
    line.add_option("--own-order", pace.stintLength, "Don't wait for word of the club: the next after so many swings");
    line.add_flag("--key", pace.onKey, "A swing for every Enter instead of by time; q ends");
    line.add_option("--seed", seed, "The same seed strikes the same shots");
    line.add_option("--log", log, "File that gets what was sent and what was acknowledged");
    addFaults(line, faults);
    CLI11_PARSE(line, argc, argv);
    const simulate::Scenario* chosen = simulate::scenarioByKey(scenario);
    if (chosen == nullptr) {
        std::fprintf(stderr, "knotcount-monitor: there is no scenario '%s'; 'knotcount-cli scenarios' lists them.\n",
                     scenario.c_str());
        return 2;
    }
    QCoreApplication application(argc, argv);
    monitor::Connection connection(monitor::Striker(*chosen, seed, faults), pace,
                                   {.host = QString::fromStdString(host),
                                    .port = port,
                                    .code = QString::fromStdString(code),
                                    .log = QString::fromStdString(log)});
    QObject::connect(&connection, &monitor::Connection::finished, &application, &QCoreApplication::quit,
                     Qt::QueuedConnection);
    connection.start();
    return QCoreApplication::exec();
}
