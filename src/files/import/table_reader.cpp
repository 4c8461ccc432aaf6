#include "files/import/table_reader.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "files/base/cell_text.h"
#include "files/import/doubts.h"
#include "files/import/rows/rows.h"
#include "files/import/rows/struck_order.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <set>

namespace knot::files {
namespace {

using record::Shot;

constexpr std::size_t rowsATelling = 500;

// Of the whole, the cells take a third and the rows the rest, roughly.
Stretch rowsOf(const ReadOptions& options) {
    return {options.watch, 0.35, 1};
}

std::string shortened(const std::string& text) {
    return text.size() <= 40 ? text : text.substr(0, 37) + "…";
}

std::string unitWords(record::Unit unit) {
    const auto symbol = record::symbol(unit);
    return symbol.empty() ? "plain figures" : symbol == "°" ? "degrees" : std::string(symbol);
}

// The rows of one table as shots.
class TableReader {
public:
    TableReader(std::string file, const Sheet& sheet, const Place& place, const ReadOptions& options)
        : m_file(std::move(file))
        , m_isFurther(place.isFurther)
        , m_sheet(sheet)
        , m_sheetIsClub(place.sheetIsClub)
        , m_titleIsClub(place.titleIsClub)
        , m_options(options) {}

    /// Adds the table's shots; an error where something can't be understood.
    Result<void> readInto(ImportedTest& imported, ClubsByName& builds) {
        m_imported = &imported;
        m_builds = &builds;
        const auto table = findTable(m_sheet, m_options.headings);
        if (!table)
            return refuse(ErrorKind::emptyFile, 0, 0);
        m_table = *table;
        m_columns = understandColumns(m_sheet, m_table, m_options.headings, m_file);
        if (auto understood = checkColumns(); !understood)
            return understood;
        const auto kinds = kindsOfRows();
        if (m_options.doubt == ReadOptions::Doubt::takeLikelier)
            askAboutValues(m_sheet, m_table, kinds, m_columns);
        else if (m_options.impossible == ReadOptions::Impossible::leftOut)
            for (ColumnTaken& column : m_columns)
                column.meaning.doubtful = Doubtful::leftOut;
        placeExtraColumns();
        m_fillsDown = blankClubs(kinds);
        for (const char* key : {"date", "taken_at"})
            if (const auto above = m_table.above.find(key); above != m_table.above.end() && m_dateAbove.empty())
                if (const auto moment =
                        momentOfCell(above->second, dateOrderTold(above->second).value_or(DateOrder::dayFirst)))
                    m_dateAbove = moment->date;
        // Groups of clubs have the first one's name above the headings.
        const bool inGroups = std::ranges::find(kinds, RowKind::group) != kinds.end();
        const bool titleNames = m_titleIsClub && buildColumn() == m_columns.size();
        if ((inGroups || titleNames) && !m_table.lastTitle.empty()) {
            m_group = m_table.lastTitle;
            --m_table.titleRows;
        }
        const std::size_t before = imported.test.shots.size();
        imported.test.shots.reserve(imported.test.shots.size() + kinds.size());
        for (std::size_t i = 0; i < kinds.size(); ++i) {
            if (auto taken = takeRow(kinds[i], m_table.first + i); !taken)
                return taken;
            if (i % rowsATelling == 0 &&
                !rowsOf(m_options).tell(static_cast<double>(i) / static_cast<double>(kinds.size())))
                return tl::unexpected(Error{ErrorKind::givenUp, m_file, 0, 0, {}, {}});
        }
        takeColumns();
        note();
        putInOrder(before);
        return {};
    }

private:
    // Of several tables each has its own; those of the same heading stand once.
    void takeColumns() {
        for (const ColumnTaken& column : m_columns) {
            const auto same = std::ranges::find_if(m_imported->columns, [&](const ColumnTaken& other) {
                return other.meaning.heading == column.meaning.heading;
            });
            if (m_imported->columns.empty() || same == m_imported->columns.end() || !m_isFurther)
                m_imported->columns.push_back(column);
            else if (column.isAsked() && !same->isAsked())
                *same = column;
        }
    }

