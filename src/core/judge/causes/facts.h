#pragma once

#include "core/judge/gaps/facts.h"

#include <algorithm>

// Where gaps may come from.
namespace knot::judge {

/// Of how many numbers the clubs' averages go in the order of their weights, up or down, and how often luck does as
/// well (clubs dealt to weights in every way).
struct WeightOrder {
    std::size_t numbers = 0, of = 0;
    double p = 1;
};

template<class To> void tell(To& to, const WeightOrder& of) {
    to("numbers", of.numbers);
    to("of", of.of);
    to("p", of.p);
}

/// The metric along a number.
struct Trend {
    ModelEstimate slope;                              ///< per unit of the factor
    std::optional<double> fitF, fitDf1, fitDf2, fitP; ///< lack of fit of the builds about the line
    std::optional<double> jonckheere, z, orderP;
    double low = 0, high = 0; ///< of two neighbours that were tested, those farthest apart
};

/// The line; whether clubs keep their order along it stands beside it.
template<class To> void tell(To& to, const Trend& of) {
    tellModel(to, of.slope, "slope");
    to("widest_step", std::vector{of.low, of.high});
    if (of.fitF)
        to.object("lack_of_fit", [&](auto& row) {
            row("F", of.fitF);
            row("df", std::vector{*of.fitDf1, *of.fitDf2});
            row("p", of.fitP);
        });
}

/// Of what moves a metric from shot to shot, the share of each group of causes, by the cause's key; the
/// club is `build`. Shares may be below 0.
struct WhoseDoing {
    Metric metric = Metric::carry;
    std::size_t n = 0;
    struct Part {
        std::string cause;
        double share = 0;
        std::optional<Interval> ci95; ///< rough, by resampling laps; from five laps, of what was declared
    };
    std::vector<Part> shares;
    double rest = 0;
    std::vector<Metric> leftOut = {}; ///< causes that are missing in more than a third of the shots
};

template<class To> void tell(To& to, const WhoseDoing& of) {
    to("metric", of.metric);
    to("n", of.n);
    if (!of.shares.empty())
        to.object("shares", [&](auto& row) {
            for (const auto& part : of.shares)
                row(part.cause.c_str(), part.share);
        });
    if (std::ranges::any_of(of.shares, [](const auto& part) { return part.ci95.has_value(); }))
        to.object("shares_ci95", [&](auto& row) {
            for (const auto& part : of.shares)
                row(part.cause.c_str(), part.ci95);
        });
    to("rest", of.rest);
    if (!of.leftOut.empty())
        to("left_out", of.leftOut);
}

/// Whether something was delivered alike by two builds (judgement §15).
struct SameSwing {
    enum class Verdict { same, differs, open } verdict = Verdict::open;
    Metric metric = Metric::clubSpeed;
    BuildAt build, against;
    double gap = 0; ///< less what is built in
    std::optional<Interval> ci90;
    std::optional<double> p; ///< that it is none, before its group
    bool asSeen = false;     ///< it can't be judged here: said as it was seen
    /// What a difference may be put down to: where the order was drawn the club, by way of the swing, and where the
    /// player knew the clubs that too; else the club or the moment.
    enum class Doing { club, clubOrKnowing, clubOrMoment, asSeen } doing = Doing::asSeen;
    std::optional<double> builtIn = {}; ///< what the clubs' own lofts or faces differ by, where they do
};

inline const char* key(SameSwing::Verdict verdict) {
    return std::array{"same", "differs", "open"}[static_cast<std::size_t>(verdict)];
}
inline const char* key(SameSwing::Doing doing) {
    return std::array{"club", "club_or_knowing", "club_or_moment", "as_seen"}[static_cast<std::size_t>(doing)];
}
template<class To> void tell(To& to, const SameSwing& of) {
    tellPair(to, of);
    to("verdict", of.verdict);
    to("gap", of.gap, ofMetric);
    to("ci90", of.ci90, ofMetric);
    to("p", of.p);
    to("built_in", of.builtIn, ofMetric);
    to("doing", of.doing);
    if (of.asSeen)
        to("as_seen", true);
}

/// Where a gap in what the ball did comes from, by the models of flight: what each input adds when it goes from
/// one build's mean to the other's (judgement §17). The parts and the rest make the measured gap exactly.
struct PartsOfGap {
    Metric metric = Metric::carry;
    BuildAt build, against;
    struct Part {
        std::string input; ///< club_speed, efficiency, ball_speed, launch, spin or direction
        double value = 0;
        std::optional<Interval> ci95; ///< by resampling laps, from five on
    };
    std::size_t n = 0; ///< shots that have all of it
    std::vector<Part> parts;
    double rest = 0, measured = 0, modelled = 0;
    std::optional<Interval> restInterval;
    /// What the difference of the heads' static lofts alone would do, by the impact model.
    struct OfLoft {
        double loft = 0; ///< degrees, build − against
        double launch = 0, spin = 0, ballSpeed = 0, value = 0;
    };
    std::optional<OfLoft> ofLoft;
    /// What else of the clubs could make the gap by itself, build − against. The heads' masses have a size by the
    /// impact model, at the same club speed; there swing weight and the whole club's mass do nothing.
    struct OfMass {
        std::optional<double> head;               ///< g, with lead
        std::optional<double> ballSpeed, value;   ///< what that alone would do
        std::optional<double> swingWeight, whole; ///< points, g
    };
    std::optional<OfMass> ofMass;
};

template<class To> void tell(To& to, const PartsOfGap::OfLoft& of) {
    to("loft_deg", of.loft, "°");
    to("launch_deg", of.launch, "°");
    to("spin_rpm", of.spin, "rpm");
    to("ball_speed_ms", of.ballSpeed, "m/s");
    to("value", of.value, ofMetric);
}
template<class To> void tell(To& to, const PartsOfGap::OfMass& of) {
    to("head_g", of.head, "g");
    to("ball_speed_ms", of.ballSpeed, "m/s");
    to("value", of.value, ofMetric);
    to("swing_weight_points", of.swingWeight);
    to("club_g", of.whole, "g");
}
template<class To> void tell(To& to, const PartsOfGap& of) {
    tellPair(to, of);
    to("n", of.n);
    if (!of.parts.empty())
        to.object("parts", [&](auto& row) {
            for (const auto& part : of.parts)
                row(part.input.c_str(), part.value, ofMetric);
        });
    if (std::ranges::any_of(of.parts, [](const auto& part) { return part.ci95.has_value(); }))
        to.object("parts_ci95", [&](auto& row) {
            for (const auto& part : of.parts)
                row(part.input.c_str(), part.ci95, ofMetric);
        });
    to("rest", of.rest, ofMetric);
    to("rest_ci95", of.restInterval, ofMetric);
    to("measured", of.measured, ofMetric);
    to("modelled", of.modelled, ofMetric);
    to("of_loft", of.ofLoft);
    to("of_mass", of.ofMass);
}

} // namespace knot::judge
