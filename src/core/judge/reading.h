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
enum class Cap { oneTurnEach, separatedTurns, tooFewShots, tooFewRounds, noVariation, markBetween, beforeFirstLook };

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
    std::optional<Interval> shown; ///< the one to show: 1 − α, or 1 − 2α for `same` and `slight`, at the look's level
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
/// The worthwhile gap of a share of shots inside a shape.
inline constexpr double shareMargin = 0.10;

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

/// The ratio of two builds' spreads in one metric, `build` over `against` (judgement §6).
struct SpreadRatio {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0;
    double ratio = 1, sdBuild = 0, sdAgainst = 0; ///< SDs inside turns
    double nuBuild = 0, nuAgainst = 0;
    std::optional<double> logCentre, logSe, df;
    std::optional<Interval> ci95, ci90, shown; ///< of the ratio
    Claim claim;
    std::optional<double> bound; ///< for `open`: the farthest ratio of the 95 % interval
    bool shapesDiffer = false;   ///< the builds' shots have visibly different shapes
};

/// Brown and Forsythe's test over all builds; a second opinion that ignores turns.
struct BrownForsythe {
    Metric metric = Metric::carry;
    double f = 0, df1 = 0, df2 = 0, p = 1;
};

/// Where the shots of a build came down: what was seen.
struct LandingArea {
    std::size_t build = 0, n = 0;
    double centreSide = 0, centreCarry = 0; ///< m
    double area50 = 0, area90 = 0;          ///< m², contours that hold half and nine tenths
    double sdMajor = 0, sdMinor = 0;        ///< m
    double tilt = 0;                        ///< degrees of the long axis from the target line, + right
};

enum class CentreMethod { rounds, shots };

/// The ratio of two builds' landing areas inside turns, and whether their centres differ.
struct AreaRatio {
    std::size_t build = 0, against = 0;
    double ratio = 1, nuBuild = 0, nuAgainst = 0;
    std::optional<double> logSe, df, shuffleP;
    std::optional<Interval> ci95, ci90, shown;
    Claim claim;
    std::optional<CentreMethod> centreMethod;
    std::optional<double> hotellingT2, hotellingF, hotellingDf2, centreP;
};

/// A share with its interval, counted over turns.
struct Share {
    std::size_t hits = 0, n = 0, turns = 0;
    double share = 0, icc = 0, deff = 1, effective = 0;
    Interval ci95;
};

/// An estimate of a model of what else could explain a gap, with the method that gave it.
struct ModelEstimate {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0; ///< where it is about a pair
    std::string method, level;          ///< `level`: of the second factor, for an interaction
    double value = 0, se = 0, df = 0, p = 1;
    Interval ci95;
};

/// The gap at equal covariates, and the part of the gap as struck that they explain.
struct EqualStrike {
    ModelEstimate equal, asStruck;
    double explained = 0;
    std::optional<Interval> explainedInterval; ///< by resampling rounds; five rounds or more
};

struct Trend {
    ModelEstimate slope;                              ///< per unit of the factor
    std::optional<double> fitF, fitDf1, fitDf2, fitP; ///< lack of fit of the builds about the line
    std::optional<double> jonckheere, z, orderP;
};

/// Yuen's trimmed t, the second opinion of a Welch comparison.
struct YuenTest {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0;
    double gap = 0, t = 0, df = 0, p = 1;
};

/// The median of the differences by round with its exact sign-test interval, the second opinion
/// of a comparison by rounds.
struct MedianGap {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0;
    double median = 0;
    std::optional<Interval> interval; ///< its level is what the sign test gives, 95 % or just above
};

/// A verdict that one shot's removal changes.
struct Influence {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0, shot = 0;
    Verdict without = Verdict::open;
};

/// A verdict on all read shots where set-asides change it.
struct SetAsideEffect {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0;
    double gapAllRead = 0;
    Verdict allRead = Verdict::open;
    bool changes = false;
};

/// Builds that no other beats, and the chances of being best (judgement §5, choosing).
struct BestOf {
    Outcome outcome;
    std::vector<std::size_t> set; ///< builds that may be best
    struct Choice {
        std::size_t build = 0;
        double chanceBest = 0, meanLoss = 0;
    };
    /// A loss is in the outcome's own unit; for a spread or an area it is how much larger, as a share.
    std::vector<Choice> choosing;
    /// Mean loss of the choice that would be made now, and after further laps (simulated).
    double lossNow = 0, lossAfter = 0;
    int furtherLaps = 5;
};