    void putInOrder(std::size_t before) {
        auto& shots = m_imported->test.shots;
        auto& lines = m_imported->lines;
        const StruckOrder order = struckOrder(shots, before);
        if (!order.note.empty())
            m_imported->notes.push_back(order.note);
        if (order.places.empty())
            return;
        const std::vector<Shot> stood(shots.begin() + static_cast<std::ptrdiff_t>(before), shots.end());
        const std::vector<std::size_t> stoodAt(lines.begin() + static_cast<std::ptrdiff_t>(before), lines.end());
        for (std::size_t i = 0; i < order.places.size(); ++i) {
            const record::ShotId id = shots[before + i].id;
            shots[before + i] = stood[order.places[i]];
            shots[before + i].id = id;
            lines[before + i] = stoodAt[order.places[i]];
        }
    }

    // A sheet is understood by itself, so what is text here may be numbers there: columns are told by their headings.
    void placeExtraColumns() {
        auto& names = m_imported->test.extraColumns;
        std::set<std::size_t> mine;
        for (const auto& column : m_columns) {
            std::size_t at = 0;
            while (at < names.size() && (mine.contains(at) || names[at] != column.meaning.heading))
                ++at;
            if (column.meaning.role == ColumnRole::extra && at == names.size())
                names.push_back(column.meaning.heading);
            if (column.meaning.role == ColumnRole::extra)
                mine.insert(at);
            m_extraAt.push_back(at);
        }
        if (m_table.above.contains(std::string(placeKey))) {
            const std::string heading = "Place";
            m_placeAt = static_cast<std::size_t>(std::ranges::find(names, heading) - names.begin());
            if (*m_placeAt == names.size())
                names.push_back(heading);
        }
    }

    Result<void> checkColumns() {
        auto has = [&](ColumnRole role) {
            return std::ranges::any_of(m_columns, [&](const auto& c) { return c.meaning.role == role; });
        };
        if (m_options.doubt == ReadOptions::Doubt::refuse)
            for (const auto& column : m_columns)
                if (column.isAsked() && column.unanswered.kind != ErrorKind::unknownHeading)
                    return tl::unexpected(column.unanswered);
        const bool named = has(ColumnRole::build) || m_table.above.contains("build");
        if (!named && m_options.clubs == ReadOptions::Clubs::named && !groupsName())
            return refuse(ErrorKind::noBuildColumn, m_sheet.line(m_table.heading), 0);
        if (!has(ColumnRole::metric))
            return refuse(ErrorKind::noMetricColumn, m_sheet.line(m_table.heading), 0);
        return {};
    }

    std::vector<RowKind> kindsOfRows() const {
        return rowKinds(m_sheet, m_table, m_columns,
                        m_options.doubt == ReadOptions::Doubt::refuse ? Unread::isShot : Unread::isRemark);
    }

    bool groupsName() const {
        const auto kinds = kindsOfRows();
        return m_sheetIsClub || (m_titleIsClub && !m_table.lastTitle.empty()) ||
               std::ranges::find(kinds, RowKind::group) != kinds.end();
    }

    // A club that stands only in the first row of its run is meant for all of them.
    bool blankClubs(const std::vector<RowKind>& kinds) const {
        const auto build = buildColumn();
        if (build == m_columns.size())
            return false;
        std::size_t shots = 0;
        std::size_t blank = 0;
        for (std::size_t i = 0; i < kinds.size(); ++i)
            if (kinds[i] == RowKind::shot) {
                ++shots;
                blank += m_sheet.cell(m_table.first + i, build).empty() ? 1 : 0;
            }
        return 2 * blank > shots && blank < shots;
    }

    Result<void> takeRow(RowKind kind, std::size_t row) {
        switch (kind) {
        case RowKind::blank:
        case RowKind::headings:
            return {};
        case RowKind::summary:
            ++m_summaries;
            return {};
        case RowKind::remark:
            m_remarks.push_back(row);
            return {};
        case RowKind::group:
            m_group = groupNamed(row);
            return {};
        case RowKind::shot:
            return takeShot(row);
        }
        return {};
    }

    // "Club: 7 iron" is the 7 iron.
    std::string groupNamed(std::size_t row) const {
        std::string name = firstFilledCell(m_sheet, row);
        if (const auto colon = name.find(':'); colon != std::string::npos && colon + 1 < name.size()) {
            const auto candidates = Vocabulary::own().candidatesFor(Vocabulary::own().wordsOf(name.substr(0, colon)));
            if (!candidates.empty() && candidates.front().meaning.role != ColumnRole::extra)
                name = std::string(record::trimmed(std::string_view(name).substr(colon + 1)));
        }
        return record::printable(fromCell(name));
    }

