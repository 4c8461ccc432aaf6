#pragma once

#include "core/judge/bets/facts.h"
#include "core/judge/causes/facts.h"
#include "core/judge/said/facts.h"
#include "core/judge/shots/facts.h"
#include "core/judge/spreads/facts.h"
#include "core/plan/spreads.h"
#include "core/rack/club_kind.h"

namespace knot::judge {

struct BuildCount {
    std::string name;
    std::string id; ///< of the club; empty where it has none
    std::size_t shots = 0, counted = 0, setAside = 0, warmUp = 0, turns = 0;
};

template<class To> void tell(To& to, const BuildCount& of) {
    to("build", of.name);
    to("shots", of.shots);
    to("counted", of.counted);
    to("set_aside", of.setAside);
    to("warm_up", of.warmUp);
    to("turns", of.turns);
}

/// What the clubs are, as far as it is known: for windows, norms and models, never for a verdict.
struct KindRead {
    std::string kind = {}; ///< "7-iron"; empty: unknown, or clubs of several kinds
    rack::ToldBy by = rack::ToldBy::nobody;
    double chance = 0;  ///< of that kind of head
    bool areOne = true; ///< false: driver and iron are no rivals
};

template<class To> void tell(To& to, const KindRead& of) {
    to("kind", of.kind);
    to("told_by",
       std::string(std::array{"person", "parts", "name", "shots", "nobody"}[static_cast<std::size_t>(of.by)]));
    to("chance", of.chance);
    to("one_kind", of.areOne);
}

enum class Severity { note, caution, fault };

inline const char* key(Severity severity) {
    return std::array{"note", "caution", "fault"}[static_cast<std::size_t>(severity)];
}

/// A fact about the record that a reader should know; `words::checks` says it. Which of these it has
/// hangs on its code.
struct Check {
    std::string code = {};
    Severity severity = Severity::note;
    std::size_t count = 0, of = 0;
    std::string what = {}; ///< a club, a metric, what differs, what was amended
    std::string at = {};   ///< when it was amended, or why it slipped
};

struct OfSetting;

/// Everything the program says about a test. Complete and self-describing: builds are named in
/// `builds`, every row refers to them by index.
struct Reading {
    BuildAt baseline;
    record::Card card; ///< with every default filled in
    std::vector<BuildCount> builds;
    KindRead kind = {};
    std::vector<Metric> metrics;
    std::vector<Summary> summary;
    std::vector<AverageGap> average;
    std::vector<SpreadRatio> consistency;
    std::vector<BrownForsythe> brownForsythe;
    std::vector<LandingArea> landing;
    std::vector<AreaRatio> areas;
    std::vector<ModelEstimate> drift, settling;
    std::vector<ModelEstimate> interaction, interactionInLaps; ///< without and with laps as blocks; the latter is said
    std::vector<ModelEstimate> lateInTurn;                     ///< per build: second half of a stint minus the first
    std::vector<Trend> trend;
    std::vector<Share> setAsideShares; ///< by build
    std::vector<BestOf> best;
    std::vector<PriorityChoice> byPriority; ///< with two declared outcomes or more
    std::vector<BetOnPair> bets;
    std::vector<BestBet> bestBets;
    /// Metrics of which no two clubs met in two laps; their bets above know where in the player's warming up each
    /// run lay and that neighbouring shots are alike (judgement §34). As §14 has them, runs taken for stints:
    std::vector<Metric> singleRuns = {};
    std::vector<FurtherBet> furtherBets;
    std::vector<Again> again; ///< of the same metrics
    std::vector<BetOnPair> betsAsStints;
    std::vector<BestBet> bestBetsAsStints;
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
    Interval carryPerBallSpeedWithin; ///< 95 %, of the slope inside stints
    std::optional<WeightOrder> weightOrder;
    std::vector<std::vector<Outcome>> findings; ///< outcomes that tell one story
    std::vector<Check> checks;
    /// Where several players hit, or with several deliveries: what is said of shots, of each (judgement §22). The gaps
    /// in them are parts of this reading's and claim nothing.
    std::vector<OfSetting> bySetting;
    std::size_t clubs = 0; ///< that the record has: a changed one is one
    std::size_t rounds = 0, sittings = 0;
    /// What replaces α: the level of this look, or α itself. 0 before the first look.
    double level = 0.05;
    /// Rounds with every build among those planned, and rounds struck beyond the plan (not judged).
    std::size_t roundsDone = 0, roundsBeyond = 0;
    /// Whether verdicts stand on every read shot, since the card's rule looks at numbers.
    bool fromAllRead = false;
    /// Declared outcomes × comparisons: the size of the declared family. Where that is all pairs in one outcome, of how
    /// many builds.
    std::size_t declared = 0, allPairsOf = 0;

    const Summary* summaryOf(Metric metric, BuildAt build) const;
    const AverageGap* averageOf(Metric metric, BuildAt build, BuildAt against) const;
};

/// One player's or one delivery's share of a reading.
struct OfSetting {
    std::string name; ///< "Runa", "high", "Runa, high"
    Reading reading;
};

} // namespace knot::judge
