#include "core/judge/spreads/dispersion.h"

#include "core/judge/columns.h"
#include "core/judge/gaps/verdict.h"
#include "core/judge/resample.h"
#include "core/random.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

namespace knot::judge {

using namespace statistics;
namespace {

// Sum of squares and products about a mean, with its degrees of freedom.
struct Scatter {
    double ss = 0, cc = 0, sc = 0, nu = 0;

    Scatter operator+(const Scatter& o) const { return {ss + o.ss, cc + o.cc, sc + o.sc, nu + o.nu}; }
    Scatter operator-(const Scatter& o) const { return {ss - o.ss, cc - o.cc, sc - o.sc, nu - o.nu}; }
    double determinant() const { return (ss * cc - sc * sc) / (nu * nu); }
    /// ln of the area up to a constant: half the log of the generalised variance.
    double logArea() const { return 0.5 * std::log(determinant()); }
    bool isFlat() const { return !(nu >= 2) || !(ss * cc - sc * sc > 1e-12 * ss * cc); }
};

LandingPoint centreOf(const std::vector<LandingPoint>& points) {
    LandingPoint mean;
    for (const auto& p : points) {
        mean.side += p.side / static_cast<double>(points.size());
        mean.carry += p.carry / static_cast<double>(points.size());
    }
    return mean;
}

Scatter scatterOf(const std::vector<LandingPoint>& points) {
    const LandingPoint mean = centreOf(points);
    Scatter w;
    for (const auto& p : points) {
        const double s = p.side - mean.side;
        const double c = p.carry - mean.carry;
        w.ss += s * s;
        w.cc += c * c;
        w.sc += s * c;
    }
    w.nu = static_cast<double>(points.size()) - 1;
    return w;
}

std::vector<LandingPoint> allPoints(const std::vector<LandingTurn>& turns) {
    std::vector<LandingPoint> points;
    for (const auto& turn : turns)
        points.insert(points.end(), turn.points.begin(), turn.points.end());
    return points;
}

// One build's scatter in the pieces that the jackknife leaves out one at a time.
struct Pieces {
    bool byShots = false;
    Scatter total;
    std::vector<Scatter> left;  // what remains without each piece
    std::vector<Scatter> turns; // the pieces themselves, by turns
    std::size_t fewest() const { return byShots ? 6 : 4; }
};

Pieces piecesOf(const Landings& landings, BuildAt build) {
    const auto& turns = landings.builds[build];
    Pieces pieces;
    pieces.byShots = landings.shotByShot || turns.size() == 1;
    if (pieces.byShots) {
        const auto points = allPoints(turns);
        pieces.total = scatterOf(points);
        for (std::size_t i = 0; i < points.size(); ++i) {
            auto rest = points;
            rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(i));
            pieces.left.push_back(scatterOf(rest));
        }
        return pieces;
    }
    for (const auto& turn : turns)
        if (turn.points.size() >= 2) {
            pieces.turns.push_back(scatterOf(turn.points));
            pieces.total = pieces.total + pieces.turns.back();
        }
    for (const Scatter& piece : pieces.turns)
        pieces.left.push_back(pieces.total - piece);
    return pieces;
}

struct Jackknife {
    double variance = 0, df = 0;
};

std::optional<Jackknife> jackknife(const Pieces& pieces) {
    const auto g = static_cast<double>(pieces.left.size());
    if (pieces.left.size() < pieces.fewest() || std::ranges::any_of(pieces.left, &Scatter::isFlat))
        return std::nullopt;
    std::vector<double> pseudo;
    pseudo.reserve(pieces.left.size());
    for (const Scatter& rest : pieces.left)
        pseudo.push_back(g * pieces.total.logArea() - (g - 1) * rest.logArea());
    return Jackknife{squaresAboutMean(pseudo) / (g * (g - 1)), g - 1};
}

constexpr std::uint64_t mostArrangements = 20000;

// Deals whole turns anew between the builds, each keeping its number of turns: every way to do so
// where they are few, else seeded draws with the observed one counted among them.
std::optional<double> shuffleAreas(const Pieces& a, const Pieces& b, std::uint64_t seed) {
    if (a.byShots || b.byShots)
        return std::nullopt;
    std::vector<Scatter> turns(b.turns);
    turns.insert(turns.end(), a.turns.begin(), a.turns.end());
    const Scatter total = a.total + b.total;
    auto statistic = [&](const Scatter& first) {
        const Scatter second = total - first;
        return first.isFlat() || second.isFlat() ? 0 : std::fabs(first.logArea() - second.logArea());
    };
    const double observed = statistic(b.total) * (1 - 1e-12) - 1e-14;
    if (const auto ways = statistics::waysToChoose(turns.size(), b.turns.size(), mostArrangements);
        ways <= mostArrangements) {
        double reachedExactly = 0;
        auto deal = [&](auto& self, std::size_t from, std::size_t left, const Scatter& sum) -> void {
            if (left == 0) {
                reachedExactly += statistic(sum) >= observed ? 1 : 0;
                return;
            }
            for (std::size_t i = from; i + left <= turns.size(); ++i)
                self(self, i + 1, left - 1, sum + turns[i]);
        };
        deal(deal, 0, b.turns.size(), Scatter{});
        return reachedExactly / static_cast<double>(ways);
    }
    const int draws = drawsFor(static_cast<int>(mostArrangements), turns.size());
    int reached = 0;
    Random random(seed);
    for (int draw = 0; draw < draws; ++draw) {
        Scatter first;
        for (std::size_t i = 0; i < b.turns.size(); ++i) {
            std::swap(turns[i], turns[i + random.below(turns.size() - i)]);
            first = first + turns[i];
        }
        reached += statistic(first) >= observed ? 1 : 0;
    }
    return static_cast<double>(reached + 1) / (draws + 1);
}

// d'S⁻¹d for a covariance S = W/ν.
std::optional<double> distance(const LandingPoint& d, const Scatter& w) {
    if (w.isFlat())
        return std::nullopt;
    const double det = w.determinant();
    return (d.side * d.side * w.cc - 2 * d.side * d.carry * w.sc + d.carry * d.carry * w.ss) / w.nu / det;
}

std::map<std::size_t, LandingPoint> centresByRound(const std::vector<LandingTurn>& turns) {
    std::map<std::size_t, std::vector<LandingPoint>> means;
    for (const auto& turn : turns)
        means[turn.round].push_back(centreOf(turn.points));
    std::map<std::size_t, LandingPoint> centres;
    for (const auto& [round, points] : means)
        centres[round] = centreOf(points);
    return centres;
}

void finishCentre(AreaRatio& result, double t2, double f, double df2) {
    result.hotellingT2 = t2;
    result.hotellingF = f;
    result.hotellingDf2 = df2;
    result.centreP = fisherUpper(f, 2, df2);
}

void centreByRounds(AreaRatio& result, const Landings& landings) {
    const auto own = centresByRound(landings.builds[result.build]);
    const auto other = centresByRound(landings.builds[result.against]);
    std::vector<LandingPoint> differences;
    for (const auto& [round, centre] : own)
        if (const auto at = other.find(round); at != other.end())
            differences.push_back({centre.side - at->second.side, centre.carry - at->second.carry});
    const auto rounds = static_cast<double>(differences.size());
    if (differences.size() < 4)
        return;
    const auto d2 = distance(centreOf(differences), scatterOf(differences));
    if (!d2)
        return;
    result.centreMethod = CentreMethod::rounds;
    const double t2 = rounds * *d2;
    finishCentre(result, t2, (rounds - 2) / (2 * (rounds - 1)) * t2, rounds - 2);
}

void centreByShots(AreaRatio& result, const Landings& landings) {
    const auto own = allPoints(landings.builds[result.build]);
    const auto other = allPoints(landings.builds[result.against]);
    const LandingPoint a = centreOf(other);
    const LandingPoint b = centreOf(own);
    const Scatter pooled = scatterOf(own) + scatterOf(other);
    const auto d2 = distance({b.side - a.side, b.carry - a.carry}, pooled);
    if (!d2)
        return;
    const auto n1 = static_cast<double>(own.size());
    const auto n2 = static_cast<double>(other.size());
    result.centreMethod = CentreMethod::shots;
    const double t2 = n1 * n2 / (n1 + n2) * *d2;
    finishCentre(result, t2, (n1 + n2 - 3) / (2 * (n1 + n2 - 2)) * t2, n1 + n2 - 3);
}

} // namespace

