#include "core/judge/case.h"

#include "core/bay/correct.h"
#include "core/bay/stand.h"
#include "core/plan/strike_off.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace knot::judge {
namespace {

using record::Metric;

// A turn is beyond the plan when its club has had all its planned rounds. A lap that was parted, by a
// night between two sittings or by a change of the player, makes two rounds with some clubs each.
std::vector<bool> turnsBeyond(const record::Structure& structure, std::size_t planned) {
    using Own = std::pair<BuildAt, std::size_t>; // of a build and a player
    std::map<Own, std::set<std::size_t>> lapsOf;
    std::vector<bool> beyond;
    for (const auto& turn : structure.turns) {
        auto& had = lapsOf[{turn.build, turn.player}];
        const bool over = turn.round && !had.contains(turn.lap) && had.size() >= planned;
        if (turn.round && !over)
            had.insert(turn.lap);
        beyond.push_back(over);
    }
    return beyond;
}

std::size_t roundsAmong(const record::Structure& structure, const std::vector<bool>& beyond) {
    std::set<record::RoundAt> rounds;
    for (std::size_t turn = 0; turn < structure.turns.size(); ++turn)
        if (beyond[turn])
            rounds.insert(*structure.turns[turn].round);
    return rounds.size();
}

void measureMiss(record::Readings& readings, const record::Aim& aim) {
    const auto side = readings.at(Metric::side);
    const auto carry = readings.at(Metric::carry);
    if (side && carry)
        readings.derive(Metric::miss, std::hypot(*side - aim.side, *carry - aim.carry));
}

} // namespace

std::size_t plannedRounds(const record::Test& test) {
    return static_cast<std::size_t>(std::max(0, test.card.plannedRounds)) *
           std::max<std::size_t>(test.players.size(), 1);
}

Case Case::of(const record::Test& test) {
    const auto before = bay::withoutLateChanges(test);
    return withoutHistory(test, before ? std::make_shared<const Case>(withoutHistory(*before, nullptr)) : nullptr);
}

Case Case::withoutHistory(const record::Test& test, std::shared_ptr<const Case> before) {
    auto parts = std::make_shared<Parts>(Parts{.roster = record::Roster(test)});
    parts->strikesOff = plan::strikesOff(test);
    parts->endsBeforeTwo =
        parts->strikesOff && parts->roster.left().size() > 2 && !test.turns.empty() &&
        std::ranges::max_element(test.turns, {}, &record::PlannedTurn::round)->round >= test.plan.rounds;
    parts->before = std::move(before);
    std::vector<std::size_t> numbers;
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (!bay::isUnnamed(test, test.shots[i]))
            numbers.push_back(i + 1);
    plan::SealedView view = plan::asSealed(bay::withoutUnnamed(test));
    auto successors = record::withSuccessors(std::move(view).take());
    parts->seen = std::move(successors.test);
    if (const auto& aim = parts->seen.card.aim)
        for (record::Shot& shot : parts->seen.shots)
            measureMiss(shot.readings, *aim);
    parts->clubOf = std::move(successors.originals);
    parts->structure = record::structureOf(parts->seen);
    parts->numbers = numbers;
    parts->seenNumbers = std::move(numbers);
    const std::size_t planned = plannedRounds(test);
    if (planned == 0 || parts->structure.rounds.size() <= planned)
        return Case(std::move(parts));
    const auto beyond = turnsBeyond(parts->structure, static_cast<std::size_t>(test.card.plannedRounds));
    parts->roundsBeyond = roundsAmong(parts->structure, beyond);
    if (parts->roundsBeyond == 0)
        return Case(std::move(parts));
    record::Test kept = parts->seen;
    kept.shots.clear();
    std::vector<std::size_t> keptNumbers;
    for (std::size_t i = 0; i < parts->seen.shots.size(); ++i)
        if (!beyond[parts->structure.turnOfShot[i]]) {
            kept.shots.push_back(parts->seen.shots[i]);
            keptNumbers.push_back(parts->numbers[i]);
        }
    parts->structure = record::structureOf(kept);
    parts->numbers = std::move(keptNumbers);
    parts->planned = std::move(kept);
    return Case(std::move(parts));
}

