#include "core/judge/bets/bet.h"

#include "core/judge/bets/swept_stints.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/statistics/roots.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace knot::judge {
namespace {

constexpr std::size_t gapPoints = 21;
constexpr double leastScale = 0.125, mostScale = 16;
constexpr double gapDegrees = 4; // of Student's t
// By how much the variance of a stint is taken larger where clubs were hit in single runs: by simulation, so that bets
// hold where neighbouring shots are alike by .5 and the first swings are two shot SDs off.
constexpr double widerInRuns = 1.2;
// What warming up adds may be little or much: sizes of it, each as likely as the others before the shots.
constexpr std::array warmUpSizes = {0.0, 0.5, 2.6};

// The density of Student's t with four degrees of freedom, but for a factor.
double priorOf(double tau, double scale) {
    const double t = tau / scale;
    return std::pow(1 + t * t / gapDegrees, -(gapDegrees + 1) / 2) * tau;
}

} // namespace

// Where the builds scatter by τ; its weight is the log likelihood.
Bet::Part Bet::partOf(const Swept& swept, double tau) {
    const std::size_t k = swept.values.size();
    Part part{.weight = swept.logLikelihood(tau),
              .mean = std::vector<double>(k, 0.0),
              .acrossRoot = std::vector<double>(k * k)};
    for (std::size_t i = 0; i < k; ++i) {
        const double a = swept.values[i] + 1 / (tau * tau);
        const double sd = 1 / std::sqrt(a);
        for (std::size_t b = 0; b < k; ++b) {
            part.mean[b] += swept.vectors[b * k + i] * swept.g[i] / a;
            part.acrossRoot[i * k + b] = swept.vectors[b * k + i] * sd;
        }
    }
    return part;
}

// The variance of the gap between two builds.
double Bet::Part::varianceOf(std::size_t i, std::size_t j) const {
    const std::size_t k = mean.size();
    double sum = 0;
    for (std::size_t axis = 0; axis < k; ++axis) {
        const double apart = acrossRoot[axis * k + i] - acrossRoot[axis * k + j];
        sum += apart * apart;
    }
    return sum;
}

std::optional<Bet> Bet::of(const Column& column, const BetPrior& prior) {
    Bet bet;
    bet.m_metric = column.metric;
    for (BuildAt b; b < column.builds.size(); ++b)
        if (!column.builds[b].turns.empty())
            bet.m_builds.push_back(b);
    if (bet.m_builds.size() < 2)
        return std::nullopt;
    const Stints stints = stintsOf(column, bet.m_builds, prior.warmUp ? Together::visits : Together::laps);
    bet.m_shotDegrees = stints.degrees;
    bet.m_shotVariance = knot::judge::shotVariance(stints, prior);
    bet.m_parts.reserve(stintPoints * gapPoints);
    // A run of shots that are alike tells less of the club than as many that are not.
    const double r = neighboursIn({&column}, prior.neighbours).alike;
    const double alike = prior.warmUp ? (1 + r) / (1 - r) : 1;
    const double wider = prior.warmUp ? widerInRuns : 1;
    for (std::size_t point = 0; point < stintPoints; ++point)
        for (const double times : warmUpSizes) {
            const double warm = times * prior.warmUp.value_or(0);
            bet.addPoint(sweep(stints, wider * stintVariance(point, prior), alike * bet.m_shotVariance, warm * warm),
                         stints.middle, prior.scale);
            if (!prior.warmUp)
                break;
        }
    bet.weigh();
    return bet;
}

Bet Bet::ofMeans(Metric metric, double first, double second, const std::vector<double>& variances, double scale) {
    Bet bet;
    bet.m_metric = metric;
    bet.m_builds = {BuildAt(0), BuildAt(1)};
    const double middle = (first + second) / 2;
    const Stints stints{.all = {{0, 0, first - middle, 1}, {1, 0, second - middle, 1}}, .builds = 2, .laps = 1};
    for (const double variance : variances)
        bet.addPoint(sweep(stints, variance / 2, 0), middle, scale);
    bet.weigh();
    return bet;
}

