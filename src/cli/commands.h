#pragma once

#include <CLI/CLI.hpp>

namespace knot::cli {

/// The level of one comparison where nothing else is asked for.
inline constexpr double usualAlpha = 0.05;

/// Thrown for wrong usage or unreadable input: one line on stderr, exit code 2.
struct Refusal {
    std::string sentence;
};

void addBag(CLI::App& app);
void addJudge(CLI::App& app);
void addPlan(CLI::App& app);
void addSimulate(CLI::App& app);
void addSwings(CLI::App& app);
void addWindows(CLI::App& app);
void addLogbookCommands(CLI::App& app);

} // namespace knot::cli
