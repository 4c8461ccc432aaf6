#pragma once

#include "core/bay/correct.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/bay/strike.h"
#include "core/judge/case.h"
#include "core/plan/course.h"
#include "core/plan/schedule.h"
#include "core/record/carry.h"
#include "core/record/check.h"
#include "core/record/roster.h"
#include "core/record/structure.h"

#include <rapidcheck.h>

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

// A test on which any command of the bay is run, with what must hold after each.
namespace knot::bay {

using record::Metric;
using record::ShotId;
using record::ShotStatus;

enum class Command {
    hit,
    hitCalled,
    hitLate,
    miss,
    confirm,
    stillLast,
    nameFirst,
    nameLast,
    setAside,
    countAgain,
    markClub,
    markPlayer,
    endStint,
    leaveOut,
    addLap,
    newSitting,
    takeInHand,
    feel,
    guess,
    markDay,
    callGood,
    callSeen,
    compare,
    askDelivery,
    takeOtherPart,
    newPlayer,
    takePlayer,
    moveToClub,
    moveToPlayer,
    split,
    join,
    setReading
};
constexpr int commandCount = 32;

inline record::Test plannedTest(bool alone, record::Stage stage) {
    record::Test test;
    test.builds = {{.name = "Fern"}, {.name = "Slate"}, {.name = "Birch"}};
    test.stage = stage;
    test.card.alone = alone;
    test.plan.rounds = 2;
    test.plan.turnLength = 2;
    test.plan.warmUp = 2;
    plan::makeCourse(test);
    return test;
}

class Machine {
public:
    explicit Machine(record::Test test)
        : m_test(std::move(test))
        , m_tally(m_test) {}

    void run(Command command, std::size_t pick) {
        const record::Test before = m_test;
        apply(command, pick);
        std::size_t same = 0;
        while (same < before.shots.size() && same < m_test.shots.size() && before.shots[same] == m_test.shots[same])
            ++same;
        m_tally.update(m_test, same);
        hold(before, command);
        holdTally();
    }

    const record::Test& test() const { return m_test; }

    /// Somebody declares something else in between.
    template<typename Edit> void declare(Edit edit) {
        record::Declared next = m_test;
        edit(next);
        std::ignore = plan::declare(m_test, std::move(next)); // or it is refused, and nothing changes
        m_tally = Tally(m_test);
    }
    /// The same command without what holds of a run: of two machines it does the same.
    void apply(Command command, std::size_t pick, int) { apply(command, pick); }
    void carry(const record::Test& from, const record::Test& to) {
        record::carry(m_test, from, to);
        m_tally = Tally(m_test);
    }

private:
    std::string now() {
        char text[32];
        ++m_clock;
        std::snprintf(text, sizeof text, "2026-05-%02dT%02d:%02d:00.000", 1 + m_clock / 1440, m_clock / 60 % 24,
                      m_clock % 60);
        return text;
    }
    Arrival arrival(bool called, bool late, bool read) {
        Arrival shot{.at = now(), .readId = "link:" + std::to_string(++m_ids), .reason = {}, .called = called};
        if (m_ids % 3 == 0)
            shot.readId.clear(); // typed
        if (read)
            shot.readings.measure(Metric::carry, 150 + m_ids % 7);
        if (late && !m_test.shots.empty())
            shot.at = m_test.shots.back().takenAt.text().substr(0, 17) + "01.000";
        return shot;
    }
    ShotId shotAt(std::size_t pick) const {
        return m_test.shots.empty() ? ShotId::none : m_test.shots[pick % m_test.shots.size()].id;
    }
    record::BuildAt club(std::size_t pick) const { return record::BuildAt(pick % m_test.builds.size()); }

