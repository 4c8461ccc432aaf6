// Rough intervals of what a gap is made of, and of gaps among shots called alike: how often they cover.
#include "core/flight/flight.h"
#include "core/judge/causes/parts_of_gap.h"
#include "core/judge/judge.h"
#include "core/judge/shots/called.h"
#include "simulation/trial.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using knot::test::printRow;
using knot::test::Rate;
using knot::test::repetitions;
using record::BuildAt;
using record::Metric;

namespace {

// Two clubs over laps; the second is faster, launches higher and spins less. The carry is flown, then misread a little.
record::Test flownTest(int laps, Random& random) {
    record::Test test;
    test.builds = {{.name = "Slate"}, {.name = "Fern"}};
    for (int lap = 0; lap < laps; ++lap)
        for (int place = 0; place < 2; ++place) {
            const auto build = static_cast<std::size_t>((place + lap) % 2);
            const double own = build == 1 ? 1 : 0;
            const double stint = 0.3 * random.normal();
            for (int i = 0; i < 4; ++i) {
                const double clubSpeed = 40 + 0.4 * own + stint + 0.4 * random.normal();
                const flight::Launch launch{.ballSpeed = clubSpeed * (1.42 + 0.008 * own + 0.012 * random.normal()),
                                            .launch = 14 + 0.8 * own + 0.8 * random.normal(),
                                            .direction = random.normal(),
                                            .spin = 4200 - 250 * own + 300 * random.normal()};
                record::Shot shot{.build = BuildAt(build), .handedOver = i == 0, .round = std::to_string(lap)};
                shot.readings.measure(Metric::clubSpeed, clubSpeed);
                shot.readings.measure(Metric::ballSpeed, launch.ballSpeed);
                shot.readings.measure(Metric::launch, launch.launch);
                shot.readings.measure(Metric::launchDirection, launch.direction);
                shot.readings.measure(Metric::spin, launch.spin);
                shot.readings.measure(Metric::carry, flight::fly(launch).carry + 0.5 * random.normal());
                test.shots.push_back(std::move(shot));
            }
        }
    return test;
}

judge::PartsOfGap partsIn(const record::Test& test) {
    const judge::JudgeRequest request{.subject = judge::Case::of(test), .depth = judge::JudgeRequest::Depth::verdicts};
    return judge::partsOfGaps(request, *judge::judge(request)).front();
}

// The second club loses less on the shots that are called bad.
record::Test calledTest(int laps, double gapOnBad, Random& random) {
    record::Test test;
    test.builds = {{.name = "Slate"}, {.name = "Fern"}};
    for (int lap = 0; lap < laps; ++lap)
        for (int place = 0; place < 2; ++place) {
            const auto build = static_cast<std::size_t>((place + lap) % 2);
            const double stint = 1.5 * random.normal();
            for (int i = 0; i < 5; ++i) {
                const bool isBad = random.uniform() < 0.3;
                record::Shot shot{.build = BuildAt(build), .handedOver = i == 0, .round = std::to_string(lap)};
                shot.call = isBad ? record::Call::bad : record::Call::good;
                shot.readings.measure(Metric::carry, 150 + stint + 4 * random.normal() -
                                                         (isBad ? 12 - (build == 1 ? gapOnBad : 0) : 0));
                test.shots.push_back(std::move(shot));
            }
        }
    return test;
}

} // namespace

TEST_CASE("rough intervals of the parts of a gap cover about as often as they say") {
    Random random(51);
    printRow("parts of a gap in carry, times covered (95) | club speed | efficiency | launch | spin | direction | not "
             "explained");
    for (const int laps : {5, 10}) {
        // What each part comes to, from much longer tests.
        std::vector<double> truth;
        double rest = 0;
        constexpr int longTests = 20;
        for (int i = 0; i < longTests; ++i) {
            const auto parts = partsIn(flownTest(150, random));
            truth.resize(parts.parts.size());
            for (std::size_t p = 0; p < truth.size(); ++p)
                truth[p] += parts.parts[p].value / longTests;
            rest += parts.rest / longTests;
        }
        std::vector<Rate> covers(truth.size() + 1);
        for (int i = 0; i < repetitions(200); ++i) {
            const auto parts = partsIn(flownTest(laps, random));
            for (std::size_t p = 0; p < truth.size(); ++p)
                covers[p].count(parts.parts[p].ci95->contains(truth[p]));
            covers.back().count(parts.restInterval->contains(rest));
        }
        std::string row = std::to_string(laps) + " laps of 4";
        for (const Rate& rate : covers) {
            row += " | " + rate.percent();
            CHECK(rate.isAtLeast(0.92));
        }
        printRow(row);
    }
}

TEST_CASE("rough intervals of the gap on the bad ones cover about as often as they say") {
    Random random(52);
    printRow("gap among the shots called bad, times covered (95) | nothing differs | 6 m apart");
    for (const int laps : {6, 12}) {
        std::string row = std::to_string(laps) + " laps of 5";
        for (const double gap : {0.0, 6.0}) {
            Rate covers;
            for (int i = 0; i < repetitions(200); ++i) {
                const auto test = calledTest(laps, gap, random);
                const judge::JudgeRequest request{.subject = judge::Case::of(test),
                                                  .depth = judge::JudgeRequest::Depth::verdicts};
                const auto reading = *judge::judge(request);
                const auto column =
                    judge::columnOf(test, record::structureOf(test), Metric::carry, judge::Taken::counted);
                for (const judge::CalledGap& one : judge::calledGaps(request, column, reading))
                    if (one.call == record::Call::bad && one.ci95)
                        covers.count(one.ci95->contains(gap));
            }
            row += " | " + covers.percent();
            CHECK(covers.isAtLeast(0.92));
        }
        printRow(row);
    }
}
