#include "cli/opening.h"

#include "core/judge/causes/along.h"
#include "core/judge/judge.h"
#include "core/judge/may_see.h"
#include "core/record/check.h"
#include "core/record/text/names.h"
#include "core/record/text/number_text.h"
#include "core/record/typed/amount.h"
#include "core/words/averages.h"
#include "core/words/headline.h"
#include "core/words/remarks/remarks.h"
#include "files/reading_json.h"

#include <algorithm>
#include <iostream>
#include <memory>

namespace knot::cli {
namespace {

struct JudgeOptions {
    std::vector<std::string> files;
    std::string test, baseline;
    ReadingFlags reading;
    std::vector<std::string> primary, wants, margins, headings, equal, targets;
    std::string trend, factor;
    std::optional<double> sdRatioMargin, areaRatioMargin, alpha;
    std::optional<int> plannedRounds;
    std::uint64_t seed = 1;
    bool best = false, json = false, looks = false, look = false;
    std::string aim, level;
};

std::pair<std::string, std::string> splitAtEquals(const std::string& option, const std::string& text) {
    const auto at = text.find('=');
    if (at == std::string::npos || at == 0 || at + 1 == text.size())
        throw Refusal{option + " " + text + ": expected NAME=VALUE."};
    return {text.substr(0, at), text.substr(at + 1)};
}

record::Metric metricOf(const std::string& option, const std::string& key) {
    const auto metric = record::metricFromKey(key);
    if (!metric)
        throw Refusal{option + ": '" + key + "' is not a metric; expected a key such as carry_m."};
    return *metric;
}

// A value of a metric: in its SI unit, or in the one that stands behind it.
double valueOf(const std::string& option, record::Metric metric, const std::string& text) {
    const auto value = record::valueTyped(text, metric, {});
    if (!value)
        throw Refusal{option + ": " + value.error()};
    return *value;
}

record::Outcome outcomeOf(const std::string& option, const std::string& text) {
    const auto outcome = record::outcomeFromText(text);
    if (!outcome)
        throw Refusal{option + ": '" + text +
                      "' is not an outcome; expected a metric such as carry_m, spread:METRIC, area, share:NAME, "
                      "equal:METRIC or typical:METRIC."};
    return *outcome;
}

record::Want wantOf(const record::Outcome& outcome, const std::string& value) {
    using Kind = record::Want::Kind;
    if (value == "more" || value == "less" || value == "none")
        return {value == "more" ? Kind::more : value == "less" ? Kind::less : Kind::none, 0};
    return {Kind::near, valueOf("--want", outcome.metric, value)};
}

// METRIC=LOW..HIGH or METRIC=VALUE; both in the metric's SI unit.
record::Target targetOf(const std::string& text) {
    const auto [name, value] = splitAtEquals("--target", text);
    record::Target target{.metric = metricOf("--target", name), .build = {}};
    const auto dots = value.find("..");
    target.low = valueOf("--target", target.metric, value.substr(0, dots));
    target.high = dots == std::string::npos ? target.low : valueOf("--target", target.metric, value.substr(dots + 2));
    if (target.high < target.low)
        throw Refusal{"--target " + text + ": the window must be written from low to high."};
    return target;
}

// CARRY or CARRY,SIDE in m, side + right of the target line.
record::Aim aimOf(const std::string& text) {
    const auto comma = text.find(',');
    record::Aim aim{.carry = valueOf("--aim", record::Metric::carry, text.substr(0, comma))};
    if (comma != std::string::npos)
        aim.side = valueOf("--aim", record::Metric::side, text.substr(comma + 1));
    return aim;
}

plan::Level levelOf(const std::string& text) {
    if (text.empty())
        return plan::Level::club;
    if (const auto level = record::valueNamed<plan::Level>(plan::levelNames, text))
        return *level;
    throw Refusal{"--level " + text + ": expected steady, club or occasional."};
}

// What is asked for goes over what the test's own card says.
void fillCard(record::Test& test, const JudgeOptions& options) {
    record::Card& card = test.card;
    if (!options.baseline.empty() && !test.buildIndex(options.baseline))
        throw Refusal{"--baseline: no shot in " + options.files.front() + " was struck with '" + options.baseline +
                      "'."};
    if (!options.baseline.empty())
        card.baseline = test.builds[*test.buildIndex(options.baseline)].who();
    if (options.best)
        card.comparison = record::Comparison::whichOfThese;
    if (!options.primary.empty())
        card.primary.clear();
    for (const auto& text : options.primary) {
        const record::Outcome outcome = outcomeOf("--primary", text);
        if (std::ranges::find(card.primary, outcome) == card.primary.end())
            card.primary.push_back(outcome);
    }
    for (const auto& outcome : card.primary)
        if (outcome.kind == record::OutcomeKind::share &&
            std::ranges::find(card.shapes, outcome.shape, &record::Shape::name) == card.shapes.end())
            throw Refusal{"--primary share:" + outcome.shape +
                          ": a shape is drawn on a test's card; a shot file has none."};
    if (card.primary.size() > 3)
        throw Refusal{"--primary: three outcomes at most can be declared; the rest are judged as exploratory."};
    for (const auto& text : options.wants) {
        const auto [name, value] = splitAtEquals("--want", text);
        const record::Outcome outcome = outcomeOf("--want", name);
        card.wants[outcome] = wantOf(outcome, value);
    }
    for (const auto& text : options.margins) {
        const auto [name, value] = splitAtEquals("--margin", text);
        const record::Metric metric = metricOf("--margin", name);
        card.margins[metric] = valueOf("--margin", metric, value);
    }
    const auto& columns = test.extraColumns;
    auto goesAlong = [&] {
        const auto along = judge::alongWhat(test);
        return std::ranges::find(along, options.trend) != along.end();
    };
    if (!options.trend.empty() && std::ranges::find(columns, options.trend) == columns.end() && !goesAlong())
        throw Refusal{"--trend: " + options.files.front() + " has no column '" + options.trend +
                      "' beside the measurements, and its clubs no such measure that differs."};
    const bool knownFactor = options.factor == "delivery" || options.factor == "player";
    if (!options.factor.empty() && !knownFactor && std::ranges::find(columns, options.factor) == columns.end())
        throw Refusal{"--factor: " + options.files.front() + " has no column '" + options.factor + "'."};
    if (!options.trend.empty())
        card.trendColumn = options.trend;
    if (!options.factor.empty())
        card.factorColumn = options.factor;
    for (const auto& key : options.equal)
        card.covariates.push_back(metricOf("--equal", key));
    for (const auto& text : options.targets)
        card.targets.push_back(targetOf(text));
    if (!options.aim.empty())
        card.aim = aimOf(options.aim);
    card.plannedRounds = options.plannedRounds.value_or(card.plannedRounds);
    if (options.looks && card.plannedRounds < 2)
        throw Refusal{"--looks: also give --planned-rounds (2 or more); a look's level depends on the plan."};
    if (options.looks)
        card.looks = record::Looks::eachRound;
    card.alpha = options.alpha.value_or(card.alpha);
    card.sdRatioMargin = options.sdRatioMargin.value_or(card.sdRatioMargin);
    card.areaRatioMargin = options.areaRatioMargin.value_or(card.areaRatioMargin);
    if (const auto faults = record::faultsOf(card); !faults.empty())
        throw Refusal{faults.front()};
}

void judgeFile(const JudgeOptions& options) {
    files::ReadOptions reading = anybodysFile();
    for (const auto& text : options.headings)
        reading.headings.insert(splitAtEquals("--map", text));
    files::ImportedTest imported = openTest(options.files, options.test, reading, options.reading);
    const record::DisplayUnits units = unitsOf(imported, options.reading);
    const std::string& file = options.files.front();
    // What was read and what was only likely is said beside the JSON, not in it.
    std::ostream& said = options.json ? std::cerr : std::cout;
    if (options.reading.explain)
        for (const auto& line : files::explained(imported.columns))
            said << line << "\n";
    record::Test& test = imported.test;
    if (const auto laps = judge::withheld(test)) {
        if (!options.look)
            throw Refusal{words::withheldSentences(*laps) + " --look takes it."};
        takeLook(file, test);
    }
    fillCard(test, options);
    judge::JudgeRequest request{
        .subject = judge::Case::of(test), .seed = options.seed, .level = levelOf(options.level)};
    if (auto earlier = earlierOf(file, test); !earlier.empty()) {
        request.earlier = judge::learntFrom(std::move(earlier), test);
        if (!options.level.empty())
            request.earlier.own.clear();
    }
    const auto result = judge::judge(request);
    if (options.json) {
        for (const auto& note : imported.notes)
            said << note << "\n";
        std::cout << files::readingJson(*result);
        return;
    }
    std::cout << test.title << ": " << record::counted(test.shots.size(), "shot") << ", baseline "
              << result->builds[result->baseline].name << "\n";
    for (const auto& note : imported.notes)
        std::cout << note << "\n";
    for (const auto& line : words::averages(*result, units))
        std::cout << "  " << line << "\n";
    // A run with each club gives no verdicts: they would be a list of refusals.
    auto lines = words::oneRunEach(*result, units);
    if (lines.empty())
        lines = words::briefSentences(*result, units);
    for (const auto& line : lines)
        std::cout << "  " << line << "\n";
}

} // namespace

void addJudge(CLI::App& app) {
    auto options = std::make_shared<JudgeOptions>();
    CLI::App* command =
        app.add_subcommand("judge", "Judge a shot file, an exported test or a test in a logbook, by its own card.");
    command
        ->add_option(
            "file", options->files,
            "Shot files (CSV, XLSX, ODS, JSON, HTML), a folder of them, - for standard input; an exported test "
            "(JSON) or a logbook (.knotbook)")
        ->required();
    command->add_option("--test", options->test, "The test's id or title, in a logbook with several");
    command->add_option("--baseline", options->baseline, "Build to compare with; else the first in the file");
    command->add_option("--primary", options->primary, "Up to three outcomes declared beforehand")->delimiter(',');
    command->add_option("--want", options->wants, "OUTCOME=more|less|none|VALUE");
    command->add_flag("--best", options->best, "Compare every pair: which of these?");
    command->add_option("--margin", options->margins, "METRIC=VALUE: worthwhile gap in the metric's SI unit");
    command->add_option("--sd-ratio-margin", options->sdRatioMargin, "Worthwhile ratio of spreads");
    command->add_option("--area-ratio-margin", options->areaRatioMargin, "Worthwhile ratio of landing areas");
    command->add_option("--alpha", options->alpha, "Error rate of each kind of claim");
    command->add_option("--trend", options->trend, "Numeric column, e.g. weight_g: slope per unit and order");
    command->add_option("--factor", options->factor, "Second factor, e.g. delivery: interaction with the build");
    command->add_option("--equal", options->equal, "Metrics held equal, e.g. strike_high_mm")->delimiter(',');
    command->add_option("--target", options->targets, "METRIC=LOW..HIGH or METRIC=VALUE: a wanted window or value");
    command->add_option("--aim", options->aim,
                        "CARRY or CARRY,SIDE in m: where was aimed; misses are measured from it");
    command->add_option("--level", options->level,
                        "How steady the player is: steady, club or occasional; bets rest on it");
    command->add_option("--planned-rounds", options->plannedRounds, "Laps of the plan; later ones are not judged")
        ->check(CLI::Range(1, 1000));
    command->add_flag("--looks", options->looks, "The comparison is looked at after each lap from the second");
    command->add_flag("--look", options->look,
                      "Look before the plan is done, where the sheet says that nobody does; the logbook notes it");
    command->add_option("--map", options->headings, "HEADING=COLUMN: what a heading means, e.g. Flight=carry_yd");
    command->add_option("--seed", options->seed, "Seed of the shuffles that are too many to count");
    addReading(*command, options->reading);
    command->add_flag("--json", options->json, "Print the reading as JSON");
    command->callback([options] { judgeFile(*options); });
}

} // namespace knot::cli
