#pragma once

#include "core/flight/flight.h"
#include "core/judge/judge.h"
#include "core/words/remarks/shot_remarks.h"
#include "support/build_test.h"

#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

namespace knot::test {

/// Two clubs over five laps of four shots, whose carry is the flight of what is read beside it.
inline record::Test flownTest() {
    TestBuilder builder;
    for (int lap = 0; lap < 5; ++lap) {
        const bool turned = lap % 2 == 1;
        for (const char* club : {turned ? "Fern" : "Slate", turned ? "Slate" : "Fern"})
            builder.turn(club, std::to_string(lap + 1), {0, 0, 0, 0});
    }
    int i = 0;
    for (auto& shot : builder.test.shots) {
        const bool fern = builder.test.builds[shot.build].name == "Fern";
        const double wobble = std::sin(2.3 * ++i);
        const double club = 38 + wobble + (fern ? 0.5 : 0);
        const double ball = 1.38 * club + 0.2 * std::cos(1.7 * i);
        const double launch = 15 + std::cos(0.9 * i) - (fern ? 1 : 0);
        const double spin = 5000 + 300 * wobble - (fern ? 400 : 0);
        const auto flight = flight::fly({ball, launch, 0.5 * wobble, spin, 2 * wobble});
        auto& r = shot.readings;
        r.measure(record::Metric::clubSpeed, club);
        r.measure(record::Metric::ballSpeed, ball);
        r.measure(record::Metric::launch, launch);
        r.measure(record::Metric::launchDirection, 0.5 * wobble);
        r.measure(record::Metric::spin, spin);
        r.measure(record::Metric::spinAxis, 2 * wobble);
        r.measure(record::Metric::carry, flight.carry);
        r.measure(record::Metric::side, flight.side);
        record::deriveMissing(r);
    }
    return builder.test;
}

inline judge::Reading readingOfTest(const record::Test& test) {
    return *judge::judge({.subject = judge::Case::of(test)});
}

template<typename Row> const Row* rowOf(const std::vector<Row>& rows, record::Metric metric) {
    const auto at = std::ranges::find(rows, metric, &Row::metric);
    return at == rows.end() ? nullptr : &*at;
}

inline bool isSaid(const judge::Reading& reading, const std::string& code, const std::string& part = {}) {
    return std::ranges::any_of(words::shotRemarks(reading, {}), [&](const words::Remark& remark) {
        return remark.code == code && remark.text.find(part) != std::string::npos;
    });
}

} // namespace knot::test
