#include "core/bay/strike.h"

#include "core/plan/planner.h"
#include "core/plan/schedule.h"
#include "core/record/moment.h"

#include <algorithm>
#include <cmath>
#include <set>

namespace knot::bay {
namespace {

using record::Shot;
using record::ShotStatus;
using record::Test;

constexpr double sameSwingSeconds = 5;
constexpr double anotherVisitSeconds = 4 * 3600;
constexpr std::size_t lookedBack = 8; // for the same swing from another source

std::string sourceOf(const std::string& readId) {
    return readId.substr(0, readId.find(':'));
}

// The same swing, read by something else a moment ago.
std::optional<std::size_t> sameSwing(const Test& test, const Arrival& arrival) {
    const auto at = record::secondsOf(arrival.at);
    if (arrival.readId.empty() || !at || test.sittings.empty())
        return std::nullopt;
    for (std::size_t i = test.shots.size(); i-- > 0 && test.shots.size() - i <= lookedBack;) {
        const Shot& shot = test.shots[i];
        const auto then = record::secondsOf(shot.takenAt);
        if (!shot.readId.empty() && sourceOf(shot.readId) != sourceOf(arrival.readId) && then &&
            std::fabs(*then - *at) <= sameSwingSeconds)
            return i;
    }
    return std::nullopt;
}

void fillIn(record::Readings& readings, const record::Readings& others) {
    for (const auto metric : record::allMetrics())
        if (const auto value = others.at(metric); value && !readings.has(metric) && !others.derived(metric))
            readings.measure(metric, *value);
    record::deriveMissing(readings);
}

// Struck before the club in hand was handed over.
bool isLate(const Test& test, const Stand& stand, const std::string& at) {
    const std::string& handedOver = test.progress.handedOverAt;
    return stand.phase == Phase::striking && stand.confirmed && !at.empty() && !handedOver.empty() && at < handedOver;
}

void putIntoTurn(const Test& test, std::size_t turn, Shot& shot) {
    shot.build = test.plan.turns[turn].build;
    shot.turn = turnLabel(turn);
    shot.round = std::to_string(test.plan.turns[turn].round);
    shot.status = ShotStatus::counted;
}

bool hasShots(const Test& test, const std::string& turn) {
    return std::ranges::any_of(test.shots, [&](const Shot& shot) { return shot.turn == turn; });
}

void putIntoFreeStint(const Test& test, Shot& shot) {
    shot.build = test.progress.inHand;
    const Shot* last = test.shots.empty() ? nullptr : &test.shots.back();
    const bool newStint =
        last == nullptr || last->build != shot.build || last->sitting != shot.sitting || test.progress.handOverNext;
    std::set<std::string> stints;
    for (const Shot& other : test.shots)
        stints.insert(other.turn);
    shot.turn = newStint ? std::to_string(stints.size() + 1) : last->turn;
    shot.handedOver = newStint;
}

// The stint before the one in hand that has shots, or nothing: then it was warm-up.
std::optional<std::size_t> turnBefore(const Test& test, std::size_t turn) {
    while (turn-- > 0)
        if (hasShots(test, turnLabel(turn)))
            return turn;
    return std::nullopt;
}

void putWhereItBelongs(const Test& test, const Stand& stand, Shot& shot) {
    const bool firstOfSitting = std::ranges::none_of(test.shots, [&](const Shot& other) {
        return other.sitting == shot.sitting && other.status != ShotStatus::warmUp;
    });
    shot.status = ShotStatus::warmUp;
    shot.build = stand.build;
    if (stand.phase == Phase::free) {
        shot.status = ShotStatus::counted;
        putIntoFreeStint(test, shot);
    } else if (stand.phase == Phase::done) {
        shot.reason = "after the plan";
    } else if (stand.phase == Phase::warmUp || (stand.phase == Phase::handOver && firstOfSitting)) {
        // Whoever goes on warming up has no club of the test in hand until somebody says so.
    } else if (isLate(test, stand, shot.takenAt)) {
        if (const auto before = turnBefore(test, *stand.turn); before && !firstOfSitting)
            putIntoTurn(test, *before, shot);
    } else {
        putIntoTurn(test, *stand.turn, shot);
    }
}

// After the shots of its stint that were struck before it.
std::size_t placeFor(const Test& test, const Shot& shot) {
    std::size_t place = test.shots.size();
    const std::size_t floor = place - std::min(place, reach);
    if (!shot.turn.empty()) // behind the last of its stint
        while (place > floor && test.shots[place - 1].turn != shot.turn && hasShots(test, shot.turn))
            --place;
    if (shot.takenAt.empty())
        return place;
    while (place > floor && test.shots[place - 1].turn == shot.turn && test.shots[place - 1].sitting == shot.sitting &&
           test.shots[place - 1].status == shot.status && test.shots[place - 1].takenAt > shot.takenAt)
        --place;
    return place;
}

void relabel(Test& test, const std::string& turn, std::size_t build) {
    for (auto& feel : test.feels)
        if (feel.turn == turn)
            feel.build = build;
    for (auto& guess : test.guesses)
        if (!guess.turn.empty() && guess.turn == turn)
            guess.build = build;
}

} // namespace

bool isKnown(const Test& test, const std::string& readId) {
    if (readId.empty() || test.sittings.empty())
        return false;
    for (auto shot = test.shots.rbegin(); shot != test.shots.rend() && shot->sitting == test.sittings.back().label;
         ++shot)
        if (shot->readId == readId)
            return true;
    return false;
}

From addShot(Test& test, const Arrival& arrival) {
    if (test.sittings.empty())
        beginSitting(test, arrival.at);
    if (const auto same = sameSwing(test, arrival)) {
        fillIn(test.shots[*same].readings, arrival.readings);
        return *same;
    }
    Shot shot;
    shot.readings = arrival.readings;
    record::deriveMissing(shot.readings);
    shot.takenAt = arrival.at;
    shot.readId = arrival.readId;
    shot.note = arrival.reason;
    shot.sitting = test.sittings.back().label;
    shot.player = test.shots.empty() ? std::string() : test.shots.back().player;
    shot.extra.resize(test.extraColumns.size());
    putWhereItBelongs(test, standOf(test), shot);
    shot.mark = test.progress.nextMark;
    test.progress.nextMark = record::Mark::none;
    test.progress.handOverNext = false;
    const std::size_t place = placeFor(test, shot);
    // The first of a stint carries its hand-over, also when it comes out of order.
    if (!shot.turn.empty() && (place == 0 || test.shots[place - 1].turn != shot.turn)) {
        shot.handedOver = true;
        if (place < test.shots.size() && test.shots[place].turn == shot.turn)
            test.shots[place].handedOver = false;
    }
    test.shots.insert(test.shots.begin() + static_cast<std::ptrdiff_t>(place), std::move(shot));
    return place;
}

bool confirm(Test& test, const std::string& at) {
    const bool begins = test.sittings.empty();
    if (begins)
        beginSitting(test, at);
    const Stand stand = standOf(test);
    switch (stand.phase) {
    case Phase::warmUp:
        test.progress.warmedUp = true;
        return true;
    case Phase::free:
        test.progress.handOverNext = true;
        return true;
    case Phase::handOver:
    case Phase::striking:
        if (stand.confirmed)
            return begins;
        test.progress.confirmed = static_cast<int>(*stand.turn) + 1;
        test.progress.handedOverAt = stand.phase == Phase::handOver ? at : std::string();
        return true;
    default:
        return begins;
    }
}

std::optional<From> stillLast(Test& test) {
    const Stand stand = standOf(test);
    const auto before =
        stand.phase == Phase::striking && !stand.confirmed && stand.turn ? turnBefore(test, *stand.turn) : std::nullopt;
    if (!before)
        return std::nullopt;
    std::optional<From> from;
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (test.shots[i].turn == turnLabel(*stand.turn)) {
            putIntoTurn(test, *before, test.shots[i]);
            test.shots[i].handedOver = false;
            from = from.value_or(i);
        }
    return from;
}

std::optional<From> nameTag(Test& test, std::size_t build) {
    const Stand stand = standOf(test);
    if (stand.phase != Phase::nameTag)
        return std::nullopt;
    auto& turns = test.plan.turns;
    const std::size_t turn = *stand.turn;
    std::size_t other = turn;
    while (other < turns.size() && turns[other].round == turns[turn].round && turns[other].build != build)
        ++other;
    if (other == turns.size() || turns[other].round != turns[turn].round)
        return std::nullopt;
    std::swap(turns[turn].build, turns[other].build);
    test.progress.named = static_cast<int>(turn) + 1;
    relabel(test, turnLabel(turn), build);
    std::optional<From> from;
    for (std::size_t i = 0; i < test.shots.size(); ++i) {
        const auto planned = plannedTurn(test, test.shots[i]);
        if (!planned || (*planned != turn && *planned != other))
            continue;
        test.shots[i].build = turns[*planned].build;
        from = from.value_or(i);
    }
    return from.value_or(test.shots.size());
}

void takeInHand(Test& test, std::size_t build) {
    if (build >= test.builds.size() || build == test.progress.inHand)
        return;
    test.progress.inHand = build;
    test.progress.handOverNext = false;
}

From setAside(Test& test, std::size_t shot, record::SetAsideWhen when, const std::string& reason) {
    test.shots[shot].status = ShotStatus::setAside;
    test.shots[shot].setAsideWhen = when;
    test.shots[shot].reason = reason;
    return shot;
}

From countAgain(Test& test, std::size_t shot) {
    test.shots[shot].status = ShotStatus::counted;
    test.shots[shot].setAsideWhen = record::SetAsideWhen::unknown;
    test.shots[shot].reason.clear();
    return shot;
}

void beginSitting(Test& test, const std::string& at) {
    const std::string day = at.substr(0, 10);
    auto isTaken = [&](const std::string& label) {
        return std::ranges::any_of(test.sittings, [&](const auto& sitting) { return sitting.label == label; }) ||
               std::ranges::any_of(test.shots, [&](const Shot& shot) { return shot.sitting == label; });
    };
    std::string label = day;
    for (int n = 2; isTaken(label); ++n)
        label = day + ", " + std::to_string(n);
    record::Conditions conditions;
    if (!test.sittings.empty())
        conditions = test.sittings.back().conditions;
    conditions.wind.reset(); // the rest is likely to be as it was
    conditions.temperature.reset();
    test.sittings.push_back({label, at, conditions});
    test.progress.warmedUp = false;
    test.progress.handedOverAt.clear();
    const Stand stand = standOf(test);
    if (stand.turn)
        test.progress.confirmed = std::min(test.progress.confirmed, static_cast<int>(*stand.turn));
}

bool isAnotherVisit(const Test& test, const std::string& now) {
    if (test.sittings.empty())
        return false;
    const auto then = record::secondsOf(test.shots.empty() || test.shots.back().takenAt.empty()
                                            ? test.sittings.back().startedAt
                                            : std::max(test.shots.back().takenAt, test.sittings.back().startedAt));
    const auto present = record::secondsOf(now);
    return then && present && *present - *then > anotherVisitSeconds;
}

void addEvent(Test& test, record::EventKind kind, const std::string& at, const std::string& text) {
    test.events.push_back({kind, at, test.shots.size(), text});
}

bool endStint(Test& test) {
    const Stand stand = standOf(test);
    if (!stand.turn || (stand.phase != Phase::striking && stand.phase != Phase::handOver))
        return false;
    test.plan.turns[*stand.turn].ended = true;
    return true;
}

void leaveOut(Test& test, std::size_t build) {
    const auto filled = filledTurns(test);
    for (std::size_t i = 0; i < test.plan.turns.size(); ++i)
        if (test.plan.turns[i].build == build && filled[i] < wantedShots(test, i))
            test.plan.turns[i].ended = true;
}

void endHere(Test& test) {
    for (std::size_t build = 0; build < test.builds.size(); ++build)
        leaveOut(test, build);
}

void addRound(Test& test, std::uint64_t seed) {
    auto& turns = test.plan.turns;
    if (turns.empty())
        return;
    const int last = std::ranges::max_element(turns, {}, &record::PlannedTurn::round)->round;
    std::set<std::size_t> clubs;
    std::set<std::size_t> out;
    for (const auto& turn : turns) {
        clubs.insert(turn.build);
        if (turn.round == last && turn.ended)
            out.insert(turn.build);
    }
    if (out.size() < clubs.size())
        for (const std::size_t build : out)
            clubs.erase(build);
    if (clubs.size() < 2)
        return;
    const std::vector<std::size_t> places(clubs.begin(), clubs.end());
    const auto order = plan::scheduled({.schedule = test.plan.schedule,
                                        .builds = places.size(),
                                        .rounds = 1,
                                        .turnLength = plan::shotsATurn(test.plan),
                                        .seed = seed,
                                        .changeTimes = {}});
    for (auto turn : order.turns) {
        turn.build = places[turn.build];
        turn.round = last + 1;
        turns.push_back(turn);
    }
}

std::optional<Stint> lastStint(const Test& test) {
    for (auto shot = test.shots.rbegin(); shot != test.shots.rend(); ++shot)
        if (shot->status != ShotStatus::warmUp)
            return Stint{shot->turn, shot->build};
    return std::nullopt;
}

record::Feel feelOf(const Test& test, const Stint& stint) {
    for (const auto& feel : test.feels)
        if (feel.turn == stint.turn && feel.build == stint.build)
            return feel;
    return {.turn = stint.turn, .build = stint.build, .words = {}};
}

void setFeel(Test& test, const record::Feel& feel) {
    std::erase_if(test.feels, [&](const auto& kept) { return kept.turn == feel.turn && kept.build == feel.build; });
    if (!feel.isEmpty())
        test.feels.push_back(feel);
}

void setGuess(Test& test, const record::Guess& guess) {
    std::erase_if(test.guesses, [&](const auto& kept) { return kept.turn == guess.turn && kept.build == guess.build; });
    if (!guess.said.empty())
        test.guesses.push_back(guess);
}

std::string guessOf(const Test& test, const Stint& stint) {
    for (const auto& guess : test.guesses)
        if (guess.turn == stint.turn && guess.build == stint.build)
            return guess.said;
    return {};
}

} // namespace knot::bay