Landings landingsOf(const record::Test& test, const record::Structure& structure, Taken taken) {
    Landings landings{.shotByShot = structure.shotByShot, .builds = {}};
    landings.builds.resize(test.builds.size());
    for (std::size_t t = 0; t < structure.turns.size(); ++t) {
        LandingTurn turn{
            .turn = record::TurnAt(t), .round = structure.turns[t].round.value_or(record::RoundAt()), .points = {}};
        for (const record::ShotAt shot : structure.turns[t].shots) {
            const auto& s = test.shots[shot];
            const auto side = s.readings.at(Metric::side);
            const auto carry = s.readings.at(Metric::carry);
            if (isTaken(s, taken) && side && carry && std::isfinite(*side) && std::isfinite(*carry))
                turn.points.push_back({*side, *carry, shot});
        }
        if (!turn.points.empty())
            landings.builds[structure.turns[t].build].push_back(std::move(turn));
    }
    return landings;
}

Column hitsOf(const record::Test& test, const record::Structure& structure, const record::Shape& shape, Taken taken) {
    Column column = columnOf(test, structure, Metric::carry, taken);
    for (auto& build : column.builds) {
        for (auto& turn : build.turns) {
            TurnValues kept = turn;
            kept.values.clear();
            kept.shots.clear();
            for (std::size_t i = 0; i < turn.values.size(); ++i)
                if (const auto side = test.shots[turn.shots[i]].readings.at(Metric::side);
                    side && std::isfinite(*side)) {
                    kept.values.push_back(shape.holds(*side, turn.values[i]) ? 1 : 0);
                    kept.shots.push_back(turn.shots[i]);
                }
            turn = std::move(kept);
        }
        std::erase_if(build.turns, [](const TurnValues& turn) { return turn.values.empty(); });
    }
    return column;
}

