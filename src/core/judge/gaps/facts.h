#pragma once

#include "core/judge/days/facts.h"

#include <array>
#include <cstdint>
#include <string>
#include <variant>

// Gaps of averages, and what stands beside them.
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

inline const char* key(ModelMethod method) {
    return std::array{"mixed", "blocks", "turns", "slopes"}[static_cast<std::size_t>(method)];
}

/// An estimate of a model of what else could explain a gap, with the method that gave it.
struct ModelEstimate {
    Metric metric = Metric::carry;
    BuildAt build, against; ///< where it is about a pair
    ModelMethod method = ModelMethod::mixed;
    std::string level; ///< of the second factor, for an interaction
    double value = 0, se = 0, df = 0, p = 1;
    Interval ci95;
};

/// The estimate itself, under the name that it has where it stands.
template<class To> void tellModel(To& to, const ModelEstimate& of, const char* name) {
    to("method", of.method);
    to(name, of.value, ofMetric);
    to("se", of.se, ofMetric);
    to("df", of.df);
    to("p", of.p);
    to("ci95", of.ci95, ofMetric);
}
template<class To> void tell(To& to, const ModelEstimate& of) {
    to("metric", of.metric);
    to("build", of.build);
    if (of.against != of.build)
        to("against", of.against);
    tellModel(to, of, "estimate");
}

/// The gap at equal covariates, and the part of the gap as struck that they explain.
struct EqualStrike {
    ModelEstimate equal, asStruck;
    std::size_t n = 0; ///< shots with all covariates
    double explained = 0;
    std::optional<Interval> explainedInterval; ///< by resampling rounds; five rounds or more
};

template<class To> void tell(To& to, const EqualStrike& of) {
    tellModel(to, of.equal, "estimate");
    to("n", of.n);
    to("as_struck", of.asStruck.value, ofMetric);
    to("explained", of.explained, ofMetric);
    to("explained_ci95", of.explainedInterval, ofMetric);
}

/// Yuen's trimmed t, the second opinion of a Welch comparison.
struct YuenTest {
    double gap = 0, t = 0, df = 0, p = 1;
};

template<class To> void tell(To& to, const YuenTest& of) {
    to("gap", of.gap, ofMetric);
    to("t", of.t);
    to("df", of.df);
    to("p", of.p);
}

/// The median of the differences by round with its exact sign-test interval, the second opinion
/// of a comparison by rounds.
struct MedianGap {
    double median = 0;
    std::optional<Interval> interval; ///< its level is what the sign test gives, 95 % or just above
};

template<class To> void tell(To& to, const MedianGap& of) {
    to("median", of.median, ofMetric);
    if (of.interval) {
        to("interval", of.interval, ofMetric);
        to("level", of.interval->level);
    }
}

/// The second opinion of a gap. It goes with how the gap was estimated and stands on the same shots.
using Opinion = std::variant<std::monostate, YuenTest, MedianGap>;

/// The gap in the worst fifth of the shots; rough, never a verdict. In carry the
/// 20 % quantile, in side the 80 % quantile of its size.
struct WorstFifth {
    double gap = 0;
    Interval ci95; ///< whole stints resampled, widened for few of them
    double p = 1;  ///< of t with that width, on the fewer stints − 1
};

/// How a gap was reached: from single shots, by laps, along a common line where the order was not rotated
/// (judgement §26), by laps at equal delivery, by laps from what is typical of a stint (§25), or by sittings that
/// disagree (§34).
enum class GapMethod { welch, rounds, line, equal, typical, days };

inline const char* key(GapMethod method) {
    return std::array{"welch", "rounds", "line", "equal", "typical", "days"}[static_cast<std::size_t>(method)];
}

/// What only some methods have to say of themselves.
struct GapDetails {
    std::optional<double> slopePerStint; ///< of the common line
    std::vector<double> slopes;          ///< at equal delivery: per unit of each covariate of the card, in its order
    double nu = 0;                       ///< degrees of freedom behind those
    std::optional<double> slopesDifferP; ///< how often luck alone parts the two builds' own slopes as far (F)
    std::optional<double> scale;         ///< of the typical shot: what a shot usually strays by
    std::optional<Share> mishitsBuild, mishitsAgainst; ///< shots that are far from typical, on the worse side
};

template<class To> void tell(To& to, const GapDetails& of) {
    to("slope_per_stint", of.slopePerStint, ofMetric);
    if (!of.slopes.empty()) {
        to("slopes", of.slopes);
        to("nu", of.nu);
        to("slopes_differ_p", of.slopesDifferP);
    }
    to("scale", of.scale, ofMetric);
    const auto share = [&](const char* name, const std::optional<Share>& one) {
        if (one)
            to.object(name, [&](auto& row) {
                row("share", one->share);
                row("n", one->n);
                row("ci95", one->ci95);
            });
    };
    share("mishits_build", of.mishitsBuild);
    share("mishits_against", of.mishitsAgainst);
}

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

/// What a row of averages tells of the gap itself; of shares under what they are of.
template<class To> void tellGap(To& to, const AverageGap& of) {
    if (of.kind != record::OutcomeKind::average)
        to("outcome", Outcome{.kind = of.kind, .metric = of.metric, .shape = {}});
    to("method", of.method);
    if (of.rounds > 0)
        to("rounds", of.rounds);
    if (of.sameOrder)
        to("same_order", true);
    tell(to, of.details);
    to("gap", of.gap, ofMetric);
    to("se", of.se, ofMetric);
    to("df", of.df);
    to("ci95", of.ci95, ofMetric);
    to("ci90", of.ci90, ofMetric);
    to("shown", of.shown, ofMetric);
    to("var_turn", of.varTurn, "its square");
    to("var_shot", of.varShot, "its square");
    tell(to, of.claim);
    if (of.shuffle) {
        to("shuffle_p", of.shuffle->p);
        to("shuffle_exact", of.shuffle->exact);
    }
    to("bound", of.bound, ofMetric);
    to("further_rounds", of.furtherRounds);
}
template<class To> void tell(To& to, const AverageGap& of) {
    tellPair(to, of);
    tellGap(to, of);
}

inline constexpr int tooManyRounds = 60;

struct Summary {
    Metric metric = Metric::carry;
    BuildAt build;
    std::size_t n = 0, turns = 0;
    double mean = 0, median = 0, min = 0, max = 0, trimmedMean = 0, mad = 0;
    std::optional<double> sd, standardError, withinTurnSd;
    std::optional<Interval> ci95;
    bool intervalFromShots = false;       ///< one turn only: the interval rests on shots
    std::size_t minShot = 0, maxShot = 0; ///< which shots those were, by their number in the record, from 1
};

template<class To> void tell(To& to, const Summary& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("n", of.n);
    to("turns", of.turns);
    to("mean", of.mean, ofMetric);
    to("sd", of.sd, ofMetric);
    to("se", of.standardError, ofMetric);
    to("median", of.median, ofMetric);
    to("mad", of.mad, ofMetric);
    to("min", of.min, ofMetric);
    to("max", of.max, ofMetric);
    to("min_shot", of.minShot);
    to("max_shot", of.maxShot);
    to("trimmed_mean", of.trimmedMean, ofMetric);
    to("ci95", of.ci95, ofMetric);
    to("ci_from", std::string(of.intervalFromShots ? "shots" : "turns"));
    to("within_turn_sd", of.withinTurnSd, ofMetric);
}

} // namespace knot::judge
