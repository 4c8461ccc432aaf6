#pragma once

#include "core/judge/bets/bet.h"
#include "core/judge/columns.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/reading.h"

#include <functional>

namespace knot::judge {

/// What is known of one build in an outcome: its mean, or the logarithm of its spread or area, with
/// the error of that and the turns it rests on.
struct Standing {
    BuildAt build;
    Effect effect;
    double turns = 1;
    /// What each turn adds to the error of a mean, by turn; empty for spreads and areas.
    std::vector<std::pair<std::size_t, double>> residuals;
    std::optional<double> samplingError = {}; ///< of one estimate, where `effect` holds what was assumed besides
};

/// Standings less sure and nearer to each other, where builds usually differ by `usual` (an SD, on their scale).
std::vector<Standing> shrunk(std::vector<Standing> standings, double usual);

/// The builds' means from turn means less what each lap did to all (least squares), own variance times k/(k − 1)
/// since that was taken out (judgement §23), turns − 1 df. Builds with fewer than two turns take no part.
std::vector<Standing> standings(const Column& column);
/// The same as a bet has them: its means and errors, with what moves together from stint to stint kept together.
std::vector<Standing> standings(const Column& column, const Bet& bet);

/// How losses are counted: in the outcome's own unit, or, where standings are logarithms, as how
/// much larger the chosen one is, as a share.
enum class LossScale { plain, ratio };

/// How sure it is that one of a pair is better than the other: one-sided p's, 1 where there is none.
struct PairBeaten {
    BuildAt build, against;
    double buildBeats = 1, againstBeats = 1;
    std::optional<double> level = {}; ///< the pair's own, where looks have one
};
/// The p's of an effect `build` − `against`, of which larger is better.
PairBeaten beatenBy(BuildAt build, BuildAt against, const std::optional<Effect>& effect);

/// The p's that `build` lies nearer to a wanted value than `against`, and the other way (judgement §23): the paired t
/// on their difference and the t on the middle of the two from the value, by laps, with opposite signs.
PairBeaten nearerOf(const Column& column, BuildAt build, BuildAt against, double wanted);

/// Which of `builds` may be best: those that none of their k − 1 rivals beats at `alpha` / (k − 1). The truly best
/// one is left out at most that often, and nothing else is asked. Each unordered pair is given once.
std::vector<BuildAt> bestSetOf(const std::vector<PairBeaten>& pairs, const std::vector<BuildAt>& builds, double alpha);

/// The same for averages that are wanted more, less or near a value (`nearerOf`).
/// `levelOf` gives each pair's level.
using LevelOf = std::function<double(BuildAt, BuildAt)>;
std::vector<BuildAt> bestSet(const Column& column, const record::Want& want, const LevelOf& levelOf);
std::vector<BuildAt> bestSet(const Column& column, const record::Want& want, double alpha);

/// The chance of being best and the mean loss of choosing each build (judgement §5 and §13) from
/// draws of t about each standing. With fewer than two standings nothing. `furtherLaps` more laps
/// are simulated from the same draws to see what they would save.
BestOf choosing(const std::vector<Standing>& standings, const record::Want& want, LossScale scale, std::uint64_t seed,
                int furtherLaps = 5, int draws = 20000);

/// One declared outcome among the card's priorities.
struct Priority {
    record::Want want;
    double margin = 0; ///< on the scale of the standings: builds this near the best stay in
    std::vector<Standing> standings;
};

/// How often each build comes first by the priorities in their order. Means are drawn together over
/// outcomes, turn by turn, so that what moves together does so here; spreads and areas by themselves.
/// Builds that lack an outcome take no part.
std::vector<PriorityChoice> choosingByPriority(const std::vector<Priority>& priorities, std::uint64_t seed,
                                               int draws = 20000);

} // namespace knot::judge