    Result<void> takeShot(std::size_t row) {
        // Trailing delimiters are common; cells beyond the headings must be empty.
        for (std::size_t i = m_columns.size(); i < m_sheet.columns(row); ++i)
            if (!m_sheet.cell(row, i).empty())
                return refuse(ErrorKind::tooManyCells, m_sheet.line(row), i, std::to_string(m_sheet.columns(row)),
                              std::to_string(m_columns.size()));
        Shot shot;
        m_date.clear();
        m_time.clear();
        m_zerosLeftOut = 0;
        m_noMoment = false;
        std::string club;
        for (std::size_t i = 0; i < m_columns.size(); ++i)
            if (auto taken = takeCell(shot, i, m_sheet.cell(row, i), row, club); !taken)
                return taken;
        if (auto named = nameClub(shot, club, row); !named)
            return named;
        if (m_date.empty() && shot.takenAt.empty())
            m_date = m_dateAbove;
        if (m_noMoment)
            shot.takenAt = {};
        else if (!m_date.empty() || !m_time.empty())
            shot.takenAt = m_date.empty() ? m_time : m_time.empty() ? m_date : m_date + "T" + m_time;
        takeSideSpin(shot, row);
        takeFromAbove(shot);
        if (m_placeAt) {
            shot.extra.resize(m_imported->test.extraColumns.size());
            shot.extra[*m_placeAt] = m_table.above.at(std::string(placeKey));
        }
        // Zeros all the way are no shot that lay on the line.
        if (m_zerosLeftOut > 0 && allZero(shot))
            shot.readings = {};
        record::deriveMissing(shot.readings);
        shot.id = record::ShotId{static_cast<std::int64_t>(m_imported->test.shots.size()) + 1};
        m_imported->test.shots.push_back(std::move(shot));
        m_imported->lines.push_back(m_sheet.line(row));
        return {};
    }

    void takeSideSpin(Shot& shot, std::size_t row) const {
        const auto back =
            std::ranges::find_if(m_columns, [](const auto& column) { return column.sideSpin.has_value(); });
        if (back == m_columns.end())
            return;
        const ColumnTaken& column = m_columns[*back->sideSpin];
        const auto side = numberOfCell(m_sheet.cell(row, *back->sideSpin), column.mark);
        const auto spin = shot.readings.at(record::Metric::spin);
        if (!side || !spin || !(std::fabs(side->value) <= record::mostReading))
            return;
        const double across = column.meaning.isTurned && !side->isSided ? -side->value : side->value;
        constexpr double degrees = 180 / std::numbers::pi;
        shot.readings.measure(record::Metric::spin, std::hypot(*spin, across));
        if (!shot.readings.has(record::Metric::spinAxis))
            shot.readings.measure(record::Metric::spinAxis, std::atan2(across, *spin) * degrees);
    }

    static bool allZero(const Shot& shot) {
        return std::ranges::all_of(record::allMetrics(),
                                   [&](record::Metric m) { return shot.readings.at(m).value_or(0) == 0; });
    }

    Result<void> nameClub(Shot& shot, std::string club, std::size_t row) {
        if (club.empty() && !m_group.empty())
            club = m_group;
        else if (club.empty() && m_fillsDown)
            club = m_lastClub;
        if (club.empty())
            if (const auto above = m_table.above.find("build"); above != m_table.above.end())
                club = above->second;
        if (club.empty() && m_sheetIsClub)
            club = m_sheet.name;
        if (club.empty() && m_options.clubs == ReadOptions::Clubs::named)
            return refuse(ErrorKind::missingBuild, m_sheet.line(row), buildColumn());
        m_lastClub = club;
        shot.build = buildNamed(club);
        return {};
    }

    void takeFromAbove(Shot& shot) const {
        for (const auto& [key, text] : m_table.above)
            if (const auto* field = record::shotFieldNamed(key); field != nullptr && field->text(shot).empty() &&
                                                                 field->kind == record::ShotField::Kind::text &&
                                                                 field->key != "shot" && field->key != "taken_at")
                (void)field->take(shot, text);
    }

