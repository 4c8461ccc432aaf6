#include "core/judge/days/pooling.h"

#include "core/judge/gaps/average.h"
#include "core/judge/gaps/verdict.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>

namespace knot::judge {

using namespace statistics;

std::optional<SittingsPooled> poolSittings(const std::vector<SittingEstimate>& sittings,
                                           std::optional<double> sameWithin) {
    const auto k = static_cast<double>(sittings.size());
    if (sittings.size() < 2 || std::ranges::any_of(sittings, [](const auto& s) { return !(s.se > 0 && s.laps > 1); }))
        return std::nullopt;
    SittingsPooled result{.sittings = sittings.size()};
    double sum = 0;
    for (const auto& s : sittings) {
        sum += s.laps;
        result.pooled += s.laps * s.gap;
    }
    result.pooled /= sum;
    double squares = 0;  // of the sittings about their mean
    double expected = 0; // what the laps inside them alone would give
    double inside = 0;   // their degrees of freedom
    for (const auto& s : sittings) {
        squares += s.laps * (s.gap - result.pooled) * (s.gap - result.pooled);
        expected += s.laps * s.se * s.se * (1 - s.laps / sum);
        inside += s.laps - 1;
    }
    result.f = squares / expected;
    result.fP = fisherUpper(result.f, k - 1, inside);
    result.se = std::sqrt(squares / (k - 1) / sum);
    const double reach = studentQuantile(0.975, k - 1) * result.se;
    result.ci95 = {result.pooled - reach, result.pooled + reach, 0.95};
    for (const auto& s : sittings) {
        const bool differs = s.ci95 && !s.ci95->contains(0) && (s.gap > 0) == (result.pooled > 0);
        const bool same = sameWithin && s.ci90 && s.ci90->low > -*sameWithin && s.ci90->high < *sameWithin;
        result.heldUp += (sameWithin ? same : differs) ? 1 : 0;
    }
    return result;
}

double lapsOf(const AverageGap& gap) {
    return gap.rounds > 1 ? static_cast<double>(gap.rounds) : gap.df.value_or(0) + 1;
}

namespace {

PooledOver pooledOver(const record::Structure& structure) {
    const bool players = structure.players.size() > 1;
    const bool deliveries = structure.deliveries.size() > 1;
    if (structure.sittings.size() > 1 || (players && deliveries))
        return players || deliveries ? PooledOver::parts : PooledOver::sittings;
    return players ? PooledOver::players : PooledOver::deliveries;
}

using Setting = std::tuple<std::size_t, std::size_t, std::size_t>;

Setting settingOf(const TurnValues& turn) {
    return {turn.sitting, turn.player, turn.delivery};
}

// The gap in each sitting, by each player and with each delivery, pooled over all of them.
std::optional<SittingsPooled> settingsPooled(const Case& subject, const Column& column, const AverageGap& row,
                                             std::optional<double> sameWithin) {
    std::set<Setting> settings;
    for (const BuildAt club : {row.build, row.against})
        for (const TurnValues& turn : column.builds[club].turns)
            settings.insert(settingOf(turn));
    if (settings.size() < 2)
        return std::nullopt;
    std::vector<SittingEstimate> estimates;
    for (const Setting& setting : settings) {
        Column part = column;
        part.drawn = part.drawn || !row.sameOrder; // the order is that of all of it: few laps of one sitting say little
        for (auto& build : part.builds)
            std::erase_if(build.turns, [&](const TurnValues& turn) { return settingOf(turn) != setting; });
        if (const auto gap = averageGap(part, row.build, row.against, row.margin);
            gap && gap->se && !isUnfair(gap->claim))
            estimates.push_back({gap->gap, *gap->se, lapsOf(*gap), gap->ci95, gap->ci90});
    }
    auto pooled = poolSittings(estimates, sameWithin);
    if (pooled)
        pooled->over = pooledOver(subject.structure());
    return pooled;
}

} // namespace

void carryByDays(const Case& subject, const Column& column, AverageGap& gap) {
    constexpr double disagree = 0.1;
    if (gap.method != GapMethod::rounds || isUnfair(gap.claim) || subject.structure().sittings.size() < 2)
        return;
    const auto pooled = settingsPooled(subject, column, gap, std::nullopt);
    if (!pooled || pooled->over != PooledOver::sittings || !(pooled->fP < disagree))
        return;
    gap.method = GapMethod::days;
    judgeEffect(gap, {pooled->pooled, pooled->se, static_cast<double>(pooled->sittings - 1)});
}

void poolSettings(const Case& subject, const std::vector<Column>& columns, Reading& reading) {
    for (AverageGap& row : reading.average)
        if (row.claim.role == Role::primary && row.kind == record::OutcomeKind::average)
            row.pooled = settingsPooled(subject, *std::ranges::find(columns, row.metric, &Column::metric), row,
                                        row.claim.verdict == Verdict::same ? std::optional(row.margin) : std::nullopt);
}

} // namespace knot::judge