// The parts of one size of the stint, with the logarithms of their weights.
void Bet::addPoint(const Swept& swept, double middle, double scale) {
    const double step = std::log(mostScale / leastScale) / (gapPoints - 1);
    for (std::size_t i = 0; i < gapPoints; ++i) {
        const double tau = scale * leastScale * std::exp(step * static_cast<double>(i));
        Part part = partOf(swept, tau);
        part.weight += std::log(priorOf(tau, scale));
        part.stint = m_levels.size();
        m_parts.push_back(std::move(part));
    }
    m_levels.push_back({swept.level + middle, swept.levelShares});
}

void Bet::weigh() {
    const double most = std::ranges::max_element(m_parts, {}, &Part::weight)->weight;
    double total = 0;
    for (Part& part : m_parts)
        total += part.weight = std::exp(part.weight - most);
    for (Part& part : m_parts)
        part.weight /= total;
}

// Only a wanted value asks for the level that the effects stand on.
double Bet::merit(double effect, double level, const record::Want& want) {
    return want.merit(want.kind == record::Want::Kind::near ? level + effect : effect);
}

namespace {

// Normal numbers, the same for every bet: where a draw begins among them is its seed's to say. Made once, since a
// reading draws hundreds of thousands.
const std::vector<double>& normals() {
    constexpr std::size_t count = std::size_t{1} << 16;
    static const std::vector<double> all = [] {
        Random random(1);
        std::vector<double> drawn(count);
        for (double& one : drawn)
            one = random.normal();
        return drawn;
    }();
    return all;
}

} // namespace

// Draws of the builds' effects, and of the laps' level with them where that is asked for: of each part as many as its
// weight asks for, two by two about its middle.
template<typename Numbers, typename Use>
void Bet::drawInto(Numbers off, std::uint64_t seed, int draws, WithLevel withLevel, Use use) const {
    const std::size_t k = off.size();
    Numbers effects = off; // `off` is how far a draw is from its part's middle
    std::vector<double> upTo;
    upTo.reserve(m_parts.size());
    double sum = 0;
    for (const Part& part : m_parts)
        upTo.push_back(sum += part.weight);
    const std::vector<double>& table = normals();
    const std::size_t mask = table.size() - 1;
    std::size_t next = Random(seed).bits() & mask;
    std::size_t at = 0;
    for (int draw = 0; draw < draws; draw += 2) {
        while (at + 1 < upTo.size() && upTo[at] < (draw + 1.0) / draws * sum)
            ++at;
        const Part& part = m_parts[at];
        std::ranges::fill(off, 0.0);
        const double* root = part.acrossRoot.data();
        for (std::size_t j = 0; j < k; ++j) {
            const double normal = table[next++ & mask];
            for (std::size_t i = 0; i < k; ++i)
                off[i] += *root++ * normal;
        }
        double level = 0;
        double levelOff = 0;
        if (withLevel == WithLevel::yes) {
            const Level& laps = m_levels[part.stint];
            level = laps.value;
            for (std::size_t i = 0; i < k; ++i) {
                level -= laps.shares[i] * part.mean[i];
                levelOff -= laps.shares[i] * off[i];
            }
        }
        for (std::size_t i = 0; i < k; ++i)
            effects[i] = part.mean[i] + off[i];
        use(effects, level + levelOff);
        for (std::size_t i = 0; i < k; ++i)
            effects[i] = part.mean[i] - off[i];
        use(effects, level - levelOff);
    }
}

// As many numbers as there are builds: where they are few, known when this is compiled.
template<typename Use> void Bet::drawEach(std::uint64_t seed, int draws, WithLevel withLevel, Use use) const {
    switch (m_builds.size()) {
    case 3:
        return drawInto(std::array<double, 3>{}, seed, draws, withLevel, use);
    case 4:
        return drawInto(std::array<double, 4>{}, seed, draws, withLevel, use);
    case 5:
        return drawInto(std::array<double, 5>{}, seed, draws, withLevel, use);
    default:
        return drawInto(std::vector<double>(m_builds.size()), seed, draws, withLevel, use);
    }
}

