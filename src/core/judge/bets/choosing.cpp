#include "core/judge/bets/choosing.h"

#include "core/judge/gaps/average.h"
#include "core/random.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>

namespace knot::judge {

using namespace statistics;
namespace {

std::vector<BuildAt> withReadings(const Column& column, std::size_t fewestTurns) {
    std::vector<BuildAt> builds;
    for (BuildAt b; b < column.builds.size(); ++b)
        if (column.builds[b].turns.size() >= fewestTurns)
            builds.push_back(b);
    return builds;
}

// What each lap did to every club in it, by least squares over the clubs' means in laps, with as much weight for each
// however many turns it had (a sandwich's own club has two). They sum to 0, and laps that lack a club do no harm.
std::map<record::RoundAt, double> lapEffects(const Column& column, const std::vector<BuildAt>& builds) {
    std::map<std::pair<record::RoundAt, BuildAt>, std::vector<double>> turns;
    for (const BuildAt b : builds)
        for (const auto& turn : column.builds[b].turns)
            turns[{turn.round, b}].push_back(turn.mean());
    std::map<record::RoundAt, double> laps;
    std::map<record::RoundAt, std::size_t> inLap;
    std::map<BuildAt, std::size_t> inBuild;
    for (const auto& [cell, values] : turns) {
        laps[cell.first] = 0;
        ++inLap[cell.first];
        ++inBuild[cell.second];
    }
    // Each in turn, the others as they are: where no cell is missing the first pass is the answer.
    constexpr int mostPasses = 200;
    constexpr double still = 1e-12;
    for (int pass = 0; pass < mostPasses; ++pass) {
        std::map<BuildAt, double> nextBuild;
        for (const auto& [cell, values] : turns)
            nextBuild[cell.second] += (meanOf(values) - laps[cell.first]) / static_cast<double>(inBuild[cell.second]);
        std::map<record::RoundAt, double> nextLap;
        for (const auto& [cell, values] : turns)
            nextLap[cell.first] += (meanOf(values) - nextBuild[cell.second]) / static_cast<double>(inLap[cell.first]);
        double middle = 0;
        for (const auto& [lap, effect] : nextLap)
            middle += effect / static_cast<double>(nextLap.size());
        double moved = 0;
        for (auto& [lap, effect] : nextLap) {
            effect -= middle;
            moved = std::max(moved, std::fabs(effect - laps[lap]));
        }
        laps = std::move(nextLap);
        if (moved <= still * std::max(1.0, std::fabs(middle)))
            break;
    }
    return laps;
}

// What errors of builds that are drawn apart from each other are multiplied by, so that their differences vary as they
// should after what is common to all was taken out.
double drawnApart(std::size_t builds) {
    const auto k = static_cast<double>(builds);
    return builds < 2 ? 1 : std::sqrt(k / (k - 1));
}

} // namespace

std::vector<Standing> shrunk(std::vector<Standing> standings, double usual) {
    double weights = 0;
    double middle = 0;
    for (const Standing& one : standings) {
        const double weight = 1 / (one.effect.se * one.effect.se + usual * usual);
        weights += weight;
        middle += weight * one.effect.value;
    }
    middle /= weights;
    for (Standing& one : standings) {
        const double error = one.effect.se * one.effect.se;
        const double kept = usual * usual / (usual * usual + error);
        one.samplingError = one.effect.se;
        one.effect.value = middle + kept * (one.effect.value - middle);
        one.effect.se = std::sqrt(kept * error + (1 - kept) * (1 - kept) / weights);
    }
    return standings;
}

std::vector<Standing> standings(const Column& column) {
    const auto builds = withReadings(column, 2);
    const auto laps = lapEffects(column, builds);
    const double apart = drawnApart(builds.size());
    std::vector<Standing> result;
    for (const BuildAt b : builds) {
        std::vector<double> means;
        for (const auto& turn : column.builds[b].turns)
            means.push_back(turn.mean() - laps.at(turn.round));
        const auto turns = static_cast<double>(means.size());
        Standing standing{.build = b, .turns = turns};
        standing.effect = {meanOf(means), apart * standardDeviation(means) / std::sqrt(turns), turns - 1};
        for (std::size_t t = 0; t < means.size(); ++t)
            standing.residuals.emplace_back(column.builds[b].turns[t].turn, apart * (means[t] - standing.effect.value) /
                                                                                std::sqrt(turns * (turns - 1)));
        result.push_back(std::move(standing));
    }
    return result;
}

std::vector<Standing> standings(const Column& column, const Bet& bet) {
    const std::vector<Standing> struck = standings(column);
    const std::vector<Bet::Marginal> known = bet.marginals();
    double level = 0; // of the builds together, which a bet knows only as far as it is asked
    for (const Bet::Marginal& one : known)
        level += (meanOf(column.builds[one.build].turnMeans()) - one.mean) / static_cast<double>(known.size());
    std::vector<Standing> result;
    for (const Bet::Marginal& one : known) {
        Standing standing{.build = one.build, .residuals = {}};
        standing.effect = {level + one.mean, one.sd, std::numeric_limits<double>::infinity()};
        const auto at = std::ranges::find(struck, one.build, &Standing::build);
        if (at != struck.end() && at->effect.se > 0) {
            standing.residuals = at->residuals;
            for (auto& [turn, residual] : standing.residuals)
                residual *= one.sd / at->effect.se;
        }
        result.push_back(std::move(standing));
    }
    return result;
}

PairBeaten beatenBy(BuildAt build, BuildAt against, const std::optional<Effect>& effect) {
    if (!effect)
        return {build, against};
    const double t = effect->value / effect->se;
    return {build, against, studentUpper(t, effect->df), studentUpper(-t, effect->df)};
}

std::vector<BuildAt> bestSetOf(const std::vector<PairBeaten>& pairs, const std::vector<BuildAt>& builds, double alpha) {
    const double rivals = static_cast<double>(std::max<std::size_t>(builds.size(), 2) - 1);
    std::vector<BuildAt> set;
    for (const BuildAt build : builds)
        if (std::ranges::none_of(pairs, [&](const PairBeaten& pair) {
                const double level = pair.level.value_or(alpha) / rivals;
                return (pair.build == build && pair.againstBeats < level) ||
                       (pair.against == build && pair.buildBeats < level);
            }))
            set.push_back(build);
    return set;
}

namespace {

std::optional<Effect> effectOf(const std::vector<double>& byLap) {
    const auto laps = static_cast<double>(byLap.size());
    const double sd = byLap.size() > 1 ? standardDeviation(byLap) : 0;
    return sd > 0 ? std::optional(Effect{meanOf(byLap), sd / std::sqrt(laps), laps - 1}) : std::nullopt;
}

} // namespace

PairBeaten nearerOf(const Column& column, BuildAt build, BuildAt against, double wanted) {
    std::vector<double> differences;
    std::vector<double> middles;
    for (const auto& [own, other] : roundPairs(column, build, against)) {
        differences.push_back(own - other);
        middles.push_back((own + other) / 2 - wanted);
    }
    const auto difference = effectOf(differences);
    const auto middle = effectOf(middles);
    if (!difference || !middle)
        return {build, against};
    const PairBeaten d = beatenBy(build, against, difference);
    const PairBeaten m = beatenBy(build, against, middle);
    return {build, against, std::min(std::max(d.buildBeats, m.againstBeats), std::max(d.againstBeats, m.buildBeats)),
            std::min(std::max(d.buildBeats, m.buildBeats), std::max(d.againstBeats, m.againstBeats))};
}

std::vector<BuildAt> bestSet(const Column& column, const record::Want& want, const LevelOf& levelOf) {
    const auto builds = withReadings(column, 1);
    const double sign = want.kind == record::Want::Kind::less ? -1 : 1;
    std::vector<PairBeaten> pairs;
    for (BuildAt i; i < builds.size(); ++i)
        for (std::size_t j = i + 1; j < builds.size(); ++j) {
            const auto gap = averageGap(column, builds[j], builds[i], 1);
            const bool judged = gap && gap->se && (!gap->claim.cap || *gap->claim.cap == Cap::noVariation);
            if (judged && want.kind == record::Want::Kind::near)
                pairs.push_back(nearerOf(column, builds[j], builds[i], want.value));
            else
                pairs.push_back(
                    beatenBy(builds[j], builds[i],
                             judged ? std::optional(Effect{sign * gap->gap, *gap->se, *gap->df}) : std::nullopt));
            pairs.back().level = levelOf(builds[j], builds[i]);
        }
    return bestSetOf(pairs, builds, 0);
}

std::vector<BuildAt> bestSet(const Column& column, const record::Want& want, double alpha) {
    return bestSet(column, want, [alpha](BuildAt, BuildAt) { return alpha; });
}

BestOf choosing(const std::vector<Standing>& standings, const record::Want& want, LossScale scale, std::uint64_t seed,
                int furtherLaps, int draws) {
    if (standings.size() < 2)
        return {};
    BestOf best{.furtherLaps = furtherLaps};
    for (const Standing& standing : standings)
        best.choosing.push_back({.build = standing.build});
    Random random(seed);
    std::vector<double> merits(standings.size());
    std::vector<double> later(standings.size());
    for (int draw = 0; draw < draws; ++draw) {
        for (std::size_t i = 0; i < standings.size(); ++i) {
            const Effect& known = standings[i].effect;
            const double truth = known.value + known.se * random.studentT(known.df);
            merits[i] = want.merit(truth);
            // What the mean over the laps done and to come would then be.
            const double turns = standings[i].turns;
            const double error = standings[i].samplingError.value_or(known.se);
            const double fresh = truth + error * std::sqrt(turns / furtherLaps) * random.normal();
            later[i] = want.merit((turns * known.value + furtherLaps * fresh) / (turns + furtherLaps));
        }
        const auto top = std::ranges::max_element(merits);
        best.choosing[static_cast<std::size_t>(top - merits.begin())].chanceBest += 1.0 / draws;
        for (std::size_t i = 0; i < standings.size(); ++i)
            best.choosing[i].meanLoss += (*top - merits[i]) / draws;
        const auto chosen = static_cast<std::size_t>(std::ranges::max_element(later) - later.begin());
        best.lossAfter += (*top - merits[chosen]) / draws;
    }
    // Of ratios the mean is taken of their logarithms: that of the ratios themselves has no end where few shots leave
    // tails like Student's.
    if (scale == LossScale::ratio) {
        for (BestOf::Choice& choice : best.choosing)
            choice.meanLoss = std::expm1(choice.meanLoss);
        best.lossAfter = std::expm1(best.lossAfter);
    }
    best.lossNow = std::ranges::min_element(best.choosing, {}, &BestOf::Choice::meanLoss)->meanLoss;
    return best;
}

namespace {

const Standing* standingOf(const Priority& priority, BuildAt build) {
    const auto at = std::ranges::find(priority.standings, build, &Standing::build);
    return at == priority.standings.end() ? nullptr : &*at;
}

// One build's possible truths in every outcome at once: one weight a turn and one chi-square for all.
class JointDraw {
public:
    explicit JointDraw(Random& random)
        : m_random(random) {}

