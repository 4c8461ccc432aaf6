#pragma once

#include "core/record/test.h"

#include <array>
#include <optional>
#include <vector>

namespace knot::judge {

using record::BuildAt;
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
enum class Cap {
    oneTurnEach,
    separatedTurns,
    tooFewShots,
    tooFewRounds,
    noVariation,
    markBetween,
    beforeFirstLook,
    onePerPlayer,   ///< several players with a lap each: players are no laps of each other
    onePerDelivery, ///< several deliveries with a lap each, of one player
    sameOrder,      ///< one order in nearly every lap, and too few stints for a line through them
    partOfAll,      ///< one player's or one delivery's share of a test: what is judged is all of it
    leadOnly        ///< nothing was planned: a screening or an open sitting
};

/// The same claim from the shots that verdicts do not stand on: with the set-aside ones, or without
/// them where the card's rule looks at numbers.
struct OtherSide {
    double estimate = 0; ///< the gap or the ratio
    Verdict verdict = Verdict::open;
    bool changes = false;
};

/// A shot whose removal changes the verdict.
struct Influence {
    record::ShotId shot = record::ShotId::none;
    std::size_t number = 0; ///< of the shot in the record, from 1
    Verdict without = Verdict::open;
};

/// The three p's of a claim before and after its family, and what follows from them. A missing p
/// means that the data do not give one; `cap` then says why.
struct Claim {
    Role role = Role::exploratory;
    std::optional<double> p, pWorthwhile, pSame;
    std::optional<double> pAdjusted, pWorthwhileAdjusted, pSameAdjusted;
    /// What replaces α: the level of this look, by the laps that hold both; 0 before the first.
    double level = 0.05;
    Verdict verdict = Verdict::open;
    std::optional<Favours> favours;
    std::optional<Cap> cap;
    std::optional<OtherSide> otherSide;   ///< where a shot was set aside
    std::optional<OtherSide> withoutLate; ///< where shots were changed after their numbers were seen
    std::vector<Influence> influence;     ///< where declared
};

/// A share with its interval, counted over turns.
struct Share {
    std::size_t hits = 0, n = 0, turns = 0;
    double share = 0, icc = 0, deff = 1, effective = 0;
    Interval ci95;
};

inline const char* key(Verdict verdict) {
    return std::array{
        "real", "slight", "same", "real_size_open", "open", "uncontrolled"}[static_cast<std::size_t>(verdict)];
}
inline const char* key(Favours favours) {
    return std::array{"better", "worse", "different"}[static_cast<std::size_t>(favours)];
}
inline const char* key(Role role) {
    return std::array{"primary", "exploratory", "explanation"}[static_cast<std::size_t>(role)];
}
inline const char* key(Cap cap) {
    return std::array{"one_turn_each",    "separated_turns", "too_few_shots",     "too_few_rounds",
                      "no_variation",     "mark_between",    "before_first_look", "one_per_player",
                      "one_per_delivery", "same_order",      "part_of_all",       "lead_only"}[static_cast<std::size_t>(
        cap)];
}

// A fact stands in the facts.h of its room, and with it `tell`, which names its fields in their order: to(name, value)
// or to(name, value, unit). A unit that is not said is none: a count, a share, a chance or a ratio. What has no value
// is left out. JSON and the table of docs/formats.md come from there (core/judge/facts.h).
inline constexpr const char* ofMetric = "its metric's";

template<class To, class Row> void tellPair(To& to, const Row& of, Metric metric) {
    to("metric", metric);
    to("build", of.build);
    to("against", of.against);
}
template<class To, class Row> void tellPair(To& to, const Row& of) {
    tellPair(to, of, of.metric);
}

template<class To> void tell(To& to, const Claim& of) {
    to("role", of.role);
    to("p", of.p);
    to("p_worthwhile", of.pWorthwhile);
    to("p_same", of.pSame);
    to("p_adjusted", of.pAdjusted);
    to("p_worthwhile_adjusted", of.pWorthwhileAdjusted);
    to("p_same_adjusted", of.pSameAdjusted);
    to("level", of.level);
    to("verdict", of.verdict);
    to("favours", of.favours);
    to("cap", of.cap);
}

template<class To> void tell(To& to, const Share& of) {
    to("count", of.hits);
    to("n", of.n);
    to("share", of.share);
    to("ci95", of.ci95);
}

} // namespace knot::judge
