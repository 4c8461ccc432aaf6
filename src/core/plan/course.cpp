#include "core/plan/course.h"

#include "core/plan/planner.h"
#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/random.h"
#include "core/record/carry.h"
#include "core/record/roster.h"
#include "core/record/text/text.h"

#include <algorithm>
#include <map>
#include <set>

namespace knot::plan {

using record::Build;
using record::BuildAt;
using record::Declared;
using record::PlannedAt;
using record::PlannedTurn;
using record::PlayerAt;
using record::Shot;
using record::Test;

void makeCourse(Test& test) {
    if (test.stage != record::Stage::test || !test.shots.empty())
        return;
    const record::Plan& plan = test.plan;
    test.turns.clear();
    if (test.builds.size() >= 2)
        test.turns = scheduled({.schedule = plan.schedule,
                                .builds = test.builds.size(),
                                .baseline = test.baselineIndex(),
                                .rounds = strikesOff(test) ? std::min(firstCut, plan.rounds) : plan.rounds,
                                .turnLength = plan.turnLength,
                                .seed = plan.seed,
                                .changeTimes = plan.changeTimes,
                                .changeSeconds = plan.changeSeconds})
                         .turns;
    for (PlayerAt player(1); player < test.players.size() && !test.turns.empty(); ++player)
        addLapsOf(test, player);
    test.card.plannedRounds = plan.schedule == record::Schedule::oneRunEach ? 1 : plan.rounds;
}

void addLapsOf(Test& test, PlayerAt player) {
    if (test.plan.schedule == record::Schedule::strikingOff && player > 0 && !strikesOff(test))
        planToTheEnd(test);
    const auto left = record::Roster(test).left();
    std::vector<PlannedTurn> first; // of the clubs that are left, each by its place among them
    for (PlannedTurn turn : test.turns) {
        const auto at = std::ranges::find(left, turn.build);
        if (turn.player > 0 || at == left.end())
            continue;
        turn.build = BuildAt(static_cast<std::size_t>(at - left.begin()));
        first.push_back(turn);
    }
    for (PlannedTurn turn : turnedFor(std::move(first), player, left.size(), test.plan.schedule)) {
        turn.build = left[turn.build];
        record::addTurn(test.turns, turn);
    }
}

namespace {

using Lap = std::pair<PlayerAt, int>; // whose, and which

struct LapOrder {
    bool operator()(const Lap& a, const Lap& b) const {
        return std::pair(std::size_t{a.first}, a.second) < std::pair(std::size_t{b.first}, b.second);
    }
};

// The stints behind the last one that was begun: struck, ended, handed over, or spoken of.
std::size_t firstNotBegun(const Test& test) {
    std::set<std::string> labels;
    for (const Shot& shot : test.shots)
        if (shot.status != record::ShotStatus::warmUp)
            labels.insert(shot.turn);
    for (const auto& feel : test.feels)
        labels.insert(feel.turn);
    for (const auto& guess : test.guesses)
        labels.insert(guess.turn);
    std::size_t begun = static_cast<std::size_t>(std::max({0, test.progress.confirmed, test.progress.named}));
    for (PlannedAt turn; turn < test.turns.size(); ++turn)
        if (test.turns[turn].ended || labels.contains(turnLabel(test, turn)))
            begun = std::max(begun, std::size_t{turn} + 1);
    return std::min(begun, test.turns.size());
}

// A club takes its place in a lap: anywhere but where it would follow itself, and between the ends of a sandwich.
void joinLap(Test& test, std::size_t from, std::size_t end, BuildAt club) {
    const bool isSandwich = test.plan.schedule == record::Schedule::sandwich && end - from >= 2;
    const std::size_t low = from + (isSandwich ? 1 : 0);
    const std::size_t high = end - (isSandwich ? 1 : 0);
    PlannedTurn turn{.build = club,
                     .round = test.turns[from].round,
                     .shots = test.turns[from].shots,
                     .player = test.turns[from].player};
    Random random(test.plan.seed + static_cast<std::uint64_t>(1000 * turn.round) + club);
    std::size_t place = low + random.below(high - low + 1);
    if (place == from && from > 0 && test.turns[from - 1].build == club)
        ++place;
    for (const PlannedTurn& other : test.turns)
        turn.id = std::max(turn.id, other.id);
    ++turn.id;
    test.turns.insert(test.turns.begin() + static_cast<std::ptrdiff_t>(place), turn);
}

// False where no lap is left that was not begun.
bool joinLaps(Test& test, BuildAt club) {
    if (test.plan.schedule == record::Schedule::oneRunEach) {
        std::set<std::size_t> hit;
        for (const PlannedTurn& turn : test.turns)
            hit.insert(turn.player);
        for (const std::size_t player : hit)
            record::addTurn(test.turns, {.build = club, .shots = test.plan.turnLength, .player = PlayerAt(player)});
        return true;
    }
    const std::size_t open = firstNotBegun(test);
    std::set<Lap, LapOrder> begun;
    std::set<Lap, LapOrder> left;
    for (std::size_t i = 0; i < test.turns.size(); ++i)
        (i < open ? begun : left).insert({test.turns[i].player, test.turns[i].round});
    std::erase_if(left, [&](const Lap& lap) { return begun.contains(lap); });
    record::numberTurns(test.turns);
    for (const Lap& lap : left) {
        const auto isOf = [&](const PlannedTurn& turn) { return turn.player == lap.first && turn.round == lap.second; };
        const auto from = std::ranges::find_if(test.turns, isOf);
        const auto end = std::find_if_not(from, test.turns.end(), isOf);
        joinLap(test, static_cast<std::size_t>(from - test.turns.begin()),
                static_cast<std::size_t>(end - test.turns.begin()), club);
    }
    return !left.empty();
}

template<typename One> const std::string& keyOf(const One& one) {
    return one.id.empty() ? one.name : one.id;
}

template<typename One> bool isAmong(const std::vector<One>& list, const One& one) {
    return std::ranges::any_of(list, [&](const One& other) { return keyOf(other) == keyOf(one); });
}

// Why a club can't go, as a sentence; empty where it can.
std::string whyClubStays(const Test& test, BuildAt club) {
    auto isOf = [&](BuildAt build) { return build == club; };
    const std::string& name = test.builds[club].name;
    if (std::ranges::any_of(test.shots, isOf, &Shot::build) ||
        std::ranges::any_of(test.amendments, [&](const record::Amendment& one) {
            return std::ranges::any_of(one.was, isOf, &Shot::build);
        }))
        return "Shots were struck with " + name + ", so it stays; strike it off instead.";
    if (std::ranges::any_of(test.feels, isOf, &record::Feel::build) ||
        std::ranges::any_of(test.guesses, isOf, &record::Guess::build))
        return "Something was said of " + name + ", so it stays; strike it off instead.";
    return {};
}

// A player whose place another one takes is that one from now on, also in the shots.
std::string takeOver(Test& test, const Declared& next) {
    for (std::size_t i = 0; i < test.players.size(); ++i) {
        const record::Player& player = test.players[i];
        if (isAmong(next.players, player) || player.name.empty())
            continue;
        const bool isReplaced = i < next.players.size() && !isAmong(test.players, next.players[i]);
        const bool hasHit = std::ranges::find(test.shots, player.name, &Shot::player) != test.shots.end();
        if (hasHit && !isReplaced)
            return player.name + " hit shots in this test, so the name stays.";
        if (!isReplaced)
            continue;
        for (Shot& shot : test.shots)
            if (shot.player == player.name)
                shot.player = next.players[i].name;
        test.players[i] = next.players[i];
    }
    return {};
}

// The clubs and players of `next` in place of a test's own, and a course that has begun as it follows.
std::string follow(Test& test, const Declared& next) {
    for (BuildAt club; club < test.builds.size(); ++club)
        if (!isAmong(next.builds, test.builds[club]))
            if (std::string why = whyClubStays(test, club); !why.empty())
                return why;
    if (std::string why = takeOver(test, next); !why.empty())
        return why;
    std::vector<BuildAt> joining;
    for (BuildAt club; club < next.builds.size(); ++club)
        if (!isAmong(test.builds, next.builds[club]))
            joining.push_back(club);
    std::vector<PlayerAt> coming;
    for (PlayerAt player; player < next.players.size(); ++player)
        if (!isAmong(test.players, next.players[player]))
            coming.push_back(player);
    const bool hadPlayers = test.players.size() > 1 || !coming.empty();
    std::vector<bool> stays;
    for (const PlannedTurn& turn : test.turns)
        stays.push_back(!hadPlayers || turn.player >= test.players.size() ||
                        isAmong(next.players, test.players[turn.player]));
    reseat(test, next.builds, next.players);
    bool anyGone = false;
    for (std::size_t i = 0; i < test.turns.size(); ++i)
        anyGone = anyGone || test.turns[i].build == record::nowhere || !stays[i];
    if (anyGone)
        record::numberTurns(test.turns);
    for (std::size_t i = test.turns.size(); i-- > 0;)
        if (test.turns[i].build == record::nowhere || !stays[i])
            test.turns.erase(test.turns.begin() + static_cast<std::ptrdiff_t>(i));
    record::unnumberTurns(test.turns);
    std::vector<record::ChangeTime> times = next.plan.changeTimes;
    static_cast<Declared&>(test) = next;
    test.plan.changeTimes = std::move(times);
    if (test.stage != record::Stage::test || test.shots.empty() || test.turns.empty())
        return {};
    for (const BuildAt club : joining)
        if (!joinLaps(test, club))
            return "Every lap was begun, so " + test.builds[club].name +
                   " can't join this test any more; a test like this one (Ctrl+L) takes it in.";
    for (const PlayerAt player : coming)
        if (player > 0)
            addLapsOf(test, player);
    return {};
}

} // namespace

std::string declare(Test& test, Declared next) {
    const bool sameClubs = std::ranges::equal(test.builds, next.builds, {}, keyOf<Build>, keyOf<Build>);
    const bool samePlayers =
        std::ranges::equal(test.players, next.players, {}, keyOf<record::Player>, keyOf<record::Player>);
    if (sameClubs && samePlayers) { // nothing but the sheet: shots are many, and stay where they are
        static_cast<Declared&>(test) = std::move(next);
    } else {
        Test changed = test;
        if (std::string why = follow(changed, next); !why.empty())
            return why;
        test = std::move(changed);
    }
    test.nameClubs();
    if (!test.seal.isClosed())
        makeCourse(test);
    return {};
}

} // namespace knot::plan
