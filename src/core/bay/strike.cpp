#include "core/bay/strike.h"

#include "core/bay/hand.h"
#include "core/plan/planner.h"
#include "core/plan/schedule.h"
#include "core/plan/strike_off.h"
#include "core/record/roster.h"
#include "core/record/text/moment.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <numeric>
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
    if (arrival.readId.empty() || test.sittings.empty())
        return std::nullopt;
    for (std::size_t i = test.shots.size(); i-- > 0 && test.shots.size() - i <= lookedBack;) {
        const Shot& shot = test.shots[i];
        const auto apart = record::secondsBetween(shot.takenAt, arrival.at);
        if (!shot.readId.empty() && sourceOf(shot.readId) != sourceOf(arrival.readId) && apart &&
            std::fabs(*apart) <= sameSwingSeconds)
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
bool isLate(const Test& test, const Striking& striking, const record::Moment& at) {
    return striking.confirmed && record::isEarlier(at, test.progress.handedOverAt);
}

void putIntoTurn(const Test& test, PlannedAt turn, Shot& shot) {
    shot.build = test.turns[turn].build;
    shot.turn = turnLabel(test, turn);
    shot.round = std::to_string(test.turns[turn].round);
    shot.status = ShotStatus::counted;
    if (test.players.size() > 1)
        shot.player = test.players[test.turns[turn].player].name;
}

void putIntoFreeStint(const Test& test, const Tally& tally, BuildAt build, Shot& shot) {
    shot.build = build;
    shot.status = ShotStatus::counted;
    const Shot* last = test.shots.empty() ? nullptr : &test.shots.back();
    const bool newStint = last == nullptr || last->build != shot.build || last->sitting != shot.sitting ||
                          last->player != shot.player || last->status == ShotStatus::warmUp ||
                          test.progress.handOverNext;
    shot.turn = newStint ? tally.nextLabel() : last->turn;
    shot.handedOver = newStint;
}

// The stint before the one in hand that has shots, or nothing: then it was warm-up.
std::optional<PlannedAt> turnBefore(const Test& test, const Tally& tally, PlannedAt turn) {
    for (std::size_t before = turn; before-- > 0;)
        if (tally.hasStint(turnLabel(test, PlannedAt(before))))
            return PlannedAt(before);
    return std::nullopt;
}

// A shot that was held back goes where it was struck.
bool putWhereItWasStruck(const Test& test, const Tally& tally, const Arrival& arrival, Shot& shot) {
    const auto& struck = arrival.struckWith;
    if (!struck || struck->build >= test.builds.size())
        return false;
    if (struck->isWarmUp) {
        shot.status = ShotStatus::warmUp;
        shot.build = struck->build;
    } else if (struck->turn && *struck->turn < test.turns.size())
        putIntoTurn(test, *struck->turn, shot);
    else if (test.turns.empty())
        putIntoFreeStint(test, tally, struck->build, shot);
    else
        return false;
    return true;
}

void putWhereItBelongs(const Test& test, const Tally& tally, const Arrival& arrival, Shot& shot) {
    if (putWhereItWasStruck(test, tally, arrival, shot))
        return;
    const bool timed = arrival.timed;
    const Stand stand = standOf(test, tally);
    const bool firstOfSitting = tally.swings() == tally.warmUp();
    shot.status = ShotStatus::warmUp;
    if (const auto* stint = stand.stint())
        shot.build = stint->build;
    if (const auto* free = stand.as<Free>()) {
        if (free->build && free->warmingUp)
            shot.build = *free->build;
        else if (free->build)
            putIntoFreeStint(test, tally, *free->build, shot);
    } else if (stand.phase() == Phase::done) {
        shot.build = test.turns.back().build;
        shot.reason = "after the plan";
    } else if (const auto* striking = stand.as<Striking>()) {
        if (!timed || !isLate(test, *striking, shot.takenAt))
            putIntoTurn(test, striking->stint.turn, shot);
        else if (const auto before = turnBefore(test, tally, striking->stint.turn); before && !firstOfSitting)
            putIntoTurn(test, *before, shot);
    } else if (stand.phase() != Phase::warmUp && !(stand.phase() == Phase::handOver && firstOfSitting)) {
        // Whoever goes on warming up has no club of the test in hand until somebody says so.
        putIntoTurn(test, stand.stint()->turn, shot);
    }
}

// After the shots of its stint that were struck before it.
std::size_t placeFor(const Test& test, const Tally& tally, bool timed, const Shot& shot) {
    std::size_t place = test.shots.size();
    const std::size_t floor = place - std::min(place, reach);
    if (!shot.turn.empty() && tally.hasStint(shot.turn)) // behind the last of its stint
        while (place > floor && test.shots[place - 1].turn != shot.turn)
            --place;
    if (!timed)
        return place;
    while (place > floor && test.shots[place - 1].turn == shot.turn && test.shots[place - 1].sitting == shot.sitting &&
           test.shots[place - 1].status == shot.status &&
           record::isEarlier(shot.takenAt, test.shots[place - 1].takenAt))
        --place;
    return place;
}

void relabel(Test& test, const std::string& turn, BuildAt build) {
    for (auto& feel : test.feels)
        if (feel.turn == turn)
            feel.build = build;
    for (auto& guess : test.guesses)
        if (!guess.turn.empty() && guess.turn == turn)
            guess.build = build;
}

} // namespace

