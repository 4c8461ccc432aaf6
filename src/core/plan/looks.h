#pragma once

#include "core/record/card.h"

#include <vector>

namespace knot::plan {

/// The boundary of one look at a test that is still running.
struct Look {
    double information = 0; ///< share of the planned rounds done
    double z = 0;           ///< boundary of |Z|
    double nominal = 0;     ///< its two-sided level
    double level = 0;       ///< what replaces α: three quarters of `nominal`
};

/// Boundaries for looks at the given shares of the information (ascending, up to 1; later looks may be left out) that
/// spend α by Lan and DeMets (1983) with the O'Brien–Fleming-type function on each side: total spent by t is 4 −
/// 4Φ(z_{α/4}/√t). By recursive numerical integration (Armitage, McPherson & Rowe 1969).
std::vector<Look> lookBoundaries(const std::vector<double>& information, double alpha);

/// The two-sided level at which a test is judged now (judgement §9): α without looks or without a
/// plan; with looks the level of the look after `roundsDone` of the planned rounds, 0 before the
/// second.
double levelAt(const record::Card& card, std::size_t roundsDone);

} // namespace knot::plan