    void apply(Command command, std::size_t pick) {
        const bool strikes = standOf(m_test).phase() != Phase::noPlan;
        switch (command) {
        case Command::hit:
        case Command::hitCalled:
        case Command::hitLate:
        case Command::miss:
            if (strikes)
                addShot(m_test,
                        arrival(command == Command::hitCalled, command == Command::hitLate, command != Command::miss),
                        m_tally);
            break;
        case Command::confirm:
            confirm(m_test, now());
            break;
        case Command::stillLast:
            stillLast(m_test);
            break;
        case Command::nameFirst:
        case Command::nameLast:
            if (const Stand stand = standOf(m_test); const auto* unnamed = stand.as<NameTag>())
                REQUIRE(nameTag(m_test, command == Command::nameFirst ? unnamed->stint.inBag.front()
                                                                      : unnamed->stint.inBag.back()));
            break;
        case Command::setAside:
            std::ignore = changeStatus(m_test, shotAt(pick), ShotStatus::setAside, Moment::afterNumber, "thin");
            break;
        case Command::countAgain:
            std::ignore = changeStatus(m_test, shotAt(pick), ShotStatus::counted, Moment::afterNumber);
            break;
        case Command::markClub:
            m_test.progress.nextMark = record::Mark::club;
            break;
        case Command::markPlayer:
            m_test.progress.nextMark = record::Mark::player;
            break;
        case Command::endStint:
            endStint(m_test);
            break;
        case Command::leaveOut:
            if (pick % 4 == 0)
                leaveOut(m_test, club(pick));
            break;
        case Command::addLap:
            if (m_test.stage == record::Stage::test && m_test.turns.size() < 24)
                addRound(m_test, pick);
            break;
        case Command::newSitting:
            beginSitting(m_test, now());
            break;
        case Command::takeInHand:
            if (m_test.stage != record::Stage::test)
                takeInHand(m_test, club(pick));
            break;
        case Command::feel:
            if (const auto stint = lastStint(m_test)) {
                auto feel = feelOf(m_test, *stint);
                feel.scores[pick % feel.scores.size()] = static_cast<int>(pick % 10) + 1;
                setFeel(m_test, feel);
            }
            break;
        case Command::guess:
            if (const auto stint = stintInQuestion(m_test))
                setGuess(m_test, {stint->build, m_test.builds[0].who(), stint->turn});
            break;
        case Command::markDay:
            changeDay(m_test, now());
            break;
        case Command::callGood:
            std::ignore = callShot(m_test, shotAt(pick), record::Call::good, Moment::beforeNumber);
            break;
        case Command::callSeen:
            RC_ASSERT(!callShot(m_test, shotAt(pick), record::Call::bad, Moment::afterNumber));
            break;
        case Command::compare:
            if (const auto stint = stintInQuestion(m_test))
                compareToLast(m_test, *stint, static_cast<record::Versus>(1 + pick % 3));
            break;
        case Command::askDelivery:
            askDelivery(m_test, pick % 2 == 0 ? "low" : "");
            break;
        case Command::takeOtherPart:
            if (m_test.builds.size() < 6)
                takeOtherPart(m_test, static_cast<record::PartKind>(pick % 3), pick % 2 == 0 ? "Reed" : "");
            break;
        default:
            applyToPlayers(command, pick);
            break;
        }
    }

    void applyToPlayers(Command command, std::size_t pick) {
        const record::PlayerAt player(m_test.players.empty() ? 0 : pick % m_test.players.size());
        if (command == Command::newPlayer && m_test.players.size() < 3 && !m_test.card.alone)
            takeNewPlayer(m_test, {.id = {}, .name = "Player " + std::to_string(m_test.players.size() + 2)});
        else if (command == Command::takePlayer)
            takePlayer(m_test, player);
        else if (command == Command::moveToClub)
            std::ignore = moveToClub(m_test, {shotAt(pick), shotAt(pick / 7)}, club(pick / 3));
        else if (command == Command::moveToPlayer)
            std::ignore = moveToPlayer(m_test, {shotAt(pick), shotAt(pick / 7)}, player);
        else if (command == Command::split)
            std::ignore = splitStint(m_test, shotAt(pick));
        else if (command == Command::join)
            std::ignore = joinStint(m_test, shotAt(pick));
        else if (command == Command::setReading)
            RC_ASSERT(setReading(m_test, shotAt(pick), Metric::carry, 1).has_value() ==
                      (!m_test.shots.empty() && m_test.shots[*m_test.shotIndex(shotAt(pick))].readId.empty()));
    }

