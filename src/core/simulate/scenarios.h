#pragma once

#include "core/record/test.h"
#include "core/simulate/player.h"

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace knot::simulate {

enum class Schedule { rotated, oneRunEach };

/// A made-up test with known truth: who strikes, with what, in which order.
struct Scenario {
    std::string key;   ///< for the command line
    std::string title; ///< as shown in the logbook
    std::string question;
    std::string truth; ///< what a perfect reading would say
    std::string day;   ///< ISO date of the first sitting
    Player player;
    std::vector<BuildTruth> builds; ///< the first is the baseline
    std::vector<record::Outcome> primary;
    std::map<record::Outcome, record::Want> wants;
    Schedule schedule = Schedule::rotated;
    int rounds = 5;
    int turnLength = 3;
    int warmUpShots = 0;
    std::uint64_t seed = 1;
};

const std::vector<Scenario>& scenarios();
const Scenario* scenarioByKey(const std::string& key);

struct SimulationPlan {
    std::optional<std::uint64_t> seed; ///< else the scenario's own
    std::optional<int> rounds;         ///< ≥ 1
    std::optional<int> turnLength;     ///< ≥ 1
};

/// What most players want of a number.
inline record::Want more() {
    return {.kind = record::Want::Kind::more, .value = 0};
}

/// Strikes a whole test. The same scenario and plan give the same shots on every machine. In a
/// rotated test each lap holds one turn with each build, in an order that starts one build later
/// from lap to lap and runs backward in every other; a club handed over again is logged so.
record::Test testFrom(const Scenario& scenario, const SimulationPlan& plan = {});

} // namespace knot::simulate