std::optional<InHand> inHand(const Test& test) {
    const Stand stand = standOf(test);
    if (const auto* striking = stand.as<Striking>())
        return InHand{striking->stint.turn, striking->stint.build};
    if (const auto* free = stand.as<Free>(); free != nullptr && free->build)
        return InHand{{}, *free->build, free->warmingUp};
    if (const auto* warmUp = stand.as<WarmUp>())
        return InHand{{}, warmUp->first.build, true};
    return std::nullopt;
}

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
    Tally tally(test);
    return addShot(test, arrival, tally);
}

From addShot(Test& test, const Arrival& arrival, Tally& tally) {
    if (test.sittings.empty())
        beginSitting(test, arrival.at.text());
    tally.update(test, test.shots.size()); // another sitting may have begun
    if (const auto same = sameSwing(test, arrival)) {
        fillIn(test.shots[*same].readings, arrival.readings);
        tally.update(test, *same);
        return *same;
    }
    Shot shot;
    shot.readings = arrival.readings;
    record::deriveMissing(shot.readings);
    shot.takenAt = arrival.at;
    shot.readId = arrival.readId;
    shot.note = arrival.reason.empty() ? arrival.callWords : arrival.reason;
    shot.sitting = test.sittings.back().label;
    shot.player = test.players.size() > 1 ? playerInHand(test)
                  : test.shots.empty()    ? std::string()
                                          : test.shots.back().player;
    shot.delivery = test.progress.delivery;
    shot.call = arrival.call;
    shot.extra.resize(test.extraColumns.size());
    shot.id = tally.nextId();
    putWhereItBelongs(test, tally, arrival, shot);
    if (const auto hitter = test.playerIndex(shot.player); hitter && test.players.size() > 1)
        test.progress.player = *hitter;
    shot.mark = test.progress.nextMark;
    test.progress.nextMark = record::Mark::none;
    test.progress.handOverNext = false;
    const std::size_t place = placeFor(test, tally, arrival.timed, shot);
    // The first of a stint carries its hand-over, also when it comes out of order.
    if (!shot.turn.empty() && (place == 0 || test.shots[place - 1].turn != shot.turn)) {
        shot.handedOver = true;
        if (place < test.shots.size() && test.shots[place].turn == shot.turn)
            test.shots[place].handedOver = false;
    }
    const record::ShotId id = shot.id;
    test.shots.insert(test.shots.begin() + static_cast<std::ptrdiff_t>(place), std::move(shot));
    if (arrival.called) // where the sheet keeps every shot, or it is a warm-up swing, it stays as it is
        std::ignore = changeStatus(test, id, ShotStatus::setAside, momentOf(test, false), "called");
    tally.update(test, place);
    return place;
}

bool confirm(Test& test, const std::string& at) {
    const bool begins = test.sittings.empty();
    if (begins)
        beginSitting(test, at);
    const Stand stand = standOf(test);
    if (stand.as<WarmUp>() != nullptr) {
        test.progress.warmedUp = true;
        return true;
    }
    if (const auto* free = stand.as<Free>()) {
        (free->warmingUp ? test.progress.warmedUp : test.progress.handOverNext) = true;
        return true;
    }
    const auto* due = stand.as<HandOver>();
    const auto* striking = stand.as<Striking>();
    if (due == nullptr && (striking == nullptr || striking->confirmed))
        return begins;
    if (stand.stint()->anotherPlayer) {
        handTo(test, stand.stint()->player);
        if (!test.progress.warmedUp && test.plan.warmUp > 0)
            return true;
    }
    test.progress.confirmed = static_cast<int>(stand.stint()->turn) + 1;
    test.progress.handedOverAt = due != nullptr ? at : std::string();
    return true;
}

