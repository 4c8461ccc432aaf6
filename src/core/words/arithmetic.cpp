#include "core/words/ledger.h"

#include "core/record/number_text.h"

#include <algorithm>
#include <cmath>

namespace knot::words {
namespace {

using namespace judge;

using record::MetricFormat;
using record::OutcomeKind;
using record::probability;

// "0.03" alone, or "0.03, in its family 0.06" where the family changes it.
std::string inFamily(const std::optional<double>& raw, const std::optional<double>& adjusted, double factor = 1) {
    if (!raw)
        return "unknown";
    const std::string own = probability(std::min(1.0, factor * *raw));
    const std::string family = adjusted ? probability(std::min(1.0, factor * *adjusted)) : own;
    return family == own ? own : own + ", in its family " + family;
}

std::string chances(const Claim& claim, const std::string& margin) {
    return "By luck alone: " + inFamily(claim.p, claim.pAdjusted) + ". No more than " + margin +
           " (doubled): " + inFamily(claim.pWorthwhile, claim.pWorthwhileAdjusted, 2) + ". At least " + margin + ": " +
           inFamily(claim.pSame, claim.pSameAdjusted) + ".";
}

std::string degrees(double df) {
    return record::fixed(df, std::fabs(df - std::round(df)) < 0.05 ? 0 : 1) + " degrees of freedom";
}

template<typename Row, typename Matches> const Row* find(const std::vector<Row>& rows, Matches matches) {
    const auto at = std::ranges::find_if(rows, matches);
    return at == rows.end() ? nullptr : &*at;
}

std::string howFound(const AverageGap& row) {
    const std::string laps = record::counted(row.rounds, "lap");
    switch (row.method) {
    case GapMethod::welch:
        return "single shots (Welch's t)";
    case GapMethod::rounds:
        return "differences of " + laps + " (paired t)";
    case GapMethod::line:
        return "stints along a common line, since the order was the same in nearly every lap";
    case GapMethod::equal:
        return "differences of " + laps + " less what the delivery explains (paired t with the slopes' own error)";
    case GapMethod::typical:
        return "differences of " + laps + " between typical shots (Huber's location, paired t)";
    }
    return {};
}

void ofGap(std::vector<std::string>& text, const AverageGap& row, const std::string& gap, const std::string& se,
           const std::string& margin) {
    const std::string how = howFound(row);
    if (!row.se) {
        text.push_back("Gap " + gap + " from " + how + "; its error is not known.");
        return;
    }
    text.push_back("Gap " + gap + " from " + how + ", standard error " + se + " on " + degrees(*row.df) + ".");
    text.push_back(chances(row.claim, margin));
    if (row.shuffle)
        text.push_back("Shuffled as it was struck, luck gives at least this gap " + probability(row.shuffle->p) +
                       " of the time" + (row.shuffle->exact ? " (every way counted)." : "."));
}

void ofAverage(std::vector<std::string>& text, const AverageGap& row, const record::DisplayUnits& units) {
    const MetricFormat format = MetricFormat(row.metric, units).supportedBy(row.se.value_or(0) / 10);
    ofGap(text, row, format.withUnit(row.gap), format.withUnit(row.se.value_or(0)),
          MetricFormat(row.metric, units).withUnit(row.margin));
    if (const auto* median = std::get_if<MedianGap>(&row.opinion))
        text.push_back(
            "Median of the laps " + format.withUnit(median->median) +
            (median->interval ? " (" + format.range(median->interval->low, median->interval->high) + ")." : "."));
    if (const auto* yuen = std::get_if<YuenTest>(&row.opinion))
        text.push_back("Without the outer fifths the gap is " + format.withUnit(yuen->gap) + ", by luck " +
                       probability(yuen->p) + ".");
    if (row.varShot)
        text.push_back("Shots inside a stint vary by " + format.withUnit(std::sqrt(*row.varShot)) + ", stints by " +
                       format.withUnit(std::sqrt(row.varTurn.value_or(0))) + ".");
}

template<typename Row>
void ofRatio(std::vector<std::string>& text, const Row& row, double logCentre, const char* how, double margin) {
    text.push_back("Ratio " + record::fixed(row.ratio, 3) + " from what varies inside stints (" + how + ")" +
                   (row.logSe ? "; its logarithm " + record::fixed(logCentre, 3) + ", standard error " +
                                    record::fixed(*row.logSe, 3) + " on " + degrees(*row.df) + "."
                              : "; its error is not known."));
    if (row.logSe)
        text.push_back(chances(row.claim, record::fixed(margin, 2) + " times"));
}

// The level of the look that a pair is at: all its rows share it.
double levelOf(const Reading& reading, const LedgerLine& line) {
    const auto* row = find(
        reading.average, [&](const AverageGap& gap) { return gap.build == line.build && gap.against == line.against; });
    return row == nullptr ? reading.level : row->claim.level;
}

} // namespace

std::vector<std::string> arithmetic(const Reading& reading, const LedgerLine& line, const record::DisplayUnits& units) {
    std::vector<std::string> text;
    auto isPair = [&](const auto& row) { return row.build == line.build && row.against == line.against; };
    auto isRow = [&](const auto& row) { return isPair(row) && row.metric == line.outcome.metric; };
    switch (line.outcome.kind) {
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical:
        if (const auto* row = find(reading.average,
                                   [&](const AverageGap& gap) { return isRow(gap) && gap.kind == line.outcome.kind; }))
            ofAverage(text, *row, units);
        break;
    case OutcomeKind::spread:
        if (const auto* row = find(reading.consistency, isRow))
            ofRatio(text, *row, row->logCentre.value_or(0),
                    row->method == SpreadMethod::distance
                        ? "average distance from the stint's middle, jackknife over stints"
                        : "Bonett",
                    reading.card.sdRatioMargin);
        break;
    case OutcomeKind::area:
        if (const auto* row = find(reading.areas, isPair)) {
            ofRatio(text, *row, std::log(row->ratio), "jackknife over stints", reading.card.areaRatioMargin);
            if (row->shuffleP)
                text.push_back("With the stints dealt anew, luck gives at least this ratio " +
                               probability(*row->shuffleP) + " of the time.");
        }
        break;
    case OutcomeKind::share:
        for (const ShareGap& share : reading.shareGaps)
            if (share.shape == line.outcome.shape && isPair(share.gap))
                ofGap(text, share.gap, record::fixed(100 * share.gap.gap, 1) + " %",
                      record::fixed(100 * share.gap.se.value_or(0), 1) + " %", "10 %");
        break;
    }
    if (reading.card.looks != record::Looks::none)
        text.push_back("At this look a claim needs less than " + probability(levelOf(reading, line)) + ".");
    return text;
}

} // namespace knot::words
