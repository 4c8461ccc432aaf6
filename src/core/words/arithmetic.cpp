#include "core/words/ledger.h"

#include "core/record/text/number_text.h"

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
        return "from single shots (Welch's t)";
    case GapMethod::rounds:
        return "from differences of " + laps + " (paired t)";
    case GapMethod::line:
        return "from stints along a common line, since the order was the same in nearly every lap";
    case GapMethod::equal:
        return "from differences of " + laps + " less what the delivery explains (paired t with the slopes' own error)";
    case GapMethod::days:
        return "from the gaps of the sittings, which disagree (t on sittings − 1)";
    case GapMethod::typical:
        return "from differences of " + laps + " between typical shots (Huber's location, paired t)";
    }
    return {};
}

/// The table while it is filled.
class Table {
public:
    void add(const std::string& what, const std::string& value, const std::string& how = {}) {
        m_steps.push_back({what, value, how});
    }

    void chances(const Claim& claim, const std::string& margin) {
        add("By luck alone", inFamily(claim.p, claim.pAdjusted));
        add("No more than " + margin, inFamily(claim.pWorthwhile, claim.pWorthwhileAdjusted, 2),
            "doubled, since it is judged at half the level");
        add("At least " + margin, inFamily(claim.pSame, claim.pSameAdjusted));
    }

    void gap(const AverageGap& row, const std::string& gap, const std::string& se, const std::string& margin) {
        add("Gap", gap, howFound(row));
        if (!row.se)
            return add("Standard error", "not known");
        add("Standard error", se, "on " + degrees(*row.df));
        chances(row.claim, margin);
        if (row.shuffle)
            add("Shuffled as it was struck", probability(row.shuffle->p),
                std::string("how often luck gives at least this gap") +
                    (row.shuffle->exact ? ", every way counted" : ""));
    }

    void average(const AverageGap& row, const record::DisplayUnits& units) {
        const MetricFormat format = MetricFormat(row.metric, units).supportedBy(row.se.value_or(0) / 10);
        gap(row, format.withUnit(row.gap), format.withUnit(row.se.value_or(0)),
            MetricFormat(row.metric, units).withUnit(row.margin));
        if (const auto* median = std::get_if<MedianGap>(&row.opinion))
            add("Median of the laps", format.withUnit(median->median),
                median->interval ? format.range(median->interval->low, median->interval->high) : "");
        if (const auto* yuen = std::get_if<YuenTest>(&row.opinion))
            add("Without the outer fifths", format.withUnit(yuen->gap), "by luck " + probability(yuen->p));
        if (!row.varShot)
            return;
        add("Shots inside a stint vary by", format.withUnit(std::sqrt(*row.varShot)));
        add("Stints vary by", format.withUnit(std::sqrt(row.varTurn.value_or(0))));
    }

    template<typename Row> void ratio(const Row& row, double logCentre, const char* how, double margin) {
        add("Ratio", record::fixed(row.ratio, 3), std::string("of what varies inside stints (") + how + ")");
        if (!row.logSe)
            return add("Standard error", "not known");
        add("Its logarithm", record::fixed(logCentre, 3));
        add("Standard error", record::fixed(*row.logSe, 3), "on " + degrees(*row.df));
        chances(row.claim, record::fixed(margin, 2) + " times");
    }

    std::vector<ArithmeticStep> steps() && { return std::move(m_steps); }

private:
    std::vector<ArithmeticStep> m_steps;
};

// The level of the look that a pair is at: all its rows share it.
double levelOf(const Reading& reading, const LedgerLine& line) {
    const auto* row = find(
        reading.average, [&](const AverageGap& gap) { return gap.build == line.build && gap.against == line.against; });
    return row == nullptr ? reading.level : row->claim.level;
}

} // namespace

std::vector<ArithmeticStep> arithmetic(const Reading& reading, const LedgerLine& line,
                                       const record::DisplayUnits& units) {
    Table table;
    auto isPair = [&](const auto& row) { return row.build == line.build && row.against == line.against; };
    auto isRow = [&](const auto& row) { return isPair(row) && row.metric == line.outcome.metric; };
    switch (line.outcome.kind) {
    case OutcomeKind::average:
    case OutcomeKind::equal:
    case OutcomeKind::typical:
        if (const auto* row = find(reading.average,
                                   [&](const AverageGap& gap) { return isRow(gap) && gap.kind == line.outcome.kind; }))
            table.average(*row, units);
        break;
    case OutcomeKind::spread:
        if (const auto* row = find(reading.consistency, isRow))
            table.ratio(*row, row->logCentre.value_or(0),
                        row->method == SpreadMethod::distance
                            ? "average distance from the stint's middle, jackknife over stints"
                            : "Bonett",
                        reading.card.sdRatioMargin);
        break;
    case OutcomeKind::area:
        if (const auto* row = find(reading.areas, isPair)) {
            table.ratio(*row, std::log(row->ratio), "jackknife over stints", reading.card.areaRatioMargin);
            if (row->shuffleP)
                table.add("With the stints dealt anew", probability(*row->shuffleP),
                          "how often luck gives at least this ratio");
        }
        break;
    case OutcomeKind::share:
        for (const ShareGap& share : reading.shareGaps)
            if (share.shape == line.outcome.shape && isPair(share.gap))
                table.gap(share.gap, record::fixed(100 * share.gap.gap, 1) + " %",
                          record::fixed(100 * share.gap.se.value_or(0), 1) + " %", "10 %");
        break;
    }
    if (reading.card.looks != record::Looks::none)
        table.add("A claim needs less than", probability(levelOf(reading, line)), "at this look");
    return std::move(table).steps();
}

} // namespace knot::words
