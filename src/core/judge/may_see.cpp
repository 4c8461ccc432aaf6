#include "core/judge/may_see.h"

#include "core/bay/stand.h"
#include "core/judge/case.h"

#include <algorithm>

namespace knot::judge {
namespace {

bool maySee(record::Sees sees, Eyes eyes) {
    return sees == record::Sees::everyone || (sees == record::Sees::fitter && eyes == Eyes::fitter);
}

} // namespace

bool maySeeShots(const record::Test& test, Eyes eyes) {
    return maySee(test.card.visibility.shots, eyes);
}

bool maySeeAverages(const record::Test& test, Eyes eyes) {
    return test.stage != record::Stage::test || maySee(test.card.visibility.averages, eyes);
}

bool maySeeTag(const record::Test& test, Eyes eyes) {
    const bool playerBlind =
        test.card.blinding == record::Blinding::playerBlind || test.card.blinding == record::Blinding::bothBlind;
    return eyes == Eyes::fitter || !playerBlind;
}

std::optional<Withheld> withheld(const record::Test& test) {
    const bool isHidden = test.stage == record::Stage::test && !test.frozenHash.empty() &&
                          test.card.looks == record::Looks::none &&
                          test.card.visibility.comparisons == record::Sees::nobody;
    if (!isHidden)
        return std::nullopt;
    const bay::Stand stand = bay::standOf(test);
    if (stand.stint() == nullptr || stand.stint()->round > test.card.plannedRounds)
        return std::nullopt; // nothing is left to strike, or only laps beyond the plan
    const std::size_t planned = plannedRounds(test);
    return Withheld{std::min(completeRounds(Case::of(test)), planned - 1), planned};
}

void look(record::Test& test, const std::string& at) {
    const auto laps = withheld(test);
    if (!laps)
        return;
    test.card.looks = record::Looks::eachRound;
    test.amendments.push_back({at, "somebody looked at the comparisons after " + std::to_string(laps->done) + " of " +
                                       std::to_string(laps->planned) +
                                       " laps; each lap counts as a look from there on"});
}

} // namespace knot::judge
