#include "cli/commands.h"

#include "core/plan/looks.h"
#include "core/plan/power.h"
#include "core/record/number_text.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <iostream>
#include <memory>

namespace knot::cli {
namespace {

struct PlanOptions {
    int builds = 2, rounds = 0, turnLength = 0;
    double sdTurn = 0, sdShot = 0, gap = 0, minutes = 0, changeSeconds = 90, shotSeconds = 30;
    bool looks = false, json = false;
};

constexpr double alpha = 0.05;

plan::PairPlan pairOf(const PlanOptions& o) {
    return {.varTurn = o.sdTurn * o.sdTurn,
            .varShot = o.sdShot * o.sdShot,
            .rounds = static_cast<double>(o.rounds),
            .turnLength = static_cast<double>(o.turnLength)};
}

double minutesOf(const PlanOptions& o) {
    return o.rounds * o.builds * (o.changeSeconds + o.turnLength * o.shotSeconds) / 60;
}

// The rounds and turn length that fit into the minutes and see the gap most often.
void fitIntoMinutes(PlanOptions& options) {
    PlanOptions best = options;
    double most = -1;
    for (int length = 1; length <= 12; ++length) {
        PlanOptions tried = options;
        tried.turnLength = length;
        tried.rounds = 1;
        tried.rounds = static_cast<int>(std::floor(options.minutes / minutesOf(tried)));
        if (tried.rounds < 2)
            continue;
        if (const double power = plan::powerToSee(pairOf(tried), options.gap, alpha); power > most) {
            most = power;
            best = tried;
        }
    }
    if (most < 0)
        throw Refusal{"plan: two laps with every club do not fit into --minutes; allow more time or fewer clubs."};
    options = best;
}

void answer(PlanOptions options) {
    if (options.minutes > 0)
        fitIntoMinutes(options);
    else if (options.rounds < 2 || options.turnLength < 1)
        throw Refusal{"plan: give --rounds (2 or more) and --turn-length (1 or more), or --minutes."};
    const plan::PairPlan pair = pairOf(options);
    nlohmann::ordered_json out;
    out["power"] = plan::powerToSee(pair, options.gap, alpha);
    out["smallest_gap_80"] = plan::smallestGap(pair, 0.8, alpha);
    out["power_to_say_same"] = plan::powerToSaySame(pair, options.gap, alpha);
    out["rounds"] = options.rounds;
    out["turn_length"] = options.turnLength;
    out["shots"] = options.rounds * options.turnLength * options.builds;
    out["minutes"] = minutesOf(options);
    out["look_levels"] = nlohmann::ordered_json::array();
    if (options.looks) {
        std::vector<double> information;
        for (int lap = 2; lap <= options.rounds; ++lap)
            information.push_back(static_cast<double>(lap) / options.rounds);
        for (const auto& look : plan::lookBoundaries(information, alpha))
            out["look_levels"].push_back(look.level);
    }
    if (options.json) {
        std::cout << out.dump(2) << "\n";
        return;
    }
    std::cout << record::counted(static_cast<std::size_t>(options.rounds), "lap") << " of " << options.turnLength
              << " with " << record::counted(static_cast<std::size_t>(options.builds), "club") << ": " << out["shots"]
              << " shots in " << record::fixed(minutesOf(options), 0) << " minutes.\n"
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
