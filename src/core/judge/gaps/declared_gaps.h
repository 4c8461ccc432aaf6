#pragma once

#include "core/judge/gaps/average.h"

namespace knot::judge {

/// The gap at equal delivery (judgement §25): what is left by lap when the covariates' own differences are taken
/// out at the slopes that both builds' shots show inside their stints. Only shots with all covariates. Another
/// question than the average as struck, and never a sharper answer to that one. Capped as too few shots where the
/// slopes rest on fewer than three degrees of freedom for each covariate, as without variation where they can't
/// be told apart. One order in every lap: along a common line, as the average is. Nothing where a build has no such
/// shot. margin > 0.
std::optional<AverageGap> gapAtEqualDelivery(const record::Test& test, const Column& column, BuildAt build,
                                             BuildAt against, const std::vector<Metric>& covariates, double margin);

/// The gap of the typical shot (judgement §25): Huber's location (1964) of each stint at one scale for both builds,
/// by laps. Capped as too few shots where stints hold fewer than three on average. `wantsMore` says on which side
/// shots that are far from typical were mishit; without it on either. margin > 0.
std::optional<AverageGap> gapOfTypicalShot(const Column& column, BuildAt build, BuildAt against, double margin,
                                           const record::Want& want);

} // namespace knot::judge
