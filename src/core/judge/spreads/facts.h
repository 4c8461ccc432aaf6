#pragma once

#include "core/judge/gaps/facts.h"

// Spreads, landing areas and shares inside shapes.
namespace knot::judge {

/// What a spread is: the average distance of shots from the middle of their stint, where both builds have
/// stints enough; else the SD inside stints (Bonett 2006).
enum class SpreadMethod { bonett, distance };

inline const char* key(SpreadMethod method) {
    return std::array{"bonett", "distance"}[static_cast<std::size_t>(method)];
}

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

/// The SDs inside stints and what they rest on.
template<class To> void tellInside(To& to, const SpreadRatio& of) {
    to("sd_build", of.sdBuild, ofMetric);
    to("sd_baseline", of.sdAgainst, ofMetric);
    to("nu_build", of.nuBuild);
    to("nu_baseline", of.nuAgainst);
}

/// The SDs as people know them, raw, beside a ratio of distances.
template<class To> void tellSds(To& to, const SpreadRatio& of) {
    tellPair(to, of);
    to("method", SpreadMethod::bonett);
    to("ratio", of.sds->ratio);
    tellInside(to, of);
    to("log_ratio_centre", of.sds->logCentre);
    to("log_ratio_se", of.sds->logSe);
    to("df", of.sds->df);
    to("ci95", of.sds->ci95);
    to("p", of.sds->p);
    to("p_worthwhile", of.sds->pWorthwhile);
    to("p_same", of.sds->pSame);
}
template<class To> void tell(To& to, const SpreadRatio& of) {
    tellPair(to, of);
    to("method", of.method);
    to("ratio", of.ratio);
    if (of.method == SpreadMethod::distance) {
        to("distance_build", of.distanceBuild, ofMetric);
        to("distance_baseline", of.distanceAgainst, ofMetric);
    }
    tellInside(to, of);
    to("log_ratio_centre", of.logCentre);
    to("log_ratio_se", of.logSe);
    to("df", of.df);
    to("ci95", of.ci95);
    to("ci90", of.ci90);
    to("shown", of.shown);
    tell(to, of.claim);
    to("bound", of.bound);
    if (of.shapesDiffer)
        to("shapes_differ", true);
}

/// Brown and Forsythe's test over all builds; a second opinion that ignores turns.
struct BrownForsythe {
    Metric metric = Metric::carry;
    double f = 0, df1 = 0, df2 = 0, p = 1;
};

template<class To> void tell(To& to, const BrownForsythe& of) {
    to("F", of.f);
    to("df", std::vector{of.df1, of.df2});
    to("p", of.p);
}

/// Where the shots of a build came down: what was seen.
struct LandingArea {
    BuildAt build;
    std::size_t n = 0;
    double centreSide = 0, centreCarry = 0; ///< m
    double area50 = 0, area90 = 0;          ///< m², contours that hold half and nine tenths
    double sdMajor = 0, sdMinor = 0;        ///< m
    double tilt = 0;                        ///< degrees of the long axis from the target line, + right
};

template<class To> void tell(To& to, const LandingArea& of) {
    to("build", of.build);
    to("n", of.n);
    to("centre_side", of.centreSide, "m");
    to("centre_carry", of.centreCarry, "m");
    to("area50", of.area50, "m²");
    to("area90", of.area90, "m²");
    to("sd_major", of.sdMajor, "m");
    to("sd_minor", of.sdMinor, "m");
    to("tilt_deg", of.tilt, "°");
}

enum class CentreMethod { rounds, shots };

inline const char* key(CentreMethod method) {
    return std::array{"rounds", "shots"}[static_cast<std::size_t>(method)];
}

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

template<class To> void tell(To& to, const AreaRatio& of) {
    to("build", of.build);
    to("against", of.against);
    to("area_ratio", of.ratio);
    to("nu_build", of.nuBuild);
    to("nu_baseline", of.nuAgainst);
    to("log_ratio_se", of.logSe);
    to("df", of.df);
    to("ci95", of.ci95);
    to("ci90", of.ci90);
    to("shown", of.shown);
    tell(to, of.claim);
    to("shuffle_p", of.shuffleP);
    to("centre_method", of.centreMethod);
    to("hotelling_t2", of.hotellingT2);
    to("hotelling_f", of.hotellingF);
    to("hotelling_df2", of.hotellingDf2);
    to("centre_p", of.centreP);
}

/// The worthwhile gap of a share of shots inside a shape.
inline constexpr double shareMargin = 0.10;

/// The share of a build's shots inside a shape, counted and under the fitted bivariate normal.
struct ShapeShare {
    std::string shape;
    BuildAt build;
    Share counted;
    std::optional<double> fitted;
};

template<class To> void tell(To& to, const ShapeShare& of) {
    to("shape", of.shape);
    to("build", of.build);
    to("share", of.counted.share);
    to("n", of.counted.n);
    to("effective_n", of.counted.effective);
    to("ci95", of.counted.ci95);
    to("fitted", of.fitted);
}

/// The gap between two builds' shares inside a shape: a paired t on hit proportions by round.
struct ShareGap {
    std::string shape;
    AverageGap gap; ///< in shares, 0 to 1; its metric has no meaning
};

template<class To> void tell(To& to, const ShareGap& of) {
    to("metric", "share:" + of.shape);
    to("build", of.gap.build);
    to("against", of.gap.against);
    tellGap(to, of.gap);
}

} // namespace knot::judge
