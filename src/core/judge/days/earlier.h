#pragma once

#include "core/judge/bets/bet.h"
#include "core/judge/days/linked_tests.h"
#include "core/judge/days/usual.h"
#include "core/plan/measured_pace.h"
#include "core/plan/spreads.h"

#include <map>
#include <vector>

namespace knot::judge {

/// What a logbook's other tests tell of the one in hand.
struct Earlier {
    std::map<Metric, plan::Spreads> own;          ///< the player's own spreads, which go before the usual ones
    std::map<Metric, plan::Spreads> equal;        ///< the same at equal delivery, by the covariates of the card in hand
    plan::MeasuredPace pace = {};                 ///< what changes and shots took in tests of the kind
    std::vector<UsualBasis> usual;                ///< what is usual for the player, beside what was typed for them
    std::vector<GapFound> repeats = {};           ///< declared gaps of the tests that are the same on another day
    std::map<Metric, double> warmUp = {};         ///< SD of what the player's first swing of a sitting adds
    std::map<Metric, Neighbours> neighbours = {}; ///< how alike the player's own neighbouring shots are
    std::map<Metric, double> gapScales = {}; ///< how far builds lay apart in tests of this kind, in the metric's unit
};

/// From the tests of a logbook, the one in hand left out. Spreads and usual numbers come from the first player's own
/// shots; gaps from everybody's tests of the same kind, eight or more. A test whose comparisons nobody may see yet
/// tells its pace alone.
Earlier learntFrom(std::vector<record::Test> tests, const record::Test& inHand);

/// What the first swing of a sitting usually adds, as an SD: the table's half of a shot SD, with six degrees of
/// freedom, and what the first stints of the player's own sittings lie off the same clubs' later ones, less what stints
/// and shots alone make of that.
double warmUpOf(const plan::Spreads& usual, const std::vector<Column>& own = {});

/// How far the builds of several tests lie apart: the scatter τ of their effects that makes their stints likeliest with
/// the laps swept out (REML; judgement §14), the stints' sizes integrated over the prior's. Kept within a quarter and
/// four times the prior's own scale, since few tests say little. Nothing where under `fewest` tests compare two builds
/// or more inside a lap.
std::optional<double> gapScale(const std::vector<Column>& tests, const BetPrior& prior, std::size_t fewest = 8);

} // namespace knot::judge
