#include "core/bay/correct.h"

#include "core/bay/stand.h"

#include <algorithm>
#include <cstdlib>
#include <map>
#include <ranges>

namespace knot::bay {
namespace {

using record::Shot;
using record::ShotStatus;
using record::Test;

bool isPlanned(const Test& test) {
    return test.stage == record::Stage::test && !test.turns.empty();
}

tl::unexpected<CantCorrect> cant(CantCorrect why) {
    return tl::unexpected(why);
}

/// Which club a shot was struck with, and by whom.
struct Struck {
    BuildAt build;
    record::PlayerAt player;
    std::string name; ///< of the player, as shots have it
    bool operator==(const Struck&) const = default;
};

Struck struckAs(const Test& test, const Shot& shot) {
    return {shot.build, test.playerIndex(shot.player).value_or(record::PlayerAt()), shot.player};
}

// The stint of the plan that a shot of this one goes to: the nearest of club and player, in its lap if it can be.
std::optional<PlannedAt> stintFor(const Test& test, PlannedAt from, const Struck& as) {
    const auto& turns = test.turns;
    std::optional<PlannedAt> best;
    auto isFarther = [&](PlannedAt turn) {
        return std::pair(turns[turn].round != turns[from].round,
                         std::abs(static_cast<long>(turn) - static_cast<long>(from)));
    };
    for (PlannedAt turn; turn < turns.size(); ++turn)
        if (turns[turn].build == as.build && turns[turn].player == as.player &&
            (!best || isFarther(turn) < isFarther(*best)))
            best = turn;
    return best;
}

bool isOneStint(const Shot& a, const Shot& b) {
    return a.turn == b.turn && a.build == b.build && a.player == b.player && a.sitting == b.sitting &&
           a.status != ShotStatus::warmUp && b.status != ShotStatus::warmUp;
}

// A label that no stint has, as the bay would give it to the next one.
std::string freshLabel(const Test& test) {
    std::set<std::string> taken;
    for (const Shot& shot : test.shots)
        taken.insert(shot.turn);
    taken.erase(std::string());
    for (std::size_t n = taken.size() + 1;; ++n)
        if (std::string label = std::to_string(n); !taken.contains(label))
            return label;
}

// The rest of a stint from a shot on gets another label.
void relabelFrom(Test& test, std::size_t first, const std::string& label) {
    std::size_t end = first + 1;
    while (end < test.shots.size() && isOneStint(test.shots[first], test.shots[end]) && !test.shots[end].handedOver)
        ++end;
    for (std::size_t i = first; i < end; ++i)
        test.shots[i].turn = label;
}

// Shots next to each other that were struck otherwise than was thought: they go on with the stint of that club
// and player before or after them, or make one of their own.
void moveRun(Test& test, std::size_t first, std::size_t end, const Struck& as) {
    auto isOf = [&](std::size_t at) {
        return at < test.shots.size() && struckAs(test, test.shots[at]) == as &&
               test.shots[at].status != ShotStatus::warmUp && test.shots[at].sitting == test.shots[first].sitting;
    };
    Shot* after = end < test.shots.size() ? &test.shots[end] : nullptr;
    const bool goesOn = after != nullptr && isOneStint(test.shots[end - 1], *after) && !after->handedOver;
    if (goesOn) { // its rest is taken up anew
        const bool inTheMiddle = first > 0 && isOneStint(test.shots[first - 1], test.shots[first]);
        if (inTheMiddle)
            relabelFrom(test, end, freshLabel(test));
        after->handedOver = true;
    }
    const bool joinsBefore = first > 0 && isOf(first - 1);
    const bool joinsAfter = !joinsBefore && isOf(end);
    const std::string label = joinsBefore  ? test.shots[first - 1].turn
                              : joinsAfter ? test.shots[end].turn
                                           : freshLabel(test);
    if (joinsAfter)
        after->handedOver = false;
    for (std::size_t i = first; i < end; ++i) {
        test.shots[i].build = as.build;
        test.shots[i].player = as.name;
        test.shots[i].turn = label;
        test.shots[i].handedOver = i == first && !joinsBefore;
    }
}

From moveFree(Test& test, const std::vector<std::size_t>& places, const std::vector<Struck>& as) {
    for (std::size_t i = 0; i < places.size();) {
        std::size_t end = i + 1;
        while (end < places.size() && places[end] == places[end - 1] + 1 && as[end] == as[i] &&
               isOneStint(test.shots[places[end - 1]], test.shots[places[end]]))
            ++end;
        moveRun(test, places[i], places[end - 1] + 1, as[i]);
        i = end;
    }
    return places.front();
}

// What was said of a stint is said of the club that struck it; of a stint that went whole to another label, of that.
void followSaid(Test& test, const std::map<std::string, std::string>& movedTo) {
    auto shotOf = [&](const std::string& turn) {
        return std::ranges::find_if(
            test.shots, [&](const Shot& shot) { return shot.turn == turn && shot.status != ShotStatus::warmUp; });
    };
    auto follow = [&](auto& all) {
        for (auto& one : all) {
            if (one.turn.empty())
                continue;
            const auto now = movedTo.find(one.turn);
            if (shotOf(one.turn) == test.shots.end() && now != movedTo.end())
                one.turn = now->second;
            if (const auto shot = shotOf(one.turn); shot != test.shots.end())
                one.build = shot->build;
        }
    };
    follow(test.feels);
    follow(test.guesses);
    for (auto& feel : test.feels)
        if (const auto now = movedTo.find(feel.against);
            now != movedTo.end() && shotOf(feel.against) == test.shots.end())
            feel.against = now->second;
}

Corrected<From> moveInPlan(Test& test, const std::vector<std::size_t>& places, const std::vector<Struck>& as) {
    std::vector<PlannedAt> turns;
    for (std::size_t i = 0; i < places.size(); ++i) {
        const auto from = plannedTurn(test, test.shots[places[i]]);
        const auto to = from ? stintFor(test, *from, as[i]) : std::nullopt;
        if (!to)
            return cant(CantCorrect::noSuchStint);
        turns.push_back(*to);
    }
    for (std::size_t i = 0; i < places.size(); ++i) {
        Shot& shot = test.shots[places[i]];
        shot.build = as[i].build;
        shot.player = as[i].name;
        shot.turn = turnLabel(test, turns[i]);
        shot.round = std::to_string(test.turns[turns[i]].round);
        shot.handedOver = false;
    }
    // The first of each stint carries its hand-over.
    std::set<std::string> begun;
    From from = places.front();
    for (std::size_t i = 0; i < test.shots.size(); ++i) {
        Shot& shot = test.shots[i];
        if (shot.turn.empty() || shot.status == ShotStatus::warmUp)
            continue;
        const bool first = begun.insert(shot.sitting + '\n' + shot.turn).second;
        if (first && !shot.handedOver) {
            shot.handedOver = true;
            from = std::min(from, i);
        }
    }
    return from;
}

} // namespace

namespace {

// Shots are struck otherwise than was thought: `put` says how.
template<typename Put> Corrected<From> move(Test& test, const Shots& shots, Put put) {
    std::vector<std::size_t> places;
    for (const record::ShotId id : shots) {
        const auto at = test.shotIndex(id);
        if (!at)
            return cant(CantCorrect::noSuchShot);
        if (isUnnamed(test, test.shots[*at]))
            return cant(CantCorrect::unnamed);
        if (Struck as = struckAs(test, test.shots[*at]); put(as) != struckAs(test, test.shots[*at]))
            places.push_back(*at);
    }
    std::ranges::sort(places);
    if (places.empty())
        return test.shots.size();
    std::vector<std::size_t> struck; // warm-up swings have no stint
    std::vector<Struck> as;
    std::vector<std::string> labels;
    for (const std::size_t at : places) {
        Shot& shot = test.shots[at];
        Struck now = struckAs(test, shot);
        put(now);
        if (shot.status == ShotStatus::warmUp)
            continue;
        struck.push_back(at);
        as.push_back(std::move(now));
        labels.push_back(shot.turn);
    }
    From from = places.front();
    if (!struck.empty()) {
        const auto moved = isPlanned(test) ? moveInPlan(test, struck, as) : Corrected<From>(moveFree(test, struck, as));
        if (!moved)
            return moved;
        from = std::min(from, *moved);
    }
    for (const std::size_t at : places)
        if (Shot& shot = test.shots[at]; shot.status == ShotStatus::warmUp) {
            Struck now = struckAs(test, shot);
            put(now);
            shot.build = now.build;
            shot.player = now.name;
        }
    std::map<std::string, std::string> movedTo; // label before: label after
    for (std::size_t i = 0; i < struck.size(); ++i)
        movedTo.emplace(labels[i], test.shots[struck[i]].turn);
    followSaid(test, movedTo);
    return from;
}

} // namespace

Corrected<From> moveToClub(Test& test, const Shots& shots, BuildAt build) {
    if (build >= test.builds.size())
        return cant(CantCorrect::noSuchStint);
    return move(test, shots, [&](Struck& as) {
        as.build = build;
        return as;
    });
}

Corrected<From> moveToPlayer(Test& test, const Shots& shots, record::PlayerAt player) {
    if (player >= test.players.size())
        return cant(CantCorrect::noSuchStint);
    return move(test, shots, [&](Struck& as) {
        as.player = player;
        as.name = test.players[player].name;
        return as;
    });
}

namespace {

// The place of a shot before which a stint is split or joined.
Corrected<std::size_t> seamAt(const Test& test, record::ShotId first) {
    const auto at = test.shotIndex(first);
    if (!at)
        return cant(CantCorrect::noSuchShot);
    if (isPlanned(test))
        return cant(CantCorrect::noSuchStint);
    if (*at == 0 || test.shots[*at].status == ShotStatus::warmUp || test.shots[*at - 1].status == ShotStatus::warmUp ||
        test.shots[*at - 1].build != test.shots[*at].build || test.shots[*at - 1].player != test.shots[*at].player ||
        test.shots[*at - 1].sitting != test.shots[*at].sitting)
        return cant(CantCorrect::otherClub);
    return *at;
}

Corrected<From> setSeam(Test& test, record::ShotId first, bool begins) {
    const auto at = seamAt(test, first);
    if (!at)
        return tl::unexpected(at.error());
    Shot& shot = test.shots[*at];
    const std::string before = test.shots[*at - 1].turn;
    if ((shot.handedOver || shot.turn != before) == begins)
        return cant(CantCorrect::sameStint);
    relabelFrom(test, *at, begins ? freshLabel(test) : before);
    shot.handedOver = begins;
    return *at;
}

} // namespace

Corrected<From> splitStint(Test& test, record::ShotId first) {
    return setSeam(test, first, true);
}

Corrected<From> joinStint(Test& test, record::ShotId first) {
    return setSeam(test, first, false);
}

Corrected<From> setReading(Test& test, record::ShotId shotId, record::Metric metric, std::optional<double> value) {
    const auto at = test.shotIndex(shotId);
    if (!at)
        return cant(CantCorrect::noSuchShot);
    Shot& shot = test.shots[*at];
    if (!shot.readId.empty())
        return cant(CantCorrect::notTyped);
    for (const record::Metric other : record::allMetrics())
        if (shot.readings.derived(other))
            shot.readings.clear(other);
    if (value)
        shot.readings.measure(metric, *value);
    else
        shot.readings.clear(metric);
    record::deriveMissing(shot.readings);
    return *at;
}

std::optional<Test> withoutLateChanges(const Test& test) {
    auto isLate = [](const record::Amendment& amendment) { return !amendment.was.empty(); };
    if (std::ranges::none_of(test.amendments, isLate) && std::ranges::none_of(test.shots, &Shot::isSetAsideLate))
        return std::nullopt;
    Test before = test;
    std::map<record::ShotId, std::size_t> places;
    for (std::size_t i = 0; i < before.shots.size(); ++i)
        places.emplace(before.shots[i].id, i);
    for (const record::Amendment& amendment : std::ranges::reverse_view(test.amendments))
        for (const Shot& was : amendment.was)
            if (const auto at = places.find(was.id); at != places.end()) {
                before.shots[at->second] = was;
                before.shots[at->second].extra.resize(before.extraColumns.size());
            }
    for (Shot& shot : before.shots)
        if (shot.isSetAsideLate()) {
            shot.status = ShotStatus::counted;
            shot.setAsideWhen = record::SetAsideWhen::unknown;
        }
    return before;
}

} // namespace knot::bay
