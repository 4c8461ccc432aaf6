#pragma once

#include "core/judge/claim.h"
#include "core/judge/shots/shot_facts.h"
#include "core/plan/spreads.h"

#include <array>
#include <cstdint>
#include <string>
#include <variant>
#include <vector>

namespace knot::judge {

/// What luck alone would have given, under the schedule that was used.
struct ShuffleCheck {
    double p = 1;
    bool exact = true;
    std::uint64_t arrangements = 0; ///< counted when exact, else drawn
    double low = 0, high = 0;       ///< outer edges of the histogram, metric units
    std::vector<std::uint32_t> histogram;
};

/// How an estimate of a model was reached: a mixed model, rounds as blocks, stint by stint, or from
/// the slopes of two builds.
enum class ModelMethod { mixed, blocks, turns, slopes };

/// An estimate of a model of what else could explain a gap, with the method that gave it.
struct ModelEstimate {
    Metric metric = Metric::carry;
    BuildAt build, against; ///< where it is about a pair
    ModelMethod method = ModelMethod::mixed;
    std::string level; ///< of the second factor, for an interaction
    double value = 0, se = 0, df = 0, p = 1;
    Interval ci95;
};

/// The gap at equal covariates, and the part of the gap as struck that they explain.
struct EqualStrike {
    ModelEstimate equal, asStruck;
    double explained = 0;
    std::optional<Interval> explainedInterval; ///< by resampling rounds; five rounds or more
};

/// Yuen's trimmed t, the second opinion of a Welch comparison.
struct YuenTest {
    double gap = 0, t = 0, df = 0, p = 1;
};

/// The median of the differences by round with its exact sign-test interval, the second opinion
/// of a comparison by rounds.
struct MedianGap {
    double median = 0;
    std::optional<Interval> interval; ///< its level is what the sign test gives, 95 % or just above
};

/// The second opinion of a gap. It goes with how the gap was estimated and stands on the same shots.
using Opinion = std::variant<std::monostate, YuenTest, MedianGap>;

/// The gap in the worst fifth of the shots; rough, never a verdict. In carry the
/// 20 % quantile, in side the 80 % quantile of its size.
struct WorstFifth {
    double gap = 0;
    Interval ci95;
};

/// What a pooled gap is pooled over: parts are of a sitting, a player and a delivery at once.
enum class PooledOver { sittings, players, deliveries, parts, tests };

/// A declared gap over several sittings, players or deliveries (judgement §§11 and 22).
struct SittingsPooled {
    PooledOver over = PooledOver::sittings;
    double pooled = 0, se = 0, tau2 = 0, q = 0, qP = 1;
    Interval ci95;
    std::size_t sittings = 0, heldUp = 0;
};

/// A declared gap over tests that are the same on another day (judgement §11), the one in hand among them.
struct Repeated {
    Outcome outcome;
    BuildAt build, against;
    SittingsPooled pooled; ///< over tests
};

/// Two clubs that met in no test, by way of one that met both: of two independent gaps the sum, its standard error by
/// both, its degrees of freedom after Satterthwaite (1946). What else differed between the days is in it.
struct ByWay {
    Outcome outcome;
    BuildAt build; ///< in hand
    BuildAt via;   ///< in both
    std::string other;
    std::string test; ///< where that one was hit
    double gap = 0;   ///< `build` minus `other`
    Interval ci95;
};

/// How a gap was reached: from single shots, by laps, along a common line where the order was not rotated
/// (judgement §26), by laps at equal delivery, or by laps from what is typical of a stint (§25).
enum class GapMethod { welch, rounds, line, equal, typical };

/// What only some methods have to say of themselves.
struct GapDetails {
    std::optional<double> slopePerStint; ///< of the common line
    std::vector<double> slopes;          ///< at equal delivery: per unit of each covariate of the card, in its order
    double nu = 0;                       ///< degrees of freedom behind those
    std::optional<double> scale;         ///< of the typical shot: what a shot usually strays by
    std::optional<Share> mishitsBuild, mishitsAgainst; ///< shots that are far from typical, on the worse side
};

/// The gap between two builds: `build` minus `against`. Of their averages as struck, at equal delivery or of
/// the typical shot.
struct AverageGap {
    Metric metric = Metric::carry;
    record::OutcomeKind kind = record::OutcomeKind::average;
    BuildAt build, against;
    GapMethod method = GapMethod::welch;
    /// In the laps that hold both, one came before the other nearly always: laps do not take a drift out.
    bool sameOrder = false;
    GapDetails details;
    std::size_t rounds = 0; ///< rounds that hold both builds (every method by laps)
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
    Opinion opinion;
    /// Between the builds: per stint of their own, in the slope on the place in the stint, and in the
    /// loss per mm off the best strike.
    std::optional<ModelEstimate> adaptation, settling, forgiveness;
    std::optional<EqualStrike> equalStrike;
    std::optional<WorstFifth> worstFifth;
    std::optional<WorstFifth> longestFifth; ///< in carry: the 80 % quantile, how far the long misses go
    std::optional<SittingsPooled> pooled;   ///< over two sittings or more, where declared
};

inline constexpr int tooManyRounds = 60;
/// The worthwhile gap of a share of shots inside a shape.
inline constexpr double shareMargin = 0.10;

struct Summary {
    Metric metric = Metric::carry;
    BuildAt build;
    std::size_t n = 0, turns = 0;
    double mean = 0, median = 0, min = 0, max = 0, trimmedMean = 0, mad = 0;
    std::optional<double> sd, standardError, withinTurnSd;
    std::optional<Interval> ci95;
    bool intervalFromShots = false; ///< one turn only: the interval rests on shots
};

struct BuildCount {
    std::string name;
    std::string id; ///< of the club; empty where it has none
    std::size_t shots = 0, counted = 0, setAside = 0, warmUp = 0, turns = 0;
};

enum class Severity { note, caution, fault };

/// A fact about the record that a reader should know; `words::checks` says it. Which of these it has
/// hangs on its code.
struct Check {
    std::string code = {};
    Severity severity = Severity::note;
    std::size_t count = 0, of = 0;
    std::string what = {}; ///< a club, a metric, what differs, what was amended
    std::string at = {};   ///< when it was amended, or why it slipped
};

/// What a spread is: the average distance of shots from the middle of their stint, where both builds have
/// stints enough; else the SD inside stints (Bonett 2006).
enum class SpreadMethod { bonett, distance };

/// Bonett's ratio of two SDs, raw.
struct SdRatio {
    double ratio = 1;
    std::optional<double> logCentre, logSe, df;
    std::optional<Interval> ci95;
    std::optional<double> p, pWorthwhile, pSame;
};

/// The ratio of two builds' spreads in one metric, `build` over `against` (judgement §6 and §24).
struct SpreadRatio {
    Metric metric = Metric::carry;
    BuildAt build, against;
    SpreadMethod method = SpreadMethod::bonett;
    double ratio = 1, sdBuild = 0, sdAgainst = 0;  ///< SDs inside turns
    double distanceBuild = 0, distanceAgainst = 0; ///< average distances, where `method` is that
    std::optional<SdRatio> sds;                    ///< beside it then, as people know it
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
    BuildAt build;
    std::size_t n = 0;
    double centreSide = 0, centreCarry = 0; ///< m
    double area50 = 0, area90 = 0;          ///< m², contours that hold half and nine tenths
    double sdMajor = 0, sdMinor = 0;        ///< m
    double tilt = 0;                        ///< degrees of the long axis from the target line, + right
};

enum class CentreMethod { rounds, shots };

/// The ratio of two builds' landing areas inside turns, and whether their centres differ.
struct AreaRatio {
    BuildAt build, against;
    double ratio = 1, nuBuild = 0, nuAgainst = 0;
    std::optional<double> logSe, df, shuffleP;
    std::optional<Interval> ci95, ci90, shown;
    Claim claim;
    std::optional<CentreMethod> centreMethod;
    std::optional<double> hotellingT2, hotellingF, hotellingDf2, centreP;
};

struct Trend {
    ModelEstimate slope;                              ///< per unit of the factor
    std::optional<double> fitF, fitDf1, fitDf2, fitP; ///< lack of fit of the builds about the line
    std::optional<double> jonckheere, z, orderP;
};

/// Builds that no other beats, and the chances of being best (judgement §5, choosing).
struct BestOf {
    Outcome outcome;
    std::vector<BuildAt> set; ///< builds that may be best
    struct Choice {
        BuildAt build;
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
    BuildAt build;
    double chanceBest = 0;
};

/// What to expect of the gap between two builds, allowing for what a stint adds and for the best of several
/// always looking better than it is (judgement §14). Metric units.
struct BetOnPair {
    Metric metric = Metric::carry;
    BuildAt build, against;
    double ahead = 0.5; ///< the chance that the gap favours `build`; without a wanted direction that it is above 0
    double expected = 0, sd = 0;
    double low80 = 0, high80 = 0;
    /// The same where clubs differ, and stints move the player, half and twice as much as was assumed.
    struct Otherwise {
        double ahead = 0.5, expected = 0;
    } halved, doubled;
};

/// How often a build is the best of all in a metric, and what choosing it loses on average.
struct BestBet {
    Metric metric = Metric::carry;
    BuildAt build;
    double chance = 0, loss = 0;
};

/// Of what moves a metric from shot to shot, the share of each group of causes, by the cause's key; the
/// club is `build`. Shares may be below 0.
struct WhoseDoing {
    Metric metric = Metric::carry;
    std::size_t n = 0;
    struct Part {
        std::string cause;
        double share = 0;
        std::optional<Interval> ci95; ///< rough, by resampling stints; from five laps, of what was declared
    };
    std::vector<Part> shares;
    double rest = 0;
    std::vector<Metric> leftOut = {}; ///< causes that are missing in more than a third of the shots
};

/// Whether something was delivered alike by two builds (judgement §15).
struct SameSwing {
    enum class Verdict { same, differs, open } verdict = Verdict::open;
    Metric metric = Metric::clubSpeed;
    BuildAt build, against;
    double gap = 0;
    std::optional<Interval> ci90;
    bool asSeen = false; ///< it can't be judged here: said as it was seen
};

/// Guesses of which build was which, against luck (judgement §8, blinding).
struct GuessScore {
    std::size_t right = 0, tries = 0, builds = 0;
    double p = 1;          ///< the chance of at least as many right by luck
    bool matching = false; ///< each build named once; else stint by stint
};

/// A shot that was set aside after its number was seen, or after the reveal.
struct LateSetAside {
    record::ShotId shot = record::ShotId::none;
    std::size_t number = 0; ///< of the shot in the record, from 1
    BuildAt build;
    record::SetAsideWhen when = record::SetAsideWhen::afterNumber;
};

/// How much a build loses per mm away from its own best strike point.
struct Forgiveness {
    Metric metric = Metric::ballSpeed;
    BuildAt build;
    double lossPerMm = 0, se = 0, df = 0;
    Interval ci95;
};

/// The share of a build's shots inside a shape, counted and under the fitted bivariate normal.
struct ShapeShare {
    std::string shape;
    BuildAt build;
    Share counted;
    std::optional<double> fitted;
};

/// The gap between two builds' shares inside a shape: a paired t on hit proportions by round.
struct ShareGap {
    std::string shape;
    AverageGap gap; ///< in shares, 0 to 1; its metric has no meaning
};

enum class AgainstTarget { inside, below, above, open };

/// A build's mean and shots against a wanted value or window.
struct TargetResult {
    Metric metric = Metric::carry;
    BuildAt build;
    AgainstTarget verdict = AgainstTarget::open;
    Share share;
};

/// Everything the program says about a test. Complete and self-describing: builds are named in
/// `builds`, every row refers to them by index.
struct Reading {
    BuildAt baseline;
    record::Card card; ///< with every default filled in
    std::vector<BuildCount> builds;
    std::vector<Metric> metrics;
    std::vector<Summary> summary;
    std::vector<AverageGap> average;
    std::vector<SpreadRatio> consistency;
    std::vector<BrownForsythe> brownForsythe;
    std::vector<LandingArea> landing;
    std::vector<AreaRatio> areas;
    std::vector<ModelEstimate> drift, settling, interaction;
    std::vector<ModelEstimate> lateInTurn; ///< per build: second half of a stint minus the first
    std::vector<Trend> trend;
    std::vector<Share> setAsideShares; ///< by build
    std::vector<BestOf> best;
    std::vector<PriorityChoice> byPriority; ///< with two declared outcomes or more
    std::vector<BetOnPair> bets;
    std::vector<BestBet> bestBets;
    plan::Level steadiness = plan::Level::club; ///< whose usual stints the bets rest on
    std::vector<Metric> ownStints = {};         ///< metrics whose bets rest on the player's own
    std::optional<double> bagStep = {};         ///< m between clubs of the player's own bag about the baseline's carry
    std::vector<Metric> ownGaps = {};           ///< and on how far clubs lay apart in earlier tests of the kind
    std::vector<WhoseDoing> whoseDoing;
    std::vector<SameSwing> sameSwing;
    std::vector<PartsOfGap> parts;
    std::vector<Unread> unread;
    std::vector<Called> called;
    std::vector<CalledGap> calledGaps;
    std::optional<CallAgreement> callAgreement;
    std::vector<Misses> misses;
    std::vector<Beats> beats;
    std::vector<TenShots> tenShots;
    std::vector<FeelLikeness> feelLikeness;
    std::vector<FeelGap> feelGaps;
    std::vector<FeelRank> feelRanks;
    std::vector<VersusCount> versus;
    std::vector<Expected> expected;
    std::optional<ExpectedOrder> expectedOrder;
    std::vector<UsualNumber> usual;
    std::vector<UsualBet> usualBets;
    std::vector<Repeated> repeated;
    std::vector<ByWay> byWay;
    std::optional<GuessScore> guesses;
    std::vector<LateSetAside> lateSetAsides;
    std::vector<record::Amendment> amendments;
    std::vector<Forgiveness> forgiveness;
    std::vector<TargetResult> targets;
    std::vector<ShapeShare> shapeShares;
    std::vector<ShareGap> shareGaps;
    /// What a spread of ball speed of 1 m/s means in carry, m, by the player's own shots inside turns.
    std::optional<double> carryPerBallSpeed;
    std::vector<std::vector<Outcome>> findings; ///< outcomes that tell one story
    std::vector<Check> checks;
    std::size_t clubs = 0; ///< that the record has: a changed one is one
    std::size_t rounds = 0, sittings = 0;
    /// What replaces α: the level of this look, or α itself. 0 before the first look.
    double level = 0.05;
    /// Rounds with every build among those planned, and rounds struck beyond the plan (not judged).
    std::size_t roundsDone = 0, roundsBeyond = 0;
    /// Whether verdicts stand on every read shot, since the card's rule looks at numbers.
    bool fromAllRead = false;
    /// Declared outcomes × comparisons: the size of the declared family.
    std::size_t declared = 0;

    const Summary* summaryOf(Metric metric, BuildAt build) const;
    const AverageGap* averageOf(Metric metric, BuildAt build, BuildAt against) const;
};

const char* key(GapMethod method);
const char* key(PooledOver over);
const char* key(Severity severity);
const char* key(ModelMethod method);
const char* key(AgainstTarget verdict);

} // namespace knot::judge
