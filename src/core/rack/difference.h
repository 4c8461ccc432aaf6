#pragma once

#include "core/record/test.h"
#include "core/record/units.h"

#include <string>
#include <vector>

namespace knot::rack {

/// How much a difference matters: hardly, enough to be noticed, or enough to be taken for the factor.
enum class Weight { slight, noticed, large };

/// One thing in which builds differ besides the factor under test.
struct Difference {
    std::string what;                ///< "swing weight"
    std::string unit;                ///< of the values; empty for words
    std::vector<std::string> values; ///< by build, as shown; "–" where not known
    double spread = 0;               ///< largest minus smallest, in `unit`
    Weight weight = Weight::slight;
    bool follows = false; ///< it follows from the factor and comes with it
    std::string moves;    ///< what it is known to move
    std::string remedy;   ///< what would even it out, or empty
};

/// Everything that differs between the builds, the weightiest first. `kind` names the factor, whose
/// own property is left out; what follows from it is marked. Two builds or more; builds without
/// parts differ in nothing known. Lengths of clubs are given in `units`.
std::vector<Difference> differenceSheet(const std::vector<record::Build>& builds, record::TestKind kind,
                                        const record::DisplayUnits& units = {});

/// What is not known of any build, so that it may differ unseen: "the grip's mass of Reed".
std::vector<std::string> unknowns(const std::vector<record::Build>& builds);

} // namespace knot::rack
