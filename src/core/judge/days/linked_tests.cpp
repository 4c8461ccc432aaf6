#include "core/judge/days/linked_tests.h"

#include "core/judge/judge.h"
#include "core/judge/rows.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

using record::firstOf;
using record::Outcome;
using record::Test;

// A gap the other way round.
GapFound turned(GapFound gap) {
    std::swap(gap.build, gap.against);
    gap.gap = -gap.gap;
    for (auto* ci : {&gap.ci95, &gap.ci90})
        if (*ci)
            *ci = Interval{-(*ci)->high, -(*ci)->low, (*ci)->level};
    return gap;
}

bool isOf(const GapFound& gap, const ClubKnown& one, const ClubKnown& other) {
    return (gap.build == one && gap.against == other) || (gap.build == other && gap.against == one);
}

ClubKnown knownOf(const Reading& reading, BuildAt build) {
    return {reading.builds[build].id, reading.builds[build].name};
}

std::optional<BuildAt> buildOf(const Reading& reading, const ClubKnown& club) {
    const auto at = std::ranges::find_if(reading.builds, [&](const BuildCount& build) {
        return ClubKnown{build.id, build.name} == club;
    });
    return at == reading.builds.end() ? std::nullopt
                                      : std::optional(BuildAt(static_cast<std::size_t>(at - reading.builds.begin())));
}

} // namespace

std::vector<GapFound> declaredGaps(const Reading& reading, const std::string& title) {
    std::vector<GapFound> found;
    for (const AverageGap& row : reading.average) {
        if (row.claim.role != Role::primary)
            continue;
        GapFound gap{.test = title,
                     .outcome = outcomeOf(row),
                     .build = knownOf(reading, row.build),
                     .against = knownOf(reading, row.against),
                     .gap = row.gap,
                     .se = row.se.value_or(0),
                     .df = row.df.value_or(0),
                     .laps = lapsOf(row),
                     .ci95 = row.ci95,
                     .ci90 = row.ci90,
                     .isSame = row.claim.verdict == Verdict::same,
                     .margin = row.margin};
        if (row.pooled) { // its own sittings count for what they say together
            gap.gap = row.pooled->pooled;
            gap.se = row.pooled->se;
            gap.df = static_cast<double>(row.pooled->sittings) - 1;
            gap.ci95 = row.pooled->ci95;
            const double reach = statistics::studentQuantile(0.95, gap.df) * gap.se;
            gap.ci90 = Interval{gap.gap - reach, gap.gap + reach, 0.90};
        }
        if (gap.se > 0 && gap.df > 0)
            found.push_back(std::move(gap));
    }
    return found;
}

std::vector<GapFound> gapsOfRepeats(const std::vector<Test>& tests, const Test& inHand) {
    std::vector<GapFound> found;
    for (const Test& test : tests) {
        const bool isRepeat = test.id != inHand.id && !firstOf(inHand).empty() && firstOf(test) == firstOf(inHand);
        if (!isRepeat || test.shots.empty() || test.seal.isClosed())
            continue;
        const auto reading = judge({.subject = Case::of(test), .depth = JudgeRequest::Depth::verdicts});
        if (reading)
            for (GapFound& gap : declaredGaps(*reading, test.title))
                found.push_back(std::move(gap));
    }
    return found;
}

std::vector<Repeated> repeatedIn(const Reading& reading, const std::vector<GapFound>& others) {
    std::vector<Repeated> all;
    for (const GapFound& own : declaredGaps(reading, {})) {
        std::vector<SittingEstimate> tests{{own.gap, own.se, own.laps, own.ci95, own.ci90}};
        bool areSame = own.isSame;
        for (GapFound other : others) {
            if (other.outcome != own.outcome || !isOf(other, own.build, own.against))
                continue;
            if (!(other.build == own.build))
                other = turned(std::move(other));
            tests.push_back({other.gap, other.se, other.laps, other.ci95, other.ci90});
            areSame = areSame || other.isSame;
        }
        auto pooled = poolSittings(tests, areSame ? std::optional(own.margin) : std::nullopt);
        if (!pooled)
            continue;
        pooled->over = PooledOver::tests;
        all.push_back({own.outcome, *buildOf(reading, own.build), *buildOf(reading, own.against), *pooled});
    }
    return all;
}

std::vector<ByWay> byWayIn(const Reading& reading, const std::vector<GapFound>& others) {
    std::vector<ByWay> all;
    const std::vector<GapFound> here = declaredGaps(reading, {});
    const auto everMet = [&](const Outcome& outcome, const ClubKnown& one, const ClubKnown& other) {
        const auto isThat = [&](const GapFound& gap) { return gap.outcome == outcome && isOf(gap, one, other); };
        return std::ranges::any_of(here, isThat) || std::ranges::any_of(others, isThat) ||
               (buildOf(reading, one) && buildOf(reading, other));
    };
    // Each gap in both directions: the club that both share is the one that each is against.
    const auto bothWays = [](const std::vector<GapFound>& gaps) {
        std::vector<GapFound> both = gaps;
        for (const GapFound& gap : gaps)
            both.push_back(turned(gap));
        return both;
    };
    for (const GapFound& own : bothWays(here))
        for (const GapFound& other : bothWays(others)) {
            if (other.outcome != own.outcome || other.against != own.against || other.build == own.build ||
                everMet(own.outcome, own.build, other.build))
                continue;
            const double squares = own.se * own.se + other.se * other.se;
            const double df = squares * squares / (std::pow(own.se, 4) / own.df + std::pow(other.se, 4) / other.df);
            const double gap = own.gap - other.gap;
            const double reach = statistics::studentQuantile(0.975, df) * std::sqrt(squares);
            all.push_back({own.outcome, *buildOf(reading, own.build), *buildOf(reading, own.against), other.build.name,
                           other.test, gap, Interval{gap - reach, gap + reach, 0.95}});
        }
    return all;
}

} // namespace knot::judge
