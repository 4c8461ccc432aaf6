#pragma once

#include "core/record/test.h"

#include <optional>

namespace knot::rack {

/// What a difference between two clubs would do by itself, by the models of impact and flight: `to` less `from`.
struct Effect {
    double clubSpeed = 0; ///< m/s, that it was reckoned at
    double ballSpeed = 0, launch = 0, spin = 0, carry = 0;
};

/// Of a head that has so many degrees more loft, or so many grams more mass, than that of `club`; both at the player's
/// speed with such a club (a driver's or a seven-iron's, in proportion; usual ones where neither is known) and a usual
/// delivery of its kind: a rough size, for comparison. Nothing where the club's loft is not known.
std::optional<Effect> effectOfLoft(const record::Club& club, const record::Player& player, double degrees);
std::optional<Effect> effectOfHeadMass(const record::Club& club, const record::Player& player, double grams);

} // namespace knot::rack
