#include "core/words/ledger.h"
#include "core/words/remarks/remarks.h"
#include "core/words/remarks/shot_remarks.h"
#include "core/words/remarks/swing_remarks.h"

#include "core/record/text/moment.h"
#include "core/record/text/number_text.h"

#include <algorithm>
#include <map>

namespace knot::words {
namespace {

using judge::Check;
using record::counted;

std::string tooFewShots(const Check& check, const Reading&) {
    return check.what + " has " + counted(check.count, "counted shot") + "; a verdict needs three.";
}

std::string leadsOnly(const Check& check, const Reading&) {
    return check.what +
           " gives leads, never verdicts: clubs come and go, and nothing was planned. A fair test of two takes fresh "
           "shots.";
}

std::string fewRounds(const Check& check, const Reading&) {
    return "With " + counted(check.count, "lap") + " the shuffle check can't go below " +
           record::probability(2.0 / static_cast<double>(1U << check.count)) + ".";
}

std::string lapsDone(const Check& check) {
    return std::to_string(check.count) + " of " + counted(check.of, "planned lap") + " done. ";
}

std::string look(const Check& check, const Reading& reading) {
    return lapsDone(check) + "At this look claims are made at " + record::probability(reading.level) +
           (check.count < check.of ? "; a verdict is not kept if play goes on." : ".");
}

std::string beyondPlan(const Check& check, const Reading&) {
    return counted(check.count, "lap") + " beyond the plan " + (check.count == 1 ? "is" : "are") +
           " kept but not judged.";
}

std::string lateSetAsides(const Check& check, const Reading& reading) {
    std::string shots;
    for (const auto& late : reading.lateSetAsides)
        shots += (shots.empty() ? "" : ", ") + std::to_string(late.number);
    return counted(check.count, "shot was", "shots were") +
           " set aside late, after the number was seen or the clubs were known: number " + shots + ".";
}

using Say = std::string (*)(const Check& check, const Reading& reading);

// A fact's code and how it is said.
const std::map<std::string, Say, std::less<>>& sayings() {
    static const std::map<std::string, Say, std::less<>> all = {
        {"no_shots",
         [](const Check&, const Reading&) -> std::string { return "No shots yet, so there is nothing to judge."; }},
        {"one_build",
         [](const Check& check, const Reading&) {
             return "Only " + check.what + " was struck. A comparison needs a second club.";
         }},
        {"no_readings",
         [](const Check&, const Reading&) -> std::string {
             return "No counted shot has a reading, so nothing can be judged.";
         }},
        {"too_few_shots", tooFewShots},
        {"one_turn_each",
         [](const Check&, const Reading&) -> std::string {
             return "At least one club was hit in a single stint, so the club and the moment can't be told apart. Gaps "
                    "are shown, not judged.";
         }},
        {"separated_turns",
         [](const Check&, const Reading&) -> std::string {
             return "All stints with one club came before the other's, so the club and the moment can't be told apart. "
                    "Gaps are shown, not judged.";
         }},
        {"one_per_player",
         [](const Check&, const Reading&) -> std::string {
             return "Each player hit the clubs in one lap, and players are no laps of each other. Gaps are shown, not "
                    "judged.";
         }},
        {"one_per_delivery",
         [](const Check&, const Reading&) -> std::string {
             return "The clubs were hit in one lap with each delivery, and deliveries are no laps of each other. Gaps "
                    "are shown, not judged.";
         }},
        {"same_order",
         [](const Check&, const Reading&) -> std::string {
             return "The clubs were hit in the same order in nearly every lap, so the laps take no drift out, and the "
                    "stints are too few for a line through them. Gaps are shown, not judged.";
         }},
        {"common_line",
         [](const Check&, const Reading&) -> std::string {
             return "The clubs were hit in the same order in nearly every lap, so averages are compared along a common "
                    "line through the stints, which takes a steady drift out.";
         }},
        {"hangs_on_delivery",
         [](const Check& check, const Reading&) {
             return "The gap in " + check.what +
                    ", hangs on the delivery: the two clubs' own slopes differ, so that another delivery would show "
                    "another gap.";
         }},
        {"players_one_order",
         [](const Check& check, const Reading&) {
             return (check.count == 2 ? std::string("Both") : "All " + std::to_string(check.count)) +
                    " players met the clubs in the same order: what they share may be the order's doing.";
         }},
        {"too_few_rounds",
         [](const Check&, const Reading&) -> std::string {
             return "Some clubs share fewer than two laps, so their gap has no known error.";
         }},
        {"leads_only", leadsOnly},
        {"few_rounds", fewRounds},
        {"set_asides",
         [](const Check& check, const Reading&) {
             return counted(check.count, "shot was", "shots were") + " set aside and not counted.";
         }},
        {"missing_turns",
         [](const Check& check, const Reading&) {
             return counted(check.count, "lap lacks", "laps lack") + " a stint with one of the clubs.";
         }},
        {"before_first_look",
         [](const Check& check, const Reading&) { return lapsDone(check) + "The first look comes after two laps."; }},
        {"look", look},
        {"unfinished_plan",
         [](const Check& check, const Reading&) {
             return lapsDone(check) + "The error rates hold only if nobody looks before the plan is done.";
         }},
        {"beyond_plan", beyondPlan},
        {"not_blinded",
         [](const Check&, const Reading&) -> std::string {
             return "The player knew which club was which; that may have moved the swing.";
         }},
        {"amended",
         [](const Check& check, const Reading&) {
             return "The test sheet was amended after its first shot, " + record::Moment(check.at).shown() + ": " +
                    check.what;
         }},
        {"put_right",
         [](const Check& check, const Reading&) {
             return "Put right late, " + record::Moment(check.at).shown() + ": " + check.what + ".";
         }},
        {"specs_differ",
         [](const Check& check, const Reading&) {
             return "The clubs also differ in " + check.what + ", which may be what is seen.";
         }},
        {"comes_with_factor",
         [](const Check& check, const Reading&) {
             return "What is tested brings " + check.what + " with it; that alone may make the gap.";
         }},
        {"not_held",
         [](const Check& check, const Reading&) {
             return "Not held constant: " + check.what + (check.at.empty() ? "." : " (" + check.at + ").");
         }},
        {"striking_off",
         [](const Check& check, const Reading&) {
             return "Clubs are struck off as planned; nothing is judged before two are left" +
                    (check.what.empty() ? std::string(".") : ". Out: " + check.what + ".");
         }},
        {"struck_off",
         [](const Check& check, const Reading&) {
             return "Struck off as planned: " + check.what +
                    ". What is claimed is of the two that were left, on all their laps, not of the best of all: where "
                    "clubs lie close, the best is struck off about one time in " +
                    std::string(check.of > 4 ? "four." : "six.");
         }},
        {"ended_before_two",
         [](const Check& check, const Reading&) {
             return "The plan ends with " + std::to_string(check.count) +
                    " clubs left. They are judged as picked from all pairs" +
                    (check.what.empty() ? std::string(".") : ". Out: " + check.what + ".");
         }},
        {"late_set_asides", lateSetAsides},
        {"below_repeatability", [](const Check& check, const Reading&) {
             return "The worthwhile gap in " + check.what + " is smaller than a monitor usually repeats itself.";
         }}};
    return all;
}

} // namespace

std::vector<Remark> checks(const Reading& reading) {
    std::vector<Remark> said;
    said.reserve(reading.checks.size());
    for (const Check& check : reading.checks)
        said.push_back({check.code, check.severity, sayings().at(check.code)(check, reading)});
    return said;
}

namespace {

// What stands above the verdicts, and below them.
std::vector<Remark> above(const Reading& reading, const record::DisplayUnits& units) {
    return sameSwing(reading, units);
}

std::vector<Remark> below(const Reading& reading, const record::DisplayUnits& units) {
    std::vector<Remark> all = checks(reading);
    for (const auto& said : {whoseDoing(reading), remarks(reading, units), shotRemarks(reading, units)})
        for (const Remark& remark : said)
            if (std::ranges::none_of(all, [&](const Remark& one) { return one.text == remark.text; }))
                all.push_back(remark);
    return all;
}

void append(std::vector<std::string>& sentences, const std::vector<Remark>& remarks) {
    for (const Remark& remark : remarks)
        sentences.push_back(remark.text);
}

} // namespace

namespace {

// What nobody asked for is one of many, and never stands as if it had been declared.
std::string toldAs(const LedgerLine& line) {
    const bool isUnasked = line.role == Role::exploratory && line.verdict != Verdict::open;
    return isUnasked ? "Also seen, unasked: " + line.sentence : line.sentence;
}

} // namespace

std::vector<std::string> sentences(const Reading& reading, const record::DisplayUnits& units) {
    std::vector<std::string> all;
    append(all, above(reading, units));
    for (const LedgerLine& line : ledger(reading, units))
        all.push_back(toldAs(line));
    append(all, below(reading, units));
    return all;
}

std::vector<std::string> briefSentences(const Reading& reading, const record::DisplayUnits& units) {
    std::vector<std::string> all;
    append(all, above(reading, units));
    // Unsettled rows that nobody declared are named, pair by pair, and not spelled out.
    std::vector<std::pair<std::string, std::string>> unsettled;
    for (const LedgerLine& line : ledger(reading, units)) {
        if (line.verdict != Verdict::open || line.role == Role::primary) {
            all.push_back(toldAs(line));
            continue;
        }
        const std::string pair = reading.builds[line.build].name + " against " + reading.builds[line.against].name;
        auto at = std::ranges::find(unsettled, pair, &std::pair<std::string, std::string>::first);
        if (at == unsettled.end())
            at = unsettled.insert(at, {pair, {}});
        at->second += (at->second.empty() ? "" : ", ") + record::outcomeLabel(line.outcome);
    }
    for (const auto& [pair, labels] : unsettled) {
        std::string sentence = "Not settled, ";
        sentence.append(pair).append(": ").append(labels).append(".");
        all.push_back(std::move(sentence));
    }
    append(all, below(reading, units));
    return all;
}

} // namespace knot::words
