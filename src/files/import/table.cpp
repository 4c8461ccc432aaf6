#include "files/import/table.h"

#include "core/record/text.h"
#include "files/cell_text.h"
#include "files/import/cell_number.h"
#include "files/import/vocabulary.h"

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

struct Known {
    std::size_t metrics = 0, all = 0;
};

Known knownIn(const Sheet& sheet, std::size_t row, const HeadingMap& map) {
    const auto& vocabulary = Vocabulary::own();
    Known known;
    for (std::size_t i = 0; i < std::min(sheet.columns(row), widestLooked); ++i) {
        const auto cell = sheet.cell(row, i);
        if (!mayBeHeading(cell))
            continue;
        const std::string heading(cell);
        const auto mapped = map.find(heading);
        const auto words = vocabulary.wordsOf(mapped == map.end() ? heading : mapped->second);
        const auto candidates = vocabulary.candidatesFor(words);
        if (candidates.empty() || candidates.front().score < surelyKnown)
            continue;
        ++known.all;
        if (std::ranges::any_of(candidates, [](const Candidate& c) { return c.meaning.role == ColumnRole::metric; }))
            ++known.metrics;
    }
    return known;
}

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

// A number, or what stands where one was not read: no club's name.
bool isNumber(std::string_view cell) {
    return !mayBeHeading(cell) || Vocabulary::own().isMissing(cell) || numberOfCell(cell, record::DecimalMark::open);
}

std::string onOneLine(std::string text) {
    std::ranges::replace(text, '\n', ' ');
    return text;
}

std::size_t filledCells(const Sheet& sheet, std::size_t row) {
    std::size_t filled = 0;
    for (std::size_t i = 0; i < sheet.columns(row); ++i)
        filled += sheet.cell(row, i).empty() ? 0 : 1;
    return filled;
}

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

std::optional<TableAt> findTable(const Sheet& sheet, const HeadingMap& map) {
    std::optional<std::size_t> heading;
    std::optional<std::size_t> firstFilled;
    Known best;
    std::size_t looked = 0;
    for (std::size_t row = 0; row < sheet.rows() && looked < farthestHeading; ++row) {
        if (sheet.isBlank(row))
            continue;
        ++looked;
        if (!firstFilled)
            firstFilled = row;
        const Known known = knownIn(sheet, row, map);
        if (known.metrics > 0 && known.all > best.all) {
            best = known;
            heading = row;
        }
    }
    if (!firstFilled)
        return std::nullopt;
    TableAt table{.heading = heading.value_or(*firstFilled), .understood = best.metrics};
    for (std::size_t i = 0; i < sheet.columns(table.heading); ++i)
        table.headings.push_back(onOneLine(record::printable(fromCell(std::string(sheet.cell(table.heading, i))))));
    while (!table.headings.empty() && table.headings.back().empty())
        table.headings.pop_back();
    for (std::size_t row = *firstFilled; row < table.heading; ++row) {
        if (sheet.isBlank(row))
            continue;
        if (const auto said = saidAbove(sheet, row))
            table.above.insert(*said);
        else {
            ++table.titleRows;
            table.lastTitle = filledCells(sheet, row) == 1 ? firstFilledCell(sheet, row) : std::string();
        }
    }
    table.first = table.heading + 1;
    for (std::size_t row = table.first; row < sheet.rows(); ++row) {
        if (sheet.isBlank(row))
            continue;
        if (isUnitRow(sheet, row)) {
            table.units = row;
            table.first = row + 1;
        }
        break;
    }
    return table;
}

std::vector<RowKind> rowKinds(const Sheet& sheet, const TableAt& table, const std::vector<ColumnTaken>& columns) {
    const auto& vocabulary = Vocabulary::own();
    auto repeatsHeadings = [&](std::size_t row) {
        std::size_t same = 0;
        for (std::size_t i = 0; i < table.headings.size(); ++i)
            same += !table.headings[i].empty() && sheet.cell(row, i) == table.headings[i] ? 1 : 0;
        return same > 1 && same >= filledCells(sheet, row);
    };
    // A row that says when or where in the test it was struck is a shot, whatever its club is called.
    auto isPlaced = [&](std::size_t row) {
        for (std::size_t i = 0; i < columns.size(); ++i) {
            const auto role = columns[i].meaning.role;
            if (role != ColumnRole::field && role != ColumnRole::date && role != ColumnRole::time)
                continue;
            if (const auto cell = sheet.cell(row, i); !cell.empty() && !vocabulary.isSummary(cell))
                return true;
        }
        return false;
    };
    auto isSummary = [&](std::size_t row) {
        for (std::size_t i = 0; i < std::max<std::size_t>(columns.size(), 1); ++i) {
            const bool names = i == 0 || columns[i].meaning.role == ColumnRole::build ||
                               (columns[i].meaning.field != nullptr && columns[i].meaning.field->key == "shot");
            if (names && vocabulary.isSummary(sheet.cell(row, i)))
                return !isPlaced(row);
        }
        return false;
    };
    const auto build = static_cast<std::size_t>(
        std::ranges::find_if(columns, [](const auto& c) { return c.meaning.role == ColumnRole::build; }) -
        columns.begin());
    // A name by itself above rows that name no club; where the rows name theirs it is a shot without reading.
    auto isGroup = [&](std::size_t row) {
        if (columns.size() < 2 || isNumber(firstFilledCell(sheet, row)))
            return false;
        if (build == columns.size() || sheet.cell(row, build).empty())
            return true;
        for (std::size_t next = row + 1; next < sheet.rows(); ++next)
            if (!sheet.isBlank(next) && !repeatsHeadings(next))
                return sheet.cell(next, build).empty() && filledCells(sheet, next) > 1;
        return false;
    };
    std::vector<RowKind> kinds;
    kinds.reserve(sheet.rows() - std::min(sheet.rows(), table.first));
    for (std::size_t row = table.first; row < sheet.rows(); ++row) {
        const std::size_t filled = filledCells(sheet, row);
        if (filled == 0)
            kinds.push_back(RowKind::blank);
        else if (isSummary(row))
            kinds.push_back(RowKind::summary);
        else if (filled > 1 && (repeatsHeadings(row) || (table.units && isUnitRow(sheet, row))))
            kinds.push_back(RowKind::headings);
        else if (filled == 1 && isGroup(row))
            kinds.push_back(RowKind::group);
        else
            kinds.push_back(RowKind::shot);
    }
    return kinds;
}

} // namespace knot::files