std::size_t Bet::placeOf(BuildAt build) const {
    return static_cast<std::size_t>(std::ranges::find(m_builds, build) - m_builds.begin());
}

std::vector<Bet::Gap> Bet::gapsOf(BuildAt build, BuildAt against) const {
    const std::size_t i = placeOf(build);
    const std::size_t j = placeOf(against);
    std::vector<Gap> gaps;
    gaps.reserve(m_parts.size());
    for (const Part& part : m_parts)
        gaps.push_back({part.weight, part.mean[i] - part.mean[j], std::sqrt(part.varianceOf(i, j))});
    return gaps;
}

BetOnPair::Otherwise Bet::glance(BuildAt build, BuildAt against, const record::Want& want, std::uint64_t seed) const {
    BetOnPair::Otherwise seen{.ahead = 0};
    for (const Gap& gap : gapsOf(build, against)) {
        seen.expected += gap.weight * gap.mean;
        seen.ahead += gap.weight * statistics::normalLower(gap.mean / gap.sd);
    }
    if (want.kind == record::Want::Kind::less)
        seen.ahead = 1 - seen.ahead;
    if (want.kind == record::Want::Kind::near) {
        constexpr int draws = 20000;
        const std::size_t i = placeOf(build);
        const std::size_t j = placeOf(against);
        int nearer = 0;
        drawEach(seed, draws, WithLevel::yes, [&](const auto& effects, double level) {
            nearer += merit(effects[i], level, want) > merit(effects[j], level, want) ? 1 : 0;
        });
        seen.ahead = static_cast<double>(nearer) / draws;
    }
    return seen;
}

BetOnPair Bet::pair(BuildAt build, BuildAt against, const record::Want& want, std::uint64_t seed) const {
    const BetOnPair::Otherwise seen = glance(build, against, want, seed);
    BetOnPair row{
        .metric = m_metric, .build = build, .against = against, .ahead = seen.ahead, .expected = seen.expected};
    const std::vector<Gap> parts = gapsOf(build, against);
    double squares = 0;
    for (const Gap& part : parts)
        squares += part.weight * (part.sd * part.sd + part.mean * part.mean);
    row.sd = std::sqrt(std::max(squares - row.expected * row.expected, 0.0));
    auto quantile = [&](double share) {
        const auto below = [&](double x) {
            double sum = 0;
            for (const Gap& part : parts)
                sum += part.weight * statistics::normalLower((x - part.mean) / part.sd);
            return sum - share;
        };
        const double wide = 8 * row.sd;
        return statistics::rootFrom(below, row.expected - wide, row.expected + wide, 1e-9 * std::max(row.sd, 1e-12))
            .value_or(row.expected);
    };
    row.low80 = quantile(0.1);
    row.high80 = quantile(0.9);
    return row;
}

std::vector<Bet::Marginal> Bet::marginals() const {
    const std::size_t k = m_builds.size();
    std::vector<Marginal> all;
    for (std::size_t i = 0; i < k; ++i) {
        all.push_back({.build = m_builds[i]});
        for (const Part& part : m_parts)
            all.back().mean += part.weight * part.mean[i];
    }
    // A gap's variance is the sum of two builds' own.
    std::vector<double> ofPairs(k, 0.0);
    double sum = 0;
    for (std::size_t i = 0; i < k; ++i)
        for (std::size_t j = i + 1; j < k; ++j) {
            double variance = -std::pow(all[i].mean - all[j].mean, 2);
            for (const Part& part : m_parts)
                variance += part.weight * (part.varianceOf(i, j) + std::pow(part.mean[i] - part.mean[j], 2));
            ofPairs[i] += variance;
            ofPairs[j] += variance;
            sum += variance;
        }
    const auto n = static_cast<double>(k);
    for (std::size_t i = 0; i < k; ++i)
        all[i].sd = std::sqrt(std::max(0.0, k == 2 ? sum / 2 : (ofPairs[i] - sum / (n - 1)) / (n - 2)));
    return all;
}

