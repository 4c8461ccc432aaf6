// Timings of the bay: the link, a shot's way to the screen, and a logbook of a million shots.
#include "app/bay_page/bay_page.h"
#include "app/reading_page/reading_page.h"
#include "app/session/session.h"
#include "app/sheet_page/sheet_page.h"
#include "app/shell/main_window.h"
#include "app/shell/prompter.h"
#include "app/style/fonts.h"
#include "app/style/palette.h"
#include "core/plan/course.h"
#include "core/plan/schedule.h"
#include "link/message.h"
#include "logbook/logbook.h"

#include <QAbstractItemView>
#include <QApplication>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QLineEdit>
#include <QScrollBar>
#include <QSettings>
#include <QTcpSocket>
#include <QTemporaryDir>
#include <QTimer>
#include <benchmark/benchmark.h>

#include <algorithm>
#include <thread>

using namespace knot;

namespace {

record::Readings fifteen(int shot) {
    record::Readings readings;
    for (std::size_t i = 0; i < 15; ++i)
        readings.measure(record::allMetrics()[i], 100 + shot % 7 + static_cast<double>(i));
    return readings;
}

// A planned test of three clubs with room for many shots, every hand-over confirmed.
record::Test longTest(int rounds, std::size_t struck) {
    record::Test test;
    test.title = "Long";
    test.builds = {{.name = "Fern"}, {.name = "Slate"}, {.name = "Birch"}};
    test.plan.turnLength = 3;
    test.plan.rounds = 4;
    test.plan.warmUp = 0;
    plan::makeCourse(test);
    const auto pattern = test.turns;
    test.turns.clear();
    for (int round = 0; round < rounds; ++round)
        for (std::size_t i = 0; i < 3; ++i) {
            auto turn = pattern[(static_cast<std::size_t>(round) % 4) * 3 + i];
            turn.round = round + 1;
            test.turns.push_back(turn);
        }
    bay::beginSitting(test, "2026-05-02T09:00:00.000");
    test.progress.confirmed = static_cast<int>(test.turns.size());
    for (std::size_t i = 0; i < struck; ++i) {
        const record::PlannedAt turn(i / 3);
        record::Shot shot;
        shot.build = test.turns[turn].build;
        shot.turn = bay::turnLabel(test, turn);
        shot.round = std::to_string(test.turns[turn].round);
        shot.sitting = test.sittings.back().label;
        shot.handedOver = i % 3 == 0;
        shot.readings = fifteen(static_cast<int>(i));
        shot.readId = "link:old" + std::to_string(i);
        test.shots.push_back(std::move(shot));
    }
    return test;
}

// A logbook with one test, opened.
struct Opened {
    QTemporaryDir folder;
    app::Session session;
    explicit Opened(const record::Test& test) {
        const QString path = folder.filePath("bench.knotbook");
        std::string id;
        {
            auto book = logbook::Logbook::create(path.toStdString());
            id = *book->save(test);
        }
        session.openLogbook(path);
        session.openTest(id);
    }
};

// Ten thousand and more shots over a socket; `window` of them may be under way without an acknowledgement.
void linkShots(benchmark::State& state) {
    const auto window = static_cast<int>(state.range(0));
    const auto shots = static_cast<int>(state.range(1));
    for (auto _ : state) {
        state.PauseTiming();
        Opened opened(longTest(shots / 9 + 10, 0));
        app::MonitorServer server(opened.session.hand(), opened.session.bay());
        server.letIn("bench");
        server.listen({.port = 0});
        const quint16 port = server.port();
        state.ResumeTiming();
        std::atomic<int> acknowledged = 0;
        std::thread monitor([&] {
            QTcpSocket socket;
            socket.connectToHost("127.0.0.1", port);
            socket.waitForConnected();
            socket.write(QByteArray::fromStdString(link::lineOf(link::Hello{"bench", 1, {}, {}, {}})));
            for (int sent = 0; acknowledged < shots;) {
                while (sent < shots && sent - acknowledged < window) {
                    socket.write(QByteArray::fromStdString(
                        link::lineOf(link::ShotRead{std::to_string(sent), {}, fifteen(sent), 0.9})));
                    ++sent;
                }
                socket.waitForReadyRead(100);
                acknowledged += static_cast<int>(socket.readAll().count("\"ack\""));
            }
        });
        QTimer wake; // a look at the count even when nothing comes any more
        wake.start(50);
        while (acknowledged < shots)
            QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents);
        monitor.join();
        if (opened.session.test().shots.size() != static_cast<std::size_t>(shots))
            state.SkipWithError("shots were lost");
    }
}
BENCHMARK(linkShots)
    ->Args({1, 10000})
    ->Args({100, 10000})
    ->Args({100, 25000})
    ->Unit(benchmark::kSecond)
    ->Iterations(1)
    ->UseRealTime();

// From a shot's arrival to its painted knot, with ten thousand in the test already.
void arrivalToKnot(benchmark::State& state) {
    Opened opened(longTest(1200, 10000));
    app::BayPage page(opened.session.hand(), opened.session.declaring(), opened.session.bay(), opened.session.book(),
                      opened.session.earlier());
    page.resize(1112, 660);
    page.show();
    page.enter();
    QCoreApplication::processEvents();
    std::vector<double> waits;
    int shot = 0;
    for (auto _ : state) {
        QElapsedTimer timer;
        timer.start();
        opened.session.bay().arrive({{fifteen(shot), {}, "link:new" + std::to_string(shot), {}}});
        ++shot;
        page.repaint();
        QCoreApplication::processEvents();
        waits.push_back(static_cast<double>(timer.nsecsElapsed()) / 1e6);
    }
    std::ranges::sort(waits);
    state.counters["median ms"] = waits[waits.size() / 2];
    state.counters["worst ms"] = waits.back();
}
BENCHMARK(arrivalToKnot)->Unit(benchmark::kMillisecond)->Iterations(60);

