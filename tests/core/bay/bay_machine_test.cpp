// Every bay command in every phase, in any order: a warm-up swing stays one, no lap is had twice, ids
// stay with their shots, the case takes whatever comes.
#include "core/bay/correct.h"
#include "core/bay/hand.h"
#include "core/bay/said.h"
#include "core/bay/strike.h"
#include "core/judge/case.h"
#include "core/plan/schedule.h"
#include "core/record/check.h"
#include "core/record/structure.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

#include <algorithm>
#include <map>
#include <set>

using namespace knot;
using namespace knot::bay;
using record::Metric;
using record::ShotId;
using record::ShotStatus;

namespace {

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

record::Test plannedTest(bool alone, record::Stage stage) {
    record::Test test;
    test.builds = {{.name = "Fern"}, {.name = "Slate"}, {.name = "Birch"}};
    test.stage = stage;
    test.card.alone = alone;
    test.plan.rounds = 2;
    test.plan.turnLength = 2;
    test.plan.warmUp = 2;
    plan::planTurns(test);
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
            shot.at = m_test.shots.back().takenAt.substr(0, 17) + "01.000";
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
            if (m_test.stage == record::Stage::test && m_test.plan.turns.size() < 24)
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
                setGuess(m_test, {stint->build, "Fern", stint->turn});
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
                RC_ASSERT(m_test.players[m_test.plan.turns[*planned].player].name == shot.player);
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
        for (PlannedAt turn; turn < m_test.plan.turns.size(); ++turn)
            RC_ASSERT(m_tally.struck(turn) == anew.struck(turn));
        RC_ASSERT(!m_test.shotIndex(m_tally.nextId()));
        RC_ASSERT(standOf(m_test, m_tally).phase() == standOf(m_test).phase());
    }

    record::Test m_test;
    Tally m_tally;
    int m_clock = 540, m_ids = 0;
};

void runAnything(bool alone, record::Stage stage) {
    CHECK(rc::check([=] {
        Machine machine(plannedTest(alone, stage));
        // Struck more often than anything else, so that runs get somewhere.
        const auto steps = *rc::gen::container<std::vector<int>>(rc::gen::inRange(0, 2 * commandCount));
        for (const int step : steps) {
            const auto command = step < commandCount ? static_cast<Command>(step)
                                 : step % 3 == 0     ? Command::confirm
                                                     : Command::hit;
            machine.run(command, static_cast<std::size_t>(*rc::gen::inRange(0, 1000)));
        }
    }));
}

} // namespace

TEST_CASE("whatever is done in the bay, a planned test stays whole") {
    runAnything(false, record::Stage::test);
}

TEST_CASE("whatever is done in the bay, a test struck alone stays whole") {
    runAnything(true, record::Stage::test);
}

TEST_CASE("whatever is done in the bay, a screening stays whole") {
    runAnything(false, record::Stage::screening);
}

TEST_CASE("a warm-up swing that is called a mishit stays a warm-up swing") {
    record::Test test = plannedTest(false, record::Stage::test);
    Arrival swing{.at = "2026-05-02T09:00:00.000"};
    swing.readings.measure(Metric::carry, 120);
    swing.called = true;
    addShot(test, swing);
    REQUIRE(test.shots.size() == 1);
    CHECK(test.shots[0].status == ShotStatus::warmUp);
    const auto called = changeStatus(test, test.shots[0].id, ShotStatus::setAside, Moment::beforeNumber, "called");
    REQUIRE(!called);
    CHECK(called.error() == WhyNot::warmUp);
    const auto counted = changeStatus(test, test.shots[0].id, ShotStatus::counted, Moment::beforeNumber);
    REQUIRE(!counted);
    CHECK(counted.error() == WhyNot::warmUp);
    CHECK(record::structureOf(test).rounds.empty());
}

TEST_CASE("the table of statuses answers every question, and says why not") {
    const ShotStatus all[] = {ShotStatus::counted, ShotStatus::setAside, ShotStatus::warmUp};
    for (const ShotStatus from : all)
        for (const ShotStatus to : all)
            for (const Moment moment : {Moment::beforeNumber, Moment::afterNumber, Moment::afterReveal}) {
                record::Test test = plannedTest(false, record::Stage::test);
                record::Shot shot;
                shot.status = from;
                shot.readings.measure(Metric::carry, 150);
                test.shots = {shot};
                test.nameShots();
                const auto before = test;
                const auto changed = changeStatus(test, ShotId{1}, to, moment, "why");
                const bool may = from != to && from != ShotStatus::warmUp && to != ShotStatus::warmUp;
                REQUIRE(changed.has_value() == may);
                if (!may) {
                    CHECK(test == before);
                    continue;
                }
                CHECK(test.shots[0].status == to);
                CHECK(test.shots[0].reason == (to == ShotStatus::setAside ? "why" : ""));
                CHECK(test.shots[0].isSetAsideLate() == (to == ShotStatus::setAside && moment != Moment::beforeNumber));
            }
    record::Test test = plannedTest(false, record::Stage::test);
    CHECK(changeStatus(test, ShotId{7}, ShotStatus::setAside, Moment::afterNumber).error() == WhyNot::noSuchShot);
}

TEST_CASE("one more lap of a sandwich begins and ends with the own club") {
    record::Test test = plannedTest(false, record::Stage::test);
    test.card.baseline = "Slate";
    test.plan.schedule = record::Schedule::sandwich;
    plan::planTurns(test);
    const std::size_t lap = test.plan.turns.size() / 2;
    REQUIRE(addRound(test, 5));
    REQUIRE(test.plan.turns.size() == 3 * lap);
    CHECK(test.plan.turns[2 * lap].build == 1);
    CHECK(test.plan.turns.back().build == 1);
    CHECK(std::ranges::count_if(test.plan.turns, [](const auto& turn) { return turn.round == 3; }) ==
          static_cast<std::ptrdiff_t>(lap));
}

TEST_CASE("a club that was struck off is not in hand, and none is where all were") {
    record::Test test = plannedTest(false, record::Stage::screening);
    takeInHand(test, record::BuildAt(2));
    test.builds[2].struckOff = "too low";
    CHECK(standOf(test).as<Free>()->build == record::BuildAt(1));
    addShot(test, {.at = "2026-05-02T09:00:00.000"});
    CHECK(test.shots.back().build == 1);
    for (auto& build : test.builds)
        build.struckOff = "x";
    CHECK(!standOf(test).as<Free>()->build);
}
