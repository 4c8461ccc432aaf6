#pragma once

#include "core/record/club.h"

#include <string>
#include <vector>

namespace knot::rack {

/// The fulcrum of the swing-weight scale: 14 inches from the butt.
inline constexpr double fulcrum = 14 * 25.4;

/// What a club's parts add up to; what can't be reckoned from the parts given is absent.
struct Figures {
    std::optional<double> mass;        ///< g
    std::optional<double> balance;     ///< mm from the end of the hands
    std::optional<double> swingWeight; ///< points of 1.75 in·oz above D0 (213.5 in·oz)
    std::optional<double> inertia;     ///< kg·m² about the end of the hands
    std::optional<double> loft, lie;   ///< static, degrees, after sleeve and bending
    double face = 0;                   ///< degrees, + open, by the sleeve
    std::optional<double> length;      ///< mm as held, gripped down
    std::vector<std::string> missing;  ///< what is needed and not known, in words
    std::vector<std::string> assumed;  ///< what was not known and taken as usual, in words
};

/// Reckons with point masses for head, lead and grip and a uniform rod about its own centre of mass
/// for the shaft's inertia. Unknown places are taken as usual ones and named in `assumed`: the
/// shaft's centre at 0.505 of its length, the grip's 104 mm and the head's 25 mm from either end of
/// the club. Gripping down moves everything toward the hands by as much.
Figures figuresOf(const record::Club& club);

/// Swing weight in its usual letters: "C7.6". Ten points a letter, D0 is 0.
std::string swingWeightText(double points);

/// The lead at the head, g, that gives `lighter` the swing weight of `heavier`; negative when it is
/// the heavier one already. Nothing when either is not known.
std::optional<double> leadToEven(const record::Club& lighter, const record::Club& heavier);

/// The length to add at the butt, mm, that does the same.
std::optional<double> lengthToEven(const record::Club& lighter, const record::Club& heavier);

} // namespace knot::rack
