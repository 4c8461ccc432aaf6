#include "core/words/ledger.h"

#include "core/record/text/number_text.h"
#include "core/words/remarks/swing_remarks.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

namespace knot::words {
namespace {

using namespace judge;

using record::counted;
using record::DisplayUnits;
using record::MetricFormat;
using record::OutcomeKind;

bool hasDirection(Verdict verdict) {
    return verdict != Verdict::same && verdict != Verdict::open;
}

std::string capReason(Cap cap) {
    switch (cap) {
    case Cap::oneTurnEach:
        return "one stint each: club and moment can't be told apart";
    case Cap::separatedTurns:
        return "one club was hit before the other: club and moment can't be told apart";
    case Cap::tooFewShots:
        return "too few shots";
    case Cap::tooFewRounds:
        return "too few laps hold both clubs";
    case Cap::noVariation:
        return "the readings do not vary, so there is no known error";
    case Cap::markBetween:
        return "a change of the player or the day lies between the two";
    case Cap::beforeFirstLook:
        return "the first look comes after two laps";
    case Cap::onePerPlayer:
        return "one lap by each player: players are no laps of each other";
    case Cap::onePerDelivery:
        return "one lap with each delivery: deliveries are no laps of each other";
    case Cap::sameOrder:
        return "one order in nearly every lap: club and drift can't be told apart";
    case Cap::partOfAll:
        return "one part of the test; what is judged is all of it";
    case Cap::leadOnly:
        return "a lead: nothing was planned, so luck has no known share";
    }
    return {};
}

std::string lowerFirst(std::string text) {
    if (!text.empty() && text[0] >= 'A' && text[0] <= 'Z')
        text[0] = static_cast<char>(text[0] - 'A' + 'a');
    return text;
}

std::string judgedWords(const Claim& claim) {
    std::string text = of(claim.verdict);
    if (!claim.favours || *claim.favours == Favours::different)
        return text;
    return text + ": " + key(*claim.favours);
}

// What it would take to settle the row. Laps added because a result was open would spend more than
// α, so only laps that the card still holds are "more"; else a new test is named, judged by itself.
// What a record says of further laps is uncertain by a factor of two either way.
std::string aboutLaps(std::size_t laps, const char* what) {
    const std::size_t low = std::max<std::size_t>(1, laps / 2);
    const std::size_t high = 2 * laps;
    return high <= 2 ? "one or two" + std::string(what)
                     : "about " + std::to_string(low) + " to " + std::to_string(high) + what;
}

std::string remedy(const Reading& reading, const AverageGap& row) {
    if (*row.furtherRounds > tooManyRounds)
        return "more laps than can be hit";
    const auto more = static_cast<std::size_t>(*row.furtherRounds);
    const auto planned = static_cast<std::size_t>(reading.card.plannedRounds);
    if (row.method == GapMethod::welch)
        return "a rotated test should take " + aboutLaps(more, " laps");
    if (reading.roundsDone < planned)
        return more == 0                              ? "these laps should have settled it"
               : reading.roundsDone + more <= planned ? aboutLaps(more, " more laps") + " should settle it"
                                                      : "the laps left will hardly settle it";
    return "a new test should take " + aboutLaps(row.rounds + more, " laps");
}

// Fills the parts that all kinds of rows share, and the sentence with its value as it is spoken.
LedgerLine finished(const Reading& reading, LedgerLine line, const Claim& claim, const std::string& spoken) {
    line.verdict = claim.verdict;
    line.role = claim.role;
    line.judged = judgedWords(claim);
    if (claim.cap)
        line.because = capReason(*claim.cap);
    const std::string& build = reading.builds[line.build].name;
    const std::string& against = reading.builds[line.against].name;
    const std::string interval = line.interval.empty() ? "" : " (" + line.interval + ")";
    if (hasDirection(claim.verdict))
        line.sentence = build + " " + line.finding + " than " + against + spoken + interval + ": ";
    else
        line.sentence =
            upperFirst(line.finding) + ", " + build + " against " + against + ": " + spoken + interval + ", ";
    line.sentence += lowerFirst(line.judged) + (line.because.empty() ? "." : "; " + line.because + ".");
    return line;
}

// What the ball did, as against how the club was delivered.
bool isFlight(Metric metric) {
    constexpr std::array delivered = {Metric::clubSpeed,  Metric::attack,      Metric::path,     Metric::face,
                                      Metric::faceToPath, Metric::dynamicLoft, Metric::spinLoft, Metric::dynamicLie,
                                      Metric::strikeToe,  Metric::strikeHigh};
    return std::ranges::find(delivered, metric) == delivered.end();
}

// One more thing to know of a row that is finished.
void addTo(LedgerLine& line, const std::string& what) {
    line.because += (line.because.empty() ? "" : "; ") + what;
    line.sentence.pop_back();
    line.sentence += "; " + what + ".";
}

// How a gap that is not as struck is meant, behind what it says.
std::string manner(OutcomeKind kind) {
    return kind == OutcomeKind::equal     ? " at equal delivery"
           : kind == OutcomeKind::typical ? " in its typical shot"
                                          : "";
}

std::optional<Interval> inGaps(const Interval& interval, double margin) {
    if (!(margin > 0) || !std::isfinite(interval.low) || !std::isfinite(interval.high))
        return std::nullopt;
    return Interval{interval.low / margin, interval.high / margin, interval.level};
}

LedgerLine lineOf(const Reading& reading, const AverageGap& row, const DisplayUnits& units) {
    const MetricFormat format = MetricFormat(row.metric, units).supportedBy(row.se.value_or(0));
    const auto& info = record::info(row.metric);
    const bool directed = hasDirection(row.claim.verdict);
    LedgerLine line{.outcome = {.kind = row.kind, .metric = row.metric}, .build = row.build, .against = row.against};
    line.finding =
        !directed ? record::outcomeLabel(line.outcome) : (row.gap >= 0 ? info.more : info.less) + manner(row.kind);
    const std::string unit = format.unitText();
    line.value = (directed ? format.number(std::fabs(row.gap)) : format.signedNumber(row.gap)) +
                 (unit.empty() || unit == "°" ? unit : " " + unit);
    if (const auto& ci = row.shown) {
        const bool flip = directed && row.gap < 0;
        line.interval = flip ? format.range(-ci->high, -ci->low) : format.range(ci->low, ci->high);
        line.inGaps = inGaps(flip ? Interval{-ci->high, -ci->low} : *ci, row.margin);
    }
    if (row.claim.verdict == Verdict::open && !row.claim.cap) {
        if (row.bound)
            line.because = "at most " + format.withUnit(*row.bound) + " either way";
        if (row.furtherRounds)
            line.because += (line.because.empty() ? "" : "; ") + remedy(reading, row);
    }
    const std::string spoken = (directed ? " by " : "") + line.value;
    line = finished(reading, std::move(line), row.claim, spoken);
    if (row.method == GapMethod::days)
        addTo(line, "the days disagree, so that their gaps decide and not the laps");
    else if (hasDirection(row.claim.verdict) && row.pooled && row.pooled->over == PooledOver::sittings)
        addTo(line, "on these days");
    if (directed && row.kind == OutcomeKind::average && isFlight(row.metric))
        if (const std::string how = throughSwing(reading, row, units); !how.empty())
            addTo(line, how);
    return line;
}

std::string ratioText(double ratio) {
    return record::fixed(ratio, ratio < 9.95 ? 2 : 0);
}

// Rows whose value is a ratio of `build` to `against`.
template<typename Row>
LedgerLine ratioLine(const Reading& reading, const Row& row, const Outcome& outcome, const std::string& label,
                     const std::string& more, const std::string& less, double margin) {
    const bool directed = hasDirection(row.claim.verdict);
    LedgerLine line{.outcome = outcome, .build = row.build, .against = row.against};
    line.finding = !directed ? label : row.ratio >= 1 ? more : less;
    line.value = ratioText(row.ratio) + " ×";
    if (const auto& ci = row.shown) {
        line.interval = ratioText(ci->low) + " to " + ratioText(ci->high);
        line.inGaps = inGaps({std::log(ci->low), std::log(ci->high)}, std::log(margin));
    }
    if (row.claim.verdict == Verdict::open && !row.claim.cap && row.shown)
        line.because = "at most " + ratioText(std::max(row.shown->high, 1 / row.shown->low)) + " times either way";
    const std::string spoken = (directed ? ", " : "") + ratioText(row.ratio) + " times";
    return finished(reading, std::move(line), row.claim, spoken);
}

LedgerLine lineOf(const Reading& reading, const SpreadRatio& row) {
    const std::string& label = record::info(row.metric).spreadLabel;
    return ratioLine(reading, row, {.kind = OutcomeKind::spread, .metric = row.metric, .shape = {}}, label,
                     "has a wider " + label, "has a narrower " + label, reading.card.sdRatioMargin);
}

LedgerLine lineOf(const Reading& reading, const AreaRatio& row) {
    return ratioLine(reading, row, {.kind = OutcomeKind::area, .metric = Metric::carry, .shape = {}},
                     record::outcomeLabel({.kind = OutcomeKind::area}), "lands over a wider area",
                     "lands over a smaller area", reading.card.areaRatioMargin);
}

LedgerLine lineOf(const Reading& reading, const ShareGap& share) {
    const AverageGap& row = share.gap;
    const bool directed = hasDirection(row.claim.verdict);
    auto percent = [](double value) { return record::fixed(100 * value, 0); };
    LedgerLine line{.outcome = {.kind = OutcomeKind::share, .metric = Metric::carry, .shape = share.shape},
                    .build = row.build,
                    .against = row.against};
    line.finding = !directed      ? record::outcomeLabel(line.outcome)
                   : row.gap >= 0 ? "lands in " + share.shape + " more often"
                                  : "lands in " + share.shape + " less often";
    line.value = percent(directed ? std::fabs(row.gap) : row.gap) + " %";
    if (const auto& ci = row.shown) {
        const bool flip = directed && row.gap < 0;
        line.interval =
            flip ? percent(-ci->high) + " to " + percent(-ci->low) : percent(ci->low) + " to " + percent(ci->high);
        line.inGaps = inGaps(flip ? Interval{-ci->high, -ci->low} : *ci, row.margin);
    }
    const std::string spoken = (directed ? " by " : "") + line.value;
    return finished(reading, std::move(line), row.claim, spoken);
}

// What moves together from shot to shot is one finding: who leads it, for those that only follow.
const Outcome* storyOf(const Reading& reading, const LedgerLine& line) {
    if (line.role == Role::primary || !hasDirection(line.verdict))
        return nullptr;
    for (const auto& finding : reading.findings)
        if (finding.size() > 1 && finding.front() != line.outcome &&
            std::ranges::find(finding, line.outcome) != finding.end())
            return &finding.front();
    return nullptr;
}

// Settled before unsettled, the weightiest first.
int weight(Verdict verdict) {
    switch (verdict) {
    case Verdict::real:
        return 0;
    case Verdict::realSizeOpen:
        return 1;
    case Verdict::slight:
        return 2;
    case Verdict::same:
        return 3;
    case Verdict::uncontrolled:
        return 4;
    case Verdict::open:
        return 5;
    }
    return 6;
}

} // namespace

std::string of(Verdict verdict) {
    switch (verdict) {
    case Verdict::real:
        return "Real, and big enough to matter";
    case Verdict::slight:
        return "Real, but too small to matter";
    case Verdict::same:
        return "No gap that matters";
    case Verdict::realSizeOpen:
        return "Real, size not settled";
    case Verdict::open:
        return "Not settled";
    case Verdict::uncontrolled:
        return "Seen, but not a fair test";
    }
    return {};
}

std::vector<LedgerLine> ledger(const Reading& reading, const DisplayUnits& units) {
    std::vector<LedgerLine> lines;
    auto keep = [&](LedgerLine line) {
        if (line.role != Role::explanation)
            lines.push_back(std::move(line));
    };
    for (const AverageGap& row : reading.average)
        keep(lineOf(reading, row, units));
    for (const SpreadRatio& row : reading.consistency)
        keep(lineOf(reading, row));
    for (const AreaRatio& row : reading.areas)
        keep(lineOf(reading, row));
    for (const ShareGap& row : reading.shareGaps)
        keep(lineOf(reading, row));
    for (LedgerLine& line : lines)
        if (const Outcome* story = storyOf(reading, line))
            addTo(line, "one story with " + record::outcomeLabel(*story));
    std::ranges::stable_sort(lines, {}, [&](const LedgerLine& line) {
        const auto& primary = reading.card.primary;
        const bool declared = line.role == Role::primary;
        const auto priority = declared ? std::ranges::find(primary, line.outcome) - primary.begin() : 0;
        // An unsettled spread says least, and there is one for each number.
        const bool isRatio = record::isRatio(line.outcome);
        const bool idle = line.verdict == Verdict::open && isRatio;
        return std::tuple(!declared, priority, weight(line.verdict), idle);
    });
    return lines;
}

} // namespace knot::words