std::optional<double> fittedShare(const Landings& landings, BuildAt build, const record::Shape& shape) {
    const auto points = allPoints(landings.builds[build]);
    if (points.size() < 4)
        return std::nullopt;
    const LandingPoint centre = centreOf(points);
    const Scatter w = scatterOf(points);
    if (w.isFlat())
        return std::nullopt;
    const double sdSide = std::sqrt(w.ss / w.nu);
    const double slope = w.sc / w.ss;
    const double sdCarry = std::sqrt((w.cc - w.sc * w.sc / w.ss) / w.nu);
    auto below = [](double z) { return 1 - normalUpper(z); };
    if (shape.isBeyond()) {
        const double left = below((shape.side - centre.side) / sdSide);
        return shape.kind == record::Shape::Kind::beyondLeft ? left : 1 - left;
    }
    double share = 0;
    constexpr int slices = 2000;
    for (int i = 0; i < slices; ++i) {
        const double offset = shape.width * ((i + 0.5) / slices - 0.5);
        const double side = shape.side + offset;
        const double inSlice = below((side + shape.width / slices / 2 - centre.side) / sdSide) -
                               below((side - shape.width / slices / 2 - centre.side) / sdSide);
        double along = 1;
        if (shape.kind != record::Shape::Kind::fairway) {
            const double across = 2 * offset / shape.width;
            const double half = shape.kind == record::Shape::Kind::ellipse
                                    ? shape.depth / 2 * std::sqrt(std::max(0.0, 1 - across * across))
                                    : shape.depth / 2;
            const double mean = centre.carry + slope * (side - centre.side);
            along = below((shape.carry + half - mean) / sdCarry) - below((shape.carry - half - mean) / sdCarry);
        }
        share += inSlice * along;
    }
    return share;
}

