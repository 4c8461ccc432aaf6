#pragma once

#include "core/flight/impact.h"

namespace knot::reach {

/// Which static lofts of a kind are sold, and how they are usually delivered: the table data/lofts.csv. Its delivered
/// lofts are a rough rule: a player's own readings go before it.
struct Offer {
    double from = 0, to = 0;   ///< static loft, degrees
    double attack = 0;         ///< as is usual, degrees, up positive
    double addedLevel = 0;     ///< delivered less static loft at a level attack
    double addedPerAttack = 0; ///< and for each degree of it
    double added(double attackNow) const { return addedLevel + addedPerAttack * attackNow; }
};
const Offer& offerOf(flight::HeadKind kind);

} // namespace knot::reach
