#include "files/import/shot_file.h"

#include "core/rack/club_name.h"
#include "core/record/check.h"
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"
#include "files/base/cell_text.h"
#include "files/base/file.h"
#include "files/import/cell_number.h"
#include "files/import/label.h"
#include "files/import/spreadsheet.h"
#include "files/import/table.h"

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <set>
#include <unordered_map>

namespace knot::files {
namespace {

using record::Shot;

constexpr std::size_t rowsATelling = 500;

// Of the whole, the cells take a third and the rows the rest, roughly.
Stretch cellsOf(const ReadOptions& options) {
    return {options.watch, 0, 0.35};
}
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
    /// `sheetIsClub`: one of several sheets alike, each named after its club.
    TableReader(std::string file, const Sheet& sheet, bool sheetIsClub, const ReadOptions& options)
        : m_file(std::move(file))
        , m_sheet(sheet)
        , m_sheetIsClub(sheetIsClub)
        , m_options(options) {}

    /// Adds the table's shots; an error where something can't be understood.
    Result<void> readInto(ImportedTest& imported, std::unordered_map<std::string, record::BuildAt>& builds) {
        m_imported = &imported;
        m_builds = &builds;
        const auto table = findTable(m_sheet, m_options.headings);
        if (!table)
            return refuse(ErrorKind::emptyFile, 0, 0);
        m_table = *table;
        m_columns = understandColumns(m_sheet, m_table, m_options.headings, m_file);
        if (auto understood = checkColumns(); !understood)
            return understood;
        placeExtraColumns();
        const auto kinds = rowKinds(m_sheet, m_table, m_columns);
        m_fillsDown = blankClubs(kinds);
        // Groups of clubs have the first one's name above the headings.
        const bool inGroups = std::ranges::find(kinds, RowKind::group) != kinds.end();
        if (inGroups && !m_table.lastTitle.empty()) {
            m_group = m_table.lastTitle;
            --m_table.titleRows;
        }
        imported.test.shots.reserve(imported.test.shots.size() + kinds.size());
        for (std::size_t i = 0; i < kinds.size(); ++i) {
            if (auto taken = takeRow(kinds[i], m_table.first + i); !taken)
                return taken;
            if (i % rowsATelling == 0 &&
                !rowsOf(m_options).tell(static_cast<double>(i) / static_cast<double>(kinds.size())))
                return tl::unexpected(Error{ErrorKind::givenUp, m_file, 0, 0, {}, {}});
        }
        imported.columns = m_columns;
        note();
        return {};
    }

private:
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

