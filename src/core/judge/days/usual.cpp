#include "core/judge/days/usual.h"

#include "core/judge/bets/swept_stints.h"
#include "core/record/structure.h"
#include "core/record/text/text.h"
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
    std::map<std::string, std::string> lastCalled; // by id
    for (const record::Test& test : earlier)
        for (const record::Build& build : test.builds)
            if (!build.id.empty())
                lastCalled.try_emplace(build.id, build.name);
    struct Seen {
        std::vector<double> means;
        std::size_t shots = 0;
        std::set<std::string> ids;
    };
    std::map<std::pair<std::string, Metric>, Seen> clubs;
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
        for (const auto& [key, list] : values) {
            const record::Build& build = test.builds[std::get<BuildAt>(key)];
            Seen& seen = clubs[{build.id.empty() ? build.name : lastCalled.at(build.id), std::get<Metric>(key)}];
            seen.means.push_back(meanOf(list));
            seen.shots += list.size();
            if (!build.id.empty())
                seen.ids.insert(build.id);
        }
    }
    std::vector<UsualBasis> bases;
    bases.reserve(clubs.size());
    for (auto& [key, seen] : clubs)
        bases.push_back({.club = key.first,
                         .metric = key.second,
                         .mean = meanOf(seen.means),
                         .sd = seen.means.size() < 2 ? std::nullopt : std::optional(standardDeviation(seen.means)),
                         .sittings = seen.means.size(),
                         .shots = seen.shots,
                         .ids = std::move(seen.ids)});
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

const UsualBasis* basisOf(const std::vector<UsualBasis>& bases, Metric metric, const record::Build& build,
                          std::string_view kind) {
    const UsualBasis* found = nullptr;
    auto goesBefore = [&](const UsualBasis& one) {
        const bool isOwn = one.isOf(build);
        return found == nullptr || (isOwn && !found->isOf(build)) ||
               (isOwn == found->isOf(build) && one.sittings > found->sittings);
    };
    for (const UsualBasis& one : bases)
        if (one.metric == metric && (one.isOf(build) || record::lowerCase(one.club) == kind) && goesBefore(one))
            found = &one;
    return found;
}

namespace {

bool isKnownByDays(const UsualBasis& basis) {
    return basis.sd && *basis.sd > 0 && basis.sittings >= fewestSittings;
}

// The new sitting's own part, and what few sittings know of the mean; what was typed is taken as known.
double betweenSittings(const UsualBasis& basis) {
    return basis.sittings == 0 ? 1 : 1 + 1 / static_cast<double>(basis.sittings);
}

} // namespace

std::optional<UsualNumber> againstUsual(const UsualBasis& basis, const Column& column, BuildAt build,
                                        const plan::Spreads& usual, double level) {
    if (column.builds[build].turns.empty())
        return std::nullopt;
    const TurnValues& first = column.builds[build].turns.front();
    const double inStint = usual.sdShot * usual.sdShot / static_cast<double>(first.values.size());
    double ofDays = usual.sdTurn * usual.sdTurn * betweenSittings(basis);
    double df = tableDegrees;
    if (isKnownByDays(basis)) {
        ofDays = *basis.sd * *basis.sd * betweenSittings(basis);
        const double share = (ofDays + inStint) / ofDays;
        df = share * share * static_cast<double>(basis.sittings - 1);
    }
    const double reach = statistics::studentQuantile(0.5 + level / 2, df) * std::sqrt(ofDays + inStint);
    return UsualNumber{.metric = column.metric,
                       .build = build,
                       .usual = basis.mean,
                       .first = first.mean(),
                       .prediction = {basis.mean - reach, basis.mean + reach, level}};
}

std::optional<UsualBet> betAgainstUsual(const UsualBasis& basis, const Column& column, BuildAt build, BuildAt against,
                                        const BetPrior& prior, const record::Want& want, std::uint64_t seed) {
    const BuildValues& own = column.builds[build];
    if (own.turns.empty())
        return std::nullopt;
    const Stints stints = stintsOf(column, {build});
    const double ofStints = prior.usual.sdTurn * prior.usual.sdTurn / static_cast<double>(own.turns.size());
    const double ofShots = shotVariance(stints, prior) / static_cast<double>(own.count());
    BetPrior days{.usual = prior.usual, .degrees = prior.degrees};
    if (isKnownByDays(basis)) {
        days.usual.sdTurn = *basis.sd;
        days.degrees = static_cast<double>(basis.sittings - 1);
    }
    // One sitting or two don't show their own stints and shots, so that they are added.
    double ofFew = 0;
    if (!isKnownByDays(basis) && basis.shots > 0)
        ofFew = prior.usual.sdTurn * prior.usual.sdTurn / static_cast<double>(basis.sittings) +
                prior.usual.sdShot * prior.usual.sdShot / static_cast<double>(basis.shots);
    // What was typed is what somebody remembers of some day: it is known no better than one sitting is.
    const double ofDays = 1 + 1 / static_cast<double>(std::max<std::size_t>(basis.sittings, 1));
    std::vector<double> variances;
    for (std::size_t point = 0; point < stintPoints; ++point)
        variances.push_back(ofStints + ofShots + ofFew + stintVariance(point, days) * ofDays);
    const double mean = meanOf(own.turnMeans());
    const BetOnPair pair =
        Bet::ofMeans(column.metric, mean, basis.mean, variances, prior.scale).pair(BuildAt(0), BuildAt(1), want, seed);
    return UsualBet{.metric = column.metric,
                    .build = build,
                    .against = against,
                    .usual = basis.mean,
                    .sittings = basis.sittings,
                    .ahead = pair.ahead,
                    .expected = pair.expected,
                    .sd = pair.sd,
                    .low80 = pair.low80,
                    .high80 = pair.high80};
}

} // namespace knot::judge
