#include "core/simulate/examples.h"

#include "core/random.h"
#include "core/record/control.h"
#include "core/record/typed/number_in.h"
#include "core/simulate/scenarios.h"

#include <cmath>

namespace knot::simulate {
namespace {

using record::Metric;
using record::Test;

record::Part headOf(const std::string& name, double loft, double volume) {
    return {.kind = record::PartKind::head,
            .name = name,
            .mass = 214,
            .loft = loft,
            .lie = 58,
            .volume = volume > 0 ? std::optional(volume) : std::nullopt};
}

Player woodPlayer() {
    Player p;
    p.name = "Odd Farstad";
    p.clubSpeed = 43;
    p.clubSpeedSd = 0.45;
    p.clubSpeedTurnSd = 0.15;
    p.attack = -2.6;
    p.dynamicLoft = 15.2;
    p.dynamicLoftSd = 0.7;
    p.dynamicLoftTurnSd = 0.2;
    p.strikeSd = 4;
    p.strikeTurnSd = 1;
    return p;
}

// The shots of another test follow: laps, stints and numbers go on.
void append(Test& test, Test other, int laps) {
    int turns = 0;
    for (const record::Shot& shot : test.shots)
        turns = std::max(turns, record::wholeIn(shot.turn).value_or(0));
    for (record::Shot& shot : other.shots) {
        shot.round = std::to_string(record::wholeIn(shot.round).value_or(0) + laps);
        shot.turn = std::to_string(record::wholeIn(shot.turn).value_or(0) + turns);
        shot.number = std::to_string(test.shots.size() + 1);
        shot.takenAt = {}; // their clocks ran beside each other
        shot.id = record::ShotId::none;
        test.shots.push_back(std::move(shot));
    }
    test.nameShots();
}

Test loftLadder() {
    Scenario s;
    s.title = "A ladder of four lofts";
    s.question = "What does each degree do to his spin and height?";
    s.day = "2026-06-03";
    s.player = woodPlayer();
    s.player.dynamicLoft = 13;
    for (int step = 0; step < 4; ++step) {
        const double degrees = step - 1;
        s.builds.push_back({.name = std::to_string(9 + step) + "°", .note = {}, .dynamicLoft = 0.85 * degrees});
    }
    s.primary = {{.metric = Metric::spin}, {.metric = Metric::carry}};
    s.rounds = 6;
    s.turnLength = 3;
    s.seed = 21;
    Test test = testFrom(s);
    test.card.kind = record::TestKind::loft;
    test.card.held = record::heldAsUsual(test.card.kind);
    test.card.trendColumn = "club:loft_deg";
    for (std::size_t i = 0; i < test.builds.size(); ++i) {
        test.builds[i].club.head = headOf("Skerry", 10.5, 452);
        test.builds[i].club.sleeve = {.setting = test.builds[i].name, .loft = static_cast<double>(i) - 1.5};
    }
    test.card.baseline = test.builds[1].name;
    return test;
}

Test ironLofts() {
    Scenario s;
    s.title = "How strong may the seven be?";
    s.question = "What do three degrees give in carry, and does it still come down steeply?";
    s.day = "2026-06-17";
    s.player = woodPlayer();
    s.player.name = "Stein Aune";
    s.player.clubSpeed = 37;
    s.player.attack = -4;
    s.player.dynamicLoft = 23;
    s.player.strikeSd = 5;
    s.builds = {{.name = "Tarn 7, 31°", .note = "own"},
                {.name = "Tarn 7, 28°", .note = {}, .dynamicLoft = -2.6, .smash = 0.03}};
    s.primary = {{.metric = Metric::carry}, {.metric = Metric::descent}};
    s.wants = {{s.primary[0], more()}};
    s.rounds = 6;
    s.turnLength = 3;
    s.seed = 35;
    Test test = testFrom(s);
    test.card.kind = record::TestKind::loft;
    test.card.held = record::heldAsUsual(test.card.kind);
    test.card.targets.push_back({.metric = Metric::descent, .low = 44, .high = 52});
    for (std::size_t i = 0; i < test.builds.size(); ++i) {
        record::Club& club = test.builds[i].club;
        club.head = {.kind = record::PartKind::head,
                     .name = "Tarn 7",
                     .mass = 268,
                     .loft = 31 - 3 * static_cast<double>(i),
                     .lie = 62.5};
        club.shaft = {.kind = record::PartKind::shaft, .name = "Larch 105", .mass = 105, .flex = "S"};
        club.grip = {.kind = record::PartKind::grip, .name = "Oakum", .mass = 50};
        club.length = 940;
    }
    return test;
}

Test twoDeliveries() {
    Scenario s;
    s.title = "Which loft, from tee and from turf?";
    s.question = "Does the stronger head pay where he stands?";
    s.day = "2026-06-10";
    s.player = woodPlayer();
    s.builds = {{.name = "Mere 5", .note = "19°", .dynamicLoft = 1},
                {.name = "Fell 5", .note = "16°", .dynamicLoft = -1.6, .smash = -0.012}};
    s.primary = {{.metric = Metric::carry}};
    s.wants = {{s.primary.front(), more()}};
    s.rounds = 5;
    s.turnLength = 3;
    s.seed = 23;
    Test test = testFrom(s);
    for (record::Shot& shot : test.shots)
        shot.delivery = "from turf";
    s.player.attack = 0.9;
    s.player.dynamicLoft += 3.2;
    s.builds[1].smash = 0.016;
    s.seed = 24;
    Test tee = testFrom(s);
    for (record::Shot& shot : tee.shots)
        shot.delivery = "from a tee";
    append(test, std::move(tee), s.rounds);
    test.card.kind = record::TestKind::head;
    test.card.held = record::heldAsUsual(test.card.kind);
    test.card.factorColumn = "delivery";
    test.builds[0].club.head = headOf("Mere", 19, 155);
    test.builds[1].club.head = headOf("Fell", 16, 160);
    return test;
}

Test twoPlayers() {
    Scenario s;
    s.title = "One shaft for both of them?";
    s.question = "Is the lighter shaft faster for Runa and for Vigdis?";
    s.day = "2026-06-14";
    s.player = woodPlayer();
    s.player.name = "Runa Veld";
    s.player.clubSpeed = 38;
    s.builds = {{.name = "Alder 62", .note = "62 g"}, {.name = "Reed 53", .note = "53 g", .clubSpeed = 1.4}};
    s.primary = {{.metric = Metric::ballSpeed}, {.metric = Metric::carry}};
    s.wants = {{s.primary[0], more()}, {s.primary[1], more()}};
    s.rounds = 4;
    s.turnLength = 3;
    s.seed = 27;
    Test test = testFrom(s);
    for (record::Shot& shot : test.shots)
        shot.player = s.player.name;
    s.player.name = "Vigdis Lund";
    s.player.clubSpeed = 44;
    s.builds[1].clubSpeed = -0.1;
    s.seed = 28;
    Test other = testFrom(s);
    for (record::Shot& shot : other.shots)
        shot.player = s.player.name;
    append(test, std::move(other), s.rounds);
    test.card.kind = record::TestKind::shaft;
    test.card.held = record::heldAsUsual(test.card.kind);
    test.players.push_back({.name = s.player.name});
    return test;
}

Test calledOnes() {
    Scenario s;
    s.title = "A wider sole for the bad ones";
    s.question = "What is left of a bad one with each head?";
    s.day = "2026-06-20";
    s.player = woodPlayer();
    s.player.name = "Lene Holt";
    s.player.clubSpeed = 35;
    s.player.attack = -4;
    s.player.dynamicLoft = 23;
    s.player.strikeSd = 7;
    s.builds = {{.name = "Flint 7", .note = "own"}, {.name = "Broad 7", .note = "wide sole"}};
    s.primary = {{.metric = Metric::carry}};
    s.wants = {{s.primary.front(), more()}};
    s.rounds = 8;
    s.turnLength = 4;
    s.seed = 31;
    Test test = testFrom(s);
    // The caller feels how far off the middle it was, not exactly.
    Random feels(32);
    for (record::Shot& shot : test.shots) {
        const double off = std::hypot(shot.readings.at(Metric::strikeToe).value_or(0),
                                      shot.readings.at(Metric::strikeHigh).value_or(0)) +
                           2 * feels.normal();
        shot.call = off > 12 ? record::Call::bad : off > 7 ? record::Call::soSo : record::Call::good;
        if (off > 12 && shot.build == record::BuildAt(0))
            shot.readings.measure(Metric::carry, *shot.readings.at(Metric::carry) - 0.6 * (off - 8));
    }
    test.card.kind = record::TestKind::head;
    test.card.held = record::heldAsUsual(test.card.kind);
    for (record::Build& build : test.builds)
        build.club.head = headOf(build.name, 31, 0);
    return test;
}

} // namespace

std::vector<Test> examples() {
    return {loftLadder(), ironLofts(), twoDeliveries(), twoPlayers(), calledOnes()};
}

} // namespace knot::simulate
