#include "core/simulate/drafts.h"

#include "core/bay/strike.h"
#include "core/plan/course.h"
#include "core/random.h"
#include "core/record/control.h"
#include "core/record/roster.h"
#include "core/simulate/scenarios.h"

namespace knot::simulate {
namespace {

using record::Metric;
using record::PartKind;
using record::Test;

constexpr double mmPerInch = 25.4;

record::Build shaftBuild(const char* name, double mass, double balance, const char* flex, double grip) {
    record::Build build;
    build.name = name;
    build.club.head = {.kind = PartKind::head, .name = "Tarn 5", .mass = 218, .loft = 18, .lie = 58.5, .volume = 152};
    build.club.shaft = {.kind = PartKind::shaft,
                        .name = name,
                        .mass = mass,
                        .length = 40.8 * mmPerInch,
                        .balance = balance * mmPerInch,
                        .material = "graphite",
                        .flex = flex};
    build.club.grip = {.kind = PartKind::grip, .name = "Oakum", .mass = grip, .balance = 4.2 * mmPerInch};
    build.club.ball = "Lapwing";
    build.club.length = 42.25 * mmPerInch;
    build.club.headAt = 41.5 * mmPerInch;
    return build;
}

} // namespace

Test plannedShaftTest() {
    Test test;
    test.question = "Does the lighter shaft cost me my line?";
    test.title = test.question;
    test.players = {{.id = {},
                     .name = "Marit Aasgaard",
                     .leftHanded = true,
                     .clubSpeed = 41.5,
                     .tempo = "smooth, late",
                     .shape = "low fade",
                     .miss = "high and left",
                     .costs = record::Side::left,
                     .goals = "height into greens, no wider"}};
    test.createdAt = "2026-05-20T17:00:00";
    auto& card = test.card;
    card.kind = record::TestKind::shaft;
    card.baseline = "Alder 62";
    card.primary = {{.metric = Metric::carry}, {.kind = record::OutcomeKind::spread, .metric = Metric::side}};
    card.wants[card.primary[0]] = {record::Want::Kind::more, 0};
    card.expectations = {{Metric::carry, record::Expectation::up}, {Metric::side, record::Expectation::up}};
    card.blinding = record::Blinding::playerBlind;
    card.targets = {{Metric::descent, {}, 42, 48}};
    card.held = record::heldAsUsual(card.kind);
    card.held[3].held = false;
    card.held[3].slip = "Reed came with a lighter one";
    test.builds = {shaftBuild("Alder 62", 62, 20.9, "R", 50), shaftBuild("Reed 53", 53, 20.6, "R", 46),
                   shaftBuild("Larch 71", 71, 21.3, "S", 50)};
    test.plan.seed = 6;
    test.plan.rounds = 6;
    test.plan.turnLength = 4;
    plan::makeCourse(test);
    return test;
}

Test shaftTestUnderWay(const std::function<std::string(int)>& minutesAgo) {
    Test test = plannedShaftTest();
    test.title = "Three shafts, half struck";
    test.question = "Which of them for the long second shot?";
    test.players = {{.id = {},
                     .name = "Odd Farstad",
                     .clubSpeed = 43.0,
                     .tempo = "quick",
                     .shape = "draw",
                     .miss = "low and left"}};
    test.createdAt = minutesAgo(60);
    test.card.kind = record::TestKind::shaft;
    test.card.blinding = record::Blinding::open;
    test.card.primary = {{.metric = Metric::carry}, {.metric = Metric::side}};
    test.card.visibility.shots = record::Sees::fitter;
    test.plan.seed = 9;
    test.plan.rounds = 5;
    test.plan.turnLength = 3;
    test.turns.clear();
    plan::makeCourse(test);
    const Scenario& scenario = *scenarioByKey("five-wood");
    Random random(33);
    int minute = 50; // of warm-up, hand-overs and shots
    auto now = [&] { return minutesAgo(minute > 0 ? minute-- : 0); };
    constexpr int struck = 8 + 7 * 3 + 1; // the warm-up, seven stints and a shot
    TurnState turn = drawTurn(scenario.player, random);
    for (int shot = 0; shot < struck; ++shot) {
        while (bay::standOf(test).phase() == bay::Phase::handOver || shot == 8) {
            bay::confirm(test, now());
            turn = drawTurn(scenario.player, random);
            if (bay::standOf(test).phase() == bay::Phase::striking)
                break;
        }
        const record::BuildAt build = bay::standOf(test).stint()->build;
        bay::addShot(test, {strike(scenario.player, scenario.builds[build], turn, shot, random), now(), {}, {}});
    }
    return test;
}

Test headScreening() {
    Test test;
    test.stage = record::Stage::screening;
    test.title = "Five heads, a few each";
    test.players = {{.id = {}, .name = "Runa Veld"}};
    test.createdAt = "2026-05-18T18:30:00";
    test.card.kind = record::TestKind::head;
    test.card.primary = {{.metric = Metric::carry}};
    test.card.wants[test.card.primary[0]] = {record::Want::Kind::more, 0};
    Random random(21);
    for (const char* name : {"Tarn 7", "Mere 7", "Fell 7", "Beck 7", "Scree 7"}) {
        record::Build build;
        build.name = name;
        test.builds.push_back(build);
        for (int shot = 0; shot < 5; ++shot) {
            record::Shot struck;
            struck.build = record::BuildAt(test.builds.size() - 1);
            struck.readings.measure(Metric::carry,
                                    139 + 1.5 * static_cast<double>(struck.build % 3) + 5 * random.normal());
            struck.id = test.nextShotId();
            test.shots.push_back(struck);
        }
    }
    record::setStanding(test, record::BuildAt(4), record::Standing::What::struckOff, 2, "too low");
    return test;
}

} // namespace knot::simulate
