#pragma once

#include "core/judge/claim.h"
#include "core/record/text/names.h"

#include <array>
#include <string>

// What became of what was said: feels, choices, expectations, guesses.
namespace knot::judge {

/// Whether a feel says the same of the same club again: the intraclass correlation over clubs.
struct FeelLikeness {
    record::FeelScale scale = record::FeelScale::liveliness;
    std::size_t stints = 0;
    double icc = 0;
};

template<class To> void tellScale(To& to, record::FeelScale scale) {
    to("scale", std::string(record::nameOf(record::feelNames, scale)));
}
template<class To> void tell(To& to, const FeelLikeness& of) {
    tellScale(to, of.scale);
    to("stints", of.stints);
    to("icc", of.icc);
}

/// The gap between two builds in what was felt, by the method of averages.
struct FeelGap {
    record::FeelScale scale = record::FeelScale::liveliness;
    BuildAt build, against;
    std::size_t stints = 0; ///< of both together
    double gap = 0;
    std::optional<Interval> ci95;
    std::optional<double> p;
};

template<class To> void tell(To& to, const FeelGap& of) {
    tellScale(to, of.scale);
    to("build", of.build);
    to("against", of.against);
    to("stints", of.stints);
    to("gap", of.gap, "marks");
    to("ci95", of.ci95, "marks");
    to("p", of.p);
}

/// Spearman's rank correlation of a feel with a declared number, over stints.
struct FeelRank {
    record::FeelScale scale = record::FeelScale::liveliness;
    Metric metric = Metric::carry;
    std::size_t stints = 0;
    double rho = 0;
    std::optional<double> p; ///< how often luck alone gives as much; from eight stints on
};

template<class To> void tell(To& to, const FeelRank& of) {
    tellScale(to, of.scale);
    to("metric", of.metric);
    to("stints", of.stints);
    to("rho", of.rho);
    to("p", of.p);
}

/// How often the player called a build better or worse than another one hit just before or after it.
struct VersusCount {
    BuildAt build, against;
    std::size_t better = 0, worse = 0, same = 0;
    double p = 1; ///< exact sign test of better against worse
};

template<class To> void tell(To& to, const VersusCount& of) {
    to("build", of.build);
    to("against", of.against);
    to("better", of.better);
    to("worse", of.worse);
    to("cant_tell", of.same);
    to("p", of.p);
}

/// What became of what was expected of a metric.
struct Expected {
    Metric metric = Metric::carry;
    BuildAt build, against;
    record::Expectation said = record::Expectation::noChange;
    enum class Found { asExpected, otherWay, nothingThatMatters, notSettled } found = Found::notSettled;
};

inline const char* key(Expected::Found found) {
    return std::array{"as_expected", "other_way", "nothing_that_matters",
                      "not_settled"}[static_cast<std::size_t>(found)];
}
template<class To> void tell(To& to, const Expected& of) {
    tellPair(to, of);
    to("said", std::string(record::nameOf(record::expectationNames, of.said)));
    to("found", of.found);
}

/// What became of the order that the builds were expected in, by the first declared outcome that has one: each pair's
/// verdict beside what was said.
struct ExpectedOrder {
    record::Outcome outcome;
    std::vector<BuildAt> said; ///< the best first
    std::size_t asExpected = 0, otherWay = 0, nothingThatMatters = 0, notSettled = 0;
};

template<class To> void tell(To& to, const ExpectedOrder& of) {
    to("outcome", of.outcome);
    to("said", of.said);
    to("as_expected", of.asExpected);
    to("other_way", of.otherWay);
    to("nothing_that_matters", of.nothingThatMatters);
    to("not_settled", of.notSettled);
}

/// Guesses of which build was which, against luck (judgement §8, blinding).
struct GuessScore {
    std::size_t right = 0, tries = 0, builds = 0;
    double p = 1;          ///< the chance of at least as many right by luck
    bool matching = false; ///< each build named once; else stint by stint
};

template<class To> void tell(To& to, const GuessScore& of) {
    to("right", of.right);
    to("of", of.tries);
    to("builds", of.builds);
    to("p_at_least", of.p);
    to("method", std::string(of.matching ? "matching" : "binomial"));
}

} // namespace knot::judge
