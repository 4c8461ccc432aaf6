#include "cli/commands.h"

#include "core/plan/looks.h"
#include "core/plan/planner.h"
#include "core/plan/worth.h"
#include "core/record/text/number_text.h"

#include <nlohmann/json.hpp>

#include <iostream>
#include <memory>
#include <numbers>

namespace knot::cli {
namespace {

struct PlanOptions {
    int builds = 2, rounds = 0, turnLength = 0;
    double sdTurn = 0, sdShot = 0, gap = 0, tau = 0, minutes = 0, changeSeconds = 90, shotSeconds = 30;
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

/// What choosing by so many laps is worth.
struct Chosen {
    plan::Worth worth;
    plan::Futures futures;
};

Chosen chosenBy(const PlanOptions& o, const plan::Option& option) {
    const double error = plan::errorOf({.metric = record::Metric::carry, .shape = {}},
                                       {.sdTurn = o.sdTurn, .sdShot = o.sdShot}, option.rounds, option.turnLength);
    const plan::Choosing choosing{.tau = o.tau > 0 ? o.tau : o.gap,
                                  .errors = std::vector<double>(static_cast<std::size_t>(o.builds), error)};
    const double proved = option.rounds < 2
                              ? 0 // one run each
                              : plan::chanceToProve(std::numbers::sqrt2 * error, option.rounds - 1, o.gap, usualAlpha);
    return {plan::worthOf(choosing), plan::futuresOf(choosing.errors, o.gap, proved)};
}

void answer(const PlanOptions& options) {
    const plan::Option option = optionFor(options);
    nlohmann::ordered_json out;
    out["power"] = option.power;
    out["smallest_gap_80"] = option.smallestGap;
    out["power_to_say_same"] = option.powerSame;
    const Chosen chosen = chosenBy(options, option);
    out["share"] = chosen.worth.share;
    out["to_be_had"] = chosen.worth.toBeHad;
    out["had"] = chosen.worth.had;
    out["lost"] = chosen.worth.lost;
    out["chosen"] = chosen.futures.proved + chosen.futures.chosen;
    out["proven"] = chosen.futures.proved;
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
              << record::fixed(out["smallest_gap_80"].get<double>(), 2) << ".\n"
              << "Choosing by it gets " << record::fixed(100 * chosen.worth.share, 0)
              << " of 100 of what there is to be had, " << record::fixed(chosen.worth.had, 2) << " of "
              << record::fixed(chosen.worth.toBeHad, 2) << "; three shots each get "
              << record::fixed(100 * chosenBy(options, {.rounds = 1, .turnLength = plan::shotsByHand}).worth.share, 0)
              << ".\n"
              << "If one club is better by " << record::fixed(options.gap, 2) << ", then of 100 such tests "
              << record::fixed(100 * chosen.futures.proved, 0) << " prove it, "
              << record::fixed(100 * chosen.futures.chosen, 0) << " choose it without proof, and "
              << record::fixed(100 * chosen.futures.wrong, 0) << " take another.\n";
}

} // namespace

void addPlan(CLI::App& app) {
    auto o = std::make_shared<PlanOptions>();
    CLI::App* command =
        app.add_subcommand("plan", "What a rotated comparison can see, and what choosing by it is worth.");
    command->add_option("--builds", o->builds, "Clubs")->required()->check(CLI::Range(2, 40));
    command->add_option("--sd-turn", o->sdTurn, "SD between stints")->required()->check(CLI::NonNegativeNumber);
    command->add_option("--sd-shot", o->sdShot, "SD between shots of a stint")->required()->check(CLI::PositiveNumber);
    command->add_option("--gap", o->gap, "The gap to see")->required()->check(CLI::PositiveNumber);
    command->add_option("--tau", o->tau, "SD of what the clubs truly are (the gap, where it is not said)")
        ->check(CLI::PositiveNumber);
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
