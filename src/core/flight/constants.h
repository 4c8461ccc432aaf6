#pragma once

#include <numbers>

namespace knot::flight {

inline constexpr double gravity = 9.80665;               ///< m/s²
inline constexpr double degree = std::numbers::pi / 180; ///< rad

/// The ball of the rules of the game: no heavier and no smaller.
namespace ball {
inline constexpr double mass = 0.04593;   ///< kg
inline constexpr double radius = 0.02134; ///< m
} // namespace ball

} // namespace knot::flight
