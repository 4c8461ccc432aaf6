#pragma once

#include "core/bay/strike.h"
#include "core/plan/course.h"

#include <string>

// A planned test, and shots struck in it as in a bay.
namespace knot::test {

/// Clubs "A", "B" …, stints of three, carry declared; no warm-up.
inline record::Test planned(std::size_t clubs, int laps, record::Schedule schedule = record::Schedule::rotated) {
    record::Test test;
    test.id = "7b1f3f5e-0000-4000-8000-000000000000";
    for (std::size_t b = 0; b < clubs; ++b)
        test.builds.push_back({.name = std::string(1, static_cast<char>('A' + b))});
    test.card.primary = {{.metric = record::Metric::carry}};
    test.card.wants[test.card.primary.front()] = {record::Want::Kind::more, 0};
    test.plan.schedule = schedule;
    test.plan.rounds = laps;
    test.plan.turnLength = 3;
    test.plan.warmUp = 0;
    test.plan.seed = 4;
    test.nameClubs();
    plan::makeCourse(test);
    return test;
}

/// As many shots as the plan has room for; each club carries 4 m farther than the one before it.
inline void strike(record::Test& test, int shots) {
    for (int i = 0; i < shots && bay::standOf(test).phase() != bay::Phase::done; ++i) {
        if (bay::standOf(test).phase() == bay::Phase::handOver)
            bay::confirm(test, "2026-05-02T10:00:00");
        const record::BuildAt build = bay::standOf(test).stint()->build;
        bay::Arrival arrival;
        arrival.at = "2026-05-02T10:00:00";
        const double wave = (static_cast<int>(test.shots.size()) * 7) % 5 - 2;
        arrival.readings.measure(record::Metric::carry, 150 + 4.0 * static_cast<double>(build) + wave);
        bay::addShot(test, arrival);
    }
}

} // namespace knot::test
