#include "files/import/tables_apart.h"

#include <algorithm>
#include <set>

namespace knot::files {
namespace {

constexpr std::size_t mostTurned = 400; // shots that stand beside each other in a table a shot a column

Sheet part(const Sheet& sheet, std::size_t firstRow, std::size_t endRow, std::size_t firstColumn,
           std::size_t endColumn) {
    Sheet taken;
    taken.name = sheet.name;
    for (std::size_t row = firstRow; row < endRow; ++row) {
        for (std::size_t i = firstColumn; i < std::min(endColumn, sheet.columns(row)); ++i)
            taken.addCell(sheet.cell(row, i));
        taken.endRow(sheet.line(row));
    }
    return taken;
}

Sheet turned(const Sheet& sheet) {
    std::size_t widest = 0;
    for (std::size_t row = 0; row < sheet.rows(); ++row)
        widest = std::max(widest, sheet.columns(row));
    Sheet other;
    other.name = sheet.name;
    for (std::size_t column = 0; column < widest; ++column) {
        for (std::size_t row = 0; row < sheet.rows(); ++row)
            other.addCell(sheet.cell(row, column));
        other.endRow(column + 1);
    }
    return other;
}

// Few rows, and their first cells are headings.
bool isTurned(const Sheet& sheet, const std::optional<TableAt>& table, const HeadingMap& map) {
    constexpr std::size_t mostRowsTurned = 80;
    if (sheet.rows() < 3 || sheet.rows() > mostRowsTurned || (table && table->understood > 1))
        return false;
    for (std::size_t row = 0; row < sheet.rows(); ++row)
        if (sheet.columns(row) > mostTurned)
            return false;
    const auto other = findTable(turned(sheet), map);
    return other && other->understood > 1 && other->understood > (table ? table->understood : 0);
}

// "Carry average [m]", "Avg. Spin": of what no shot has.
bool areOfAverages(const std::vector<std::string>& headings) {
    const auto& vocabulary = Vocabulary::own();
    return std::ranges::count_if(headings, [&](const std::string& heading) {
               std::string words;
               for (const auto& word : vocabulary.wordsOf(heading).words)
                   words += (words.empty() ? "" : " ") + word;
               return vocabulary.isSummary(words, Vocabulary::LabelIn::anyText);
           }) > 1;
}

// Rows that are headings again, with other columns.
std::vector<std::size_t> headingRows(const Sheet& sheet, const TableAt& table, const HeadingMap& map) {
    std::vector<std::size_t> rows{table.heading};
    std::vector<std::string> last = table.headings;
    constexpr std::size_t fewestHeadings = 3;
    for (std::size_t row = table.first; row < sheet.rows(); ++row) {
        if (filledCells(sheet, row) < fewestHeadings || hasNumber(sheet, row))
            continue;
        std::vector<std::string> headings;
        for (std::size_t i = 0; i < sheet.columns(row); ++i)
            headings.emplace_back(sheet.cell(row, i));
        while (!headings.empty() && headings.back().empty())
            headings.pop_back();
        if (headings != last && (metricsAmong(headings, map) > 1 || areOfAverages(headings))) {
            rows.push_back(row);
            last = std::move(headings);
        }
    }
    return rows;
}

// The first row of what is said above a heading row: titles follow the table before.
std::size_t titlesFrom(const Sheet& sheet, std::size_t heading, std::size_t least) {
    std::size_t from = heading;
    while (from > least && !hasReading(sheet, from - 1))
        --from;
    return from;
}

// Where a blank column parts headings that come again.
std::vector<std::pair<std::size_t, std::size_t>> blocksOf(const TableAt& table, const HeadingMap& map) {
    std::vector<std::pair<std::size_t, std::size_t>> blocks;
    std::size_t begin = 0;
    for (std::size_t i = 0; i <= table.headings.size(); ++i)
        if (i == table.headings.size() || table.headings[i].empty()) {
            if (i > begin)
                blocks.emplace_back(begin, i);
            begin = i + 1;
        }
    if (blocks.size() < 2)
        return {};
    const auto& [from, to] = blocks.front();
    const std::set<std::string> first(table.headings.begin() + static_cast<std::ptrdiff_t>(from),
                                      table.headings.begin() + static_cast<std::ptrdiff_t>(to));
    for (const auto& [begins, ends] : blocks) {
        std::vector<std::string> mine(table.headings.begin() + static_cast<std::ptrdiff_t>(begins),
                                      table.headings.begin() + static_cast<std::ptrdiff_t>(ends));
        const auto again = std::ranges::count_if(mine, [&](const auto& heading) { return first.contains(heading); });
        if (metricsAmong(mine, map) < 1 || 2 * static_cast<std::size_t>(again) <= mine.size())
            return {};
    }
    return blocks;
}

} // namespace

TablesApart tablesApart(const Sheet& sheet, const HeadingMap& map) {
    TablesApart apart;
    const auto table = findTable(sheet, map);
    if (isTurned(sheet, table, map)) {
        apart.tables.push_back(turned(sheet));
        return apart;
    }
    if (!table || table->understood == 0)
        return apart;
    if (const auto blocks = blocksOf(*table, map); !blocks.empty()) {
        for (const auto& [from, to] : blocks)
            apart.tables.push_back(part(sheet, 0, sheet.rows(), from, to));
        return apart;
    }
    const auto rows = headingRows(sheet, *table, map);
    if (rows.size() < 2)
        return apart;
    std::size_t from = 0;
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const std::size_t end = i + 1 < rows.size() ? titlesFrom(sheet, rows[i + 1], rows[i] + 1) : sheet.rows();
        std::vector<std::string> headings;
        for (std::size_t column = 0; column < sheet.columns(rows[i]); ++column)
            headings.emplace_back(sheet.cell(rows[i], column));
        if (areOfAverages(headings))
            ++apart.averages;
        else
            apart.tables.push_back(part(sheet, from, end, 0, mostColumns));
        from = end;
    }
    return apart;
}

} // namespace knot::files
