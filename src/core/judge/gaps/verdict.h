#pragma once

#include "core/judge/reading.h"

namespace knot::judge {

/// An estimate with its standard error on the scale on which it is judged: the gap itself for
/// averages, logarithms for ratios.
struct Effect {
    double value = 0, se = 0, df = 0;
};

/// Fills the three raw p's of a claim (judgement §5): two-sided against 0, one-sided against
/// |value| ≤ margin, and two one-sided tests against |value| ≥ margin. margin > 0, se > 0.
void fillPs(Claim& claim, const Effect& effect, double margin);

Interval intervalOf(const Effect& effect, double level);

/// An interval of logarithms turned into one of ratios.
Interval exponentiated(const Interval& logs);

/// The claims of one reading, adjusted family by family: Holm over the primary ones, Benjamini and
/// Hochberg over the exploratory ones of one kind. Explanations, and exploratory claims under a
/// cap that makes the comparison unfair, keep their raw p's. The declared family holds `declared`
/// claims (outcomes × comparisons); those that are not given here have no p and count as 1. Where the primary ones are
/// all pairs of `allPairsOf` builds in one outcome, whether they differ goes by Shaffer's steps instead.
void adjustFamilies(const std::vector<Claim*>& primary, const std::vector<Claim*>& exploratory,
                    std::size_t declared = 0, std::size_t allPairsOf = 0);

/// The verdict that follows from the adjusted p's, then the cap.
void decide(Claim& claim, double alpha);

/// The same for a claim of a reading: nothing is claimed of what was not planned or is a part (`held`, why), nor at no
/// level.
void settle(Claim& claim, std::optional<Cap> held, double level);

/// The level of the interval to show beside a verdict made at `alpha`: 1 − 2α for `same` and
/// `slight`, else 1 − α; 0.95 where no level was spent yet.
double levelShown(const Claim& claim, double alpha);

/// One turn each, also for each of several players, or turns that lie apart in time: the club and
/// the moment can't be told apart.
bool isUnfair(const Claim& claim);

/// Whether a gap is for the better (judgement §5, direction); of a wanted value `nearer` knows more (bets/choosing.h).
Favours direction(double gap, const record::Want& want);

} // namespace knot::judge
