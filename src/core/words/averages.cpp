#include "core/words/averages.h"

#include "core/plan/planner.h"
#include "core/plan/spreads.h"
#include "core/plan/worth.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/words/remarks/remarks.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace knot::words {
namespace {

using namespace judge;
using record::MetricFormat;
using record::upperFirst;

record::Want wantOf(const Reading& reading, Metric metric) {
    return reading.card.want({.kind = record::OutcomeKind::average, .metric = metric, .shape = {}});
}

std::vector<Metric> firstSeen(const Reading& reading) {
    std::vector<Metric> metrics;
    auto add = [&](Metric metric) {
        if (std::ranges::find(metrics, metric) == metrics.end() &&
            std::ranges::find(reading.metrics, metric) != reading.metrics.end())
            metrics.push_back(metric);
    };
    for (const Outcome& outcome : reading.card.primary)
        if (outcome.kind == record::OutcomeKind::average)
            add(outcome.metric);
    for (const Metric metric : {Metric::carry, Metric::side, Metric::ballSpeed, Metric::launch, Metric::spin})
        add(metric);
    return metrics;
}

} // namespace

std::string timesIn100(double chance) {
    return chance > sure ? "more than 99" : chance < 0.01 ? "less than 1" : record::fixed(100 * chance, 0);
}

record::Want rankedBy(const Reading& reading, Metric metric) {
    const record::Want want = wantOf(reading, metric);
    const auto sideways = {Metric::side, Metric::curve, Metric::launchDirection, Metric::spinAxis};
    if (want.kind != record::Want::Kind::none || std::ranges::find(sideways, metric) == sideways.end())
        return want;
    const double line = metric == Metric::side && reading.card.aim ? reading.card.aim->side : 0;
    return {record::Want::Kind::near, line};
}

namespace {

std::vector<Summary> ranked(const Reading& reading, Metric metric) {
    std::vector<Summary> rows;
    std::ranges::copy_if(reading.summary, std::back_inserter(rows),
                         [&](const Summary& row) { return row.metric == metric; });
    const record::Want want = rankedBy(reading, metric);
    std::ranges::stable_sort(rows, {}, [&](const Summary& row) { return -want.merit(row.mean); });
    return rows;
}

// "Fern 201.1 m (16 shots, ± 5.3), Slate 196.6 m (15 shots, ± 8.1)"
std::string rankedText(const Reading& reading, Metric metric, const record::DisplayUnits& units) {
    const MetricFormat format(metric, units);
    std::string line;
    for (const Summary& row : ranked(reading, metric))
        line += (line.empty() ? "" : ", ") + reading.builds[row.build].name + " " + format.withUnit(row.mean) + " (" +
                record::counted(row.n, "shot") + (row.sd ? ", ± " + format.number(*row.sd) : "") + ")";
    return line;
}

// Gaps in what was delivered that are worth a word, as they were seen: a sentence for each pair.
std::vector<std::string> swingAsSeen(const Reading& reading, const record::DisplayUnits& units) {
    std::vector<std::pair<std::pair<BuildAt, BuildAt>, std::vector<std::string>>> pairs;
    for (const SameSwing& row : reading.sameSwing) {
        const std::pair pair(row.build, row.against);
        auto at = std::ranges::find(pairs, pair, [](const auto& one) { return one.first; });
        if (at == pairs.end())
            at = pairs.insert(at, {pair, {}});
        if (std::fabs(row.gap) < reading.card.margin(row.metric))
            continue;
        const MetricFormat format(row.metric, units);
        const std::string unit = format.unitText();
        at->second.push_back(record::info(row.metric).label + " (" + format.signedNumber(row.gap) +
                             (unit.empty() || unit == "°" ? unit : " " + unit) + ")");
    }
    std::vector<std::string> sentences;
    for (const auto& [pair, gaps] : pairs) {
        if (gaps.empty())
            continue;
        std::string text;
        for (std::size_t i = 0; i < gaps.size(); ++i)
            text += (i == 0 ? "" : i + 1 == gaps.size() ? " and " : ", ") + gaps[i];
        sentences.push_back("As seen, " + reading.builds[pair.first].name + " was delivered unlike " +
                            reading.builds[pair.second].name + " in " + text + ".");
    }
    if (!sentences.empty())
        sentences.emplace_back("The swing may be what differed.");
    else if (!pairs.empty())
        sentences.emplace_back("As seen, they were delivered alike in what was measured.");
    return sentences;
}

// What else was declared, a line for each number.
std::vector<std::string> otherBets(const Reading& reading, Metric first, const record::DisplayUnits& units) {
    std::vector<std::string> said;
    std::vector<Outcome> asked = reading.card.primary;
    if (asked.empty()) // what is looked at with any club
        for (const Metric metric : {Metric::launch, Metric::spin, Metric::descent})
            asked.push_back({.metric = metric, .shape = {}});
    for (const Outcome& outcome : asked) {
        if (outcome.kind != record::OutcomeKind::average || outcome.metric == first)
            continue;
        const MetricFormat format(outcome.metric, units);
        const bool isDirected = wantOf(reading, outcome.metric).kind != record::Want::Kind::none;
        std::string line;
        for (const BetOnPair& bet : reading.bets)
            if (bet.metric == outcome.metric)
                line += (line.empty() ? "" : ", ") + reading.builds[bet.build].name +
                        (isDirected ? " ahead of " : " above ") + reading.builds[bet.against].name + " " +
                        timesIn100(bet.ahead) + " in 100 (expect " + format.signedNumber(bet.expected) + " " +
                        format.unitText() + ")";
        if (!line.empty())
            said.push_back(upperFirst(record::info(outcome.metric).label) + ": " + line + ".");
    }
    return said;
}

std::string againWhen(const Again& one) {
    const std::string what = one.words.empty() ? std::string() : " (“" + one.words + "”)";
    switch (one.after) {
    case Again::After::playerChanged:
        return " after the player's change" + what + ": ";
    case Again::After::clubChanged:
        return " after it was changed" + what + ": ";
    case Again::After::otherDay:
        return " after the day changed" + what + ": ";
    case Again::After::left:
        break;
    }
    return " again: ";
}

} // namespace

