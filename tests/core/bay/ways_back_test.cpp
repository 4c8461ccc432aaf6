// Edits of the declaration and steps in the bay, one after the other, and one of them taken back.
#include "bay_machine.h"

#include <catch2/catch.hpp>

using namespace knot;
using namespace knot::bay;

namespace {

// What may be declared while a test is struck.
constexpr int editCount = 9;
void edit(record::Declared& declared, int which) {
    switch (which) {
    case 0:
        declared.title = "another";
        break;
    case 1:
        declared.card.margins[Metric::carry] = 3;
        break;
    case 2:
        declared.builds.push_back({.name = "Larch"});
        break;
    case 3:
        declared.builds.pop_back();
        break;
    case 4:
        declared.builds.erase(declared.builds.begin());
        break;
    case 5:
        declared.builds[1].name = "Reed";
        break;
    case 6:
        declared.builds[0].club.lead = 4;
        break;
    case 7:
        declared.players.push_back({.id = "m", .name = "Marit"});
        declared.players.push_back({.id = "o", .name = "Odd"});
        break;
    default:
        declared.decision = {.what = record::Action::keep, .club = "Fern"};
        break;
    }
}

// Everything but where a club that came and went had stood between the others in laps to come.
record::Test inOrder(record::Test test) {
    std::ranges::stable_sort(test.turns, {}, [&](const record::PlannedTurn& turn) {
        return std::tuple(std::size_t{turn.player}, turn.round, std::size_t{turn.build});
    });
    for (record::PlannedTurn& turn : test.turns)
        turn.id = 0;
    return test;
}

// Commands that plan laps of all clubs that there are.
bool plansLaps(Command command) {
    return command == Command::addLap || command == Command::newPlayer || command == Command::takePlayer;
}

} // namespace

TEST_CASE("what was declared before a step in the bay is taken back as if only that step had been") {
    for (const auto stage : {record::Stage::test, record::Stage::screening})
        CHECK(rc::check([=] {
            record::Test begun = plannedTest(false, stage);
            begun.nameClubs();
            Machine before(begun);
            const auto steps = *rc::gen::container<std::vector<int>>(rc::gen::inRange(0, 3 * commandCount));
            const auto commandOf = [](int step) {
                return step < commandCount ? static_cast<Command>(step)
                       : step % 3 == 0     ? Command::confirm
                                           : Command::hit;
            };
            for (const int step : steps)
                before.run(commandOf(step), static_cast<std::size_t>(*rc::gen::inRange(0, 1000)));
            before.run(Command::confirm, 0);
            before.run(Command::hit, 0);
            if (before.test().shots.empty())
                return; // a course that has not begun is made anew
            const int which = *rc::gen::inRange(0, editCount);
            const Command command = commandOf(*rc::gen::inRange(0, 2 * commandCount));
            const auto pick = static_cast<std::size_t>(*rc::gen::inRange(0, 1000));
            Machine alone = before;
            Machine both = before;
            both.declare([&](record::Declared& declared) { edit(declared, which); });
            const record::Test edited = both.test();
            alone.apply(command, pick, 0);
            both.apply(command, pick, 0);
            both.carry(record::headOf(edited), record::headOf(before.test()));
            if (pointsNowhere(both.test()))
                return; // it was struck, and stays: the way back is refused
            RC_ASSERT(record::faultsOf(both.test()).empty());
            const bool isOfClubs = edited.builds.size() != before.test().builds.size() ||
                                   edited.players.size() != before.test().players.size();
            // Which club a number picks, and who hits, hangs on how many there are.
            if (isOfClubs &&
                (command == Command::leaveOut || command == Command::takeInHand || plansLaps(command) ||
                 command == Command::moveToClub || command == Command::moveToPlayer ||
                 command == Command::takeOtherPart || command == Command::hit || command == Command::hitCalled ||
                 command == Command::hitLate || command == Command::miss || command == Command::endStint ||
                 command == Command::guess || which == 7))
                return;
            if (command == Command::takeOtherPart && (which == 5 || which == 6))
                return; // the new club was made of the one in hand as it was called and built then
            RC_ASSERT(inOrder(both.test()) == inOrder(alone.test()));
        }));
}

TEST_CASE("a step in the bay is taken back as if only what was declared since had been") {
    CHECK(rc::check([] {
        record::Test begun = plannedTest(false, record::Stage::test);
        begun.nameClubs();
        Machine before(begun);
        for (int i = 0; i < 8; ++i)
            before.run(i % 2 == 0 ? Command::confirm : Command::hit, 0);
        const int which = *rc::gen::inRange(0, editCount);
        const std::array commands = {Command::feel,     Command::guess,      Command::markDay,    Command::endStint,
                                     Command::leaveOut, Command::newSitting, Command::askDelivery};
        const auto command = commands[*rc::gen::inRange<std::size_t>(0, commands.size())];
        const auto pick = static_cast<std::size_t>(*rc::gen::inRange(0, 1000));
        Machine both = before;
        both.apply(command, pick, 0);
        const record::Test stepped = both.test();
        both.declare([&](record::Declared& declared) { edit(declared, which); });
        if (both.test() == stepped)
            return; // refused: what the step said of a club stands in the way
        both.carry(record::headOf(stepped), record::headOf(before.test()));
        RC_ASSERT(!pointsNowhere(both.test()));
        Machine alone = before;
        alone.declare([&](record::Declared& declared) { edit(declared, which); });
        if (which == 2 || which == 7) // which laps were not begun hangs on the step
            return;
        RC_ASSERT(inOrder(both.test()) == inOrder(alone.test()));
    }));
}
