#pragma once

#include "core/bay/status.h"

#include <set>

/// Putting the record right: what a shot was struck with, where a stint began, a number that was typed.
/// None of them changes when or in which order shots were struck.
namespace knot::bay {

using record::BuildAt;

using Shots = std::set<record::ShotId>;

/// Why a correction is not made.
enum class CantCorrect {
    noSuchShot,
    noSuchStint, ///< the plan has no stint of that club, or of that player with it
    unnamed,     ///< alone: the tag of its stint was not entered yet
    notTyped,    ///< a number that a device read stays as it was read
    sameStint,   ///< it is in one stint with the shot before it already, or begins one already
    otherClub    ///< the shot before it is of another club or sitting
};

template<typename T> using Corrected = tl::expected<T, CantCorrect>;

/// These shots were struck with another club. Of a plan they go to its nearest stint of that club, in the
/// same lap where it has one; elsewhere they make stints of their own.
Corrected<From> moveToClub(record::Test& test, const Shots& shots, BuildAt build);

/// These shots were struck by another player. Of a plan they go to that one's nearest stint of the same club.
Corrected<From> moveToPlayer(record::Test& test, const Shots& shots, record::PlayerAt player);

/// The club was put down and taken up anew before this shot; or it was not. Only where nothing is planned.
Corrected<From> splitStint(record::Test& test, record::ShotId first);
Corrected<From> joinStint(record::Test& test, record::ShotId first);

/// A number that was typed is another, or none; what is derived from it follows.
Corrected<From> setReading(record::Test& test, record::ShotId shotId, record::Metric metric,
                           std::optional<double> value);

/// The record as it would be without what was done to shots after their numbers were seen: as late amendments
/// found them, and late set-asides counted. Nothing where nothing was done.
std::optional<record::Test> withoutLateChanges(const record::Test& test);

} // namespace knot::bay
