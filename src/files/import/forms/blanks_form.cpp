// Columns that are set out with blanks, as terminals and mails have them.
#include "files/import/forms/text_forms.h"

#include <algorithm>
#include <map>

namespace knot::files {
namespace {

struct Line {
    std::string_view text;
    std::size_t number = 0;
};

std::vector<Line> linesOf(std::string_view text) {
    std::vector<Line> lines;
    std::size_t number = 0;
    for (std::size_t from = 0; from <= text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        auto line = text.substr(from, end - from);
        while (line.ends_with('\r') || line.ends_with(' '))
            line.remove_suffix(1);
        lines.push_back({line, ++number});
        from = end + 1;
    }
    while (!lines.empty() && lines.back().text.empty())
        lines.pop_back();
    return lines;
}

// Cells between runs of two blanks and more.
std::vector<std::string_view> byRuns(std::string_view line) {
    std::vector<std::string_view> cells;
    for (auto rest = record::trimmed(line); !rest.empty();) {
        const auto gap = rest.find("  ");
        cells.push_back(record::trimmed(rest.substr(0, gap)));
        rest = gap == std::string_view::npos ? std::string_view() : record::trimmed(rest.substr(gap));
    }
    return cells;
}

// Where each letter of a line begins: a letter may have several bytes.
std::vector<std::size_t> lettersOf(std::string_view line) {
    std::vector<std::size_t> at;
    for (std::size_t i = 0; i < line.size(); ++i)
        if ((static_cast<unsigned char>(line[i]) & 0xC0U) != 0x80U)
            at.push_back(i);
    return at;
}

// The places at which no line has a letter part the columns, where the gap is wide enough for the headings' own blanks.
std::optional<Sheet> byPlaces(const std::vector<Line>& lines, const std::vector<bool>& isOfTable) {
    std::vector<bool> used;
    const std::size_t headings = static_cast<std::size_t>(std::ranges::find(isOfTable, true) - isOfTable.begin());
    for (std::size_t at = 0; at < lines.size(); ++at) {
        if (!isOfTable[at])
            continue;
        const Line& line = lines[at];
        const auto letters = lettersOf(line.text);
        used.resize(std::max(used.size(), letters.size()));
        for (std::size_t i = 0; i < letters.size(); ++i)
            if (line.text[letters[i]] != ' ')
                used[i] = true;
    }
    // A single blank may stand within a heading, where the headings themselves are two apart.
    const bool isWide = byRuns(lines[headings].text).size() > 2;
    std::vector<std::size_t> begins;
    for (std::size_t i = 0; i < used.size(); ++i)
        if (used[i] && (i == 0 || (!used[i - 1] && (!isWide || i < 2 || !used[i - 2]))))
            begins.push_back(i);
    if (begins.size() < 3 || begins.size() > mostColumns)
        return std::nullopt;
    Sheet sheet;
    for (std::size_t at = 0; at < lines.size(); ++at) {
        const Line& line = lines[at];
        if (!isOfTable[at]) { // a title, a footer
            sheet.addCell(line.text);
            sheet.endRow(line.number);
            continue;
        }
        const auto letters = lettersOf(line.text);
        for (std::size_t k = 0; k < begins.size(); ++k) {
            const std::size_t end = k + 1 < begins.size() ? begins[k + 1] : letters.size();
            if (begins[k] >= letters.size()) {
                sheet.addCell("");
                continue;
            }
            const std::size_t from = letters[begins[k]];
            const std::size_t to = end < letters.size() ? letters[end] : line.text.size();
            sheet.addCell(line.text.substr(from, to - from));
        }
        sheet.endRow(line.number);
    }
    return sheet;
}

} // namespace

std::optional<Sheet> sheetOfBlanks(const std::string& text) {
    if (text.find('\t') != std::string::npos)
        return std::nullopt;
    auto lines = linesOf(text);
    if (lines.size() < 2 || lines.size() > mostRows)
        return std::nullopt;
    std::map<std::size_t, std::size_t> often; // lines with so many cells
    std::vector<std::vector<std::string_view>> cells;
    for (const Line& line : lines) {
        cells.push_back(byRuns(line.text));
        if (cells.back().size() > 2)
            ++often[cells.back().size()];
    }
    const auto most = std::ranges::max_element(often, {}, [](const auto& pair) { return pair.second; });
    if (most == often.end())
        return std::nullopt;
    std::size_t wide = 0;
    for (const auto& [size, count] : often)
        wide += count;
    // Where a cell is empty, or the headings have fewer or more, only the places tell.
    const auto headings = std::ranges::find_if(cells, [](const auto& line) { return line.size() > 2; });
    constexpr double nearlyAll = 0.95;
    if (headings->size() != most->first || static_cast<double>(most->second) < nearlyAll * static_cast<double>(wide)) {
        std::vector<bool> isOfTable;
        for (const auto& line : cells)
            isOfTable.push_back(line.size() > 2);
        return byPlaces(lines, isOfTable);
    }
    Sheet sheet;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (cells[i].size() > mostColumns)
            return std::nullopt;
        for (const auto cell : cells[i])
            sheet.addCell(cell);
        sheet.endRow(lines[i].number);
    }
    return sheet;
}

} // namespace knot::files
