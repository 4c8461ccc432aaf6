#include "files/import/rows/rows.h"

#include "core/rack/club_name.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/import/cells/cell_number.h"
#include "files/import/headings/vocabulary.h"
#include "files/import/rows/summed_up.h"

#include <algorithm>
#include <cctype>
#include <map>
#include <set>

namespace knot::files {
namespace {

bool hasLetterOrFigure(std::string_view cell) {
    return std::ranges::any_of(
        cell, [](char c) { return std::isalnum(static_cast<unsigned char>(c)) != 0 || (c & 0x80) != 0; });
}

// A row is looked at by itself first, then beside its neighbours, then beside all.
class RowSorter {
public:
    RowSorter(const Sheet& sheet, const TableAt& table, const std::vector<ColumnTaken>& columns, Unread unread)
        : m_unread(unread)
        , m_sheet(sheet)
        , m_table(table)
        , m_columns(columns)
        , m_build(static_cast<std::size_t>(
              std::ranges::find_if(columns, [](const auto& c) { return c.meaning.role == ColumnRole::build; }) -
              columns.begin())) {
        for (std::size_t row = table.first; row < sheet.rows() && m_build < columns.size(); ++row)
            if (const auto cell = sheet.cell(row, m_build); !cell.empty() && (cell[0] == '+' || cell[0] == '-'))
                m_hasSettings = m_hasSettings || rack::settingNamed(cell).has_value();
        for (std::size_t i = 0; i < columns.size(); ++i)
            if (namesRow(i))
                m_naming.push_back(i);
    }

    std::vector<RowKind> all() {
        for (std::size_t row = m_table.first; row < m_sheet.rows(); ++row)
            m_kinds.push_back(byItself(row));
        takeRemarks();
        takeSummedUp();
        return std::move(m_kinds);
    }

private:
    RowKind byItself(std::size_t row) const {
        const std::size_t filled = filledCells(m_sheet, row);
        if (filled == 0 || !saysSomething(row))
            return RowKind::blank;
        if (isSummary(row))
            return RowKind::summary;
        if (filled > 1 && (repeatsHeadings(row) || (m_table.units && isUnitRow(m_sheet, row))))
            return RowKind::headings;
        return filled == 1 && isGroup(row) ? RowKind::group : RowKind::shot;
    }

    // Whether anything but lines stands in it; dashes beside each other are the readings that a shot has not.
    bool saysSomething(std::size_t row) const {
        for (std::size_t i = 0; i < m_sheet.columns(row); ++i)
            if (hasLetterOrFigure(m_sheet.cell(row, i)))
                return true;
        return false;
    }

    bool repeatsHeadings(std::size_t row) const {
        std::size_t same = 0;
        for (std::size_t i = 0; i < m_table.headings.size(); ++i)
            same += isHeading(row, i) ? 1 : 0;
        return same > 1 && same >= filledCells(m_sheet, row);
    }
    bool isHeading(std::size_t row, std::size_t column) const {
        const auto cell = m_sheet.cell(row, column);
        return !cell.empty() && (cell == m_sheet.cell(m_table.heading, column) ||
                                 (m_table.groups && cell == m_sheet.cell(*m_table.groups, column)));
    }

    // A column whose text may say that a row sums up others.
    bool namesRow(std::size_t column) const {
        const ColumnMeaning& meaning = m_columns[column].meaning;
        if (column == 0 || meaning.role == ColumnRole::build)
            return true;
        if (meaning.field != nullptr)
            return meaning.field->key == "shot" || meaning.field->key == "player" || meaning.field->key == "sitting";
        return meaning.role == ColumnRole::extra || meaning.role == ColumnRole::date ||
               meaning.role == ColumnRole::time;
    }

    // A row that says when or where in the test it was struck is a shot, whatever its club is called.
    bool isPlaced(std::size_t row) const {
        for (std::size_t i = 0; i < m_columns.size(); ++i) {
            const ColumnMeaning& meaning = m_columns[i].meaning;
            const bool isName =
                meaning.field != nullptr && (meaning.field->key == "player" || meaning.field->key == "sitting");
            const bool places = !isName && (meaning.role == ColumnRole::field || meaning.role == ColumnRole::date ||
                                            meaning.role == ColumnRole::time);
            const auto cell = places ? m_sheet.cell(row, i) : std::string_view();
            if (cell.empty() || !hasLetterOrFigure(cell) || Vocabulary::own().isSummary(cell) ||
                Vocabulary::own().isMissing(cell))
                continue;
            // A clock's or a counter's column may hold a footer's words.
            const bool needsFigure =
                meaning.role != ColumnRole::field || meaning.field->key == "shot" || meaning.field->key == "taken_at";
            if (!needsFigure || std::ranges::any_of(cell, record::isDigit))
                return true;
        }
        return false;
    }

    // Summaries come singly: what stands in the rows beside too is a name.
    bool comesAgain(std::size_t row, std::size_t column) const {
        const auto cell = m_sheet.cell(row, column);
        return (row > m_table.first && m_sheet.cell(row - 1, column) == cell) ||
               (row + 1 < m_sheet.rows() && m_sheet.cell(row + 1, column) == cell);
    }

