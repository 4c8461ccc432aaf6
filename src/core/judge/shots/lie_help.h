#pragma once

#include "core/judge/case.h"
#include "core/judge/columns.h"
#include "core/judge/reading.h"

#include <optional>
#include <vector>

namespace knot::judge {

/// How a club is delivered against how it stands, and what that is known to move.
struct LieHelp {
    BuildAt build;
    std::size_t stints = 0, shots = 0;
    double stands = 0, delivered = 0; ///< degrees: static lie, and the mean of dynamic lies by stints
    std::optional<Interval> off;      ///< delivered − stands, 95 % by the stints' means; from two on
    /// What to bend, upright positive, where the interval leaves no doubt on which side: never more than `mostBent`.
    std::optional<double> bend;
};

/// What a number moves by a degree more of dynamic lie, inside stints and pooled over clubs.
struct LieSlope {
    Metric metric = Metric::launchDirection;
    double perDegree = 0;
    Interval ci95;
    std::size_t shots = 0;
    bool isEstablished() const { return !ci95.contains(0); }
};

inline constexpr double mostBent = 2; ///< degrees: what many heads allow; a qualified builder knows

struct LieReading {
    std::vector<LieHelp> clubs;
    std::vector<LieSlope> slopes; ///< of start direction and of the strike toward the toe
};

/// From the shots of a case that have a dynamic lie; clubs whose static lie is not known are left out.
LieReading lieReading(const Case& subject);

} // namespace knot::judge