    void nextBuild() {
        m_weights.clear();
        m_shrink.reset();
    }

    double of(const Standing& standing) {
        const Effect& known = standing.effect;
        if (standing.residuals.empty())
            return known.value + known.se * (std::isinf(known.df) ? m_random.normal() : m_random.studentT(known.df));
        double sum = 0;
        for (const auto& [turn, residual] : standing.residuals) {
            const auto [at, isNew] = m_weights.try_emplace(turn, 0.0);
            if (isNew)
                at->second = m_random.normal();
            sum += at->second * residual;
        }
        if (!m_shrink) // t = normal / √(χ²/df), the χ² shared by the outcomes of one build
            m_shrink = tailOf(known.df);
        return known.value + sum * *m_shrink;
    }

private:
    double tailOf(double df) {
        if (std::isinf(df))
            return 1;
        double squares = 0;
        for (int i = 0; i < static_cast<int>(df); ++i) {
            const double z = m_random.normal();
            squares += z * z;
        }
        return std::sqrt(df / squares);
    }

    Random& m_random;
    std::map<std::size_t, double> m_weights;
    std::optional<double> m_shrink;
};

} // namespace

std::vector<PriorityChoice> choosingByPriority(const std::vector<Priority>& priorities, std::uint64_t seed, int draws) {
    std::vector<PriorityChoice> choices;
    if (priorities.empty())
        return choices;
    for (const Standing& first : priorities.front().standings)
        if (std::ranges::all_of(priorities, [&](const Priority& p) { return standingOf(p, first.build) != nullptr; }))
            choices.push_back({.build = first.build});
    if (choices.size() < 2)
        return {};
    Random random(seed);
    JointDraw joint(random);
    std::vector<std::vector<double>> merits(choices.size(), std::vector<double>(priorities.size()));
    for (int draw = 0; draw < draws; ++draw) {
        for (std::size_t c = 0; c < choices.size(); ++c) {
            joint.nextBuild();
            for (std::size_t o = 0; o < priorities.size(); ++o)
                merits[c][o] = priorities[o].want.merit(joint.of(*standingOf(priorities[o], choices[c].build)));
        }
        std::vector<std::size_t> left(choices.size());
        std::iota(left.begin(), left.end(), std::size_t{0});
        for (std::size_t o = 0; o < priorities.size() && left.size() > 1; ++o) {
            auto at = [&](std::size_t c) { return merits[c][o]; };
            const double top = at(*std::ranges::max_element(left, {}, at));
            const double room = o + 1 == priorities.size() ? 0 : priorities[o].margin;
            std::erase_if(left, [&](std::size_t c) { return at(c) < top - room; });
        }
        choices[left.front()].chanceBest += 1.0 / draws;
    }
    return choices;
}

} // namespace knot::judge
