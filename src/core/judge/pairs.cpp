#include "core/judge/pairs.h"

#include <algorithm>

namespace knot::judge {
namespace {

using record::Test;

// Every build of one club against every build of another: a changed club's two stretches are never pooled.
void addPairs(const Case& subject, BuildAt club, BuildAt against, std::vector<Pair>& pairs) {
    const std::size_t builds = subject.test().builds.size();
    for (BuildAt build; build < builds; ++build)
        for (BuildAt other; other < builds; ++other)
            if (subject.clubOf(build) == club && subject.clubOf(other) == against)
                pairs.push_back({build, other});
}

// Where clubs are struck off, the last two of them, and nobody before; where the plan ends with more, all of those.
std::vector<Pair> pairsOfThoseLeft(const Case& subject) {
    auto left = subject.roster().left();
    if (left.size() != 2 && !subject.endsBeforeTwo())
        return {};
    // The baseline is what others are set against, else who comes later.
    const BuildAt baseline = subject.clubOf(subject.test().baselineIndex());
    std::ranges::stable_partition(left, [&](BuildAt club) { return club != baseline; });
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < left.size(); ++i)
        for (std::size_t j = i + 1; j < left.size(); ++j)
            addPairs(subject, left[i], left[j], pairs);
    return pairs;
}

} // namespace

std::vector<Pair> pairsToJudge(const Case& subject) {
    const Test& test = subject.test();
    if (subject.strikesOff())
        return pairsOfThoseLeft(subject);
    std::vector<BuildAt> order{test.baselineIndex()};
    for (BuildAt b; b < test.builds.size(); ++b)
        if (b != order.front())
            order.push_back(b);
    const bool everyPair = test.card.comparison == record::Comparison::whichOfThese;
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < order.size() && (everyPair || i < 1); ++i)
        for (std::size_t j = i + 1; j < order.size(); ++j)
            pairs.push_back({order[j], order[i]});
    return pairs;
}

std::size_t comparisonsOf(const Case& subject, std::size_t pairs) {
    const std::size_t clubs = subject.clubs();
    return subject.endsBeforeTwo() ? std::max(pairs, clubs * (clubs - 1) / 2) : pairs;
}

} // namespace knot::judge
