#pragma once

#include "core/judge/bets/bet.h"
#include "core/judge/columns.h"
#include "core/judge/reading.h"
#include "core/plan/spreads.h"

#include <set>

namespace knot::judge {

/// What is usual for a player with a club in one metric, and how sittings vary about it.
struct UsualBasis {
    std::string club; ///< its name, as it was last called
    Metric metric = Metric::carry;
    double mean = 0;
    std::optional<double> sd;       ///< of sitting means, where they are known
    std::size_t sittings = 0;       ///< 0: typed
    std::size_t shots = 0;          ///< in all of them
    std::set<std::string> ids = {}; ///< of the clubs that it was struck with
    bool isOf(const record::Build& build) const { return club == build.name || ids.contains(build.id); }
};

/// What was typed for a player: carry, ball speed, launch and spin.
std::vector<UsualBasis> usualTyped(const record::Player& player);

/// From earlier sittings of the player, the latest first: the mean of sitting means of every club, under whatever name
/// it went, in the four metrics.
std::vector<UsualBasis> usualStruck(const std::vector<record::Test>& earlier, const std::string& player);

/// What lies between one club of the player's own bag and the next, m, about a carry: the mean of the steps to the
/// next shorter and longer club from the one nearest to it. Nothing under three clubs with a usual carry.
std::optional<double> bagStep(const std::vector<UsualBasis>& bases, double carry);

/// What is usual of a club, of several that stand for it what most sittings tell: of itself, else of its kind
/// ("driver").
const UsualBasis* basisOf(const std::vector<UsualBasis>& bases, Metric metric, const record::Build& build,
                          std::string_view kind);

/// The first stint of a build against what is usual for it, with the prediction interval of a new sitting's at `level`
/// (judgement §§20 and 34): from the spread of earlier sittings (three or more), with the degrees of freedom of what is
/// estimated and what is known together (Satterthwaite 1946), else from the usual spreads with the six that bets give
/// the table. What was struck goes before what was typed. Where several numbers are looked at, `level` is 1 − 0.05 / n.
std::optional<UsualNumber> againstUsual(const UsualBasis& basis, const Column& column, BuildAt build,
                                        const plan::Spreads& usual, double level = 0.95);

/// A build that was hit, against one that was not (judgement §20). The gap's variance: the build's own stints and
/// shots, today against other days, and how well few sittings know what is usual. Days vary as the sittings did (three
/// or more), else as `prior` has stints vary; how far clubs lie apart is the prior's.
std::optional<UsualBet> betAgainstUsual(const UsualBasis& basis, const Column& column, BuildAt build, BuildAt against,
                                        const BetPrior& prior, const record::Want& want, std::uint64_t seed);

} // namespace knot::judge
