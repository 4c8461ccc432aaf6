#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/record/structure.h"

namespace knot::judge {

struct LandingPoint {
    double side = 0, carry = 0; ///< m
    record::ShotAt shot = {};
};

/// The shots of a turn that take part and have both a side and a carry.
struct LandingTurn {
    record::TurnAt turn;
    record::RoundAt round;
    std::vector<LandingPoint> points;
};

/// By build, turns in order struck.
struct Landings {
    bool shotByShot = false;
    std::vector<std::vector<LandingTurn>> builds;
};

Landings landingsOf(const record::Test& test, const record::Structure& structure, Taken taken);

/// Hits (1) and misses (0) of a shape as a column, for shares by turns and rounds.
Column hitsOf(const record::Test& test, const record::Structure& structure, const record::Shape& shape, Taken taken);

/// The share inside a shape under the bivariate normal fitted to the build's shots; from four
/// points on that have some width. By summing over slices of side, to about 1e-4.
std::optional<double> fittedShare(const Landings& landings, BuildAt build, const record::Shape& shape);

/// What was seen, from four points on.
std::optional<LandingArea> landingArea(const Landings& landings, BuildAt build);

/// The logarithm of a build's landing area inside turns with its jackknife error; nothing where
/// `areaRatio` would have no interval.
struct LogArea {
    double value = 0, se = 0, df = 0;
};
std::optional<LogArea> logArea(const Landings& landings, BuildAt build);

/// The ratio of areas inside turns with its jackknife over turns (over shots for one run or turns
/// of one shot), its shuffle over turns where a seed is given, and Hotelling's test of the centres. margin > 1. Nothing
/// when either build has fewer than four points; no interval under four turns (six shots).
std::optional<AreaRatio> areaRatio(const Landings& landings, BuildAt build, BuildAt against, double margin,
                                   std::optional<std::uint64_t> seed);

} // namespace knot::judge
