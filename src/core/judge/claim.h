#pragma once

#include "core/record/test.h"

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

const char* key(Verdict verdict);
const char* key(Favours favours);
const char* key(Role role);
const char* key(Cap cap);

} // namespace knot::judge