std::optional<Cap> Case::held() const {
    if (m_parts->isPart)
        return Cap::partOfAll;
    return givesLeadsOnly() ? std::optional(Cap::leadOnly) : std::nullopt;
}

std::vector<Case::Setting> Case::settings() const {
    const bool several = structure().players.size() > 1;
    const bool ways = structure().deliveries.size() > 1;
    std::vector<Setting> all;
    for (const record::Shot& shot : test().shots)
        if (shot.status == record::ShotStatus::counted) {
            Setting one{several ? shot.player : "", ways ? shot.delivery : ""};
            if (std::ranges::find(all, one) == all.end())
                all.push_back(std::move(one));
        }
    return all.size() > 1 ? all : std::vector<Setting>();
}

Case Case::partOf(const Setting& setting) const {
    const bool several = structure().players.size() > 1;
    const bool ways = structure().deliveries.size() > 1;
    auto parts = std::make_shared<Parts>(*m_parts);
    auto keep = [&](record::Test& test) {
        for (record::Shot& shot : test.shots)
            if ((several && shot.player != setting.player) || (ways && shot.delivery != setting.delivery))
                shot.status = record::ShotStatus::warmUp;
    };
    keep(parts->seen);
    if (parts->planned)
        keep(*parts->planned);
    parts->structure = record::structureOf(parts->planned ? *parts->planned : parts->seen);
    parts->isPart = true;
    parts->before = nullptr;
    return Case(std::move(parts));
}

Taken Case::taken() const {
    return test().card.setsAsideByNumbers() ? Taken::allRead : Taken::counted;
}

namespace {

std::vector<std::set<BuildAt>> countedByRound(const record::Test& test, const record::Structure& structure) {
    std::vector<std::set<BuildAt>> builds(structure.rounds.size());
    for (const auto& turn : structure.turns)
        for (const record::ShotAt shot : turn.shots)
            if (test.shots[shot].status == record::ShotStatus::counted)
                builds[*turn.round].insert(turn.build);
    return builds;
}

} // namespace

std::size_t roundsOfBoth(const record::Test& test, const record::Structure& structure, BuildAt a, BuildAt b) {
    return static_cast<std::size_t>(std::ranges::count_if(
        countedByRound(test, structure), [&](const auto& held) { return held.contains(a) && held.contains(b); }));
}

std::vector<RoundHeld> roundsHeld(const Case& subject) {
    const record::Test& test = subject.test();
    const auto builds = countedByRound(test, subject.structure());
    std::vector<RoundHeld> rounds(builds.size());
    std::set<BuildAt> struck;
    for (std::size_t r = 0; r < builds.size(); ++r)
        for (const BuildAt build : builds[r]) {
            rounds[r].held.insert(subject.clubOf(build));
            struck.insert(subject.clubOf(build));
        }
    // Only a planned lap has a number that clubs leave or join at.
    std::vector<std::optional<int>> laps(builds.size());
    if (!test.turns.empty())
        for (const auto& turn : subject.structure().turns)
            if (turn.round)
                laps[*turn.round] = record::wholeIn(test.shots[turn.shots.front()].round);
    const record::Roster& roster = subject.roster();
    for (std::size_t r = 0; r < rounds.size(); ++r)
        for (const BuildAt club : struck)
            if (!rounds[r].held.contains(club) && (laps[r] ? roster.isIn(club, *laps[r]) : roster.isIn(club)))
                rounds[r].lacking.insert(club);
    return rounds;
}

std::size_t completeRounds(const Case& subject) {
    return static_cast<std::size_t>(
        std::ranges::count_if(roundsHeld(subject), [](const RoundHeld& round) { return round.lacking.empty(); }));
}

} // namespace knot::judge
