#include "files/import/table.h"

#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/base/cell_text.h"
#include "files/import/cells/cell_number.h"
#include "files/import/headings/vocabulary.h"

#include <algorithm>
#include <cctype>

namespace knot::files {
namespace {

constexpr std::size_t farthestHeading = 60; // rows looked at
constexpr std::size_t widestLooked = 200;   // columns of them
constexpr double surelyKnown = 0.8;

bool mayBeHeading(std::string_view cell) {
    return !cell.empty() && cell.size() <= 60 && std::ranges::any_of(cell, [](char c) {
        return std::isalpha(static_cast<unsigned char>(c)) != 0 || c == '#' || (c & 0x80) != 0;
    });
}

std::vector<Candidate> candidatesOf(const std::string& heading, const HeadingMap& map) {
    const auto mapped = map.find(heading);
    const auto words = Vocabulary::own().wordsOf(mapped == map.end() ? heading : mapped->second);
    return Vocabulary::own().candidatesFor(words);
}

struct Known {
    std::size_t metrics = 0, all = 0;
};

} // namespace

bool isUnitRow(const Sheet& sheet, std::size_t row) {
    bool any = false;
    for (std::size_t i = 0; i < sheet.columns(row); ++i) {
        const auto cell = sheet.cell(row, i);
        if (cell.empty() || cell == "-")
            continue;
        if (!Vocabulary::own().unitNamed(cell))
            return false;
        any = true;
    }
    return any;
}

bool isNumber(std::string_view cell) {
    return !mayBeHeading(cell) || Vocabulary::own().isMissing(cell) || numberOfCell(cell, record::DecimalMark::open);
}

std::size_t filledCells(const Sheet& sheet, std::size_t row) {
    std::size_t filled = 0;
    for (std::size_t i = 0; i < sheet.columns(row); ++i)
        filled += sheet.cell(row, i).empty() ? 0 : 1;
    return filled;
}

namespace {

Known knownAmong(const std::vector<std::string>& headings, const HeadingMap& map) {
    Known known;
    for (const auto& heading : headings) {
        if (!mayBeHeading(heading))
            continue;
        const auto candidates = candidatesOf(heading, map);
        if (candidates.empty() || candidates.front().score < surelyKnown)
            continue;
        ++known.all;
        if (std::ranges::any_of(candidates, [](const Candidate& c) { return c.meaning.role == ColumnRole::metric; }))
            ++known.metrics;
    }
    return known;
}

std::string onOneLine(std::string text) {
    std::ranges::replace(text, '\n', ' ');
    return text;
}

std::string headingCell(const Sheet& sheet, std::size_t row, std::size_t column) {
    return onOneLine(record::printable(fromCell(std::string(sheet.cell(row, column)))));
}

// "Speed" under "Ball (m/s)" is "Ball Speed (m/s)", and "Carry" under "Metres (m)" is "Carry (m)": the first of
// these that is known as well as the heading alone, and as shortly as it is known.
std::string underGroup(const std::string& group, const std::string& heading, const HeadingMap& map) {
    const std::size_t open = group.find_last_of("([");
    const bool endsWithUnit = open != std::string::npos && (group.back() == ')' || group.back() == ']');
    const bool hasUnit = heading.find_first_of("([") != std::string::npos;
    const std::string name(record::trimmed(std::string_view(group).substr(0, endsWithUnit ? open : group.size())));
    const std::string unit = endsWithUnit && !hasUnit ? " " + group.substr(open) : std::string();
    const auto alone = candidatesOf(heading + unit, map);
    const auto whole = candidatesOf(name + " " + heading + unit, map);
    const double sure = alone.empty() ? 0 : alone.front().score;
    const bool isTheSame =
        sure >= surelyKnown && !whole.empty() && whole.front().meaning.holdsSameAs(alone.front().meaning);
    const bool saysMore = !whole.empty() && !isTheSame && whole.front().score >= std::min(sure, surelyKnown);
    return saysMore ? name + " " + heading + unit : heading + unit;
}

// The headings of a row. Under a row of groups each takes what it is of along, where that says more.
std::vector<std::string> headingsIn(const Sheet& sheet, std::size_t row, std::optional<std::size_t> groups,
                                    const HeadingMap& map) {
    std::vector<std::string> headings;
    std::string group;
    const std::size_t columns = std::max(sheet.columns(row), groups ? sheet.columns(*groups) : 0);
    for (std::size_t i = 0; i < columns; ++i) {
        headings.push_back(headingCell(sheet, row, i));
        if (!groups)
            continue;
        const std::string over = headingCell(sheet, *groups, i);
        group = over.empty() ? group : over;
        if (headings.back().empty()) {
            headings.back() = over;
        } else if (!group.empty()) {
            headings.back() = underGroup(group, headings.back(), map);
        }
    }
    return headings;
}

} // namespace

std::size_t metricsAmong(const std::vector<std::string>& headings, const HeadingMap& map) {
    return knownAmong(headings, map).metrics;
}

bool hasNumber(const Sheet& sheet, std::size_t row) {
    for (std::size_t i = 0; i < sheet.columns(row); ++i)
        if (const auto cell = sheet.cell(row, i); !cell.empty() && isNumber(cell))
            return true;
    return false;
}

bool hasReading(const Sheet& sheet, std::size_t row) {
    std::size_t numbers = 0;
    for (std::size_t i = 0; i < sheet.columns(row); ++i)
        if (const auto cell = sheet.cell(row, i); !cell.empty() && isNumber(cell))
            ++numbers;
    return numbers > 1;
}

namespace {

// "Player: Runa Veld", or the two in cells beside each other.
std::optional<std::pair<std::string, std::string>> saidAbove(const Sheet& sheet, std::size_t row) {
    std::vector<std::string> filled;
    for (std::size_t i = 0; i < sheet.columns(row); ++i)
        if (const auto cell = sheet.cell(row, i); !cell.empty())
            filled.emplace_back(cell);
    if (filled.size() == 1)
        if (const auto colon = filled.front().find(':'); colon != std::string::npos && colon > 0) {
            const std::string whole = filled.front();
            filled = {whole.substr(0, colon), std::string(record::trimmed(std::string_view(whole).substr(colon + 1)))};
        }
    if (filled.size() != 2)
        return std::nullopt;
    std::string name = filled.front();
    if (name.ends_with(':'))
        name.pop_back();
    if (Vocabulary::own().isPlace(name))
        return std::pair(std::string(placeKey), record::printable(filled.back()));
    const auto candidates = Vocabulary::own().candidatesFor(Vocabulary::own().wordsOf(name));
    if (candidates.empty() || candidates.front().score < surelyKnown ||
        candidates.front().meaning.role == ColumnRole::metric)
        return std::nullopt;
    const std::string key = canonicalName(candidates.front().meaning);
    return key.empty() ? std::nullopt : std::optional(std::pair(key, record::printable(filled.back())));
}

} // namespace

std::string firstFilledCell(const Sheet& sheet, std::size_t row) {
    for (std::size_t i = 0; i < sheet.columns(row); ++i)
        if (const auto cell = sheet.cell(row, i); !cell.empty())
            return std::string(cell);
    return {};
}

namespace {

// The row in which most headings are known; the first row with anything in it where none is.
struct HeadingRow {
    std::optional<std::size_t> row, groups, firstFilled;
    Known known;
};

// Whether one name of the row above is for more than one heading: else it is a row of headings itself.
bool spreadsOver(const Sheet& sheet, std::size_t row) {
    std::string_view group;
    for (std::size_t i = 0; i < sheet.columns(row); ++i) {
        const auto over = sheet.cell(row - 1, i);
        const bool goesOn = !group.empty() && (over.empty() || over == group);
        if (goesOn && !sheet.cell(row, i).empty())
            return true;
        group = over.empty() ? group : over;
    }
    return false;
}

// Whether the row above holds names of groups: more is known with it than without.
bool standsUnderGroups(const Sheet& sheet, std::size_t row, const Known& alone, const HeadingMap& map) {
    if (row == 0 || filledCells(sheet, row - 1) < 2 || hasNumber(sheet, row - 1) || hasNumber(sheet, row) ||
        !spreadsOver(sheet, row))
        return false;
    return knownAmong(headingsIn(sheet, row, row - 1, map), map).metrics > alone.metrics;
}

HeadingRow headingRow(const Sheet& sheet, const HeadingMap& map) {
    HeadingRow found;
    std::size_t looked = 0;
    for (std::size_t row = 0; row < sheet.rows() && looked < farthestHeading; ++row) {
        if (sheet.isBlank(row))
            continue;
        ++looked;
        if (!found.firstFilled)
            found.firstFilled = row;
        auto headings = headingsIn(sheet, row, std::nullopt, map);
        headings.resize(std::min(headings.size(), widestLooked));
        const Known known = knownAmong(headings, map);
        if (known.metrics > 0 && known.all > found.known.all) {
            found.known = known;
            found.row = row;
        }
    }
    // Under groups nothing may be known by itself ("Speed"), so the rows under the first few are tried too.
    const std::size_t last = std::min<std::size_t>(sheet.rows(), found.row ? *found.row + 2 : farthestHeading);
    for (std::size_t row = found.row.value_or(1); row < last && sheet.columns(row) <= widestLooked; ++row)
        if (standsUnderGroups(sheet, row, found.known, map)) {
            found.row = row;
            found.groups = row - 1;
            found.known = knownAmong(headingsIn(sheet, row, row - 1, map), map);
        }
    return found;
}

void readAbove(const Sheet& sheet, std::size_t from, TableAt& table) {
    for (std::size_t row = from; row < table.groups.value_or(table.heading); ++row)
        if (sheet.isBlank(row)) {
            continue;
        } else if (const auto said = saidAbove(sheet, row)) {
            table.above.insert(*said);
        } else {
            ++table.titleRows;
            table.lastTitle = filledCells(sheet, row) == 1 ? firstFilledCell(sheet, row) : std::string();
        }
}

bool isBlankBelow(const Sheet& sheet, std::size_t heading, std::size_t column) {
    for (std::size_t row = heading + 1; row < sheet.rows(); ++row)
        if (!sheet.cell(row, column).empty())
            return false;
    return true;
}

} // namespace

std::optional<TableAt> findTable(const Sheet& sheet, const HeadingMap& map) {
    const HeadingRow found = headingRow(sheet, map);
    if (!found.firstFilled)
        return std::nullopt;
    TableAt table{
        .heading = found.row.value_or(*found.firstFilled), .groups = found.groups, .understood = found.known.metrics};
    table.headings = headingsIn(sheet, table.heading, table.groups, map);
    // Trailing delimiters are common; a column without a heading that holds something is one all the same.
    while (!table.headings.empty() && table.headings.back().empty() &&
           isBlankBelow(sheet, table.heading, table.headings.size() - 1))
        table.headings.pop_back();
    readAbove(sheet, *found.firstFilled, table);
    table.first = table.heading + 1;
    std::size_t under = table.first;
    while (under < sheet.rows() && sheet.isBlank(under))
        ++under;
    if (under < sheet.rows() && isUnitRow(sheet, under)) {
        table.units = under;
        table.first = under + 1;
    }
    return table;
}

} // namespace knot::files
