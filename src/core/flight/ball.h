#pragma once

/// The ball of the rules of the game: no heavier and no smaller.
namespace knot::flight::ball {

inline constexpr double mass = 0.04593;   ///< kg
inline constexpr double radius = 0.02134; ///< m

} // namespace knot::flight::ball
