// Timings, never pass or fail: run by ./check --bench. Compare figures only within one run.
#include "core/judge/causes/models.h"
#include "core/judge/gaps/average.h"
#include "core/judge/gaps/shuffle.h"
#include "core/judge/judge.h"
#include "core/plan/looks.h"
#include "core/plan/planner.h"
#include "core/plan/schedule.h"
#include "core/random.h"
#include "files/import/shot_file.h"

#include <benchmark/benchmark.h>

#include <cstdlib>
#include <fstream>
#include <string>

using namespace knot;

namespace {

constexpr int metricsInFile = 15;

// A rotated test: builds × rounds × turnLength shots with fifteen metrics.
std::string shotText(int builds, int rounds, int turnLength) {
    Random random(1);
    std::string text = "round,turn,build";
    for (int m = 0; m < metricsInFile; ++m)
        text += "," + record::info(record::allMetrics()[static_cast<std::size_t>(m)]).key;
    text += "\n";
    int turn = 0;
    for (int r = 1; r <= rounds; ++r)
        for (int b = 0; b < builds; ++b) {
            ++turn;
            for (int s = 0; s < turnLength; ++s) {
                text += std::to_string(r) + "," + std::to_string(turn) + ",Build " + std::to_string((b + r) % builds);
                for (int m = 0; m < metricsInFile; ++m)
                    text += "," + std::to_string(100 + 5 * random.normal());
                text += "\n";
            }
        }
    return text;
}

long residentKilobytes(const char* field) {
    std::ifstream status("/proc/self/status");
    std::string word;
    long value = 0;
    while (status >> word)
        if (word == field) {
            status >> value;
            break;
        }
    return value;
}

void importHundredThousand(benchmark::State& state) {
    const std::string text = shotText(5, 4000, 5);
    const long before = residentKilobytes("VmRSS:");
    for (auto _ : state)
        benchmark::DoNotOptimize(files::readShots("x.csv", text));
    state.counters["MB over the text"] = static_cast<double>(residentKilobytes("VmHWM:") - before) / 1024;
}
BENCHMARK(importHundredThousand)->Unit(benchmark::kMillisecond)->Iterations(3);

void judgeThreeHundred(benchmark::State& state) {
    const auto test = files::readShots("x.csv", shotText(5, 12, 5))->test;
    for (auto _ : state)
        benchmark::DoNotOptimize(judge::judge({.subject = judge::Case::of(test)}));
}
BENCHMARK(judgeThreeHundred)->Unit(benchmark::kMillisecond);

// Everything a reading holds: verdicts, shuffles, models, influence of every shot on three declared
// outcomes. Memory is that above the shots.
void wholeReading(benchmark::State& state) {
    auto test = files::readShots("x.csv", shotText(5, 12, 5))->test;
    for (const char* outcome : {"ball_speed_ms", "launch_deg", "spin_rpm"})
        test.card.primary.push_back(*record::outcomeFromText(outcome));
    const long before = residentKilobytes("VmRSS:");
    for (auto _ : state)
        benchmark::DoNotOptimize(judge::judge({.subject = judge::Case::of(test)}));
    state.counters["MB above the shots"] = static_cast<double>(residentKilobytes("VmRSS:") - before) / 1024;
}
BENCHMARK(wholeReading)->Unit(benchmark::kMillisecond);

// A reading after every shot: sixty shots, two declared outcomes with the influence of each shot, everything a
// reading holds. The argument is the number of laps of three clubs with four shots.
void readingOf(benchmark::State& state) {
    const std::string text = shotText(3, static_cast<int>(state.range(0)), 4);
    if (state.range(0) <= 5)
        std::ofstream("/tmp/knot_bench_reading.csv") << text; // for bench/reading.R
    auto test = files::readShots("x.csv", text)->test;
    test.card.covariates = {record::Metric::clubSpeed};
    if (state.range(0) <= 5)
        for (const char* outcome : {"ball_speed_ms", "equal:ball_speed_ms"})
            test.card.primary.push_back(*record::outcomeFromText(outcome));
    else
        test.card.covariates.clear();
    const auto subject = judge::Case::of(test);
    for (auto _ : state)
        benchmark::DoNotOptimize(judge::judge({.subject = subject}));
}
BENCHMARK(readingOf)->Arg(5)->Arg(834)->Arg(8334)->Unit(benchmark::kMillisecond);

// Two mixed models of one pair with Satterthwaite's df, y ~ build + round (+ covariate) + (1 | turn),
// as bench/lmer.R fits them from the same file.
void twoMixedModels(benchmark::State& state) {
    const std::string text = shotText(2, 12, 5);
    std::ofstream("/tmp/knot_bench_pair.csv") << text;
    const auto test = files::readShots("x.csv", text)->test;
    const auto column =
        judge::columnOf(test, record::structureOf(test), record::Metric::ballSpeed, judge::Taken::counted);
    for (auto _ : state)
        benchmark::DoNotOptimize(judge::equalStrike(test, column, record::BuildAt(1), record::BuildAt(0),
                                                    {record::Metric::clubSpeed}, 0, 1));
}
BENCHMARK(twoMixedModels)->Unit(benchmark::kMillisecond);

void flipTwentyRounds(benchmark::State& state) {
    Random random(2);
    std::vector<double> differences;
    for (int i = 0; i < 20; ++i)
        differences.push_back(random.normal() + 0.3);
    for (auto _ : state)
        benchmark::DoNotOptimize(judge::flipSigns(differences, 1));
}
BENCHMARK(flipTwentyRounds)->Unit(benchmark::kMillisecond);

// The whole program from start to a painted window, without a screen.
void startToPicture(benchmark::State& state) {
    const std::string command = "QT_QPA_PLATFORM=offscreen XDG_DATA_HOME=/tmp/knot_bench " + std::string(KNOT_APP) +
                                " --demo --shot /tmp/knot_bench.png > /dev/null 2>&1";
    auto paint = [&] {
        if (std::system(command.c_str()) != 0)
            state.SkipWithError("no window was painted");
    };
    paint();
    for (auto _ : state)
        paint();
}
BENCHMARK(startToPicture)->Unit(benchmark::kMillisecond)->Iterations(5)->UseRealTime();

void bestPlanSearch(benchmark::State& state) {
    const plan::Question question{.sdTurn = 2.4, .sdShot = 6.5, .gap = 2.7, .alpha = 0.0125, .builds = 5};
    for (auto _ : state)
        benchmark::DoNotOptimize(plan::bestIn(180, question, {.warmUp = 8, .restEvery = 25}));
}
BENCHMARK(bestPlanSearch)->Unit(benchmark::kMillisecond);

void orderForTwelve(benchmark::State& state) {
    for (auto _ : state)
        benchmark::DoNotOptimize(plan::scheduled({.builds = 12, .rounds = 24, .turnLength = 4}));
}
BENCHMARK(orderForTwelve)->Unit(benchmark::kMillisecond);

void lookBoundariesOfTwenty(benchmark::State& state) {
    std::vector<double> information;
    for (int lap = 2; lap <= 20; ++lap)
        information.push_back(lap / 20.0);
    for (auto _ : state)
        benchmark::DoNotOptimize(plan::lookBoundaries(information, 0.05));
}
BENCHMARK(lookBoundariesOfTwenty)->Unit(benchmark::kMillisecond);

} // namespace

BENCHMARK_MAIN();
