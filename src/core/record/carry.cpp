#include "core/record/carry.h"

#include <algorithm>
#include <string>
#include <tuple>
#include <type_traits>

namespace knot::record {
namespace {

// Whether a member of an aggregate can be anything.
struct Any {
    template<typename T> operator T() const;
};

template<typename T, typename... Members> consteval std::size_t memberCount() {
    if constexpr (requires { T{Members{}..., Any{}}; })
        return memberCount<T, Members..., Any>();
    else
        return sizeof...(Members);
}

// The members of what is made of members; none can be forgotten.
constexpr auto membersOf(std::type_identity<Declared>) {
    return std::tuple(&Declared::title, &Declared::question, &Declared::stage, &Declared::players, &Declared::card,
                      &Declared::plan, &Declared::seal, &Declared::builds, &Declared::sealedBuilds,
                      &Declared::decision);
}
constexpr auto membersOf(std::type_identity<Course>) {
    return std::tuple(&Course::turns, &Course::standings, &Course::sittings, &Course::events, &Course::progress,
                      &Course::frozenAt, &Course::frozenHash);
}
constexpr auto membersOf(std::type_identity<Sayings>) {
    return std::tuple(&Sayings::feels, &Sayings::guesses, &Sayings::choices);
}
constexpr auto membersOf(std::type_identity<Progress>) {
    return std::tuple(&Progress::warmedUp, &Progress::confirmed, &Progress::named, &Progress::handedOverAt,
                      &Progress::inHand, &Progress::player, &Progress::delivery, &Progress::handOverNext,
                      &Progress::nextMark);
}
constexpr auto membersOf(std::type_identity<Build>) {
    return std::tuple(&Build::name, &Build::note, &Build::tag, &Build::club, &Build::id);
}
constexpr auto membersOf(std::type_identity<Club>) {
    return std::tuple(&Club::head, &Club::shaft, &Club::grip, &Club::ball, &Club::length, &Club::headAt, &Club::lead,
                      &Club::bentLoft, &Club::bentLie, &Club::grippedDown, &Club::sleeve);
}

template<typename T>
concept HasMembers = requires {
    membersOf(std::type_identity<T>());
};

template<HasMembers T>
constexpr bool isWhole = memberCount<T>() == std::tuple_size_v<decltype(membersOf(std::type_identity<T>()))>;
static_assert(isWhole<Declared> && isWhole<Course> && isWhole<Sayings> && isWhole<Progress> && isWhole<Build> &&
              isWhole<Club>);

// What tells one in a list from the others for good.
const std::string& keyOf(const Build& build) {
    return build.id.empty() ? build.name : build.id;
}
const std::string& keyOf(const Player& player) {
    return player.id.empty() ? player.name : player.id;
}
int keyOf(const PlannedTurn& turn) {
    return turn.id;
}

template<typename List, typename Key> auto findKey(List& list, const Key& key) {
    return std::ranges::find_if(list, [&](const auto& one) { return keyOf(one) == key; });
}

template<typename T> void carryOne(T& present, const T& from, const T& to);

// Told by their keys: what came comes behind the one that it stood behind, what went goes, what changed changes.
template<typename One>
void carryList(std::vector<One>& present, const std::vector<One>& from, const std::vector<One>& to) {
    std::erase_if(present, [&](const One& one) {
        return findKey(from, keyOf(one)) != from.end() && findKey(to, keyOf(one)) == to.end();
    });
    for (std::size_t i = 0; i < to.size(); ++i) {
        const auto before = findKey(from, keyOf(to[i]));
        const auto now = findKey(present, keyOf(to[i]));
        if (before != from.end() && now != present.end()) {
            carryOne(*now, *before, to[i]);
        } else if (before == from.end() && now == present.end()) {
            auto place = present.begin();
            for (std::size_t j = i; j-- > 0 && place == present.begin();)
                if (const auto ahead = findKey(present, keyOf(to[j])); ahead != present.end())
                    place = ahead + 1;
            present.insert(place, to[i]);
        }
    }
}

// Things that are told by what they say: what went goes, what came comes last.
template<typename One>
void carryValues(std::vector<One>& present, const std::vector<One>& from, const std::vector<One>& to) {
    auto isIn = [](const std::vector<One>& list, const One& one) { return std::ranges::find(list, one) != list.end(); };
    std::erase_if(present, [&](const One& one) { return isIn(from, one) && !isIn(to, one); });
    for (const One& one : to)
        if (!isIn(from, one) && !isIn(present, one))
            present.push_back(one);
}

template<typename T> void carryOne(T& present, const T& from, const T& to) {
    if (from == to)
        return;
    if (present == from)
        present = to;
    else if constexpr (HasMembers<T>)
        std::apply([&](auto... member) { (carryOne(present.*member, from.*member, to.*member), ...); },
                   membersOf(std::type_identity<T>()));
    else if constexpr (requires { keyOf(present.front()); })
        carryList(present, from, to);
    else if constexpr (requires {
                           present.push_back(present.front());
                           typename T::allocator_type;
                       } &&
                       !std::is_same_v<T, std::string>)
        carryValues(present, from, to);
    else
        present = to;
}

template<typename Change> void forEachPlace(Test& test, Change change) {
    for (PlannedTurn& turn : test.turns)
        change(turn.build);
    for (ChangeTime& time : test.plan.changeTimes) {
        change(time.a);
        change(time.b);
    }
    for (Shot& shot : test.shots)
        change(shot.build);
    for (Amendment& amendment : test.amendments)
        for (Shot& shot : amendment.was)
            change(shot.build);
    for (Feel& feel : test.feels)
        change(feel.build);
    for (Guess& guess : test.guesses)
        change(guess.build);
}

// Where each of a list stands in another one; one that has no id may have been given one, or another name.
template<typename At, typename One>
std::vector<At> placesIn(const std::vector<One>& own, const std::vector<One>& others, At none) {
    std::vector<At> places;
    for (std::size_t i = 0; i < own.size(); ++i) {
        auto at = findKey(others, keyOf(own[i]));
        if (at == others.end())
            at = std::ranges::find(others, own[i].name, &One::name);
        places.push_back(at == others.end() ? none : At(static_cast<std::size_t>(at - others.begin())));
    }
    return places;
}

} // namespace

void reseat(Test& test, const std::vector<Build>& builds, const std::vector<Player>& players) {
    const auto clubs = placesIn(test.builds, builds, nowhere);
    const auto hitters = placesIn(test.players, players, PlayerAt());
    forEachPlace(test, [&](BuildAt& build) { build = build < clubs.size() ? clubs[build] : nowhere; });
    // Where the one in hand is gone, another one is not silently taken up in its place.
    if (test.progress.inHand < clubs.size())
        test.progress.inHand = clubs[test.progress.inHand];
    for (PlannedTurn& turn : test.turns)
        turn.player = turn.player < hitters.size() ? hitters[turn.player] : PlayerAt();
    test.progress.player = test.progress.player < hitters.size() ? hitters[test.progress.player] : PlayerAt();
    test.builds = builds;
    test.players = players;
}

bool anyMoved(const std::vector<Build>& before, const std::vector<Build>& after) {
    return after.size() < before.size() ||
           !std::equal(before.begin(), before.end(), after.begin(),
                       [](const Build& a, const Build& b) { return keyOf(a) == keyOf(b); });
}

bool pointsNowhere(const Test& test) {
    auto isNowhere = [](const auto& one) { return one.build == nowhere; };
    return std::ranges::any_of(test.shots, isNowhere) || std::ranges::any_of(test.feels, isNowhere) ||
           std::ranges::any_of(test.guesses, isNowhere) ||
           std::ranges::any_of(test.amendments,
                               [&](const Amendment& one) { return std::ranges::any_of(one.was, isNowhere); });
}

Test headOf(const Test& test) {
    Test head = stateOf(test);
    head.amendments = test.amendments;
    return head;
}

Test stateOf(const Test& test) {
    Test head;
    static_cast<Declared&>(head) = test;
    static_cast<Course&>(head) = test;
    static_cast<Sayings&>(head) = test;
    head.id = test.id;
    head.repeats = test.repeats;
    head.createdAt = test.createdAt;
    head.extraColumns = test.extraColumns;
    return head;
}

Declared carried(Declared present, const Declared& from, const Declared& to) {
    carryOne(present, from, to);
    return present;
}

void carry(Test& present, Test from, Test to) {
    Declared next = carried(present, from, to);
    const bool planChanges = from.plan != to.plan;
    // All three as the clubs and players stand now.
    for (Test* one : {&present, &from, &to}) {
        reseat(*one, next.builds, next.players);
        numberTurns(one->turns);
    }
    next.plan.changeTimes = planChanges ? to.plan.changeTimes : present.plan.changeTimes;
    std::erase_if(next.plan.changeTimes, [](const ChangeTime& time) { return time.a == nowhere || time.b == nowhere; });
    static_cast<Declared&>(present) = std::move(next);
    carryOne<Course>(present, from, to);
    carryOne<Sayings>(present, from, to);
    std::erase_if(present.turns, [](const PlannedTurn& turn) { return turn.build == nowhere; });
    unnumberTurns(present.turns);
}

} // namespace knot::record