// One letter into a field of the sheet, with ten thousand shots in the test.
void keystroke(benchmark::State& state) {
    Opened opened(longTest(1200, 10000));
    app::SheetPage page(opened.session.hand(), opened.session.declaring(), opened.session.book(),
                        opened.session.earlier());
    page.resize(1112, 660);
    page.show();
    page.refreshIfStale();
    QCoreApplication::processEvents();
    auto* field = page.findChild<QLineEdit*>();
    for (auto _ : state) {
        QKeyEvent key(QEvent::KeyPress, Qt::Key_A, Qt::NoModifier, QStringLiteral("a"));
        QApplication::sendEvent(field, &key);
        QCoreApplication::processEvents();
    }
    if (!field->text().contains(QLatin1String("aaa")))
        state.SkipWithError("nothing was typed");
    page.hide(); // what was typed is kept while the page is whole
}
BENCHMARK(keystroke)->Unit(benchmark::kMillisecond)->Iterations(100);

// How long the window is held up when a reading of so many shots is there: the ledger, what stands under it, the
// picture.
void readingArrives(benchmark::State& state) {
    const auto shots = static_cast<std::size_t>(state.range(0));
    Opened opened(longTest(static_cast<int>(shots / 9), shots));
    app::ReadingPage page(opened.session.hand(), opened.session.declaring(), opened.session.judging(),
                          opened.session.book());
    page.resize(1112, 660);
    page.show();
    app::Judging& judging = opened.session.judging();
    while (judging.reading() == nullptr)
        QCoreApplication::processEvents(QEventLoop::WaitForMoreEvents, 100);
    QCoreApplication::processEvents();
    for (auto _ : state) {
        emit judging.changed();
        page.repaint();
    }
}
BENCHMARK(readingArrives)->Arg(60)->Arg(5000)->Unit(benchmark::kMillisecond)->Iterations(10);

// A test opened beside two hundred others of the same player.
void openBesideTwoHundred(benchmark::State& state) {
    Opened opened(longTest(6, 50));
    std::string id;
    for (int i = 0; i < 200; ++i) {
        auto test = longTest(60, 500);
        test.title = "Test " + std::to_string(i);
        id = *opened.session.book().save(test);
    }
    for (auto _ : state)
        if (!opened.session.openTest(id))
            state.SkipWithError("the test does not open");
}
BENCHMARK(openBesideTwoHundred)->Unit(benchmark::kMillisecond)->Iterations(20);

struct Million {
    QTemporaryDir folder;
    std::string path = folder.filePath("million.knotbook").toStdString();
    Million() {
        auto book = logbook::Logbook::create(path);
        for (int i = 0; i < 2000; ++i) {
            auto test = longTest(60, 500);
            test.title = "Test " + std::to_string(i);
            (void)book->save(test);
        }
        (void)book->tests(); // as after any visit to the list
    }
};

const Million& million() {
    static const Million made;
    return made;
}

// 2,000 tests of three clubs in the list: turned to, and scrolled from end to end a page at a time.
void scrollTwoThousandTests(benchmark::State& state) {
    app::Session session;
    QTemporaryDir folder;
    const QString path = folder.filePath("many.knotbook");
    {
        auto book = logbook::Logbook::create(path.toStdString());
        for (int i = 0; i < 2000; ++i) {
            auto test = longTest(2, 18);
            test.createdAt = "2026-05-02T09:00:00";
            test.title = "Test " + std::to_string(i);
            const auto id = *book->save(test);
            (void)book->keepFinding(id, {.verdict = 0, .text = "Fern carries farther: real"});
        }
    }
    app::MainWindow window(session, std::make_unique<app::DialogPrompter>());
    window.resize(1280, 800);
    window.show();
    QElapsedTimer clock;
    clock.start();
    session.openLogbook(path);
    window.showPage(app::PageId::logbook);
    QCoreApplication::processEvents();
    state.counters["ms to open"] = static_cast<double>(clock.elapsed());
    auto* bar = window.findChild<QAbstractItemView*>("testList")->verticalScrollBar();
    double longest = 0;
    for (auto _ : state) {
        QElapsedTimer step;
        step.start();
        bar->setValue(bar->value() >= bar->maximum() ? 0 : bar->value() + bar->pageStep());
        QCoreApplication::processEvents();
        longest = std::max(longest, static_cast<double>(step.nsecsElapsed()) / 1e6);
    }
    state.counters["longest ms"] = longest;
}
BENCHMARK(scrollTwoThousandTests)->Unit(benchmark::kMillisecond)->Iterations(400);

void openMillionShots(benchmark::State& state) {
    const auto& path = million().path;
    for (auto _ : state)
        if (!logbook::Logbook::open(path))
            state.SkipWithError("the logbook does not open");
}
BENCHMARK(openMillionShots)->Unit(benchmark::kMillisecond);

void listMillionShots(benchmark::State& state) {
    auto book = logbook::Logbook::open(million().path);
    for (auto _ : state)
        if (book->tests()->size() != 2000)
            state.SkipWithError("tests are missing");
}
BENCHMARK(listMillionShots)->Unit(benchmark::kMillisecond);

} // namespace

int main(int argc, char** argv) {
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    const QTemporaryDir settings;
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    QApplication::setOrganizationName("Knot Count benchmarks");
    QSettings().setValue("link/port", 0);
    app::applyTheme(app::Theme::light);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    return 0;
}
