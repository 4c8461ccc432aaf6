#include "core/simulate/scenarios.h"

#include <algorithm>
#include <array>
#include <cstdio>
#include <numeric>

namespace knot::simulate {
namespace {

using record::Metric;
using record::Outcome;
using record::OutcomeKind;
using record::Want;

Outcome average(Metric metric) {
    return {.kind = OutcomeKind::average, .metric = metric, .shape = {}};
}

Player fiveWoodPlayer() {
    Player p;
    p.name = "Marit Aasgaard";
    p.leftHanded = true;
    p.clubSpeed = 40.2;
    p.attack = -1.8;
    p.dynamicLoft = 18.5;
    p.dynamicLoftSd = 0.6;
    p.clubSpeedSd = 0.4;
    p.clubSpeedTurnSd = 0.1;
    p.dynamicLoftTurnSd = 0.15;
    p.strikeSd = 3.5;
    p.strikeTurnSd = 0.8;
    p.faceSd = 1.1;
    p.pathSd = 1.0;
    p.coldLoss = 0.5;
    return p;
}

Player wedgePlayer() {
    Player p;
    p.name = "Ivo Brandt";
    p.clubSpeed = 31;
    p.clubSpeedSd = 0.35;
    p.clubSpeedTurnSd = 0.08;
    p.attack = -5;
    p.dynamicLoft = 38;
    p.dynamicLoftSd = 0.8;
    p.dynamicLoftTurnSd = 0.15;
    p.faceSd = 1.2;
    p.strikeSd = 4;
    p.strikeTurnSd = 0.5;
    return p;
}

Player coldPlayer() {
    Player p;
    p.name = "Tomas Reyk";
    p.clubSpeed = 45.5;
    p.clubSpeedTurnSd = 0.15;
    p.attack = 1;
    p.dynamicLoft = 14;
    p.coldLoss = 2.6;
    p.warmUpShots = 9;
    return p;
}

Player ironPlayer() {
    Player p;
    p.name = "Lene Holt";
    p.clubSpeed = 35.5;
    p.clubSpeedSd = 0.45;
    p.attack = -4;
    p.dynamicLoft = 23;
    p.strikeSd = 5;
    p.strikeTurnSd = 1;
    return p;
}

Scenario fiveWood() {
    Scenario s;
    s.key = "five-wood";
    s.title = "Which five-wood shaft holds Marit’s line?";
    s.question = "Does a lighter or softer shaft carry farther without costing the line?";
    s.truth = "Fern carries farther; Ochre carries alike and scatters more.";
    s.day = "2026-03-14";
    s.player = fiveWoodPlayer();
    s.builds = {{.name = "Slate", .note = "own shaft, 68 g"},
                {.name = "Fern", .note = "59 g", .clubSpeed = 1.8, .dynamicLoft = 0.4, .spin = -200, .smash = 0.008},
                {.name = "Ochre", .note = "62 g", .clubSpeed = 0.05, .spreadFactor = 1.9}};
    s.primary = {average(Metric::carry), average(Metric::ballSpeed)};
    s.wants = {{average(Metric::carry), more()}, {average(Metric::ballSpeed), more()}};
    s.warmUpShots = 6;
    s.seed = 12;
    return s;
}

Scenario wedgeLoft() {
    Scenario s;
    s.key = "wedge-loft";
    s.title = "Two gap wedges, one degree apart";
    s.question = "Is one degree of loft a club step?";
    s.truth = "The weaker wedge flies a little shorter and higher: real, too small to matter.";
    s.day = "2026-04-02";
    s.player = wedgePlayer();
    s.builds = {{.name = "Flint", .note = "50°"}, {.name = "Birch", .note = "51°", .dynamicLoft = 0.85}};
    s.primary = {average(Metric::carry), average(Metric::launch)};
    s.rounds = 16;
    s.turnLength = 4;
    s.seed = 6;
    return s;
}

Scenario coldStart() {
    Scenario s;
    s.key = "cold-start";
    s.title = "New driver after the old one";
    s.question = "Is the new driver faster?";
    s.truth = "Nothing differs: the second club was hit with a warm body.";
    s.day = "2026-04-11";
    s.player = coldPlayer();
    s.builds = {{.name = "Copper", .note = "own driver"}, {.name = "Heron", .note = "new driver"}};
    s.primary = {average(Metric::ballSpeed), average(Metric::carry)};
    s.wants = {{average(Metric::ballSpeed), more()}, {average(Metric::carry), more()}};
    s.schedule = Schedule::oneRunEach;
    s.turnLength = 8;
    s.seed = 10;
    return s;
}

Scenario highStrike() {
    Scenario s;
    s.key = "high-strike";
    s.title = "Shorter six-iron: less spin?";
    s.question = "Does gripping down by half an inch take spin off?";
    s.truth = "Only the strike differs: 10 mm higher on the face, and that alone takes spin off.";
    s.day = "2026-05-06";
    s.player = ironPlayer();
    s.builds = {{.name = "Moss", .note = "full length"},
                {.name = "Rust", .note = "half an inch down", .strikeHigh = 10}};
    s.primary = {average(Metric::spin)};
    s.rounds = 8;
    s.turnLength = 4;
    s.seed = 3;
    return s;
}

Scenario sameBall() {
    Scenario s;
    s.key = "same-ball";
    s.title = "Two balls in a six-iron";
    s.question = "Can the cheaper ball be played?";
    s.truth = "Nothing differs.";
    s.day = "2026-05-20";
    s.player = ironPlayer();
    s.player.strikeSd = 4;
    s.player.clubSpeedTurnSd = 0.12;
    s.player.dynamicLoftTurnSd = 0.12;
    s.builds = {{.name = "Chalk", .note = "usual ball"}, {.name = "Pebble", .note = "cheaper ball"}};
    s.primary = {average(Metric::carry)};
    s.rounds = 20;
    s.turnLength = 4;
    s.seed = 8;
    return s;
}

Scenario ironHeads() {
    Scenario s;
    s.key = "iron-heads";
    s.title = "Four seven-iron heads before lunch";
    s.question = "Which head is worth an hour of a fair test?";
    s.truth = "Mere is faster and lower by a little; Fell, Tarn and Beck are alike.";
    s.day = "2026-05-28";
    s.player = ironPlayer();
    s.builds = {{.name = "Tarn 7", .note = "own head"},
                {.name = "Mere 7", .dynamicLoft = -1.2, .spin = -250, .smash = 0.012},
                {.name = "Fell 7"},
                {.name = "Beck 7", .dynamicLoft = 0.3}};
    s.wants = {{average(Metric::carry), more()}};
    s.schedule = Schedule::oneRunEach;
    s.turnLength = 6;
    s.seed = 14;
    return s;
}

std::vector<std::size_t> orderOfRound(std::size_t builds, int round) {
    std::vector<std::size_t> order(builds);
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::rotate(order, order.begin() + round % static_cast<std::ptrdiff_t>(builds));
    if (round % 2 == 1 && builds > 2)
        std::ranges::reverse(order);
    return order;
}

class Session {
public:
    Session(const Scenario& scenario, const SimulationPlan& plan)
        : m_scenario(scenario)
        , m_random(plan.seed.value_or(scenario.seed))
        , m_turnLength(plan.turnLength.value_or(scenario.turnLength)) {
        m_test.title = scenario.title;
        m_test.question = scenario.question;
        m_test.players = {{.id = {}, .name = scenario.player.name, .leftHanded = scenario.player.leftHanded}};
        m_test.createdAt = scenario.day + "T09:00:00";
        m_test.card.primary = scenario.primary;
        m_test.card.wants = scenario.wants;
        m_test.card.baseline = scenario.builds.front().name;
        for (const BuildTruth& build : scenario.builds)
            m_test.builds.push_back({build.name, build.note});
    }