    Result<void> takeCell(Shot& shot, std::size_t at, std::string_view cell, std::size_t row, std::string& club) {
        const ColumnTaken& column = m_columns[at];
        if (column.meaning.role == ColumnRole::metric)
            return takeReading(shot, column, at, cell, row);
        const std::string text = record::printable(fromCell(std::string(cell)));
        switch (column.meaning.role) {
        case ColumnRole::build:
            club = text;
            return {};
        case ColumnRole::date:
        case ColumnRole::time:
            if (const auto moment = momentOfCell(text, column.order)) {
                m_date = moment->date.empty() ? m_date : moment->date;
                m_time = moment->time.empty() ? m_time : moment->time;
            } else if (isNoDay(text)) {
                return refuseDay(text, at, row);
            }
            return {};
        case ColumnRole::field:
            return takeField(shot, column, at, text, row);
        case ColumnRole::extra:
            shot.extra.resize(m_imported->test.extraColumns.size());
            shot.extra[m_extraAt[at]] = text;
            return {};
        case ColumnRole::metric:
            break;
        }
        return {};
    }

    Result<void> takeField(Shot& shot, const ColumnTaken& column, std::size_t at, const std::string& text,
                           std::size_t row) {
        const auto& field = *column.meaning.field;
        if (field.key == "taken_at") {
            // A moment in this program's own words stays as it is.
            const auto moment = momentOfCell(text, column.order);
            const bool own = text.size() > 10 && text[4] == '-' && text[10] == 'T';
            if (moment && !own && !moment->date.empty() && !moment->time.empty())
                return take(shot, field, moment->date + "T" + moment->time, at, row);
            if (isNoDay(text))
                return refuseDay(text, at, row);
        }
        return take(shot, field, text, at, row);
    }

    // One bad cell is that cell's matter where somebody is told; a time is none without its day.
    Result<void> leaveEmpty(const std::string& what, std::size_t at, std::size_t row) {
        m_noMoment = true;
        m_leftEmpty.push_back("Line " + std::to_string(m_sheet.line(row)) + " (" + m_columns[at].meaning.heading +
                              "): " + what + ", left empty.");
        return {};
    }

    Result<void> refuseDay(const std::string& text, std::size_t at, std::size_t row) {
        if (m_options.doubt == ReadOptions::Doubt::takeLikelier)
            return leaveEmpty("no day '" + shortened(text) + "'", at, row);
        return refuse(ErrorKind::unknownWord, m_sheet.line(row), at, "no day '" + shortened(text) + "'",
                      "a date of the calendar");
    }

    Result<void> take(Shot& shot, const record::ShotField& field, const std::string& text, std::size_t at,
                      std::size_t row) {
        if (field.take(shot, text))
            return {};
        if (m_options.doubt == ReadOptions::Doubt::takeLikelier) {
            const bool hadMoment = m_noMoment;
            (void)leaveEmpty(std::string(field.refused) + " '" + shortened(text) + "'", at, row);
            m_noMoment = hadMoment || field.key == "taken_at";
            return {};
        }
        return refuse(ErrorKind::unknownWord, m_sheet.line(row), at,
                      std::string(field.refused) + " '" + shortened(text) + "'", std::string(field.expected));
    }

    Result<void> takeReading(Shot& shot, const ColumnTaken& column, std::size_t at, std::string_view cell,
                             std::size_t row) {
        if (cell.empty())
            return {};
        const auto number = numberOfCell(cell, column.mark);
        if (!number || !isOfMetric(*number, column.meaning.metric)) {
            const bool isLeftOut =
                column.meaning.doubtful == Doubtful::leftOut && m_options.doubt == ReadOptions::Doubt::takeLikelier;
            if (Vocabulary::own().isMissing(cell) || isLeftOut)
                return {};
            const bool isOpen = !number && number.error() == record::NumberFault::ambiguous;
            return refuse(isOpen ? ErrorKind::ambiguousNumber : ErrorKind::notANumber, m_sheet.line(row), at,
                          std::string(cell), "a number in " + unitWords(column.meaning.unit));
        }
        const auto unit = number->unit.value_or(column.meaning.unit);
        const auto& allowed = record::unitsOf(record::info(column.meaning.metric).quantity);
        if (std::ranges::find(allowed, unit) == allowed.end())
            return refuse(ErrorKind::notANumber, m_sheet.line(row), at, std::string(cell),
                          "a number in " + unitWords(column.meaning.unit));
        const auto reading = readingOf(*number, column, column.sides ? m_sheet.cell(row, *column.sides) : "");
        if (!reading) {
            m_zerosLeftOut += number->value == 0 ? 1 : 0;
            return {};
        }
        if (!(std::fabs(*reading) <= record::mostReading))
            return refuse(ErrorKind::beyondMeasure, m_sheet.line(row), at, std::string(cell));
        shot.readings.measure(column.meaning.metric, *reading);
        return {};
    }

