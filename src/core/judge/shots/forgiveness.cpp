#include "core/judge/shots/forgiveness.h"

#include "core/judge/gaps/mixed_model.h"
#include "core/judge/gaps/summary.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/resample.h"
#include "core/judge/spreads/shares.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <limits>
#include <map>
#include <numeric>
#include <set>

namespace knot::judge {

using namespace statistics;
namespace {

struct Strike {
    double y = 0, toe = 0, high = 0;
    std::size_t turn = 0;
};

std::vector<Strike> strikesOf(const record::Test& test, const Column& column, BuildAt build) {
    std::vector<Strike> strikes;
    const auto& turns = column.builds[build].turns;
    for (std::size_t t = 0; t < turns.size(); ++t)
        for (std::size_t i = 0; i < turns[t].values.size(); ++i) {
            const auto& readings = test.shots[turns[t].shots[i]].readings;
            const auto toe = readings.at(Metric::strikeToe);
            const auto high = readings.at(Metric::strikeHigh);
            if (toe && high)
                strikes.push_back({turns[t].values[i], *toe, *high, t});
        }
    return strikes;
}

// The peak of y = a + b·x + c·x² along one direction, held inside the middle half of the strikes;
// their median where the curve has no peak.
double bestAlong(const std::vector<Strike>& strikes, double Strike::*axis) {
    std::vector<double> places;
    Design design;
    std::vector<double> y;
    std::vector<std::size_t> own;
    for (const Strike& s : strikes) {
        places.push_back(s.*axis);
        design.addRow({1, s.*axis, s.*axis * s.*axis});
        y.push_back(s.y);
        own.push_back(own.size());
    }
    std::ranges::sort(places);
    const double low = places[places.size() / 4];
    const double high = places[places.size() * 3 / 4];
    const auto model = MixedModel::fit(design, y, own);
    const auto slope = model ? model->coefficient(1) : std::nullopt;
    const auto bend = model ? model->coefficient(2) : std::nullopt;
    if (!slope || !bend || !(bend->value < 0))
        return medianOf(places);
    return std::clamp(-slope->value / (2 * bend->value), low, high);
}

// A build's shots in order of size, each with its turn, so that the quantile of turns drawn with
// replacement is one walk over counts and no sorting.
class WorstShots {
public:
    // A high share is walked to from the top: −x stands for x.
    WorstShots(const BuildValues& build, Metric metric, double share)
        : m_sign(share > 0.5 ? -1 : 1)
        , m_share(share > 0.5 ? 1 - share : share) {
        for (std::size_t t = 0; t < build.turns.size(); ++t) {
            m_sizes.push_back(build.turns[t].values.size());
            for (const double v : build.turns[t].values)
                m_shots.push_back({m_sign * (metric == Metric::side ? std::fabs(v) : v), t});
        }
        std::ranges::sort(m_shots, {}, &Shot::value);
    }

    double seen() const { return m_sign * at(std::vector<std::size_t>(m_sizes.size(), 1)); }

    double resampled(Random& random) const {
        std::vector<std::size_t> times(m_sizes.size(), 0);
        for (const std::size_t turn : drawnWithReplacement(random, m_sizes.size()))
            ++times[turn];
        return m_sign * at(times);
    }

private:
    struct Shot {
        double value = 0;
        std::size_t turn = 0;
    };

    double at(const std::vector<std::size_t>& times) const {
        std::size_t total = 0;
        for (std::size_t t = 0; t < times.size(); ++t)
            total += times[t] * m_sizes[t];
        const double place = m_share * static_cast<double>(total - 1);
        const auto below = static_cast<std::size_t>(place);
        std::size_t passed = 0;
        double low = m_shots.front().value;
        bool found = false;
        for (const Shot& shot : m_shots) {
            passed += times[shot.turn];
            if (!found && passed > below) {
                low = shot.value;
                found = true;
            }
            if (passed > below + 1)
                return low + (place - static_cast<double>(below)) * (shot.value - low);
        }
        return low;
    }