std::vector<std::string> againText(const Reading& reading, Metric metric, const record::DisplayUnits& units) {
    std::vector<std::string> said;
    for (const Again& one : reading.again) {
        if (one.metric != metric)
            continue;
        const MetricFormat format(metric, units);
        const auto& info = record::info(metric);
        const bool isUsual = std::fabs(one.gap) <= one.usually;
        said.push_back(reading.builds[one.before].name + againWhen(one) + format.withUnit(std::fabs(one.gap)) +
                       (one.gap < 0 ? " less " : " more ") + info.label +
                       (one.after == Again::After::left ? " than in its first go" : " than before") +
                       "; two goes of one club usually lie up to " + format.withUnit(one.usually) + " apart" +
                       (isUsual ? "." : ", these farther."));
    }
    return said;
}

namespace {

// The two of a fair test: one's own club against the best of the others.
std::vector<BuildAt> fairPair(const Reading& reading, Metric metric) {
    const auto rows = ranked(reading, metric);
    const auto own = std::ranges::find(rows, reading.baseline, &Summary::build);
    const auto other = std::ranges::find_if(rows, [&](const Summary& row) { return row.build != reading.baseline; });
    if (!reading.kind.areOne || own == rows.end() || other == rows.end())
        return {};
    return {own->build, other->build};
}

constexpr int mostSwings = 100; // of one day

// What a fair test of two would be: in the minutes that there are, what it is worth to the choice; how many swings
// would prove a gap like the one that was seen, where a day has as many.
std::string fairTest(const Reading& reading, const std::vector<BuildAt>& pair, Metric metric,
                     const record::DisplayUnits& units) {
    if (pair.empty())
        return {};
    const auto usual = plan::usualSpreads(metric, reading.steadiness);
    const double seen = reading.summaryOf(metric, pair[1])->mean - reading.summaryOf(metric, pair[0])->mean;
    const double gap = std::max(std::fabs(seen), reading.card.margin(metric));
    const plan::Pace pace{.warmUp = 8, .restEvery = 25};
    const std::string both = reading.builds[pair[0]].name + " and " + reading.builds[pair[1]].name;
    const auto test = plan::twoClubsIn(plan::minutesLeft, metric, plan::usualSpreads(metric, plan::Level::club),
                                       record::info(metric).worthwhileGap, {});
    std::string text = "In the " + record::fixed(plan::minutesLeft, 0) +
                       " minutes there may be, one question: " + both + ", " + std::to_string(test.laps) + " laps of " +
                       std::to_string(test.shots) + ", " + std::to_string(2 * test.laps * test.shots) +
                       " swings after the warm-up; worth " + record::fixed(100 * test.worth, 0) +
                       " of 100 to the choice.";
    const plan::Question question{.sdTurn = usual.sdTurn, .sdShot = usual.sdShot, .gap = gap};
    const auto option = plan::toSee(question, pace, 3);
    const std::string size = MetricFormat(metric, units).withUnit(gap) + " of " + record::info(metric).label;
    if (option && option->shots <= mostSwings)
        text += " To prove " + size + " 80 times in 100: about " + std::to_string(option->shots) + " swings in " +
                record::fixed(5 * std::ceil(option->minutes / 5), 0) + " minutes.";
    else
        text += " To prove " + size + " takes more swings than a day has: choose by the bet, or test on several days.";
    return text + " Rest, and stop where anything hurts.";
}

} // namespace

