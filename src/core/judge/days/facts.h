#pragma once

#include "core/judge/claim.h"

// What several days, players and tests say together, and what is usual.
namespace knot::judge {

/// What a pooled gap is pooled over: parts are of a sitting, a player and a delivery at once.
enum class PooledOver { sittings, players, deliveries, parts, tests };

inline const char* key(PooledOver over) {
    return std::array{"sittings", "players", "deliveries", "parts", "tests"}[static_cast<std::size_t>(over)];
}

/// A declared gap over several sittings, players or deliveries (judgement §§11 and 22).
struct SittingsPooled {
    PooledOver over = PooledOver::sittings;
    double pooled = 0, se = 0;
    double f = 0, fP = 1; ///< whether they disagree more than laps inside them do
    Interval ci95;
    std::size_t sittings = 0, heldUp = 0;
};

template<class To> void tell(To& to, const SittingsPooled& of) {
    to("pooled", of.pooled, ofMetric);
    to("se", of.se, ofMetric);
    to("ci95", of.ci95, ofMetric);
    to("F", of.f);
    to("F_p", of.fP);
    to("over", of.over);
    to("sittings", of.sittings);
    to("held_up", of.heldUp);
}

/// A declared gap over tests that are the same on another day (judgement §11), the one in hand among them.
struct Repeated {
    Outcome outcome;
    BuildAt build, against;
    SittingsPooled pooled; ///< over tests
};

template<class To> void tell(To& to, const Repeated& of) {
    tellPair(to, of, of.outcome.metric);
    to("outcome", of.outcome);
    tell(to, of.pooled);
}

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

template<class To> void tell(To& to, const ByWay& of) {
    to("outcome", of.outcome);
    to("build", of.build);
    to("other", of.other);
    to("via", of.via);
    to("test", of.test);
    to("gap", of.gap, ofMetric);
    to("ci95", of.ci95, ofMetric);
}

/// The baseline's first stint against what is usual for the player with that club.
struct UsualNumber {
    Metric metric = Metric::carry;
    BuildAt build;
    double usual = 0, first = 0;
    Interval prediction; ///< where a new sitting's first stint should lie: 95 % over all numbers that are looked at
    bool outside() const { return !prediction.contains(first); }
};

template<class To> void tell(To& to, const UsualNumber& of) {
    to("metric", of.metric);
    to("build", of.build);
    to("usual", of.usual, ofMetric);
    to("first_stint", of.first, ofMetric);
    to("prediction", of.prediction, ofMetric);
    to("level", of.prediction.level);
    to("outside", of.outside());
}

/// A build against one that was not hit in this test, by what is usual of it (judgement §20): a historical control,
/// so a bet and never a verdict.
struct UsualBet {
    Metric metric = Metric::carry;
    BuildAt build, against; ///< `against` was not hit
    double usual = 0;
    std::size_t sittings = 0; ///< that the usual number rests on; 0: typed
    double ahead = 0.5;       ///< the chance that the gap favours `build`, as in a bet
    double expected = 0, sd = 0, low80 = 0, high80 = 0;
};

template<class To> void tell(To& to, const UsualBet& of) {
    tellPair(to, of);
    to("usual", of.usual, ofMetric);
    to("sittings", of.sittings);
    to("ahead", of.ahead);
    to("expected", of.expected, ofMetric);
    to("sd", of.sd, ofMetric);
    to("low80", of.low80, ofMetric);
    to("high80", of.high80, ofMetric);
}

} // namespace knot::judge