std::optional<From> stillLast(Test& test) {
    const Stand stand = standOf(test);
    const auto* striking = stand.as<Striking>();
    if (striking == nullptr || striking->confirmed)
        return std::nullopt;
    const auto before = turnBefore(test, Tally(test), striking->stint.turn);
    if (!before)
        return std::nullopt;
    std::optional<From> from;
    for (std::size_t i = 0; i < test.shots.size(); ++i)
        if (Shot& shot = test.shots[i]; shot.turn == turnLabel(test, striking->stint.turn)) {
            const ShotStatus status = shot.status;
            putIntoTurn(test, *before, shot);
            shot.status = status;
            shot.handedOver = false;
            from = from.value_or(i);
        }
    return from;
}

std::optional<From> nameTag(Test& test, BuildAt build) {
    const Stand stand = standOf(test);
    const auto* unnamed = stand.as<NameTag>();
    if (unnamed == nullptr)
        return std::nullopt;
    auto& turns = test.turns;
    const PlannedAt turn = unnamed->stint.turn;
    PlannedAt other = turn;
    while (other < turns.size() && turns[other].round == turns[turn].round && turns[other].build != build)
        ++other;
    if (other == turns.size() || turns[other].round != turns[turn].round)
        return std::nullopt;
    std::swap(turns[turn].build, turns[other].build);
    test.progress.named = static_cast<int>(turn) + 1;
    relabel(test, turnLabel(test, turn), build);
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
        conditions = test.sittings.back().present();
    conditions.wind.reset(); // the rest is likely to be as it was
    conditions.temperature.reset();
    test.sittings.push_back({label, at, conditions, {}});
    test.progress.delivery.clear();
    test.progress.warmedUp = false;
    test.progress.handedOverAt = {};
    if (const Stand stand = standOf(test); stand.stint() != nullptr)
        test.progress.confirmed = std::min(test.progress.confirmed, static_cast<int>(stand.stint()->turn));
}

bool isAnotherVisit(const Test& test, const std::string& now) {
    if (test.sittings.empty())
        return false;
    const record::Moment& began = test.sittings.back().startedAt;
    const bool struckSince = !test.shots.empty() && record::isEarlier(began, test.shots.back().takenAt);
    const auto since = record::secondsBetween(struckSince ? test.shots.back().takenAt : began, now);
    return since && *since > anotherVisitSeconds;
}

void addEvent(Test& test, record::EventKind kind, const std::string& at, const std::string& text) {
    test.events.push_back({kind, at, test.shots.size(), text});
}

bool endStint(Test& test) {
    const Stand stand = standOf(test);
    if (stand.phase() != Phase::striking && stand.phase() != Phase::handOver)
        return false;
    test.turns[stand.stint()->turn].ended = true;
    return true;
}

namespace {

// Ends the stints of a club that are not struck to their end; gives the first lap that it has no shot in.
std::optional<int> endWhatIsLeft(Test& test, BuildAt build) {
    const Tally tally(test);
    std::optional<int> from;
    for (PlannedAt i; i < test.turns.size(); ++i) {
        record::PlannedTurn& turn = test.turns[i];
        if (turn.build != build || tally.filled()[i] >= wantedShots(test, i))
            continue;
        turn.ended = true;
        if (tally.filled()[i] == 0)
            from = std::min(from.value_or(turn.round), turn.round);
    }
    return from;
}

int lapsPlanned(const Test& test) {
    return test.turns.empty() ? 0 : std::ranges::max_element(test.turns, {}, &record::PlannedTurn::round)->round;
}

} // namespace

void leaveOut(Test& test, BuildAt build) {
    if (!record::Roster(test).isIn(build))
        return;
    const auto from = endWhatIsLeft(test, build);
    setStanding(test, build, record::Standing::What::leftOut, from.value_or(lapsPlanned(test) + 1));
    // Where two are left of clubs that are struck off, these go on to the end of the plan.
    if (plan::strikesOff(test) && record::Roster(test).left().size() == 2)
        plan::planAfterCut(test);
}

