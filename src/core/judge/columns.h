#pragma once

#include "core/record/structure.h"
#include "core/statistics/moments.h"

#include <vector>

namespace knot::judge {

using record::BuildAt;
using record::Metric;
using statistics::meanOf;
using statistics::squaresAboutMean;
using statistics::standardDeviation;

/// Which shots take part: the counted ones, or every shot that was struck in earnest and read
/// (counted and set aside).
enum class Taken { counted, allRead };

/// The readings of one metric inside one turn.
struct TurnValues {
    record::TurnAt turn;
    record::RoundAt round;
    std::size_t player = 0;
    std::size_t delivery = 0;
    std::size_t sitting = 0;
    std::size_t place = 0; ///< stints before it that hold shots that take part, whether read or not
    std::size_t phase = 0; ///< marks of a changed player before it
    double swings = 0;     ///< of the same player in the sitting before its middle, warm-up counted
    std::vector<double> values;
    std::vector<record::ShotAt> shots; ///< beside `values`

    double mean() const;
};

/// The readings of one metric by one build: its turns with at least one reading, in order struck.
struct BuildValues {
    std::vector<TurnValues> turns;

    std::size_t count() const;
    std::vector<double> all() const;
    std::vector<double> turnMeans() const;
};

/// The readings of one metric, by build in the order of the test.
struct Column {
    record::Metric metric = record::Metric::carry;
    bool shotByShot = false; ///< every turn of the whole test holds one counted shot
    bool drawn = false;      ///< the order was drawn by a plan
    std::vector<BuildValues> builds;
};

Column columnOf(const record::Test& test, const record::Structure& structure, record::Metric metric, Taken taken);

bool isTaken(const record::Shot& shot, Taken taken);

} // namespace knot::judge
