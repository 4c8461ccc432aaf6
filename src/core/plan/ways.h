#pragma once

#include "core/plan/planner.h"

#include <array>
#include <vector>

namespace knot::plan {

/// Ways to spend the same minutes on one question.
enum class Way {
    asPlanned,     ///< as struck, stints as long as the plan has them
    shortStints,   ///< as struck, stints of the length that sees most
    equalDelivery, ///< with strike and speed taken out, stints of two or more
    typicalShot,   ///< of what is typical of a stint, stints of three or more
    twoSittings,   ///< as struck, best stints, the same minutes on each of two days
    withLooks,     ///< as struck, best stints, a look after each lap
    threeEach      ///< three shots with each club in one run, by a plain test
};
inline constexpr std::array everyWay = {Way::asPlanned,   Way::shortStints, Way::equalDelivery, Way::typicalShot,
                                        Way::twoSittings, Way::withLooks,   Way::threeEach};

/// What is asked and known, for all ways at once.
struct WaysOf {
    Question question; ///< its spreads are those as struck
    Pace pace;
    int turnLength = 3;      ///< of the plan
    double equalShot = 0;    ///< SD of shots at equal delivery
    double equalTurn = 0;    ///< of turns then
    double typicalTimes = 1; ///< variance of the typical shot's gap against the average's
};

/// A way as it would be gone in some minutes.
struct WayOption {
    Way way = Way::asPlanned;
    int rounds = 0, turnLength = 0, days = 1;
    double minutes = 0; ///< that it takes; of one day
    double chance = 0;  ///< to see the worthwhile gap
};

/// The best of a way in the time there is; nothing where two laps do not fit.
std::optional<WayOption> bestOfWay(Way way, const WaysOf& ways, double minutes);

/// The least minutes in which a way sees the gap 80 times in 100; nothing beyond `most`.
std::optional<WayOption> toSeeBy(Way way, const WaysOf& ways, double most = 600);

/// What looks after each lap give: chance of a claim and the mean number of laps hit until it, or until the end.
struct Looked {
    double chance = 0, meanLaps = 0;
};
/// For a true gap of `times` worthwhile ones. Laps are drawn as normal (seeded), at the levels of lookBoundaries.
Looked withLooks(const Question& question, int rounds, int turnLength, double times, int draws = 4000);

} // namespace knot::plan
