#include "core/rack/starting.h"

#include "core/record/number_text.h"
#include "core/record/table.h"

#include <algorithm>
#include <string_view>

namespace knot::embedded {
extern const std::string_view startSpeedTable; // data/start_speed.csv
extern const std::string_view startTempoTable; // data/start_tempo.csv
} // namespace knot::embedded

namespace knot::rack {
namespace {

std::vector<std::string> cellsOf(const std::string& line) {
    std::vector<std::string> cells(1);
    for (const char c : line) {
        if (c == ',')
            cells.emplace_back();
        else if (c != ' ' || !cells.back().empty())
            cells.back() += c;
    }
    return cells;
}

// Calls `take` with the cells of each line that is not empty; the first refusal ends it.
template<typename Take> bool eachLine(const std::string& text, std::string& reason, Take take) {
    std::size_t number = 0;
    for (std::size_t from = 0; from < text.size();) {
        const auto end = std::min(text.find('\n', from), text.size());
        const std::string line = text.substr(from, end - from);
        from = end + 1;
        ++number;
        if (line.find_first_not_of(" \t\r") == std::string::npos)
            continue;
        if (std::string why = take(cellsOf(line)); !why.empty()) {
            reason = "Line " + std::to_string(number) + ": " + why;
            return false;
        }
    }
    return true;
}

std::string joined(const std::vector<std::string>& cells) {
    std::string line;
    for (const auto& cell : cells)
        line += (line.empty() ? "" : ", ") + cell;
    return line + "\n";
}

std::string plain(double value) {
    return record::fixed(value, value == static_cast<int>(value) ? 0 : 1);
}

} // namespace

const StartingTables& usualStartingTables() {
    static const StartingTables tables = [] {
        StartingTables made;
        for (const auto& row : record::tableRows(embedded::startSpeedTable, 5))
            made.speed.push_back({record::tableNumber(row[0]),
                                  record::tableNumber(row[1]),
                                  {record::tableNumber(row[2]), record::tableNumber(row[3]), row[4]}});
        for (const auto& row : record::tableRows(embedded::startTempoTable, 3))
            made.tempo.push_back({row[0], record::tableNumber(row[1]), static_cast<int>(record::tableNumber(row[2]))});
        return made;
    }();
    return tables;
}

std::string speedTableText(const std::vector<SpeedRow>& rows) {
    std::string text;
    for (const auto& row : rows)
        text += joined({plain(row.fromSpeed), plain(row.toSpeed), plain(row.bracket.fromGrams),
                        plain(row.bracket.toGrams), row.bracket.flex});
    return text;
}

std::optional<std::vector<SpeedRow>> speedTableFrom(const std::string& text, std::string& reason) {
    std::vector<SpeedRow> rows;
    const bool taken = eachLine(text, reason, [&](const std::vector<std::string>& cells) -> std::string {
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
        std::string grams = plain(row.grams);
        if (row.grams < 0)
            grams = "-" + plain(-row.grams);
        text += joined({row.transition, grams, std::to_string(row.flexSteps)});
    }
    return text;
}

std::optional<std::vector<TempoRow>> tempoTableFrom(const std::string& text, std::string& reason) {
    std::vector<TempoRow> rows;
    const bool taken = eachLine(text, reason, [&](const std::vector<std::string>& cells) -> std::string {
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

std::optional<Bracket> bySpeed(const StartingTables& tables, double speed) {
    for (const auto& row : tables.speed)
        if (speed >= row.fromSpeed && speed < row.toSpeed)
            return row.bracket;
    return std::nullopt;
}

std::optional<Bracket> bySpeedAndTempo(const StartingTables& tables, double speed, const std::string& words) {
    auto bracket = bySpeed(tables, speed);
    if (!bracket)
        return std::nullopt;
    const TempoRow* chosen = nullptr;
    std::size_t first = std::string::npos;
    for (const auto& row : tables.tempo)
        if (const auto at = words.find(row.transition); at < first) {
            first = at;
            chosen = &row;
        }
    if (chosen == nullptr)
        return bracket;
    bracket->fromGrams += chosen->grams;
    bracket->toGrams += chosen->grams;
    const auto own = std::ranges::find(tables.speed, bracket->flex, [](const SpeedRow& r) { return r.bracket.flex; });
    const auto place = std::clamp<std::ptrdiff_t>(own - tables.speed.begin() + chosen->flexSteps, 0,
                                                  static_cast<std::ptrdiff_t>(tables.speed.size()) - 1);
    bracket->flex = tables.speed[static_cast<std::size_t>(place)].bracket.flex;
    return bracket;
}

} // namespace knot::rack
