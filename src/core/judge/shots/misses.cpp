#include "core/judge/shots/misses.h"

#include "core/judge/gaps/summary.h"
#include "core/judge/spreads/shares.h"
#include "core/statistics/distributions.h"
#include "core/statistics/quantile.h"
#include "core/statistics/ranks.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

constexpr std::size_t fewestForFlyers = 8;

std::size_t placeOf(double off, double room) {
    return off < -room ? 0 : off > room ? 2 : 1;
}

// `sides`: of each stint its misses to the left and to the right.
std::optional<Misses::OneWay> oneWayOf(const std::array<std::array<std::size_t, 3>, 3>& table,
                                       const std::vector<std::pair<double, double>>& sides) {
    auto across = [&](std::size_t side) { return table[side][0] + table[side][1] + table[side][2]; };
    const std::size_t left = across(0);
    const std::size_t right = across(2);
    if (left + right == 0)
        return std::nullopt;
    Misses::OneWay oneWay{.side = left >= right ? record::Side::left : record::Side::right,
                          .count = std::max(left, right),
                          .of = left + right};
    oneWay.p = statistics::signTest(oneWay.count, oneWay.of);
    if (sides.size() < 2)
        return oneWay;
    std::vector<double> toRight;
    toRight.reserve(sides.size());
    for (const auto& [l, r] : sides)
        toRight.push_back(r - l);
    const double sd = standardDeviation(toRight);
    const auto stints = static_cast<double>(toRight.size());
    oneWay.stintsP = // 0 where each stint missed to one side as often
        sd > 0 ? statistics::studentTwoSided(meanOf(toRight) / (sd / std::sqrt(stints)), stints - 1) : 0;
    return oneWay;
}

// How likely so many misses to one side are where it has less than a quarter of all: by shots, and by stints.
double notUnderAQuarter(std::size_t own, std::size_t all, const std::vector<double>& beyond) {
    constexpr double quarter = 0.25;
    const double byShots = statistics::binomialAtLeast(static_cast<int>(own), static_cast<int>(all), quarter);
    const double sd = standardDeviation(beyond);
    const auto stints = static_cast<double>(beyond.size());
    const double byStints = sd > 0 ? statistics::studentUpper(meanOf(beyond) / (sd / std::sqrt(stints)), stints - 1)
                                   : (meanOf(beyond) > 0 ? 0 : 1);
    return std::max(byShots, byStints);
}

// `sides`: of each stint its misses to the left and to the right.
std::optional<double> bothWaysP(const std::vector<std::pair<double, double>>& sides, std::size_t left,
                                std::size_t right) {
    constexpr std::size_t fewest = 12;
    if (left + right < fewest || sides.size() < 2)
        return std::nullopt;
    std::vector<double> ofLeft;
    std::vector<double> ofRight;
    for (const auto& [l, r] : sides) {
        ofLeft.push_back(l - 0.25 * (l + r));
        ofRight.push_back(r - 0.25 * (l + r));
    }
    return std::max(notUnderAQuarter(left, left + right, ofLeft), notUnderAQuarter(right, left + right, ofRight));
}

// Spin far under what is usual of the build, at a ball speed that is not.
void markFlyers(const record::Test& test, const Column& spin, const Column& speed, Misses& misses) {
    const auto spins = summarise(spin, misses.build);
    const auto speeds = summarise(speed, misses.build);
    if (!spins || !speeds || !(spins->mad > 0))
        return;
    std::vector<std::vector<bool>> turns;
    std::size_t n = 0;
    for (const TurnValues& turn : spin.builds[misses.build].turns) {
        turns.emplace_back();
        for (std::size_t i = 0; i < turn.values.size(); ++i) {
            const record::Shot& shot = test.shots[turn.shots[i]];
            const auto ball = shot.readings.at(Metric::ballSpeed);
            if (!ball)
                continue;
            const bool flies = turn.values[i] < spins->median - 2 * spins->mad && *ball >= speeds->median;
            turns.back().push_back(flies);
            ++n;
            if (flies)
                misses.flyerShots.push_back(shot.id);
        }
    }
    if (n >= fewestForFlyers)
        misses.flyers = shareByTurns(turns);
    else
        misses.flyerShots.clear();
}

} // namespace

std::vector<Misses> missesOf(const Case& subject, const record::Card& card) {
    const record::Test& test = subject.test();
    auto column = [&](Metric metric) { return columnOf(test, subject.structure(), metric, subject.taken()); };
    const Column carry = column(Metric::carry);
    const Column spin = column(Metric::spin);
    const Column speed = column(Metric::ballSpeed);
    std::vector<Misses> all;
    for (BuildAt b; b < test.builds.size(); ++b) {
        const auto usual = summarise(carry, b);
        if (!usual)
            continue;
        const record::Aim aim = card.aim.value_or(record::Aim{.carry = usual->median});
        Misses misses{.build = b, .aimed = card.aim.has_value()};
        std::vector<std::pair<double, double>> sides;
        for (const TurnValues& turn : carry.builds[b].turns) {
            auto& [left, right] = sides.emplace_back();
            for (std::size_t i = 0; i < turn.values.size(); ++i)
                if (const auto side = test.shots[turn.shots[i]].readings.at(Metric::side)) {
                    const std::size_t across = placeOf(*side - aim.side, card.margin(Metric::side));
                    ++misses.table[across][placeOf(turn.values[i] - aim.carry, card.margin(Metric::carry))];
                    left += across == 0 ? 1 : 0;
                    right += across == 2 ? 1 : 0;
                    ++misses.n;
                }
        }
        if (misses.n == 0)
            continue;
        misses.oneWay = oneWayOf(misses.table, sides);
        for (const auto& [left, right] : sides) {
            misses.left += static_cast<std::size_t>(left);
            misses.right += static_cast<std::size_t>(right);
        }
        misses.bothWaysP = bothWaysP(sides, misses.left, misses.right);
        markFlyers(test, spin, speed, misses);
        all.push_back(std::move(misses));
    }
    return all;
}

} // namespace knot::judge