    bool groupsName() const {
        const auto kinds = rowKinds(m_sheet, m_table, m_columns);
        return m_sheetIsClub || std::ranges::find(kinds, RowKind::group) != kinds.end();
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
        std::string club;
        for (std::size_t i = 0; i < m_columns.size(); ++i)
            if (auto taken = takeCell(shot, i, m_sheet.cell(row, i), row, club); !taken)
                return taken;
        if (auto named = nameClub(shot, club, row); !named)
            return named;
        if (!m_date.empty() || !m_time.empty())
            shot.takenAt = m_date.empty() ? m_time : m_time.empty() ? m_date : m_date + "T" + m_time;
        takeFromAbove(shot);
        record::deriveMissing(shot.readings);
        shot.id = record::ShotId{static_cast<std::int64_t>(m_imported->test.shots.size()) + 1};
        m_imported->test.shots.push_back(std::move(shot));
        m_imported->lines.push_back(m_sheet.line(row));
        return {};
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

    Result<void> refuseDay(const std::string& text, std::size_t at, std::size_t row) {
        return refuse(ErrorKind::unknownWord, m_sheet.line(row), at, "no day '" + shortened(text) + "'",
                      "a date of the calendar");
    }

    Result<void> take(Shot& shot, const record::ShotField& field, const std::string& text, std::size_t at,
                      std::size_t row) {
        if (field.take(shot, text))
            return {};
        return refuse(ErrorKind::unknownWord, m_sheet.line(row), at,
                      std::string(field.refused) + " '" + shortened(text) + "'", std::string(field.expected));
    }

    Result<void> takeReading(Shot& shot, const ColumnTaken& column, std::size_t at, std::string_view cell,
                             std::size_t row) {
        if (cell.empty())
            return {};
        const auto number = numberOfCell(cell, column.mark);
        if (!number) {
            if (Vocabulary::own().isMissing(cell))
                return {};
            return refuse(number.error() == record::NumberFault::ambiguous ? ErrorKind::ambiguousNumber
                                                                           : ErrorKind::notANumber,
                          m_sheet.line(row), at, std::string(cell), "a number in " + unitWords(column.meaning.unit));
        }
        const auto unit = number->unit.value_or(column.meaning.unit);
        const auto& allowed = record::unitsOf(record::info(column.meaning.metric).quantity);
        if (std::ranges::find(allowed, unit) == allowed.end())
            return refuse(ErrorKind::notANumber, m_sheet.line(row), at, std::string(cell),
                          "a number in " + unitWords(column.meaning.unit));
        const double reading = record::toInternal(number->value, unit);
        if (!(std::fabs(reading) <= record::mostReading))
            return refuse(ErrorKind::beyondMeasure, m_sheet.line(row), at, std::string(cell));
        shot.readings.measure(column.meaning.metric, reading);
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
    const Sheet& m_sheet;
    bool m_sheetIsClub;
    const ReadOptions& m_options;
    ImportedTest* m_imported = nullptr;
    std::unordered_map<std::string, record::BuildAt>* m_builds = nullptr;
    TableAt m_table;
    std::vector<ColumnTaken> m_columns;
    std::vector<std::size_t> m_extraAt; ///< by column, its place among the test's own
    std::string m_group, m_lastClub, m_date, m_time;
    bool m_fillsDown = false;
    std::size_t m_summaries = 0;
};

} // namespace

namespace {

// The sheets that hold shots: the longest table, and those with the same headings.
struct Chosen {
    std::vector<const Sheet*> sheets;
    bool haveClubs = false;
    std::vector<std::string> leftOut;
};

Chosen chosenOf(const std::vector<Sheet>& sheets, const HeadingMap& map) {
    std::vector<std::optional<TableAt>> tables;
    std::size_t best = 0;
    for (std::size_t i = 0; i < sheets.size(); ++i) {
        tables.push_back(findTable(sheets[i], map));
        const auto& now = tables[i];
        const auto& most = tables[best];
        if (now && now->understood > 0 && (!most || most->understood == 0 || sheets[i].rows() > sheets[best].rows()))
            best = i;
    }
    Chosen chosen;
    for (std::size_t i = 0; i < sheets.size(); ++i)
        if (i == best ||
            (tables[i] && tables[best] && tables[i]->understood > 0 && tables[i]->headings == tables[best]->headings))
            chosen.sheets.push_back(&sheets[i]);
        else
            chosen.leftOut.push_back(sheets[i].name);
    if (chosen.sheets.size() > 1) {
        const auto columns = understandColumns(sheets[best], *tables[best], map, {});
        chosen.haveClubs =
            std::ranges::any_of(columns, [](const auto& c) { return c.meaning.role == ColumnRole::build; });
    }
    return chosen;
}

std::string listed(const std::vector<std::string>& names) {
    std::string text;
    for (const auto& name : names)
        text += (text.empty() ? "" : ", ") + name;
    return text;
}

Result<ImportedTest> readSheets(const std::string& file, const std::vector<Sheet>& sheets, const ReadOptions& options) {
    const Chosen chosen = chosenOf(sheets, options.headings);
    ImportedTest imported;
    std::unordered_map<std::string, record::BuildAt> builds;
    for (const Sheet* sheet : chosen.sheets) {
        const std::string place = sheets.size() > 1 ? file + ", sheet “" + sheet->name + "”" : file;
        TableReader reader(place, *sheet, chosen.sheets.size() > 1 && !chosen.haveClubs, options);
        if (auto read = reader.readInto(imported, builds); !read)
            return tl::unexpected(read.error());
    }
    if (imported.test.shots.empty())
        return tl::unexpected(Error{ErrorKind::headerOnly, file, 0, 0, {}, {}});
    for (record::Shot& shot : imported.test.shots)
        shot.extra.resize(imported.test.extraColumns.size());
    splitLabels(imported, options.split);
    rack::takeLoftsFromNames(imported.test.builds);
    if (const auto clubs = imported.test.builds.size(); clubs > record::mostClubs)
        return tl::unexpected(
            Error{ErrorKind::tooManyClubs, file, 0, 0, {}, std::to_string(clubs), std::to_string(record::mostClubs)});
    imported.test.namePlayers();
    if (!chosen.leftOut.empty())
        imported.notes.push_back("Left out: sheet " + listed(chosen.leftOut) + ".");
    return imported;
}

Result<std::vector<Sheet>> sheetsIn(const std::string& file, const std::string& bytes, const ReadOptions& options) {
    if (looksLikeSpreadsheet(bytes))
        return sheetsOf(file, bytes, cellsOf(options));
    std::vector<Sheet> sheets;
    auto sheet = sheetOfText(file, bytes, cellsOf(options));
    if (!sheet)
        return tl::unexpected(sheet.error());
    sheets.push_back(std::move(*sheet));
    return sheets;
}

} // namespace

Result<ImportedTest> readShots(const std::string& file, const std::string& bytes, const ReadOptions& options) {
    const auto sheets = sheetsIn(file, bytes, options);
    return sheets ? readSheets(file, *sheets, options) : tl::unexpected(sheets.error());
}

Result<std::vector<ColumnTaken>> columnsIn(const std::string& file, const std::string& bytes,
                                           const ReadOptions& options) {
    const auto sheets = sheetsIn(file, bytes, options);
    if (!sheets)
        return tl::unexpected(sheets.error());
    const Sheet& sheet = *chosenOf(*sheets, options.headings).sheets.front();
    const auto table = findTable(sheet, options.headings);
    if (!table)
        return tl::unexpected(Error{ErrorKind::emptyFile, file, 0, 0, {}, {}});
    return understandColumns(sheet, *table, options.headings, file);
}

Result<ImportedTest> readShotFile(const std::string& path, const ReadOptions& options) {
    auto bytes = readFile(path);
    if (!bytes)
        return tl::unexpected(bytes.error());
    auto imported = readShots(std::filesystem::path(path).filename().string(), *bytes, options);
    if (imported)
        imported->test.title = std::filesystem::path(path).stem().string();
    return imported;
}

void settleNamelessClub(record::Test& test) {
    if (test.builds.size() != 1 || !test.builds.front().name.empty())
        return;
    test.builds.front().name = "Club 1";
    test.stage = record::Stage::openSitting;
}

std::vector<std::string> explained(const std::vector<ColumnTaken>& columns) {
    std::vector<std::string> lines;
    for (const auto& column : columns) {
        const std::string name = canonicalName(column.meaning);
        std::string line = column.meaning.heading + ": " + (name.empty() ? "kept as text" : name);
        if (!column.why.empty())
            line += " (" + column.why + ")";
        if (!column.sample.empty())
            line += ", as in " + shortened(column.sample);
        if (column.isAsked())
            line += ". " + column.question;
        lines.push_back(record::printable(line));
    }
    return lines;
}

} // namespace knot::files
