#include "cli/commands.h"

#include "core/simulate/scenarios.h"
#include "files/base/file.h"
#include "files/csv_writer.h"

#include <iostream>
#include <memory>

namespace knot::cli {
namespace {

struct SimulateOptions {
    std::string scenario, output;
    std::optional<std::uint64_t> seed;
    std::optional<int> rounds, turnLength;
};

void simulateToFile(const SimulateOptions& options) {
    const simulate::Scenario* scenario = simulate::scenarioByKey(options.scenario);
    if (scenario == nullptr)
        throw Refusal{"simulate: there is no scenario '" + options.scenario + "'; knotcount-cli scenarios lists them."};
    const record::Test test = simulate::testFrom(
        *scenario, {.seed = options.seed, .rounds = options.rounds, .turnLength = options.turnLength});
    if (auto written = files::writeFile(options.output, files::shotCsv(test)); !written)
        throw Refusal{files::sentence(written.error())};
}

} // namespace

void addSimulate(CLI::App& app) {
    auto options = std::make_shared<SimulateOptions>();
    CLI::App* command = app.add_subcommand("simulate", "Strike a made-up test with known truth.");
    command->add_option("scenario", options->scenario, "Scenario")->required();
    command->add_option("--seed", options->seed, "Seed; else the scenario's own");
    command->add_option("--rounds", options->rounds, "Laps")->check(CLI::Range(1, 1000));
    command->add_option("--turn-length", options->turnLength, "Shots a stint")->check(CLI::Range(1, 1000));
    command->add_option("-o,--output", options->output, "Shot file to write")->required();
    command->callback([options] { simulateToFile(*options); });

    app.add_subcommand("scenarios", "List the made-up tests.")->callback([] {
        for (const auto& scenario : simulate::scenarios())
            std::cout << scenario.key << "\t" << scenario.title << "\n";
    });
}

} // namespace knot::cli
