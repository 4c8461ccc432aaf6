#pragma once

#include "core/plan/spreads.h"
#include "core/record/test.h"

#include <functional>
#include <optional>
#include <vector>

namespace knot::plan {

/// A plan as far as chances go: laps on one day, and on how many days.
struct Laps {
    int count = 0, shots = 1, days = 1;
    double nu() const { return count * (shots - 1.0) * days; }
};
/// The chance to see a gap in an outcome (a ratio for spreads and areas) at a level; 0 where it can't be judged.
double chanceIn(const Laps& laps, const record::Outcome& outcome, const Spreads& spreads, double gap, double level);

/// What a test is known to need, before its first ball, in one declared outcome.
struct Takes {
    record::Outcome outcome;
    double gap = 0;                    ///< worthwhile: in the metric's unit, or a ratio of spreads or areas
    Spreads spreads;                   ///< that it rests on
    std::optional<double> thisPlan;    ///< chance to see the gap at the declared level; nothing under two laps
    std::optional<double> twoSittings; ///< this plan on two days
    double worth = 0, worthOnTwoDays = 0, worthByHand = 0; ///< shares of what there is to be had (worth.h)
    std::optional<double> smallest; ///< gap or ratio that this plan sees 80 times in 100; nothing where none is
};

/// Of an outcome as it is declared: at equal delivery they are others than as struck.
using SpreadsOf = std::function<Spreads(const record::Outcome&)>;

/// How far clubs lie apart in an outcome; empty: as `scaleOf` has it without a logbook (worth.h).
using ScaleOf = std::function<double(const record::Outcome&)>;

/// For each declared outcome by its own method: averages by the paired t over laps, spreads and areas by their ratios.
/// The typical shot is taken to scatter as struck: what it saves hangs on mishits to come. Shares are left out.
std::vector<Takes> takesOf(const record::Test& test, const SpreadsOf& spreads, const ScaleOf& scale = {});

/// The chance that the plan of a test sees a gap of this size in an outcome at the level of one comparison (a ratio for
/// spreads and areas), and that two runs of three would at the same level. 0 where it can't be judged, and for shares.
double chanceToSee(const record::Test& test, const record::Outcome& outcome, const Spreads& spreads, double gap);
double chanceByHand(const record::Test& test, const record::Outcome& outcome, const Spreads& spreads, double gap);

/// The level of one comparison of a test: α, or what looks leave of it, by declared outcomes × comparisons.
double levelOfOne(const record::Test& test);

} // namespace knot::plan
