#include "core/judge/usual.h"

#include "core/record/structure.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>

namespace knot::judge {
namespace {

constexpr std::array usualMetrics = {Metric::carry, Metric::ballSpeed, Metric::launch, Metric::spin};
constexpr std::size_t fewestSittings = 3;
constexpr double tableDegrees = 6;

} // namespace

std::vector<UsualBasis> usualTyped(const record::Player& player) {
    std::vector<UsualBasis> bases;
    for (const record::Usual& usual : player.usual) {
        const std::array values = {usual.carry, usual.ballSpeed, usual.launch, usual.spin};
        for (std::size_t i = 0; i < values.size(); ++i)
            if (values[i])
                bases.push_back({.club = usual.club, .metric = usualMetrics[i], .mean = *values[i], .sd = {}});
    }
    return bases;
}

std::vector<UsualBasis> usualStruck(const std::vector<record::Test>& earlier, const std::string& player) {
    std::map<std::pair<std::string, Metric>, std::vector<double>> means;
    for (const record::Test& test : earlier) {
        std::map<std::tuple<std::string, BuildAt, Metric>, std::vector<double>> values;
        for (const record::Shot& shot : test.shots) {
            const std::string& by = shot.player.empty() ? test.firstPlayer().name : shot.player;
            if (by != player || shot.status != record::ShotStatus::counted)
                continue;
            for (const Metric metric : usualMetrics)
                if (const auto value = shot.readings.at(metric))
                    values[{shot.sitting, shot.build, metric}].push_back(*value);
        }
        for (const auto& [key, list] : values)
            means[{test.builds[std::get<BuildAt>(key)].name, std::get<Metric>(key)}].push_back(meanOf(list));
    }
    std::vector<UsualBasis> bases;
    bases.reserve(means.size());
    for (const auto& [key, list] : means)
        bases.push_back({.club = key.first,
                         .metric = key.second,
                         .mean = meanOf(list),
                         .sd = list.size() < 2 ? std::nullopt : std::optional(standardDeviation(list)),
                         .sittings = list.size()});
    return bases;
}

std::optional<double> bagStep(const std::vector<UsualBasis>& bases, double carry) {
    constexpr std::size_t fewestClubs = 3;
    constexpr double least = 2; // m; closer clubs are one club twice
    std::map<std::string, double> ofClub;
    for (const UsualBasis& basis : bases) // what was struck comes first, and stands
        if (basis.metric == Metric::carry)
            ofClub.try_emplace(basis.club, basis.mean);
    std::vector<double> carries;
    for (const auto& [club, own] : ofClub)
        carries.push_back(own);
    std::ranges::sort(carries);
    const auto same = std::unique(carries.begin(), carries.end(), [](double a, double b) { return b - a < least; });
    carries.erase(same, carries.end());
    if (carries.size() < fewestClubs)
        return std::nullopt;
    const auto nearest = static_cast<std::size_t>(
        std::ranges::min_element(carries, {}, [&](double own) { return std::fabs(own - carry); }) - carries.begin());
    double sum = 0;
    double steps = 0;
    for (const std::size_t longer : {nearest, nearest + 1})
        if (longer > 0 && longer < carries.size()) {
            sum += carries[longer] - carries[longer - 1];
            ++steps;
        }
    return sum / steps;
}

std::optional<UsualNumber> againstUsual(const std::vector<UsualBasis>& bases, const Column& column, BuildAt build,
                                        const std::string& name, const plan::Spreads& usual) {
    const UsualBasis* basis = nullptr;
    for (const UsualBasis& one : bases)
        if (one.metric == column.metric && one.club == name && (basis == nullptr || one.sittings > basis->sittings))
            basis = &one;
    if (basis == nullptr || column.builds[build].turns.empty())
        return std::nullopt;
    const TurnValues& first = column.builds[build].turns.front();
    const double inStint = usual.sdShot * usual.sdShot / static_cast<double>(first.values.size());
    double variance = usual.sdTurn * usual.sdTurn + inStint;
    double df = tableDegrees;
    if (basis->sd && basis->sittings >= fewestSittings) {
        const auto sittings = static_cast<double>(basis->sittings);
        variance = *basis->sd * *basis->sd * (1 + 1 / sittings) + inStint;
        df = sittings - 1;
    }
    const double reach = statistics::studentQuantile(0.975, df) * std::sqrt(variance);
    return UsualNumber{.metric = column.metric,
                       .build = build,
                       .usual = basis->mean,
                       .first = first.mean(),
                       .prediction = {basis->mean - reach, basis->mean + reach, 0.95}};
}

} // namespace knot::judge
