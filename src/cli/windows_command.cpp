#include "cli/commands.h"

#include "core/flight/flight.h"
#include "core/record/text/number_text.h"

#include <algorithm>
#include <cmath>
#include <iostream>
#include <vector>

namespace knot::cli {
namespace {

/// A launch with what becomes of it.
struct Tried {
    double launch = 0, spin = 0, carry = 0;
};

constexpr double launchLow = 6, launchHigh = 28, spinLow = 1200, spinHigh = 6000;
constexpr double slowest = 30, fastest = 85, step = 5; // ball speed, m/s
constexpr double driverFrom = 45, othersTo = 75;
constexpr double loss = 0.005; // of the carry may be given up

// By its carry. The run would say "as low as can be": its model is too rough to choose by.
Tried tried(double ballSpeed, double launch, double spin) {
    constexpr double tolerance = 1e-7; // the table is by half degrees
    return {
        launch, spin,
        flight::fly({.ballSpeed = ballSpeed, .launch = launch, .spin = spin}, {}, flight::PathWanted::no, 0, tolerance)
            .carry};
}

double middle(const std::vector<Tried>& good, double Tried::*of) {
    double sum = 0;
    for (const Tried& one : good)
        sum += one.*of;
    return sum / static_cast<double>(good.size());
}

// A box about the middle of all that do well enough: 1.2 SD either way, so that its corners do too.
double reach(const std::vector<Tried>& good, double Tried::*of) {
    const double mean = middle(good, of);
    double squares = 0;
    for (const Tried& one : good)
        squares += (one.*of - mean) * (one.*of - mean);
    return 1.2 * std::sqrt(squares / static_cast<double>(good.size()));
}

void driverRow(double ballSpeed) {
    constexpr int steps = 60;
    std::vector<Tried> all;
    for (int i = 0; i <= steps; ++i)
        for (int j = 0; j <= steps; ++j)
            all.push_back(tried(ballSpeed, launchLow + (launchHigh - launchLow) * i / steps,
                                spinLow + (spinHigh - spinLow) * j / steps));
    const double best = std::ranges::max(all, {}, &Tried::carry).carry;
    std::erase_if(all, [&](const Tried& one) { return one.carry < (1 - loss) * best; });
    auto ends = [&](double Tried::*of, double round) {
        const double mean = middle(all, of);
        const double width = reach(all, of);
        return record::fixed(std::round((mean - width) / round) * round, round < 1 ? 1 : 0) + "," +
               record::fixed(std::round((mean + width) / round) * round, round < 1 ? 1 : 0);
    };
    std::cout << "driver," << record::fixed(ballSpeed, 0) << "," << ends(&Tried::launch, 0.5) << ","
              << ends(&Tried::spin, 50) << ",0\n";
}

// What is hit at a green is wanted to stay there: from these descents on it runs at most some twenty metres (woods) or
// ten (irons) by the run model, with 3,500 rpm and more.
void descentRow(const char* kind, double ballSpeed, double descent) {
    std::cout << kind << "," << record::fixed(ballSpeed, 0) << ",0,0,0,0," << record::fixed(descent, 0) << "\n";
}

void writeWindows() {
    std::cout << "kind,ball_speed_ms,launch_low_deg,launch_high_deg,spin_low_rpm,spin_high_rpm,descent_low_deg\n";
    for (double speed = driverFrom; speed <= fastest; speed += step)
        driverRow(speed);
    for (const auto& [kind, descent] : {std::pair("wood", 42.0), std::pair("iron", 45.0)})
        for (const double speed : {slowest, othersTo})
            descentRow(kind, speed, descent);
}

} // namespace

void addWindows(CLI::App& app) {
    CLI::App* command = app.add_subcommand(
        "windows", "What is wanted of launch and spin, or of the descent, by the flight model: data/windows.csv.");
    command->callback(writeWindows);
}

} // namespace knot::cli
