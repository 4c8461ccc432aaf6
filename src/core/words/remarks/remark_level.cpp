#include "core/words/remarks/remark_level.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace knot::words {

std::optional<double> byLuck(const judge::Misses& misses) {
    if (!misses.oneWay || !misses.oneWay->stintsP)
        return std::nullopt;
    return std::max(misses.oneWay->p, *misses.oneWay->stintsP);
}

const std::vector<judge::ModelEstimate>& interactionsSaid(const judge::Reading& reading) {
    return reading.interactionInLaps.empty() ? reading.interaction : reading.interactionInLaps;
}

namespace {

bool isDeclared(const judge::Reading& reading, record::Metric metric) {
    return std::ranges::any_of(reading.card.primary, [&](const record::Outcome& outcome) {
        return outcome.metric == metric && outcome.kind == record::OutcomeKind::average;
    });
}

std::vector<double> testsOf(const judge::Reading& reading) {
    std::vector<double> tests;
    auto add = [&](const std::optional<double>& p) {
        if (p)
            tests.push_back(*p);
    };
    for (const judge::ModelEstimate& one : reading.settling)
        if (isDeclared(reading, one.metric))
            add(one.p);
    for (const judge::AverageGap& row : reading.average) {
        if (row.settling && isDeclared(reading, row.metric))
            add(row.settling->p);
        if (row.adaptation && isDeclared(reading, row.metric))
            add(row.adaptation->p);
        if (row.forgiveness)
            add(row.forgiveness->p);
        for (const auto& fifth : {row.worstFifth, row.longestFifth})
            if (fifth)
                add(fifth->p);
    }
    for (const judge::ModelEstimate& one : interactionsSaid(reading))
        if (isDeclared(reading, one.metric))
            add(one.p);
    for (const judge::SameSwing& row : reading.sameSwing)
        add(row.p);
    for (const judge::AreaRatio& row : reading.areas)
        add(row.centreP);
    auto misses = [&](const judge::Reading& of) {
        for (const judge::Misses& one : of.misses) {
            add(byLuck(one));
            add(one.bothWaysP);
        }
    };
    if (reading.bySetting.empty())
        misses(reading);
    for (const judge::OfSetting& setting : reading.bySetting)
        misses(setting.reading);
    for (const judge::FeelGap& gap : reading.feelGaps)
        add(gap.p);
    for (const judge::FeelRank& rank : reading.feelRanks)
        add(rank.p);
    return tests;
}

} // namespace

double remarkLevel(const judge::Reading& reading) {
    constexpr double share = 0.05;
    std::vector<double> tests = testsOf(reading);
    std::ranges::sort(tests);
    for (std::size_t k = tests.size(); k-- > 0;)
        if (tests[k] <= share * static_cast<double>(k + 1) / static_cast<double>(tests.size()))
            return tests[k];
    return -1;
}

} // namespace knot::words
