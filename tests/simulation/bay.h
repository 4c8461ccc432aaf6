#pragma once

#include "core/judge/columns.h"
#include "core/judge/gaps/average.h"
#include "core/random.h"
#include "core/record/structure.h"

#include <cmath>
#include <optional>
#include <string>

namespace knot::test {

/// Two clubs, all in units of the shot SD.
struct Bay {
    int laps = 6, stint = 5;
    double stintSd = 0.5;
    double gap = 0;         ///< of the second club
    double explained = 0;   ///< of the variance of shots, by club speed
    double shift = 0;       ///< how much faster the second club is swung
    double useless = 0;     ///< covariates that explain nothing
    double mishits = 0;     ///< share of shots that fall short, with both
    double mishitsMore = 0; ///< and that much more with the second
    double likeness = 0;    ///< correlation of neighbouring shots
    double drift = 0;       ///< per shot
    enum class Order { turned, coin, same } order = Order::turned;

    record::Test strike(Random& random) const {
        record::Test test;
        test.builds = {{.name = "Slate"}, {.name = "Fern"}};
        double carried = random.normal();
        double drifted = 0;
        for (int lap = 0; lap < laps; ++lap) {
            const bool swapped = order == Order::turned ? lap % 2 == 1
                                 : order == Order::coin ? random.uniform() < 0.5
                                                        : false;
            for (const std::size_t build : {swapped ? 1U : 0U, swapped ? 0U : 1U}) {
                const double own = stintSd * random.normal();
                for (int i = 0; i < stint; ++i) {
                    const double swing = random.normal();
                    carried = likeness * carried + std::sqrt(1 - likeness * likeness) * random.normal();
                    double y = 100 + own + (build == 1 ? gap : 0) + std::sqrt(1 - explained) * carried +
                               std::sqrt(explained) * (swing + (build == 1 ? shift : 0)) + (drifted += drift);
                    if (random.uniform() < mishits + (build == 1 ? mishitsMore : 0))
                        y -= 3 + std::fabs(2 * random.normal());
                    record::Shot shot{
                        .build = record::BuildAt(build), .handedOver = i == 0, .round = std::to_string(lap)};
                    shot.readings.measure(record::Metric::carry, y);
                    shot.readings.measure(record::Metric::clubSpeed, 40 + swing + (build == 1 ? shift : 0));
                    shot.readings.measure(record::Metric::strikeHigh, random.normal());
                    shot.readings.measure(record::Metric::attack, random.normal());
                    test.shots.push_back(std::move(shot));
                }
            }
        }
        return test;
    }
};

inline judge::Column columnIn(const record::Test& test) {
    return judge::columnOf(test, record::structureOf(test), record::Metric::carry, judge::Taken::counted);
}

inline bool isFluke(const std::optional<judge::AverageGap>& row) {
    return row && row->claim.p && *row->claim.p < 0.05;
}

} // namespace knot::test
