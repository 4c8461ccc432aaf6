#include "core/judge/spreads/consistency.h"

#include "core/judge/gaps/summary.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/resample.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {

using namespace statistics;
namespace {

struct Residuals {
    std::vector<double> e;
    double nu = 0;
    double squares = 0;

    double n() const { return nu + 1; }
    double variance() const { return squares / nu; }
};

void addGroup(Residuals& r, const std::vector<double>& values) {
    const auto n = static_cast<double>(values.size());
    if (values.size() < 2)
        return;
    const double mean = meanOf(values);
    for (const double v : values)
        r.e.push_back((v - mean) * std::sqrt(n / (n - 1)));
    r.nu += n - 1;
    r.squares += squaresAboutMean(values);
}

Residuals residualsOf(const Column& column, BuildAt build) {
    Residuals r;
    if (column.shotByShot)
        addGroup(r, column.builds[build].all());
    else
        for (const auto& turn : column.builds[build].turns)
            addGroup(r, turn.values);
    return r;
}

// The centre about which fourth powers are taken: trimmed the less, the more values there are.
double kurtosisCentre(const Residuals& r) {
    const double share = r.n() > 4 ? 1 / (2 * std::sqrt(r.n() - 4)) : 1;
    return share >= 0.5 ? medianOf(r.e) : trimmedMeanOf(r.e, share);
}

double pooledKurtosis(const std::vector<const Residuals*>& builds) {
    double fourth = 0;
    double squares = 0;
    double count = 0;
    for (const Residuals* r : builds) {
        count += static_cast<double>(r->e.size());
        const double centre = kurtosisCentre(*r);
        for (const double e : r->e)
            fourth += std::pow(e - centre, 4);
        squares += squaresAboutMean(r->e);
    }
    return count * fourth / (squares * squares);
}

// What one build adds to the variance of ln of the ratio of variances (Bonett 2006).
double logVariancePart(double kurtosis, double n) {
    return (kurtosis - (n - 3) / n) / (n - 1);
}

// Kurtosis of one build's own shots, to see whether the two shapes can be called one.
double ownKurtosis(const Residuals& r) {
    const double squares = squaresAboutMean(r.e);
    double fourth = 0;
    const double centre = meanOf(r.e);
    for (const double e : r.e)
        fourth += std::pow(e - centre, 4);
    return squares > 0 ? static_cast<double>(r.e.size()) * fourth / (squares * squares) : 0;
}

} // namespace

namespace {

/// A stint's part in the average distance from the middle.
struct Distances {
    double sum = 0, shots = 0;
};

std::vector<Distances> distancesOf(const Column& column, BuildAt build) {
    std::vector<Distances> stints;
    for (const TurnValues& turn : column.builds[build].turns) {
        const auto n = static_cast<double>(turn.values.size());
        if (turn.values.size() < 2)
            continue;
        const double mean = turn.mean();
        double sum = 0;
        for (const double value : turn.values)
            sum += std::fabs(value - mean);
        stints.push_back({std::sqrt(n / (n - 1)) * sum, n});
    }
    return stints;
}

Distances totalOf(const std::vector<Distances>& stints) {
    Distances all;
    for (const Distances& stint : stints) {
        all.sum += stint.sum;
        all.shots += stint.shots;
    }
    return all;
}

// The variance of the logarithm of the average distance, by leaving out one stint at a time.
double jackknifed(const std::vector<Distances>& stints) {
    const Distances all = totalOf(stints);
    std::vector<double> without;
    without.reserve(stints.size());
    for (const Distances& stint : stints)
        without.push_back(std::log((all.sum - stint.sum) / (all.shots - stint.shots)));
    const auto n = static_cast<double>(stints.size());
    return (n - 1) / n * squaresAboutMean(without);
}

// Where both builds have stints enough, a spread is the average distance, and the SDs stand beside it.
void byDistance(SpreadRatio& row, const Column& column, double margin) {
    const auto own = distancesOf(column, row.build);
    const auto other = distancesOf(column, row.against);
    if (own.size() < fewestStints || other.size() < fewestStints)
        return;
    const Distances mine = totalOf(own);
    const Distances theirs = totalOf(other);
    const double a = mine.sum / mine.shots;
    const double b = theirs.sum / theirs.shots;
    const double va = jackknifed(own);
    const double vb = jackknifed(other);
    if (!(a > 0) || !(b > 0) || !(va + vb > 0) || !std::isfinite(va + vb))
        return;
    row.sds = SdRatio{row.ratio,   row.logCentre,         row.logSe,      row.df, row.ci95,
                      row.claim.p, row.claim.pWorthwhile, row.claim.pSame};
    const double df = (va + vb) * (va + vb) /
                      (va * va / static_cast<double>(own.size() - 1) + vb * vb / static_cast<double>(other.size() - 1));
    const Effect effect{std::log(a / b), std::sqrt(va + vb), df};
    row.method = SpreadMethod::distance;
    row.shapesDiffer = false; // a few far ones do not make it too sure
    row.distanceBuild = a;
    row.distanceAgainst = b;
    row.ratio = a / b;
    row.logCentre = effect.value;
    row.logSe = effect.se;
    row.df = effect.df;
    row.ci95 = exponentiated(intervalOf(effect, 0.95));
    row.ci90 = exponentiated(intervalOf(effect, 0.90));
    fillPs(row.claim, effect, std::log(margin));
}

} // namespace