/// How often each build comes first by the card's priorities in their order: builds within the
/// worthwhile gap of the best stay in for the next one (judgement §5, choosing).
struct PriorityChoice {
    std::size_t build = 0;
    double chanceBest = 0;
};

/// Guesses of which build was which, against luck (judgement §8, blinding).
struct GuessScore {
    std::size_t right = 0, tries = 0, builds = 0;
    double p = 1;          ///< the chance of at least as many right by luck
    bool matching = false; ///< each build named once; else stint by stint
};

/// A shot that was set aside after its number was seen, or after the reveal.
struct LateSetAside {
    std::size_t shot = 0, build = 0;
    record::SetAsideWhen when = record::SetAsideWhen::afterNumber;
};

/// How much a build loses per mm away from its own best strike point.
struct Forgiveness {
    Metric metric = Metric::ballSpeed;
    std::size_t build = 0;
    double lossPerMm = 0, se = 0, df = 0;
    Interval ci95;
};

/// The gap in the worst fifth of the shots; rough, never a verdict.
struct WorstFifth {
    Metric metric = Metric::carry; ///< carry: the 20 % quantile; side: the 80 % quantile of its size
    std::size_t build = 0, against = 0;
    double gap = 0;
    Interval ci95;
};

/// The share of a build's shots inside a shape, counted and under the fitted bivariate normal.
struct ShapeShare {
    std::string shape;
    std::size_t build = 0;
    Share counted;
    std::optional<double> fitted;
};

/// The gap between two builds' shares inside a shape: a paired t on hit proportions by round.
struct ShareGap {
    std::string shape;
    AverageGap gap; ///< in shares, 0 to 1; its metric has no meaning
};

/// A declared gap over several sittings.
struct SittingsPooled {
    Metric metric = Metric::carry;
    std::size_t build = 0, against = 0;
    double pooled = 0, se = 0, tau2 = 0, q = 0, qP = 1;
    Interval ci95;
    std::size_t sittings = 0, heldUp = 0;
};

/// A build's mean and shots against a wanted value or window.
struct TargetResult {
    Metric metric = Metric::carry;
    std::size_t build = 0;
    std::string verdict; ///< inside, below, above, open
    Share share;
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
    std::vector<SpreadRatio> consistency;
    std::vector<BrownForsythe> brownForsythe;
    std::vector<LandingArea> landing;
    std::vector<AreaRatio> areas;
    std::vector<YuenTest> yuen;
    std::vector<MedianGap> medianGaps;
    std::vector<ModelEstimate> drift, adaptation, settling, interaction;
    std::vector<ModelEstimate> settlingGaps;    ///< between builds, in the slope on the place in the stint
    std::vector<ModelEstimate> lateInTurn;      ///< per build: second half of a stint minus the first
    std::vector<ModelEstimate> forgivenessGaps; ///< between builds, in the loss per mm
    std::vector<EqualStrike> equalStrike;
    std::vector<Trend> trend;
    std::vector<Influence> influence;
    std::vector<SetAsideEffect> setAsides;
    std::vector<Share> setAsideShares; ///< by build
    std::vector<BestOf> best;
    std::vector<PriorityChoice> byPriority; ///< with two declared outcomes or more
    std::optional<GuessScore> guesses;
    std::vector<LateSetAside> lateSetAsides;
    std::vector<record::Amendment> amendments;
    std::vector<Forgiveness> forgiveness;
    std::vector<WorstFifth> worstFifth;
    std::vector<TargetResult> targets;
    std::vector<ShapeShare> shapeShares;
    std::vector<ShareGap> shareGaps;
    std::vector<SittingsPooled> pooled;
    /// What a spread of ball speed of 1 m/s means in carry, m, by the player's own shots inside turns.
    std::optional<double> carryPerBallSpeed;
    std::vector<std::vector<Outcome>> findings; ///< outcomes that tell one story
    std::vector<Check> checks;
    std::size_t rounds = 0, sittings = 0;
    /// What replaces α: the level of this look, or α itself. 0 before the first look.
    double level = 0.05;
    /// Rounds with every build among those planned, and rounds struck beyond the plan (not judged).
    std::size_t roundsDone = 0, roundsBeyond = 0;
    /// Declared outcomes × comparisons: the size of the declared family.
    std::size_t declared = 0;

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
