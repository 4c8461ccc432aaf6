#include "core/bay/hand.h"

#include "core/bay/strike.h"
#include "core/plan/course.h"
#include "core/record/text/names.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>

namespace knot::bay {

using record::Shot;
using record::ShotStatus;
using record::Test;

void takeInHand(Test& test, BuildAt build) {
    if (build >= test.builds.size() || build == test.progress.inHand)
        return;
    test.progress.inHand = build;
    test.progress.handOverNext = false;
}

std::string freeClubName(const record::Declared& test) {
    for (std::size_t n = test.builds.size() + 1;; ++n)
        if (std::string name = "Club " + std::to_string(n);
            std::ranges::find(test.builds, name, &record::Build::name) == test.builds.end())
            return name;
}

namespace {

// "Club 1", as the bay calls what nobody named, with which nothing was struck that counts.
bool awaitsName(const Test& test, BuildAt build) {
    const std::string& name = test.builds[build].name;
    constexpr std::string_view made = "Club ";
    return name.starts_with(made) && record::countIn(std::string_view(name).substr(made.size())) &&
           std::ranges::none_of(
               test.shots, [&](const Shot& shot) { return shot.build == build && shot.status != ShotStatus::warmUp; });
}

// A club taken up between two shots is somebody at once: what is said of it in the same step names it for good.
void join(Test& test, record::Build club) {
    test.builds.push_back(std::move(club));
    test.nameClubs();
}

} // namespace

void takeNewInHand(Test& test, const std::string& name) {
    const std::string wanted = name.empty() ? freeClubName(test) : name;
    const auto known = std::ranges::find_if(
        test.builds, [&](const auto& build) { return record::lowerCase(build.name) == record::lowerCase(wanted); });
    const BuildAt at(static_cast<std::size_t>(known - test.builds.begin()));
    const Stand stand = standOf(test);
    const auto* free = stand.as<Free>();
    if (known == test.builds.end() && !name.empty() && free != nullptr && free->build &&
        awaitsName(test, *free->build)) {
        test.builds[*free->build].name = wanted;
        return;
    }
    if (known == test.builds.end())
        join(test, {.name = wanted});
    takeInHand(test, at);
}

namespace {

constexpr std::array changeable = {record::PartKind::head, record::PartKind::shaft, record::PartKind::grip};

// A part has a name, so that two clubs can have it in common.
void nameParts(record::Build& build) {
    for (const record::PartKind kind : changeable)
        if (record::Part& part = build.club.part(kind); part.name.empty()) {
            part.kind = kind;
            part.name = std::string(record::nameOf(record::partNames, kind)).append(" of ").append(build.name);
        }
}

bool isFreeName(const Test& test, const std::string& name) {
    return std::ranges::find(test.builds, name, &record::Build::name) == test.builds.end();
}

} // namespace

void takeOtherPart(Test& test, record::PartKind kind, const std::string& name) {
    const Stand stand = standOf(test);
    const auto* free = stand.as<Free>();
    if (free == nullptr || !free->build)
        return;
    record::Build& own = test.builds[*free->build];
    nameParts(own);
    record::Build other{.name = {}, .note = own.note, .tag = {}, .club = own.club};
    record::Part& part = other.club.part(kind);
    const std::string word = record::nameOf(record::partNames, kind);
    std::string wanted = name;
    for (std::size_t n = 2; wanted.empty(); ++n)
        if (const std::string numbered = own.name + ", " + word + " " + std::to_string(n); isFreeName(test, numbered))
            wanted = numbered;
    part = {.id = {}, .kind = kind, .name = wanted};
    for (BuildAt i; i < test.builds.size(); ++i)
        if (std::ranges::all_of(changeable, [&](record::PartKind each) {
                return test.builds[i].club.part(each).name == other.club.part(each).name;
            }))
            return takeInHand(test, i);
    other.name = isFreeName(test, wanted) ? wanted : own.name + " · " + wanted;
    for (std::size_t n = 2; !isFreeName(test, other.name); ++n)
        other.name = own.name + " · " + wanted + " " + std::to_string(n);
    join(test, std::move(other));
    takeInHand(test, BuildAt(test.builds.size() - 1));
}

record::Player hitterOf(const Test& test) {
    return test.players.size() > 1 && test.progress.player < test.players.size() ? test.players[test.progress.player]
                                                                                 : test.firstPlayer();
}

From nameHitter(Test& test, const record::Player& player) {
    if (test.players.empty()) {
        test.players.push_back(player);
        return test.shots.size();
    }
    From from = test.shots.size();
    const std::string before = test.players[test.progress.player].name;
    for (std::size_t i = test.shots.size(); i-- > 0;)
        if (test.shots[i].player == before) {
            test.shots[i].player = player.name;
            from = i;
        }
    test.players[test.progress.player] = player;
    return from;
}

// Who has swung in this sitting is warm.
void handTo(Test& test, record::PlayerAt player) {
    test.progress.player = player;
    test.progress.handOverNext = false;
    const std::string& name = test.players[player].name;
    test.progress.warmedUp = std::ranges::any_of(test.shots, [&](const Shot& shot) {
        return shot.player == name && shot.status != ShotStatus::warmUp && !test.sittings.empty() &&
               shot.sitting == test.sittings.back().label;
    });
}

namespace {

// Of the turns that nobody has begun, those of one player come first.
void bringForward(Test& test, record::PlayerAt player) {
    const Tally tally(test);
    auto& turns = test.turns;
    auto isSpokenOf = [&](const std::string& label) { // before its first shot
        return std::ranges::find(test.feels, label, &record::Feel::turn) != test.feels.end() ||
               std::ranges::find(test.guesses, label, &record::Guess::turn) != test.guesses.end();
    };
    std::vector<std::size_t> places;
    std::vector<record::PlannedTurn> pending;
    for (PlannedAt i; i < turns.size(); ++i)
        if (!turns[i].ended && !tally.hasStint(turnLabel(test, i)) && !isSpokenOf(turnLabel(test, i))) {
            places.push_back(i);
            pending.push_back(turns[i]);
        }
    if (places.empty())
        return;
    std::ranges::stable_partition(pending, [&](const auto& turn) { return turn.player == player; });
    for (std::size_t i = 0; i < places.size(); ++i) { // a number belongs to its place
        pending[i].id = turns[places[i]].id;
        turns[places[i]] = pending[i];
    }
    test.progress.confirmed = std::min(test.progress.confirmed, static_cast<int>(places.front()));
}

} // namespace

void takePlayer(Test& test, record::PlayerAt player) {
    if (player >= test.players.size() || test.players.size() < 2)
        return;
    if (test.stage == record::Stage::test)
        bringForward(test, player);
    else if (player != test.progress.player)
        handTo(test, player);
}

From takeNewPlayer(Test& test, const record::Player& player, const record::Player& before) {
    From from = test.shots.size();
    const auto known = test.playerIndex(player.name);
    if (!known) {
        if (test.players.empty())
            test.players.push_back(before);
        for (std::size_t i = test.shots.size(); i-- > 0;)
            if (test.shots[i].player.empty()) {
                test.shots[i].player = test.players.front().name;
                from = i;
            }
        test.players.push_back(player);
        if (test.stage == record::Stage::test)
            plan::addLapsOf(test, record::PlayerAt(test.players.size() - 1));
    }
    takePlayer(test, known.value_or(record::PlayerAt(test.players.size() - 1)));
    return from;
}

void askDelivery(Test& test, const std::string& delivery) {
    test.progress.delivery = delivery;
}

std::vector<std::string> deliveriesOf(const Test& test) {
    std::vector<std::string> deliveries;
    auto see = [&](const std::string& delivery) {
        if (!delivery.empty() && std::ranges::find(deliveries, delivery) == deliveries.end())
            deliveries.push_back(delivery);
    };
    for (const Shot& shot : test.shots)
        see(shot.delivery);
    see(test.progress.delivery);
    return deliveries;
}

void changeDay(Test& test, const std::string& at) {
    if (test.sittings.empty())
        beginSitting(test, at);
    record::Sitting& sitting = test.sittings.back();
    if (test.progress.nextMark == record::Mark::day) {
        test.progress.nextMark = record::Mark::none;
        if (!sitting.later.empty() && sitting.later.back().afterShots == test.shots.size())
            sitting.later.pop_back();
        return;
    }
    test.progress.nextMark = record::Mark::day;
    sitting.later.push_back({at, test.shots.size(), sitting.present()});
}

} // namespace knot::bay
