#include "core/judge/sentences.h"

#include "core/record/number_text.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

using record::counted;
using record::DisplayUnits;
using record::MetricFormat;

bool hasDirection(Verdict verdict) {
    return verdict != Verdict::same && verdict != Verdict::open;
}

const Interval* shownInterval(const AverageGap& row) {
    const bool narrow = row.claim.verdict == Verdict::same || row.claim.verdict == Verdict::slight;
    const auto& chosen = narrow ? row.ci90 : row.ci95;
    return chosen ? &*chosen : nullptr;
}

MetricFormat formatOf(const AverageGap& row, const DisplayUnits& units) {
    return MetricFormat(row.metric, units).supportedBy(row.se.value_or(0));
}

std::string capReason(const AverageGap& row) {
    switch (*row.claim.cap) {
    case Cap::oneTurnEach: return "one stint each: club and moment can't be told apart";
    case Cap::separatedTurns: return "one club was hit before the other: club and moment can't be told apart";
    case Cap::tooFewShots: return "too few shots";
    case Cap::tooFewRounds: return "fewer than two laps hold both clubs";
    case Cap::noVariation: return "the readings do not vary, so the gap has no known error";
    case Cap::markBetween: return "a change of the player lies between the two";
    }
    return {};
}

// What it would take to settle the row, in words that follow a comma or stand alone.
std::string remedy(const AverageGap& row) {
    const auto laps = static_cast<std::size_t>(*row.furtherRounds);
    if (*row.furtherRounds > tooManyRounds)
        return "more laps than can be hit would settle it";
    if (laps == 0)
        return "this many laps usually settle it, these did not";
    return "about " + (row.method == GapMethod::welch ? counted(laps, "rotated lap") : counted(laps, "more lap")) +
           " would settle it";
}

std::string outlook(const AverageGap& row, const DisplayUnits& units) {
    std::string text;
    if (row.bound)
        text = "at most " + formatOf(row, units).withUnit(*row.bound) + " either way";
    if (row.furtherRounds)
        text += (text.empty() ? "" : "; ") + remedy(row);
    return text;
}

std::string judgedWords(const Claim& claim) {
    std::string text = words(claim.verdict);
    if (!claim.favours || *claim.favours == Favours::different)
        return text;
    return text + ": " + key(*claim.favours);
}

std::string lowerFirst(std::string text) {
    if (!text.empty() && text[0] >= 'A' && text[0] <= 'Z')
        text[0] = static_cast<char>(text[0] - 'A' + 'a');
    return text;
}

std::string upperFirst(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z')
        text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

std::string findingOf(const AverageGap& row) {
    const auto& info = record::info(row.metric);
    if (!hasDirection(row.claim.verdict))
        return info.label;
    return row.gap >= 0 ? info.more : info.less;
}

LedgerLine lineOf(const Reading& reading, std::size_t index, const DisplayUnits& units) {
    const AverageGap& row = reading.average[index];
    const MetricFormat format = formatOf(row, units);
    const bool directed = hasDirection(row.claim.verdict);
    LedgerLine line{.row = index, .verdict = row.claim.verdict, .role = row.claim.role, .build = row.build};
    line.finding = findingOf(row);
    line.judged = judgedWords(row.claim);
    const std::string unit = format.unitText();
    const std::string number =
        directed ? format.number(std::fabs(row.gap)) : format.signedNumber(row.gap);
    line.value = number + (unit.empty() ? "" : unit == "°" ? unit : " " + unit);
    if (const Interval* ci = shownInterval(row)) {
        const bool flip = directed && row.gap < 0;
        line.interval = flip ? format.range(-ci->high, -ci->low) : format.range(ci->low, ci->high);
    }
    if (row.claim.cap)
        line.because = capReason(row);
    else if (row.claim.verdict == Verdict::open)
        line.because = outlook(row, units);
    return line;
}

// Settled before unsettled, the weightiest first.
int weight(Verdict verdict) {
    switch (verdict) {
    case Verdict::real: return 0;
    case Verdict::realSizeOpen: return 1;
    case Verdict::slight: return 2;
    case Verdict::same: return 3;
    case Verdict::uncontrolled: return 4;
    case Verdict::open: return 5;
    }
    return 6;
}

std::size_t priority(const Reading& reading, const AverageGap& row) {
    const Outcome outcome{.kind = record::OutcomeKind::average, .metric = row.metric, .shape = {}};
    return static_cast<std::size_t>(std::ranges::find(reading.card.primary, outcome) -
                                    reading.card.primary.begin());
}

} // namespace

std::string words(Verdict verdict) {
    switch (verdict) {
    case Verdict::real: return "Real, and big enough to matter";
    case Verdict::slight: return "Real, but too small to matter";
    case Verdict::same: return "No gap that matters";
    case Verdict::realSizeOpen: return "Real, size not settled";
    case Verdict::open: return "Not settled";
    case Verdict::uncontrolled: return "Seen, but not a fair test";
    }
    return {};
}

std::vector<LedgerLine> ledger(const Reading& reading, const DisplayUnits& units) {
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < reading.average.size(); ++i)
        if (reading.average[i].claim.role != Role::explanation)
            order.push_back(i);
    std::ranges::stable_sort(order, {}, [&](std::size_t i) {
        const AverageGap& row = reading.average[i];
        const bool primary = row.claim.role == Role::primary;
        return std::tuple(!primary, primary ? priority(reading, row) : 0, weight(row.claim.verdict));
    });
    std::vector<LedgerLine> lines;
    for (const std::size_t i : order)
        lines.push_back(lineOf(reading, i, units));
    return lines;
}

std::string sentence(const Reading& reading, const AverageGap& row, const DisplayUnits& units) {
    const auto index = static_cast<std::size_t>(&row - reading.average.data());
    const LedgerLine line = lineOf(reading, index, units);
    const std::string& build = reading.builds[row.build].name;
    const std::string& against = reading.builds[row.against].name;
    const std::string interval = line.interval.empty() ? "" : " (" + line.interval + ")";
    if (hasDirection(row.claim.verdict)) {
        std::string text = build + " " + line.finding + " than " + against + " by " + line.value +
                           interval + ": " + lowerFirst(line.judged);
        return text + (line.because.empty() ? "." : "; " + line.because + ".");
    }
    std::string text = upperFirst(line.finding) + ", " + build + " against " + against + ": " +
                       line.value + interval + ", " + lowerFirst(line.judged);
    return text + (line.because.empty() ? "." : "; " + line.because + ".");
}

std::vector<std::string> sentences(const Reading& reading, const DisplayUnits& units) {
    std::vector<std::string> all;
    for (const LedgerLine& line : ledger(reading, units))
        all.push_back(sentence(reading, reading.average[line.row], units));
    for (const Check& check : reading.checks)
        all.push_back(check.text);
    return all;
}

} // namespace knot::judge