namespace {

bool wasRead(const Test& test, record::Metric metric) {
    return std::ranges::any_of(test.shots, [&](const Shot& shot) { return shot.readings.at(metric).has_value(); });
}

// Whether an outcome is about an average, as struck or otherwise.
bool isOfAverage(const record::Outcome& outcome) {
    return outcome.kind == record::OutcomeKind::average || outcome.kind == record::OutcomeKind::equal ||
           outcome.kind == record::OutcomeKind::typical;
}

// The means of each club's stints: a stint counts as one, however many shots it has.
std::map<BuildAt, std::vector<double>> stintMeans(const Test& test, record::Metric metric) {
    std::map<std::pair<BuildAt, std::string>, std::pair<double, int>> sums;
    for (const Shot& shot : test.shots)
        if (const auto value = shot.readings.at(metric); value && shot.status == ShotStatus::counted) {
            auto& [sum, n] = sums[{shot.build, shot.turn}];
            sum += *value;
            ++n;
        }
    std::map<BuildAt, std::vector<double>> means;
    for (const auto& [stint, sum] : sums)
        means[stint.first].push_back(sum.first / sum.second);
    return means;
}

} // namespace

std::vector<BuildAt> orderSoFar(const Test& test) {
    const auto& primary = test.card.primary;
    const auto wanted = std::ranges::find_if(primary, [&](const record::Outcome& outcome) {
        return isOfAverage(outcome) && wasRead(test, outcome.metric) &&
               test.card.want(outcome).kind != record::Want::Kind::none;
    });
    const record::Outcome outcome = wanted == primary.end() ? record::Outcome{} : *wanted;
    const record::Want want =
        wanted == primary.end() ? record::Want{record::Want::Kind::more, 0} : test.card.want(outcome);
    auto means = stintMeans(test, outcome.metric);
    auto merit = [&](BuildAt build) {
        const auto& own = means[build];
        return own.empty() ? -std::numeric_limits<double>::infinity()
                           : want.merit(std::accumulate(own.begin(), own.end(), 0.0) / static_cast<double>(own.size()));
    };
    auto order = record::Roster(test).left();
    std::ranges::stable_sort(order, std::greater{}, merit);
    return order;
}

bool strikeOff(Test& test, const std::vector<BuildAt>& stay) {
    const auto lap = plan::cutDue(test);
    const auto left = record::Roster(test).left();
    const std::set<BuildAt> staying(stay.begin(), stay.end());
    if (!lap || standOf(test).phase() != Phase::done || staying.size() != plan::stayAfter(left.size(), *lap) ||
        !std::ranges::includes(left, staying))
        return false;
    for (const BuildAt build : left)
        if (!staying.contains(build))
            setStanding(test, build, record::Standing::What::struckOff, *lap + 1, "after lap " + std::to_string(*lap));
    plan::planAfterCut(test);
    return true;
}

void endHere(Test& test) {
    for (BuildAt build; build < test.builds.size(); ++build)
        endWhatIsLeft(test, build);
}

bool addRound(Test& test, std::uint64_t seed) {
    auto& turns = test.turns;
    if (turns.empty())
        return false;
    const int last = lapsPlanned(test);
    std::set<BuildAt> clubs;
    for (const auto& turn : turns)
        clubs.insert(turn.build);
    const record::Roster roster(test);
    std::erase_if(clubs, [&](BuildAt club) { return !roster.isIn(club); });
    if (clubs.size() < 2)
        return false;
    const std::vector<BuildAt> places(clubs.begin(), clubs.end());
    const auto baseline = std::ranges::find(places, test.baselineIndex());
    const bool open = test.plan.schedule == record::Schedule::sandwich && baseline == places.end();
    const auto order =
        plan::scheduled({.schedule = open ? record::Schedule::rotated : test.plan.schedule,
                         .builds = places.size(),
                         .baseline = baseline == places.end() ? 0 : static_cast<std::size_t>(baseline - places.begin()),
                         .rounds = 1,
                         .turnLength = plan::shotsATurn(test.plan),
                         .seed = seed,
                         .changeTimes = {}});
    std::set<std::size_t> players;
    for (const auto& turn : turns)
        players.insert(turn.player);
    for (const std::size_t player : players)
        for (auto turn : plan::turnedFor(order.turns, record::PlayerAt(player), places.size(), test.plan.schedule)) {
            turn.build = places[turn.build];
            turn.round = last + 1;
            record::addTurn(turns, turn);
        }
    return true;
}

} // namespace knot::bay