    void hold(const record::Test& before, Command command) const {
        RC_ASSERT(record::faultsOf(m_test).empty());
        // A shot keeps its id, its readings and, where it is a warm-up swing, its status.
        for (const auto& shot : before.shots) {
            const auto at = m_test.shotIndex(shot.id);
            RC_ASSERT(at.has_value());
            const auto& after = m_test.shots[*at];
            if (command != Command::setReading)
                RC_ASSERT(after.readings == shot.readings);
            if (shot.status == ShotStatus::warmUp)
                RC_ASSERT(after.status == ShotStatus::warmUp);
            else
                RC_ASSERT(after.status != ShotStatus::warmUp);
            if (command != Command::setAside && command != Command::countAgain)
                RC_ASSERT(after.status == shot.status);
            if (command != Command::callGood)
                RC_ASSERT(after.call == shot.call);
            RC_ASSERT(after.delivery == shot.delivery);
        }
        // Where several hit, every shot is somebody's, and of a plan its stint's.
        for (const auto& shot : m_test.shots) {
            if (m_test.players.size() < 2)
                break;
            RC_ASSERT(m_test.playerIndex(shot.player).has_value());
            const auto planned = plannedTurn(m_test, shot);
            if (m_test.stage == record::Stage::test && planned && shot.status != ShotStatus::warmUp)
                RC_ASSERT(m_test.players[m_test.turns[*planned].player].name == shot.player);
        }
        RC_ASSERT(m_test.shots.size() <= before.shots.size() + 1);
        // A club has a planned lap once: its shots of one lap are of one stint of the plan.
        if (m_test.stage == record::Stage::test) {
            std::map<std::tuple<std::size_t, std::string, std::string>, std::set<std::string>> stints;
            for (const auto& shot : m_test.shots)
                if (shot.status != ShotStatus::warmUp && !isUnnamed(m_test, shot))
                    stints[{shot.build, shot.round, shot.player}].insert(shot.turn);
            for (const auto& [lap, labels] : stints)
                RC_ASSERT(labels.size() == 1);
        }
        const auto subject = judge::Case::of(m_test);
        std::set<std::size_t> numbers;
        for (record::ShotAt i; i < subject.test().shots.size(); ++i) {
            const std::size_t number = subject.numberOf(i);
            RC_ASSERT(number >= 1 && number <= m_test.shots.size());
            RC_ASSERT(m_test.shots[number - 1].id == subject.test().shots[i].id);
            RC_ASSERT(numbers.insert(number).second);
        }
        for (record::ShotAt i; i < subject.seen().shots.size(); ++i)
            RC_ASSERT(m_test.shots[subject.numberOfSeen(i) - 1].id == subject.seen().shots[i].id);
    }

    // What is kept up is what reckoning anew gives.
    void holdTally() const {
        const Tally anew(m_test);
        RC_ASSERT(m_tally.filled() == anew.filled());
        RC_ASSERT(m_tally.swings() == anew.swings());
        RC_ASSERT(m_tally.warmUp() == anew.warmUp());
        RC_ASSERT(m_tally.stints() == anew.stints());
        for (PlannedAt turn; turn < m_test.turns.size(); ++turn)
            RC_ASSERT(m_tally.struck(turn) == anew.struck(turn));
        RC_ASSERT(!m_test.shotIndex(m_tally.nextId()));
        RC_ASSERT(standOf(m_test, m_tally).phase() == standOf(m_test).phase());
    }

    record::Test m_test;
    Tally m_tally;
    int m_clock = 540, m_ids = 0;
};

} // namespace knot::bay
