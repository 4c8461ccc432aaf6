#include "cli/commands.h"

#include "core/plan/planner.h"
#include "core/plan/spreads.h"
#include "core/plan/worth_ways.h"
#include "core/record/text/number_text.h"

#include <array>
#include <iostream>
#include <optional>

namespace knot::cli {
namespace {

using record::Metric;

constexpr int mostSwings = 2000; // with each club: more is never hit

std::string orNever(const std::optional<int>& swings) {
    return swings ? std::to_string(*swings) : "never";
}

// One run with each club and a plain test: what a run adds does not go away with more shots.
std::optional<int> byRuns(const plan::Spreads& spreads, double gap) {
    for (int n = 2; n <= mostSwings; ++n)
        if (plan::powerOfRuns({.sdTurn = spreads.sdTurn, .sdShot = spreads.sdShot, .gap = gap}, n) >= plan::wantedPower)
            return n;
    return std::nullopt;
}

std::optional<int> byLaps(const plan::Spreads& spreads, double gap, int stint) {
    const plan::Question question{.sdTurn = spreads.sdTurn, .sdShot = spreads.sdShot, .gap = gap, .alpha = usualAlpha};
    const auto seen = plan::toSee(question, {}, stint, mostSwings / stint);
    return seen ? std::optional(seen->rounds * stint) : std::nullopt;
}

// Three clubs, as the plan has them: a change of club takes 40 s (an adapter), a shot 30, eight swings warm up.
void printWorth() {
    std::cout
        << "\n| three clubs, minutes to what there is to be had | player | three shots each get | 75 of 100 | 90 of "
           "100 |\n|---|---|---|---|---|\n";
    record::Test test;
    test.builds.resize(3);
    test.card.kind = record::TestKind::shaft;
    for (const Metric metric :
         {Metric::carry, Metric::ballSpeed, Metric::spin, Metric::launch, Metric::side, Metric::descent})
        for (std::size_t level = 0; level < plan::levelNames.size(); ++level) {
            const record::MetricInfo& info = record::info(metric);
            const record::Outcome outcome{.metric = metric, .shape = {}};
            const plan::WorthOf of{.test = test,
                                   .outcome = outcome,
                                   .struck = plan::usualSpreads(metric, static_cast<plan::Level>(level)),
                                   .tau = plan::scaleOf(test, outcome),
                                   .pace = {.changeSeconds = 40, .warmUp = 8, .restEvery = 25}};
            const auto minutes = [&](double share) {
                const auto option = plan::toGet(share, plan::Way::shortStints, of);
                return option ? record::fixed(option->minutes, 0) : std::string("never");
            };
            std::cout << "| " << info.label << ", " << record::MetricFormat(metric, {}).withUnit(info.worthwhileGap)
                      << " | " << plan::levelNames.at(level) << " | "
                      << record::fixed(100 * plan::worthByHand(test, outcome, of.struck, of.tau).worth.share, 0)
                      << " | " << minutes(0.75) << " | " << minutes(0.90) << " |\n";
        }
}

void printTable() {
    std::cout << "| swings with each club to see the worthwhile gap 80 times in 100 | player | one run each | laps, "
                 "stints of 5 | laps, stints of 1 | at equal delivery, stints of 2 |\n|---|---|---|---|---|---|\n";
    for (const Metric metric :
         {Metric::carry, Metric::ballSpeed, Metric::spin, Metric::launch, Metric::side, Metric::descent})
        for (std::size_t level = 0; level < plan::levelNames.size(); ++level) {
            const record::MetricInfo& info = record::info(metric);
            const plan::Spreads struck = plan::usualSpreads(metric, static_cast<plan::Level>(level));
            const record::MetricFormat format(metric, {});
            std::cout << "| " << info.label << ", " << format.withUnit(info.worthwhileGap) << " | "
                      << plan::levelNames.at(level) << " | " << orNever(byRuns(struck, info.worthwhileGap)) << " | "
                      << orNever(byLaps(struck, info.worthwhileGap, 5)) << " | "
                      << orNever(byLaps(struck, info.worthwhileGap, 1)) << " | "
                      << orNever(byLaps(plan::atEqualDelivery(struck), info.worthwhileGap, 2)) << " |\n";
        }
}

} // namespace

void addSwings(CLI::App& app) {
    app.add_subcommand(
           "swings",
           "How many swings the worthwhile gaps take, by player and way, and minutes to a good choice, as tables.")
        ->callback([] {
            printTable();
            printWorth();
        });
}

} // namespace knot::cli
