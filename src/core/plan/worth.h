#pragma once

#include "core/plan/planner.h"
#include "core/plan/spreads.h"
#include "core/record/test.h"

#include <cstdint>
#include <optional>
#include <vector>

// What a plan is worth (judgement §29): how much better one chooses by it, whether or not anything is proved.
namespace knot::plan {

/// Clubs to choose among: they lie N(0, tau²) apart, and each is seen with an error of its own. In the outcome's unit;
/// of spreads and areas the logarithm.
struct Choosing {
    double tau = 1;
    std::vector<double> errors; ///< SD; infinite for a club that is not hit
};

/// What choosing the best-looking gains, of what choosing the best would, over a club picked blindly.
struct Worth {
    double share = 0; ///< 0 to 1
    double toBeHad = 0, had = 0, lost = 0;
};

/// For clubs wanted higher or lower: closed, else to 1e-9.
Worth worthOf(const Choosing& choosing);
/// For clubs wanted near a value that their middle has: 4,000 seeded draws.
Worth worthNearValue(const Choosing& choosing, std::uint64_t seed = 1);
/// Where clubs are struck off at the laps of `stayAfter`: 4,000 seeded draws. `ofLap`: SD of what one lap says.
Worth worthStrikingOff(double tau, std::size_t clubs, double ofLap, int laps, std::uint64_t seed = 1);

/// If one club is better by `gap` and the others are equal: it is proved better, chosen rightly without proof, or
/// another one is taken. Sums to 1; any of the clubs is as likely to be the better one.
struct Futures {
    double proved = 0, chosen = 0, wrong = 0;
};
/// `proved`: the chance of the proof, reckoned elsewhere.
Futures futuresOf(const std::vector<double>& errors, double gap, double proved);

/// The SD of what is seen of one club in an outcome: of averages their unit, of spreads and areas ln, of shares 0 to 1.
/// From stints of so many shots. Infinite where nothing is seen.
double errorOf(const record::Outcome& outcome, const Spreads& spreads, const std::vector<std::size_t>& stints);
/// The same of laps of equal stints.
double errorOf(const record::Outcome& outcome, const Spreads& spreads, int laps, int shots);

/// τ of an outcome: how far clubs of the test's kind lie apart. `learnt`: what the logbook tells of the metric.
double scaleOf(const record::Test& test, const record::Outcome& outcome, std::optional<double> learnt = {});

/// A fair test of two clubs in so many minutes: the laps and stints that are worth most to the choice by an average
/// wanted higher or lower, for a club player; two laps of two shots at least.
struct TwoClubs {
    int laps = 2, shots = 2;
    double worth = 0; ///< 0 to 1
};
TwoClubs twoClubsIn(double minutes, record::Metric metric, const Spreads& spreads, double tau, const Pace& pace);
/// The minutes that there usually are behind a sitting as it came.
inline constexpr double minutesLeft = 20;

/// What a plan is worth in one outcome, and a hundred futures of it by `gap` (the worthwhile one).
struct PlanWorth {
    record::Outcome outcome;
    Worth worth;
    Futures futures;
    double gap = 0; ///< of spreads and areas a ratio
};
/// Of a test as it is planned, or of its first `laps`; on `days`. One run each proves nothing.
PlanWorth worthOfPlan(const record::Test& test, const record::Outcome& outcome, const Spreads& spreads, double tau,
                      std::optional<int> laps = {}, int days = 1);
/// Of three shots with each club in one run.
PlanWorth worthByHand(const record::Test& test, const record::Outcome& outcome, const Spreads& spreads, double tau);
/// Of what was struck: counted shots, club by club, as they fell into stints. No proof is foreseen.
Worth worthStruck(const record::Test& test, const record::Outcome& outcome, const Spreads& spreads, double tau);

} // namespace knot::plan