std::optional<SpreadRatio> spreadRatio(const Column& column, BuildAt build, BuildAt against, double margin) {
    if (column.builds[build].turns.empty() || column.builds[against].turns.empty())
        return std::nullopt;
    const Residuals a = residualsOf(column, against);
    const Residuals b = residualsOf(column, build);
    SpreadRatio result{.metric = column.metric, .build = build, .against = against};
    result.nuBuild = b.nu;
    result.nuAgainst = a.nu;
    if (a.nu < 1 || b.nu < 1) {
        result.claim.cap = Cap::tooFewShots;
        return result;
    }
    result.sdBuild = std::sqrt(b.variance());
    result.sdAgainst = std::sqrt(a.variance());
    const double scale = 1e-12 * std::max({std::fabs(column.builds[build].turns[0].values[0]), 1e-300});
    if (result.sdBuild <= scale || result.sdAgainst <= scale) {
        result.claim.cap = Cap::noVariation;
        return result;
    }
    result.ratio = result.sdBuild / result.sdAgainst;
    if (a.nu < 3 || b.nu < 3) {
        result.claim.cap = Cap::tooFewShots;
        return result;
    }
    const double gamma = pooledKurtosis({&a, &b});
    const double variance = logVariancePart(gamma, a.n()) + logVariancePart(gamma, b.n());
    if (!(variance > 0)) {
        result.claim.cap = Cap::noVariation;
        return result;
    }
    constexpr double z = 1.959963984540054;
    const double c = (b.n() / (b.n() - z)) / (a.n() / (a.n() - z));
    const Effect effect{0.5 * std::log(c * b.variance() / a.variance()), 0.5 * std::sqrt(variance), a.nu + b.nu};
    result.logCentre = effect.value;
    result.logSe = effect.se;
    result.df = effect.df;
    result.ci95 = exponentiated(intervalOf(effect, 0.95));
    result.ci90 = exponentiated(intervalOf(effect, 0.90));
    fillPs(result.claim, effect, std::log(margin));
    const double tail = std::fabs(ownKurtosis(a) - ownKurtosis(b));
    result.shapesDiffer = std::min(a.nu, b.nu) >= 9 && tail > 3;
    byDistance(result, column, margin);
    return result;
}

std::vector<LogSpread> logSpreads(const Column& column) {
    std::vector<Residuals> residuals;
    std::vector<BuildAt> builds;
    for (BuildAt b; b < column.builds.size(); ++b)
        if (Residuals r = residualsOf(column, b); r.nu >= 3 && r.squares > 0) {
            residuals.push_back(std::move(r));
            builds.push_back(b);
        }
    std::vector<const Residuals*> all;
    all.reserve(residuals.size());
    for (const Residuals& r : residuals)
        all.push_back(&r);
    const double gamma = all.empty() ? 0 : pooledKurtosis(all);
    std::vector<LogSpread> spreads;
    for (std::size_t i = 0; i < residuals.size(); ++i)
        if (const double variance = logVariancePart(gamma, residuals[i].n()); variance > 0)
            spreads.push_back(
                {builds[i], 0.5 * std::log(residuals[i].variance()), 0.5 * std::sqrt(variance), residuals[i].nu});
    return spreads;
}

std::optional<BrownForsythe> brownForsythe(const Column& column) {
    std::vector<std::vector<double>> groups;
    for (const auto& build : column.builds)
        if (build.count() >= 2) {
            auto values = build.all();
            const double centre = medianOf(values);
            for (double& v : values)
                v = std::fabs(v - centre);
            groups.push_back(std::move(values));
        }
    if (groups.size() < 2)
        return std::nullopt;
    std::vector<double> all;
    double within = 0;
    for (const auto& group : groups) {
        within += squaresAboutMean(group);
        all.insert(all.end(), group.begin(), group.end());
    }
    const double grand = meanOf(all);
    double between = 0;
    for (const auto& group : groups)
        between += static_cast<double>(group.size()) * std::pow(meanOf(group) - grand, 2);
    BrownForsythe result{.metric = column.metric,
                         .df1 = static_cast<double>(groups.size() - 1),
                         .df2 = static_cast<double>(all.size() - groups.size())};
    if (!(within > 0) || !(result.df2 > 0))
        return std::nullopt;
    result.f = between / result.df1 / (within / result.df2);
    result.p = fisherUpper(result.f, result.df1, result.df2);
    return result;
}

} // namespace knot::judge