std::vector<std::string> averages(const Reading& reading, const record::DisplayUnits& units) {
    std::vector<std::string> lines;
    for (const Metric metric : firstSeen(reading)) {
        const std::string label = upperFirst(record::info(metric).label);
        if (reading.bySetting.empty())
            lines.push_back(label + ": " + rankedText(reading, metric, units) + ".");
        for (const OfSetting& setting : reading.bySetting) // nobody's shots are averaged with another's
            lines.push_back(label + ", " + setting.name + ": " + rankedText(setting.reading, metric, units) + ".");
    }
    return lines;
}

std::optional<OneRun> oneRun(const Reading& reading, const record::DisplayUnits& units) {
    std::size_t struck = 0;
    bool isAgain = false;
    for (const BuildCount& build : reading.builds) {
        struck += build.counted > 0 ? 1 : 0;
        isAgain = isAgain || build.turns > 1;
    }
    if (isAgain && reading.singleRuns.empty()) // going back to a favourite makes no laps, turns do
        return std::nullopt;
    const auto metrics = firstSeen(reading);
    if (struck < 2 || metrics.empty())
        return std::nullopt;
    OneRun run{.opening = std::string(isAgain ? "Hit as it came, not in laps" : "One run each") +
                          ": the clubs and the moment can't be told apart, so these are bets, not findings.",
               .others = otherBets(reading, metrics.front(), units),
               .again = againText(reading, metrics.front(), units),
               .swing = swingAsSeen(reading, units),
               .fairTest = {},
               .pair = fairPair(reading, metrics.front())};
    run.metric = metrics.front();
    if (!reading.kind.areOne && reading.card.primary.empty()) { // no contest
        run.opening = "Clubs of several kinds are steps of a bag, and no rivals of each other.";
        run.others.clear();
        run.swing.clear();
        return run;
    }
    run.fairTest = fairTest(reading, run.pair, run.metric, units);
    std::ranges::copy_if(reading.bets, std::back_inserter(run.bets),
                         [&](const BetOnPair& bet) { return bet.metric == run.metric; });
    std::ranges::stable_sort(run.bets, std::greater{}, &BetOnPair::ahead);
    return run;
}

std::vector<std::string> oneRunEach(const Reading& reading, const record::DisplayUnits& units) {
    const auto run = oneRun(reading, units);
    if (!run)
        return {};
    std::vector<std::string> sentences{run->opening};
    for (const Remark& remark : remarks(reading, units))
        if (!run->bets.empty() && (remark.code == "bet" || remark.code == "best_bet"))
            sentences.push_back(remark.text);
    sentences.insert(sentences.end(), run->again.begin(), run->again.end());
    sentences.insert(sentences.end(), run->swing.begin(), run->swing.end());
    if (!run->fairTest.empty())
        sentences.push_back(run->fairTest);
    return sentences;
}

} // namespace knot::words
