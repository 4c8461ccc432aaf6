#pragma once

#include "core/record/test.h"

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace knot::judge {

using record::Metric;
using record::Outcome;

struct Interval {
    double low = 0, high = 0;
    double level = 0.95;
    bool contains(double value) const { return low <= value && value <= high; }
};

enum class Verdict { real, slight, same, realSizeOpen, open, uncontrolled };
enum class Favours { better, worse, different };
enum class Role { primary, exploratory, explanation };
/// Why a verdict is held back (judgement §5 and §13).
enum class Cap { oneTurnEach, separatedTurns, tooFewShots, tooFewRounds, noVariation };

/// The three p's of a claim before and after its family, and what follows from them. A missing p
/// means that the data do not give one; `cap` then says why.
struct Claim {
    Role role = Role::exploratory;
    std::optional<double> p, pWorthwhile, pSame;
    std::optional<double> pAdjusted, pWorthwhileAdjusted, pSameAdjusted;
    Verdict verdict = Verdict::open;
    std::optional<Favours> favours;
    std::optional<Cap> cap;
};

/// What luck alone would have given, under the schedule that was used.
struct ShuffleCheck {
    double p = 1;
    bool exact = true;
    std::uint64_t arrangements = 0; ///< counted when exact, else drawn
    double low = 0, high = 0;       ///< outer edges of the histogram, metric units
    std::vector<std::uint32_t> histogram;
};

enum class GapMethod { welch, rounds };

/// The gap between the averages of two builds: `build` minus `against`.
struct AverageGap {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0;
    GapMethod method = GapMethod::welch;
    std::size_t rounds = 0; ///< rounds that hold both builds (method `rounds`)
    std::size_t shotsBuild = 0, shotsAgainst = 0;
    double gap = 0;
    std::optional<double> se, df;
    std::optional<Interval> ci95, ci90;
    std::optional<double> varTurn, varShot; ///< REML, describing only
    std::optional<ShuffleCheck> shuffle;
    Claim claim;
    std::optional<double> bound; ///< for `open`: the largest gap of the 95 % interval
    /// For `open` and `real_size_open`: rounds still to strike. Above `tooManyRounds`: more than
    /// can be hit.
    std::optional<int> furtherRounds;
    double margin = 0;
};

inline constexpr int tooManyRounds = 60;

struct Summary {
    Metric metric = Metric::carry;
    std::size_t build = 0;
    std::size_t n = 0, turns = 0;
    double mean = 0, median = 0, min = 0, max = 0, trimmedMean = 0, mad = 0;
    std::optional<double> sd, standardError, withinTurnSd;
    std::optional<Interval> ci95;
    bool intervalFromShots = false; ///< one turn only: the interval rests on shots
};

struct BuildCount {
    std::string name;
    std::size_t shots = 0, counted = 0, setAside = 0, warmUp = 0, turns = 0;
};

enum class Severity { note, caution, fault };

/// Something about the record that a reader should know, for one sentence on the page.
struct Check {
    std::string code;
    Severity severity = Severity::note;
    std::string text;
};

/// Everything the program says about a test. Complete and self-describing: builds are named in
/// `builds`, every row refers to them by index.
struct Reading {
    std::size_t baseline = 0;
    record::Card card; ///< with every default filled in
    std::vector<BuildCount> builds;
    std::vector<Metric> metrics;
    std::vector<Summary> summary;
    std::vector<AverageGap> average;
    std::vector<Check> checks;
    std::size_t rounds = 0, sittings = 0;

    const Summary* summaryOf(Metric metric, std::size_t build) const;
    const AverageGap* averageOf(Metric metric, std::size_t build, std::size_t against) const;
};

const char* key(Verdict verdict);
const char* key(Favours favours);
const char* key(Role role);
const char* key(Cap cap);
const char* key(GapMethod method);
const char* key(Severity severity);

} // namespace knot::judge
