#include "core/rack/starting.h"

#include "core/rack/table_text.h"
#include "core/record/text/number_text.h"
#include "core/record/text/table.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace knot::embedded {
extern const std::string_view startSpeedTable; // data/start_speed.csv
extern const std::string_view startTempoTable; // data/start_tempo.csv
extern const std::string_view startIronTable;  // data/start_iron.csv
extern const std::string_view startWedgeTable; // data/start_wedge.csv
extern const std::string_view startBodyTable;  // data/start_body.csv
} // namespace knot::embedded

namespace knot::rack {
namespace {

std::vector<SpeedRow> speedRows(std::string_view table) {
    std::vector<SpeedRow> rows;
    for (const auto& row : record::tableRows(table, 5))
        rows.push_back({record::tableNumber(row[0]),
                        record::tableNumber(row[1]),
                        {record::tableNumber(row[2]), record::tableNumber(row[3]), row[4]}});
    return rows;
}

} // namespace

const StartingTables& usualStartingTables() {
    static const StartingTables tables = [] {
        StartingTables made;
        made.speed = speedRows(embedded::startSpeedTable);
        made.iron = speedRows(embedded::startIronTable);
        made.wedge = speedRows(embedded::startWedgeTable);
        for (const auto& row : record::tableRows(embedded::startBodyTable, 6))
            made.body.push_back({row[0], record::tableNumber(row[1]), record::tableNumber(row[2]),
                                 record::tableNumber(row[3]), record::tableNumber(row[4]), row[5]});
        for (const auto& row : record::tableRows(embedded::startTempoTable, 3))
            made.tempo.push_back({row[0], record::tableNumber(row[1]), static_cast<int>(record::tableNumber(row[2]))});
        return made;
    }();
    return tables;
}

std::string speedTableText(const std::vector<SpeedRow>& rows) {
    std::string text;
    for (const auto& row : rows)
        text += tableLine({tableFigure(row.fromSpeed), tableFigure(row.toSpeed), tableFigure(row.bracket.fromGrams),
                           tableFigure(row.bracket.toGrams), row.bracket.flex});
    return text;
}

std::optional<std::vector<SpeedRow>> speedTableFrom(const std::string& text, std::string& reason) {
    std::vector<SpeedRow> rows;
    const bool taken = eachTableLine(text, reason, [&](const std::vector<std::string>& cells) -> std::string {
        if (cells.size() != 5)
            return "expected speed from, to, grams from, to and a flex, with commas between.";
        std::array<double, 4> numbers{};
        for (std::size_t i = 0; i < numbers.size(); ++i) {
            const auto number = record::numberIn(cells[i]);
            if (!number || *number < 0)
                return "'" + cells[i] + "' is not a number from 0 on.";
            numbers[i] = *number;
        }
        if (!(numbers[0] < numbers[1]) || numbers[2] > numbers[3])
            return "both ranges go from low to high.";
        rows.push_back({numbers[0], numbers[1], {numbers[2], numbers[3], cells[4]}});
        return {};
    });
    return taken ? std::optional(rows) : std::nullopt;
}

std::string tempoTableText(const std::vector<TempoRow>& rows) {
    std::string text;
    for (const auto& row : rows) {
        text += tableLine({row.transition, tableFigure(row.grams), std::to_string(row.flexSteps)});
    }
    return text;
}

std::optional<std::vector<TempoRow>> tempoTableFrom(const std::string& text, std::string& reason) {
    std::vector<TempoRow> rows;
    const bool taken = eachTableLine(text, reason, [&](const std::vector<std::string>& cells) -> std::string {
        if (cells.size() != 3 || cells[0].empty())
            return "expected a word, grams and flex steps, with commas between.";
        const auto grams = record::numberIn(cells[1]);
        const auto steps = record::numberIn(cells[2]);
        if (!grams || !steps || *steps != static_cast<int>(*steps))
            return "grams are a number and flex steps a whole one.";
        rows.push_back({cells[0], *grams, static_cast<int>(*steps)});
        return {};
    });
    return taken ? std::optional(rows) : std::nullopt;
}

std::string bodyTableText(const std::vector<BodyRow>& rows) {
    std::string text;
    for (const auto& row : rows)
        text += tableLine({row.what, tableFigure(row.from), tableFigure(row.to), tableFigure(row.low),
                           tableFigure(row.high), row.word});
    return text;
}

std::optional<std::vector<BodyRow>> bodyTableFrom(const std::string& text, std::string& reason) {
    std::vector<BodyRow> rows;
    const bool taken = eachTableLine(text, reason, [&](const std::vector<std::string>& cells) -> std::string {
        if (cells.size() != 6 || (cells[0] != "height" && cells[0] != "wrist" && cells[0] != "hand"))
            return "expected height, wrist or hand, from, to, low, high and a word, with commas between.";
        std::array<double, 4> numbers{};
        for (std::size_t i = 0; i < numbers.size(); ++i) {
            const auto number = record::numberIn(cells[i + 1]);
            if (!number)
                return "'" + cells[i + 1] + "' is not a number.";
            numbers[i] = *number;
        }
        if (!(numbers[0] < numbers[1]) || numbers[2] > numbers[3])
            return "both ranges go from low to high.";
        rows.push_back({cells[0], numbers[0], numbers[1], numbers[2], numbers[3], cells[5]});
        return {};
    });
    return taken ? std::optional(rows) : std::nullopt;
}

std::optional<Bracket> bySpeed(const std::vector<SpeedRow>& rows, double speed) {
    for (const auto& row : rows)
        if (speed >= row.fromSpeed && speed < row.toSpeed)
            return row.bracket;
    return std::nullopt;
}

std::optional<Bracket> bySpeedAndTempo(const std::vector<SpeedRow>& rows, const std::vector<TempoRow>& tempo,
                                       double speed, const std::string& words) {
    auto bracket = bySpeed(rows, speed);
    if (!bracket)
        return std::nullopt;
    const TempoRow* chosen = nullptr;
    std::size_t first = std::string::npos;
    for (const auto& row : tempo)
        if (const auto at = words.find(row.transition); at < first) {
            first = at;
            chosen = &row;
        }
    if (chosen == nullptr)
        return bracket;
    bracket->fromGrams += chosen->grams;
    bracket->toGrams += chosen->grams;
    const auto own = std::ranges::find(rows, bracket->flex, [](const SpeedRow& r) { return r.bracket.flex; });
    const auto place = std::clamp<std::ptrdiff_t>(own - rows.begin() + chosen->flexSteps, 0,
                                                  static_cast<std::ptrdiff_t>(rows.size()) - 1);
    bracket->flex = rows[static_cast<std::size_t>(place)].bracket.flex;
    return bracket;
}

namespace {

const BodyRow* rowOf(const std::vector<BodyRow>& rows, std::string_view what, double size) {
    const auto at = std::ranges::find_if(
        rows, [&](const BodyRow& row) { return row.what == what && size >= row.from && size < row.to; });
    return at == rows.end() ? nullptr : &*at;
}

} // namespace

std::optional<Range> lengthFor(const std::vector<BodyRow>& rows, std::optional<double> height,
                               std::optional<double> wristToFloor) {
    std::optional<Range> range;
    for (const auto& [what, size] : {std::pair("height", height), std::pair("wrist", wristToFloor)})
        if (const BodyRow* row = size ? rowOf(rows, what, *size) : nullptr)
            range = range ? Range{std::min(range->low, row->low), std::max(range->high, row->high)}
                          : Range{row->low, row->high};
    return range;
}

std::string gripFor(const std::vector<BodyRow>& rows, double hand) {
    const BodyRow* row = rowOf(rows, "hand", hand);
    return row == nullptr ? std::string() : row->word;
}

} // namespace knot::rack