    record::Test run(int rounds) && {
        if (m_scenario.warmUpShots > 0)
            strikeTurn(0, 0, m_scenario.warmUpShots, record::ShotStatus::warmUp);
        for (int round = 0; round < rounds; ++round)
            for (const std::size_t build : orderOfRound(m_scenario.builds.size(), round))
                strikeTurn(build, round + 1, m_turnLength, record::ShotStatus::counted);
        m_test.nameShots();
        return std::move(m_test);
    }

private:
    void strikeTurn(std::size_t build, int round, int shots, record::ShotStatus status) {
        const TurnState turn = drawTurn(m_scenario.player, m_random);
        ++m_turn;
        for (int i = 0; i < shots; ++i) {
            record::Shot shot;
            shot.build = record::BuildAt(build);
            shot.status = status;
            // Warm-up and the first turn of a club may touch; the club is handed over between them.
            shot.handedOver = i == 0 && !m_test.shots.empty() && m_test.shots.back().build == build;
            shot.number = std::to_string(m_test.shots.size() + 1);
            shot.sitting = m_scenario.day;
            shot.round = round > 0 ? std::to_string(round) : "";
            shot.turn = std::to_string(m_turn);
            shot.takenAt = timeOfShot();
            shot.readings = strike(m_scenario.player, m_scenario.builds[build], turn,
                                   static_cast<int>(m_test.shots.size()), m_random);
            m_test.shots.push_back(std::move(shot));
        }
        m_seconds += 60;
    }

    std::string timeOfShot() {
        m_seconds += 32;
        std::array<char, 16> text{};
        (void)std::snprintf(text.data(), text.size(), "T%02d:%02d:%02d", (9 + m_seconds / 3600) % 24,
                            m_seconds / 60 % 60, m_seconds % 60);
        return m_scenario.day + text.data();
    }

    const Scenario& m_scenario;
    record::Test m_test;
    Random m_random;
    int m_turnLength, m_turn = 0, m_seconds = 0;
};

} // namespace

const std::vector<Scenario>& scenarios() {
    static const std::vector<Scenario> all = {fiveWood(),   wedgeLoft(), coldStart(),
                                              highStrike(), sameBall(),  ironHeads()};
    return all;
}

const Scenario* scenarioByKey(const std::string& key) {
    const auto at = std::ranges::find(scenarios(), key, &Scenario::key);
    return at == scenarios().end() ? nullptr : &*at;
}

record::Test testFrom(const Scenario& scenario, const SimulationPlan& plan) {
    const int rounds = scenario.schedule == Schedule::oneRunEach ? 1 : plan.rounds.value_or(scenario.rounds);
    return Session(scenario, plan).run(rounds);
}

} // namespace knot::simulate