    bool isSummary(std::size_t row) const {
        for (const std::size_t i : m_naming) {
            const auto cell = m_sheet.cell(row, i);
            const ColumnRole role = m_columns[i].meaning.role;
            const bool isMoment = role == ColumnRole::date || role == ColumnRole::time || role == ColumnRole::field;
            if (cell.empty() || (isMoment && record::isDigit(cell.front())) ||
                (row > m_table.first && m_sheet.cell(row - 1, i) == cell)) // the name of the row above
                continue;
            const bool isSetting = m_hasSettings && i == m_build && rack::settingNamed(cell); // "STD"
            const bool isText = i > 0 && m_columns[i].meaning.role == ColumnRole::extra;
            if (!isSetting && !comesAgain(row, i) &&
                Vocabulary::own().isSummary(cell, isText ? Vocabulary::LabelIn::anyText : Vocabulary::LabelIn::names))
                return !isPlaced(row);
        }
        return false;
    }

    // A name by itself above rows that name no club; where the rows name theirs it is a shot without reading.
    bool isGroup(std::size_t row) const {
        if (m_columns.size() < 2 || isNumber(firstFilledCell(m_sheet, row)))
            return false;
        if (m_build == m_columns.size() || m_sheet.cell(row, m_build).empty())
            return true;
        for (std::size_t next = row + 1; next < m_sheet.rows(); ++next)
            if (!m_sheet.isBlank(next) && !repeatsHeadings(next))
                return m_sheet.cell(next, m_build).empty() && filledCells(m_sheet, next) > 1;
        return false;
    }

    bool isRead(std::size_t row) const {
        for (std::size_t i = 0; i < m_columns.size(); ++i)
            if (m_columns[i].meaning.role == ColumnRole::metric)
                if (const auto cell = m_sheet.cell(row, i); !cell.empty())
                    if (const auto number = numberOfCell(cell, m_columns[i].mark);
                        number || number.error() == record::NumberFault::ambiguous ||
                        ((m_unread == Unread::isShot || record::isDigit(cell.front())) &&
                         !Vocabulary::own().isMissing(cell)))
                        return true;
        return false;
    }

    // A row without a reading is a shot where its club has others or it says when it was struck; a group has shots.
    void takeRemarks() {
        std::set<std::string, std::less<>> clubs;
        std::vector<bool> read(m_kinds.size());
        for (std::size_t i = 0; i < m_kinds.size(); ++i)
            if (m_kinds[i] == RowKind::shot) {
                read[i] = isRead(m_table.first + i);
                if (read[i] && m_build < m_columns.size())
                    clubs.emplace(m_sheet.cell(m_table.first + i, m_build));
            }
        if (std::ranges::find(read, true) == read.end())
            return;
        bool shotsFollow = false;
        for (std::size_t i = m_kinds.size(); i-- > 0;) {
            const std::size_t row = m_table.first + i;
            if (m_kinds[i] == RowKind::group) {
                m_kinds[i] = shotsFollow ? RowKind::group : RowKind::remark;
                shotsFollow = false;
            } else if (m_kinds[i] == RowKind::shot && !read[i] && !isPlaced(row)) {
                const bool isOfClub = m_build < m_columns.size() && clubs.contains(m_sheet.cell(row, m_build));
                m_kinds[i] = isOfClub ? RowKind::shot : RowKind::remark;
            } else if (m_kinds[i] == RowKind::shot) {
                shotsFollow = true;
            }
        }
    }

    // A row of another name than its neighbours' whose figures are the averages, or the spreads, of the others. Where
    // all rows have neighbours of their name there is none, and nothing is reckoned.
    void takeSummedUp() {
        const std::size_t name = m_build < m_columns.size() ? m_build : 0;
        std::vector<std::size_t> rows;
        for (std::size_t i = 0; i < m_kinds.size(); ++i)
            if (m_kinds[i] == RowKind::shot)
                rows.push_back(m_table.first + i);
        auto named = [&](std::size_t k) { return m_sheet.cell(rows[k], name); };
        bool mayBe = false;
        for (std::size_t k = 0; k < rows.size() && !mayBe; ++k)
            mayBe = named(k).empty() ||
                    ((k == 0 || named(k) != named(k - 1)) && (k + 1 == rows.size() || named(k) != named(k + 1)));
        if (!mayBe)
            return;
        SummedUp sums(m_sheet, m_columns);
        for (const std::size_t row : rows)
            sums.add(row, name);
        for (const std::size_t row : sums.rows())
            if (!isPlaced(row))
                m_kinds[row - m_table.first] = RowKind::summary;
    }

    Unread m_unread;
    const Sheet& m_sheet;
    const TableAt& m_table;
    const std::vector<ColumnTaken>& m_columns;
    std::size_t m_build;
    std::vector<std::size_t> m_naming;
    std::vector<RowKind> m_kinds;
    bool m_hasSettings = false; ///< clubs are called by the settings of a sleeve: "+1"
};

} // namespace

std::vector<RowKind> rowKinds(const Sheet& sheet, const TableAt& table, const std::vector<ColumnTaken>& columns,
                              Unread unread) {
    return RowSorter(sheet, table, columns, unread).all();
}

} // namespace knot::files