    double m_sign, m_share;
    std::vector<Shot> m_shots;
    std::vector<std::size_t> m_sizes;
};

// The values of a metric by the number of their shot; nan where it was not read.
std::vector<double> byShot(const Column& column) {
    std::vector<double> values;
    for (const auto& build : column.builds)
        for (const auto& turn : build.turns)
            for (std::size_t i = 0; i < turn.values.size(); ++i) {
                if (turn.shots[i] >= values.size())
                    values.resize(turn.shots[i] + 1, std::numeric_limits<double>::quiet_NaN());
                values[turn.shots[i]] = turn.values[i];
            }
    return values;
}

// Correlation of two metrics inside turns, over shots that have both. The second one's values come by shot.
double correlationInsideTurns(const Column& a, const std::vector<double>& b) {
    double xy = 0;
    double xx = 0;
    double yy = 0;
    std::size_t n = 0;
    std::vector<std::pair<double, double>> both;
    for (const auto& build : a.builds)
        for (const auto& turn : build.turns) {
            both.clear();
            double mx = 0;
            double my = 0;
            for (std::size_t i = 0; i < turn.values.size(); ++i)
                if (turn.shots[i] < b.size() && !std::isnan(b[turn.shots[i]])) {
                    both.emplace_back(turn.values[i], b[turn.shots[i]]);
                    mx += both.back().first;
                    my += both.back().second;
                }
            if (both.size() < 2)
                continue;
            mx /= static_cast<double>(both.size());
            my /= static_cast<double>(both.size());
            for (const auto& [x, y] : both) {
                xy += (x - mx) * (y - my);
                xx += (x - mx) * (x - mx);
                yy += (y - my) * (y - my);
            }
            n += both.size() - 1;
        }
    return n >= 5 && xx > 0 && yy > 0 ? xy / std::sqrt(xx * yy) : 0;
}

bool bindsByArithmetic(Metric a, Metric b) {
    auto flight = [](Metric m) { return m == Metric::ballSpeed || m == Metric::carry || m == Metric::total; };
    return flight(a) && flight(b);
}

} // namespace

namespace {

// y ~ distance from the best point + (1 | turn).
std::optional<Estimate> slopeOff(const std::vector<Strike>& strikes) {
    const double toe = bestAlong(strikes, &Strike::toe);
    const double high = bestAlong(strikes, &Strike::high);
    Design design;
    std::vector<double> y;
    std::vector<std::size_t> turns;
    for (const Strike& s : strikes) {
        design.addRow({1, std::hypot(s.toe - toe, s.high - high)});
        y.push_back(s.y);
        turns.push_back(s.turn);
    }
    const auto model = MixedModel::fit(design, y, turns);
    return model ? model->coefficient(1) : std::nullopt;
}

// The variance of a build's loss by leaving out one stint after the other, and its degrees of freedom.
struct Jackknifed {
    double variance = 0, df = 0;
};

std::optional<Jackknifed> jackknifed(const std::vector<Strike>& strikes) {
    constexpr std::size_t fewest = 4;
    std::set<std::size_t> stints;
    for (const Strike& s : strikes)
        stints.insert(s.turn);
    if (stints.size() < fewest)
        return std::nullopt;
    std::vector<double> losses;
    for (const std::size_t out : stints) {
        std::vector<Strike> left;
        std::ranges::copy_if(strikes, std::back_inserter(left), [&](const Strike& s) { return s.turn != out; });
        const auto slope = left.size() < 8 ? std::nullopt : slopeOff(left);
        if (!slope)
            return std::nullopt;
        losses.push_back(-slope->value);
    }
    const double mean = meanOf(losses);
    double squares = 0;
    for (const double loss : losses)
        squares += (loss - mean) * (loss - mean);
    const auto n = static_cast<double>(losses.size());
    return Jackknifed{(n - 1) / n * squares, n - 1};
}

} // namespace

std::optional<Forgiveness> forgivenessOf(const record::Test& test, const Column& column, BuildAt build) {
    const auto strikes = strikesOf(test, column, build);
    if (strikes.size() < 12)
        return std::nullopt;
    const auto slope = slopeOff(strikes);
    if (!slope)
        return std::nullopt;
    const Interval ci = intervalOf({-slope->value, slope->se, slope->df}, 0.95);
    return Forgiveness{.metric = column.metric,
                       .build = build,
                       .lossPerMm = -slope->value,
                       .se = slope->se,
                       .df = slope->df,
                       .ci95 = ci};
}

std::optional<ModelEstimate> forgivenessGap(const record::Test& test, const Column& column, const Forgiveness& build,
                                            const Forgiveness& against) {
    const auto own = jackknifed(strikesOf(test, column, build.build));
    const auto other = jackknifed(strikesOf(test, column, against.build));
    if (!own || !other || !(own->variance + other->variance > 0))
        return std::nullopt;
    ModelEstimate gap{.metric = build.metric,
                      .build = build.build,
                      .against = against.build,
                      .method = ModelMethod::slopes,
                      .level = {}};
    const double a = own->variance;
    const double b = other->variance;
    gap.value = build.lossPerMm - against.lossPerMm;
    gap.se = std::sqrt(a + b);
    gap.df = (a + b) * (a + b) / (a * a / own->df + b * b / other->df);
    gap.p = studentTwoSided(gap.value / gap.se, gap.df);
    gap.ci95 = intervalOf({gap.value, gap.se, gap.df}, 0.95);
    return gap;
}

namespace {

// The gap between two builds' quantiles, with an interval by resampling stints.
std::optional<WorstFifth> quantileGap(const Column& column, BuildAt build, BuildAt against, double share,
                                      std::uint64_t seed) {
    const BuildValues& own = column.builds[build];
    const BuildValues& theirs = column.builds[against];
    if (own.turns.size() < 5 || theirs.turns.size() < 5)
        return std::nullopt;
    WorstFifth result;
    const WorstShots mine(own, column.metric, share);
    const WorstShots other(theirs, column.metric, share);
    result.gap = mine.seen() - other.seen();
    Random random(seed);
    const int draws = drawsFor(4000, own.turns.size() + theirs.turns.size());
    std::vector<double> gaps;
    gaps.reserve(draws);
    for (int draw = 0; draw < draws; ++draw)
        gaps.push_back(mine.resampled(random) - other.resampled(random));
    const std::size_t stints = std::min(own.turns.size(), theirs.turns.size());
    const auto df = static_cast<double>(stints - 1);
    result.ci95 = expanded(percentiles(gaps), result.gap, stints);
    const double se = (result.ci95.high - result.ci95.low) / 2 / studentQuantile(0.975, df);
    result.p = se > 0 ? studentTwoSided(result.gap / se, df) : 1;
    return result;
}

constexpr double lowFifth = 0.2;
constexpr double highFifth = 0.8;

} // namespace

std::optional<WorstFifth> worstFifthGap(const Column& column, BuildAt build, BuildAt against, std::uint64_t seed) {
    return quantileGap(column, build, against, column.metric == Metric::side ? highFifth : lowFifth, seed);
}

std::optional<WorstFifth> longestFifthGap(const Column& column, BuildAt build, BuildAt against, std::uint64_t seed) {
    return quantileGap(column, build, against, highFifth, seed);
}

TargetResult againstTarget(const Column& column, BuildAt build, double low, double high) {
    TargetResult result{.metric = column.metric, .build = build, .verdict = AgainstTarget::open, .share = {}};
    const BuildValues& own = column.builds[build];
    std::vector<std::vector<bool>> hits;
    for (const auto& turn : own.turns) {
        hits.emplace_back();
        for (const double value : turn.values)
            hits.back().push_back(low <= value && value <= high);
    }
    if (const auto share = shareByTurns(hits))
        result.share = *share;
    result.oneStint = own.turns.size() == 1;
    const auto basis = own.turnMeans();
    if (basis.size() < 2)
        return result;
    const Interval narrow = meanInterval(basis, 0.90);
    const Interval wide = meanInterval(basis, 0.95);
    if (narrow.low >= low && narrow.high <= high)
        result.verdict = AgainstTarget::inside;
    else if (wide.high < low)
        result.verdict = AgainstTarget::below;
    else if (wide.low > high)
        result.verdict = AgainstTarget::above;
    return result;
}

std::vector<std::vector<Outcome>> groupFindings(const std::vector<Column>& columns) {
    std::vector<std::size_t> group(columns.size());
    std::iota(group.begin(), group.end(), std::size_t{0});
    std::vector<std::vector<double>> values;
    values.reserve(columns.size());
    for (const Column& column : columns)
        values.push_back(byShot(column));
    for (std::size_t i = 0; i < columns.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            if (bindsByArithmetic(columns[i].metric, columns[j].metric) ||
                std::fabs(correlationInsideTurns(columns[i], values[j])) >= 0.8)
                std::ranges::replace(group, group[i], group[j]);
    std::map<std::size_t, std::vector<Outcome>> groups;
    for (std::size_t i = 0; i < columns.size(); ++i)
        groups[group[i]].push_back({.kind = record::OutcomeKind::average, .metric = columns[i].metric, .shape = {}});
    std::vector<std::vector<Outcome>> findings;
    for (auto& [name, outcomes] : groups)
        if (outcomes.size() > 1)
            findings.push_back(std::move(outcomes));
    return findings;
}

} // namespace knot::judge
