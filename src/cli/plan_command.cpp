#include "cli/commands.h"

#include "core/plan/looks.h"
#include "core/plan/planner.h"
#include "core/record/text/number_text.h"

#include <nlohmann/json.hpp>

#include <iostream>
#include <memory>

namespace knot::cli {
namespace {

struct PlanOptions {
    int builds = 2, rounds = 0, turnLength = 0;
    double sdTurn = 0, sdShot = 0, gap = 0, minutes = 0, changeSeconds = 90, shotSeconds = 30;
    bool looks = false, json = false;
};

plan::Question questionOf(const PlanOptions& o) {
    return {.sdTurn = o.sdTurn,
            .sdShot = o.sdShot,
            .gap = o.gap,
            .alpha = usualAlpha,
            .builds = static_cast<std::size_t>(o.builds)};
}

plan::Pace paceOf(const PlanOptions& o) {
    return {.changeSeconds = o.changeSeconds, .shotSeconds = o.shotSeconds};
}

plan::Option optionFor(const PlanOptions& o) {
    if (o.minutes > 0) {
        const auto best = plan::bestIn(o.minutes, questionOf(o), paceOf(o));
        if (!best)
            throw Refusal{"plan: two laps with every club do not fit into --minutes; allow more time or fewer clubs."};
        return *best;
    }
    if (o.rounds < 2 || o.turnLength < 1)
        throw Refusal{"plan: give --rounds (2 or more) and --turn-length (1 or more), or --minutes."};
    return plan::optionOf(questionOf(o), paceOf(o), o.rounds, o.turnLength);
}

void answer(const PlanOptions& options) {
    const plan::Option option = optionFor(options);
    nlohmann::ordered_json out;
    out["power"] = option.power;
    out["smallest_gap_80"] = option.smallestGap;
    out["power_to_say_same"] = option.powerSame;
    out["rounds"] = option.rounds;
    out["turn_length"] = option.turnLength;
    out["shots"] = option.shots;
    out["minutes"] = option.minutes;
    out["look_levels"] = nlohmann::ordered_json::array();
    if (options.looks) {
        std::vector<double> information;
        for (int lap = 2; lap <= option.rounds; ++lap)
            information.push_back(static_cast<double>(lap) / option.rounds);
        for (const auto& look : plan::lookBoundaries(information, usualAlpha))
            out["look_levels"].push_back(look.level);
    }
    if (options.json) {
        std::cout << out.dump(2) << "\n";
        return;
    }
    std::cout << record::counted(static_cast<std::size_t>(option.rounds), "lap") << " of " << option.turnLength
              << " with " << record::counted(static_cast<std::size_t>(options.builds), "club") << ": " << out["shots"]
              << " shots in " << record::fixed(option.minutes, 0) << " minutes.\n"
              << "A gap of " << record::fixed(options.gap, 2) << " is seen "
              << record::fixed(100 * out["power"].get<double>(), 0)
              << " times in 100; the smallest gap seen 80 times is "
              << record::fixed(out["smallest_gap_80"].get<double>(), 2) << ".\n";
}

} // namespace

void addPlan(CLI::App& app) {
    auto o = std::make_shared<PlanOptions>();
    CLI::App* command = app.add_subcommand("plan", "What a rotated comparison can see.");
    command->add_option("--builds", o->builds, "Clubs")->required()->check(CLI::Range(2, 40));
    command->add_option("--sd-turn", o->sdTurn, "SD between stints")->required()->check(CLI::NonNegativeNumber);
    command->add_option("--sd-shot", o->sdShot, "SD between shots of a stint")->required()->check(CLI::PositiveNumber);
    command->add_option("--gap", o->gap, "The gap to see")->required()->check(CLI::PositiveNumber);
    command->add_option("--rounds", o->rounds, "Laps")->check(CLI::Range(2, 1000));
    command->add_option("--turn-length", o->turnLength, "Shots a stint")->check(CLI::Range(1, 1000));
    command->add_option("--minutes", o->minutes, "Time there is")->check(CLI::PositiveNumber);
    command->add_option("--change-seconds", o->changeSeconds, "For a change of club")->check(CLI::NonNegativeNumber);
    command->add_option("--shot-seconds", o->shotSeconds, "For a shot")->check(CLI::PositiveNumber);
    command->add_flag("--looks", o->looks, "Look at the comparison after each lap from the second");
    command->add_flag("--json", o->json, "Print the answer as JSON");
    command->callback([o] { answer(*o); });
}

} // namespace knot::cli