    record::BuildAt buildNamed(const std::string& name) {
        const auto [at, added] =
            m_builds->try_emplace(record::lowerCase(name), record::BuildAt(m_imported->test.builds.size()));
        if (added)
            m_imported->test.builds.push_back({name, {}});
        return at->second;
    }

    std::size_t buildColumn() const {
        return static_cast<std::size_t>(
            std::ranges::find_if(m_columns, [](const auto& c) { return c.meaning.role == ColumnRole::build; }) -
            m_columns.begin());
    }

    void note() {
        auto& notes = m_imported->notes;
        if (m_table.titleRows > 0)
            notes.push_back(record::counted(m_table.titleRows, "row above the table was", "rows above the table were") +
                            " left out.");
        if (m_summaries > 0)
            notes.push_back(record::counted(m_summaries, "summary row was", "summary rows were") + " left out.");
        if (!m_remarks.empty())
            notes.push_back(
                record::counted(m_remarks.size(), "row without a reading was", "rows without a reading were") +
                " left out: “" + shortened(record::printable(firstFilledCell(m_sheet, m_remarks.front()))) + "”.");
        constexpr std::size_t mostSaid = 3;
        notes.insert(notes.end(), m_leftEmpty.begin(),
                     m_leftEmpty.begin() + static_cast<std::ptrdiff_t>(std::min(m_leftEmpty.size(), mostSaid)));
        if (m_leftEmpty.size() > mostSaid)
            notes.push_back("So were " + record::counted(m_leftEmpty.size() - mostSaid, "cell", "cells") + " more.");
        for (const auto& column : m_columns)
            if (column.isAsked())
                notes.push_back("“" + column.meaning.heading + "” was taken for " + nameTaken(column) + ". " +
                                column.question);
    }

    static std::string nameTaken(const ColumnTaken& column) {
        const std::string name = canonicalName(column.meaning);
        return name.empty() ? "text" : name;
    }

    Result<void> refuse(ErrorKind kind, std::size_t line, std::size_t column, const std::string& found = {},
                        const std::string& expected = {}) const {
        const bool ofColumn =
            kind != ErrorKind::emptyFile && kind != ErrorKind::noBuildColumn && kind != ErrorKind::noMetricColumn;
        Error error{kind, m_file, line, ofColumn ? column + 1 : 0, {}, shortened(found), expected};
        if (ofColumn && column < m_columns.size())
            error.heading = m_columns[column].meaning.heading;
        return tl::unexpected(std::move(error));
    }

    std::string m_file;
    bool m_isFurther;
    const Sheet& m_sheet;
    bool m_sheetIsClub, m_titleIsClub;
    const ReadOptions& m_options;
    ImportedTest* m_imported = nullptr;
    ClubsByName* m_builds = nullptr;
    TableAt m_table;
    std::vector<ColumnTaken> m_columns;
    std::vector<std::size_t> m_extraAt; ///< by column, its place among the test's own
    std::string m_group, m_lastClub, m_date, m_time, m_dateAbove;
    std::optional<std::size_t> m_placeAt; ///< its own column among the test's texts
    bool m_fillsDown = false;
    std::size_t m_summaries = 0;
    std::size_t m_zerosLeftOut = 0; ///< of the row in hand
    bool m_noMoment = false;        ///< of it: its day is none
    std::vector<std::string> m_leftEmpty;
    std::vector<std::size_t> m_remarks;
};

} // namespace

Result<void> readTable(const std::string& file, const Sheet& sheet, const Place& place, const ReadOptions& options,
                       ImportedTest& imported, ClubsByName& clubs) {
    return TableReader(file, sheet, place, options).readInto(imported, clubs);
}

} // namespace knot::files
