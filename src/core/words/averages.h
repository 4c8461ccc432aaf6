#pragma once

#include "core/judge/reading.h"
#include "core/record/units.h"

#include <optional>
#include <string>
#include <vector>

namespace knot::words {

/// Clubs that were gone back to in one number, as goes of one club: again, or before and after a change with its words.
std::vector<std::string> againText(const judge::Reading& reading, judge::Metric metric,
                                   const record::DisplayUnits& units);

/// A chance above which nobody asks for more.
inline constexpr double sure = 0.99;

/// A chance as times in 100: "83", "more than 99", "less than 1".
std::string timesIn100(double chance);

/// What clubs are ranked by in a number: what is wanted of it; of what goes to either side, without a wish, how near it
/// lies to the line.
record::Want rankedBy(const judge::Reading& reading, judge::Metric metric);

/// What people look at first: a line for each declared average and for ball speed, launch, spin, carry and side,
/// the clubs ranked by what is wanted: "Carry: Briar 153.2 m (5 shots, ± 3.1), Alder 145.1 m (5 shots, ± 5.0)".
std::vector<std::string> averages(const judge::Reading& reading, const record::DisplayUnits& units);

/// One run with each club, as far as it can be read: what may be expected of the number that people look at first.
struct OneRun {
    std::string opening; ///< that nothing in it is a finding
    judge::Metric metric = judge::Metric::carry;
    std::vector<judge::BetOnPair> bets; ///< of that number, likeliest first
    std::vector<std::string> others;    ///< bets on the other declared numbers
    std::vector<std::string> again;     ///< of clubs that were gone back to
    std::vector<std::string> swing;     ///< whether it was delivered alike, as seen
    std::string fairTest;               ///< what would make it a finding
    std::vector<judge::BuildAt> pair;   ///< the two of that test
};
/// Nothing where two clubs met in two laps, one club alone was hit, or nothing was read.
std::optional<OneRun> oneRun(const judge::Reading& reading, const record::DisplayUnits& units);

/// A record of one run with each club, as it can be read: that nothing in it is a finding, the bets, whether the
/// swing looked the same, and what would make it a finding. Empty where two clubs met in two laps, or one club alone
/// was hit.
std::vector<std::string> oneRunEach(const judge::Reading& reading, const record::DisplayUnits& units);

} // namespace knot::words
