#pragma once

#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/plan/spreads.h"

namespace knot::judge {

/// What is usual for a player with a club in one metric, and how sittings vary about it.
struct UsualBasis {
    std::string club;
    Metric metric = Metric::carry;
    double mean = 0;
    std::optional<double> sd; ///< of sitting means, where they are known
    std::size_t sittings = 0; ///< 0: typed
};

/// What was typed for a player: carry, ball speed, launch and spin.
std::vector<UsualBasis> usualTyped(const record::Player& player);

/// From earlier sittings of the player: the mean of sitting means of every build of that name, in the four metrics.
std::vector<UsualBasis> usualStruck(const std::vector<record::Test>& earlier, const std::string& player);

/// What lies between one club of the player's own bag and the next, m, about a carry: the mean of the steps to the
/// next shorter and longer club from the one nearest to it. Nothing under three clubs with a usual carry.
std::optional<double> bagStep(const std::vector<UsualBasis>& bases, double carry);

/// The first stint of a build against what is usual for its name, with the 95 % prediction interval of a new
/// sitting's (judgement §20): from the spread of earlier sittings (three or more), else from the usual spreads with
/// the six degrees of freedom that bets give the table. What was struck goes before what was typed.
std::optional<UsualNumber> againstUsual(const std::vector<UsualBasis>& bases, const Column& column, BuildAt build,
                                        const std::string& name, const plan::Spreads& usual);

} // namespace knot::judge
