#pragma once

#include "core/plan/ways.h"
#include "core/plan/worth.h"

namespace knot::plan {

/// What the worth of one outcome hangs on, for every way of spending the same minutes.
struct WorthOf {
    const record::Test& test; ///< its clubs, wants and margins; what of its plan is not named here is left aside
    record::Outcome outcome;
    Spreads struck; ///< of the outcome as it is declared
    double tau = 1;
    Pace pace;
    int turnLength = 3;      ///< of the plan
    Spreads equal = {};      ///< at equal delivery, for averages
    double typicalTimes = 1; ///< variance of the typical shot's gap against the average's
};

/// Ways that a choice by this outcome can go: of spreads, areas and shares as struck alone.
std::vector<Way> worthWays(const record::Outcome& outcome);

/// A way as it would be gone in some minutes, so that the choice is best.
struct WorthOption {
    Way way = Way::asPlanned;
    int rounds = 0, turnLength = 0, days = 1;
    double minutes = 0; ///< that it takes; of one day
    Worth worth;
};
/// Nothing where two laps do not fit; three shots with each club are one run.
std::optional<WorthOption> mostWorth(Way way, const WorthOf& of, double minutes);

/// The least minutes in which a way gets this share of what there is to be had; nothing beyond `most`.
std::optional<WorthOption> toGet(double share, Way way, const WorthOf& of, double most = 600);

} // namespace knot::plan