std::optional<LandingArea> landingArea(const Landings& landings, BuildAt build) {
    const auto points = allPoints(landings.builds[build]);
    if (points.size() < 4)
        return std::nullopt;
    const LandingPoint centre = centreOf(points);
    const Scatter w = scatterOf(points);
    LandingArea area{.build = build, .n = points.size(), .centreSide = centre.side, .centreCarry = centre.carry};
    const double root = std::sqrt(std::max(0.0, w.determinant()));
    area.area50 = std::numbers::pi * chiSquareQuantile(0.5, 2) * root;
    area.area90 = std::numbers::pi * chiSquareQuantile(0.9, 2) * root;
    const double ss = w.ss / w.nu;
    const double cc = w.cc / w.nu;
    const double sc = w.sc / w.nu;
    const double middle = (ss + cc) / 2;
    const double reach = std::hypot((ss - cc) / 2, sc);
    area.sdMajor = std::sqrt(middle + reach);
    area.sdMinor = std::sqrt(std::max(0.0, middle - reach));
    area.tilt = 0.5 * std::atan2(2 * sc, cc - ss) * 180 / std::numbers::pi;
    return area;
}

std::optional<LogArea> logArea(const Landings& landings, BuildAt build) {
    if (allPoints(landings.builds[build]).size() < 4)
        return std::nullopt;
    const Pieces pieces = piecesOf(landings, build);
    const auto error = pieces.total.isFlat() ? std::nullopt : jackknife(pieces);
    if (!error || !(error->variance > 0))
        return std::nullopt;
    return LogArea{pieces.total.logArea(), std::sqrt(error->variance), error->df};
}

std::optional<AreaRatio> areaRatio(const Landings& landings, BuildAt build, BuildAt against, double margin,
                                   std::optional<std::uint64_t> seed) {
    if (allPoints(landings.builds[build]).size() < 4 || allPoints(landings.builds[against]).size() < 4)
        return std::nullopt;
    const Pieces a = piecesOf(landings, against);
    const Pieces b = piecesOf(landings, build);
    AreaRatio result{.build = build, .against = against};
    result.nuBuild = b.total.nu;
    result.nuAgainst = a.total.nu;
    const bool apart = landings.builds[build].back().turn < landings.builds[against].front().turn ||
                       landings.builds[against].back().turn < landings.builds[build].front().turn;
    if (landings.builds[build].size() == 1 || landings.builds[against].size() == 1 || apart)
        centreByShots(result, landings);
    else
        centreByRounds(result, landings);
    if (a.total.isFlat() || b.total.isFlat()) {
        result.claim.cap = Cap::noVariation;
        return result;
    }
    result.ratio = std::exp(b.total.logArea() - a.total.logArea());
    if (seed)
        result.shuffleP = shuffleAreas(a, b, *seed);
    const auto ja = jackknife(a);
    const auto jb = jackknife(b);
    if (!ja || !jb || !(ja->variance + jb->variance > 0)) {
        result.claim.cap = Cap::tooFewRounds;
        return result;
    }
    const double variance = ja->variance + jb->variance;
    const double df =
        variance * variance / (ja->variance * ja->variance / ja->df + jb->variance * jb->variance / jb->df);
    const Effect effect{std::log(result.ratio), std::sqrt(variance), df};
    result.logSe = effect.se;
    result.df = df;
    result.ci95 = exponentiated(intervalOf(effect, 0.95));
    result.ci90 = exponentiated(intervalOf(effect, 0.90));
    fillPs(result.claim, effect, std::log(margin));
    return result;
}

} // namespace knot::judge