// Of two builds the chance and what each loses are known in closed form.
void Bet::bestOfTwo(const record::Want& want, std::vector<BestBet>& best) const {
    for (const Part& part : m_parts) {
        const double sign = want.kind == record::Want::Kind::less ? -1 : 1;
        const double mean = sign * (part.mean[0] - part.mean[1]);
        const double sd = std::sqrt(std::max(part.varianceOf(0, 1), 1e-300));
        const double z = mean / sd;
        const double density = std::exp(-z * z / 2) / std::sqrt(2 * std::numbers::pi);
        best[0].chance += part.weight * statistics::normalLower(z);
        best[1].chance += part.weight * statistics::normalUpper(z);
        best[0].loss += part.weight * (sd * density - mean * statistics::normalUpper(z));
        best[1].loss += part.weight * (sd * density + mean * statistics::normalLower(z));
    }
}

FurtherBet Bet::further(const record::Want& want, const plan::Spreads& usual, std::size_t laps, std::size_t shots,
                        std::uint64_t seed, int draws) const {
    const auto each = marginals();
    const double error = std::sqrt((usual.sdTurn * usual.sdTurn + m_shotVariance / static_cast<double>(shots)) /
                                   static_cast<double>(laps));
    // Without a direction more is asked for, as in `best`; near a value a club's distance from it needs its level too.
    const double sign = want.kind == record::Want::Kind::less ? -1 : 1;
    const auto now = std::ranges::max_element(each, {}, [&](const Marginal& one) { return sign * one.mean; });
    const auto first = static_cast<std::size_t>(now - each.begin());
    Random random(seed);
    FurtherBet further{.metric = m_metric, .laps = laps};
    for (int draw = 0; draw < draws; ++draw) {
        double most = -std::numeric_limits<double>::infinity();
        double mostThen = most;
        double ofFirst = 0;
        double ofThen = 0;
        for (std::size_t i = 0; i < each.size(); ++i) {
            const double truth = each[i].mean + each[i].sd * random.normal();
            const double seen = truth + error * random.normal();
            const double weight = each[i].sd * each[i].sd / (each[i].sd * each[i].sd + error * error);
            const double then = sign * (each[i].mean + weight * (seen - each[i].mean));
            most = std::max(most, sign * truth);
            if (i == first)
                ofFirst = sign * truth;
            if (then > mostThen) {
                mostThen = then;
                ofThen = sign * truth;
            }
        }
        further.now += (most - ofFirst) / draws;
        further.after += (most - ofThen) / draws;
    }
    return further;
}

std::vector<BestBet> Bet::best(const record::Want& want, std::uint64_t seed, int draws) const {
    std::vector<BestBet> best;
    best.reserve(m_builds.size());
    for (const BuildAt b : m_builds)
        best.push_back({.metric = m_metric, .build = b});
    if (m_builds.size() == 2 && want.kind != record::Want::Kind::near) {
        bestOfTwo(want, best);
        return best;
    }
    drawEach(seed, draws, want.kind == record::Want::Kind::near ? WithLevel::yes : WithLevel::no,
             [&](const auto& effects, double level) {
                 auto merits = effects;
                 std::size_t top = 0;
                 for (std::size_t i = 0; i < merits.size(); ++i) {
                     merits[i] = merit(effects[i], level, want);
                     top = merits[i] > merits[top] ? i : top;
                 }
                 best[top].chance += 1;
                 for (std::size_t i = 0; i < merits.size(); ++i)
                     best[i].loss += merits[top] - merits[i];
             });
    for (BestBet& one : best) {
        one.chance /= draws;
        one.loss /= draws;
    }
    return best;
}

} // namespace knot::judge
