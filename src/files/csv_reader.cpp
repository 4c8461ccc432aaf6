#include "files/csv_reader.h"

#include "core/record/number_text.h"
#include "core/record/text.h"
#include "files/csv_cells.h"
#include "files/file.h"
#include "files/text_decoding.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <filesystem>
#include <unordered_map>

namespace knot::files {
namespace {

using record::DecimalMark;
using record::lowerCase;
using record::Metric;
using record::Shot;
using record::trimmed;

constexpr std::size_t mostColumns = 1000;

std::string shortened(const std::string& text) {
    return text.size() <= 40 ? text : text.substr(0, 37) + "…";
}

bool isNoReading(const std::string& cell) {
    return std::ranges::all_of(cell, [](char c) { return c == '-'; }) || cell == "–" || cell == "—" || cell == "n/a" ||
           cell == "N/A" || cell == "NA";
}

// A side letter before or after a number, as exports write it: left is negative.
struct Sided {
    std::string_view number;
    double sign = 1;
};

Sided withoutSide(std::string_view cell) {
    auto side = [](char c) { return c == 'L' || c == 'l' ? -1.0 : c == 'R' || c == 'r' ? 1.0 : 0.0; };
    if (!cell.empty() && side(cell.back()) != 0)
        return {trimmed(cell.substr(0, cell.size() - 1)), side(cell.back())};
    if (!cell.empty() && side(cell.front()) != 0)
        return {trimmed(cell.substr(1)), side(cell.front())};
    return {cell, 1};
}

// Which decimal marks the numbers of a file have, by column and all together.
class Marks {
public:
    void see(std::size_t column, std::string_view cell) {
        if (cell.find_first_of(".,") == std::string_view::npos)
            return;
        if (const auto told = record::decimalMarkTold(withoutSide(cell).number)) {
            if (column >= m_columns.size())
                m_columns.resize(column + 1);
            m_columns[column].add(*told);
            m_file.add(*told);
        }
    }
    // The column's own numbers tell first, then those of the whole file; open where neither does.
    DecimalMark of(std::size_t column) const {
        const auto own = column < m_columns.size() ? m_columns[column].told() : std::nullopt;
        return own ? *own : m_file.told().value_or(DecimalMark::open);
    }

private:
    struct Seen {
        bool point = false, comma = false;
        void add(DecimalMark mark) { (mark == DecimalMark::point ? point : comma) = true; }
        std::optional<DecimalMark> told() const {
            if (point == comma)
                return std::nullopt;
            return point ? DecimalMark::point : DecimalMark::comma;
        }
    };
    std::vector<Seen> m_columns;
    Seen m_file;
};

// A comma inside a cell needs another delimiter or quotes; without either there is nothing to tell.
Marks marksOf(const std::string& file, const std::string& text, char delimiter) {
    Marks marks;
    const bool possible =
        text.find(',') != std::string::npos && (delimiter != ',' || text.find('"') != std::string::npos);
    if (possible)
        (void)eachRow(file, text, delimiter, [&](CsvRow& row) {
            for (std::size_t i = 0; i < row.cells.size(); ++i)
                marks.see(i, trimmed(row.cells[i]));
            return true;
        });
    return marks;
}

// The first line that holds more than white space.
std::string firstLine(const std::string& text) {
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size());
        if (const auto line = std::string_view(text).substr(from, end - from); !trimmed(line).empty())
            return std::string(line);
        from = end + 1;
    }
    return {};
}

// "Average", "Std. Dev." and the like, which exports put under their shots.
bool namesASummary(std::string_view cell) {
    static constexpr std::array<std::string_view, 14> names = {"average",
                                                               "averages",
                                                               "avg",
                                                               "mean",
                                                               "median",
                                                               "dev",
                                                               "deviation",
                                                               "std",
                                                               "sd",
                                                               "stdev",
                                                               "std dev",
                                                               "std deviation",
                                                               "standard deviation",
                                                               "consistency"};
    std::string text = lowerCase(cell);
    std::erase_if(text, [](char c) { return c == '.' || c == ':'; });
    return std::ranges::find(names, text) != names.end();
}

class Reader {
public:
    Reader(std::string file, const ReadOptions& options)
        : m_file(std::move(file))
        , m_options(options) {}

    Result<ImportedTest> read(const std::string& text) {
        if (trimmed(text).empty())
            return tl::unexpected(Error{ErrorKind::emptyFile, m_file, 0, 0, {}, {}});
        // One line is one shot at most; room for all at once keeps the peak of memory low.
        m_imported.test.shots.reserve(static_cast<std::size_t>(std::ranges::count(text, '\n')));
        const char delimiter = delimiterOf(firstLine(text));
        m_marks = marksOf(m_file, text, delimiter);
        auto done = eachRow(m_file, text, delimiter, [&](CsvRow& row) { return take(row); });
        if (!done)
            return tl::unexpected(done.error());
        if (m_error)
            return tl::unexpected(*m_error);
        if (m_imported.test.shots.empty()) {
            if (m_columns.empty() && !understand({}))
                return tl::unexpected(*m_error);
            return tl::unexpected(Error{ErrorKind::headerOnly, m_file, 0, 0, {}, {}});
        }
        if (m_summaryRows > 0)
            m_imported.notes.push_back(record::counted(m_summaryRows, "summary row was", "summary rows were") +
                                       " left out.");
        return std::move(m_imported);
    }

private:
    bool take(CsvRow& row) {
        if (std::ranges::all_of(row.cells, [](const auto& c) { return trimmed(c).empty(); }))
            return true;
        if (row.cells.size() > mostColumns)
            return refuseRow(ErrorKind::tooManyColumns, row.line, std::to_string(row.cells.size()),
                             std::to_string(mostColumns));
        if (m_headings.empty()) {
            for (const std::string& cell : row.cells)
                m_headings.push_back(record::printable(fromCell(cell)));
            m_headingLine = row.line;
            return true;
        }
        if (m_columns.empty()) {
            if (isUnitRow(row.cells))
                return understand(row.cells);
            if (!understand({}))
                return false;
        }
        return takeShot(row);
    }

    bool understand(const std::vector<std::string>& unitRow) {
        auto columns = understandHeadings(m_file, m_headingLine, m_headings, unitRow, m_options.headings);
        if (!columns && columns.error().kind == ErrorKind::noBuildColumn && clubsUnknown()) {
            m_headings.emplace_back("build");
            columns = understandHeadings(m_file, m_headingLine, m_headings, unitRow, m_options.headings);
        }
        if (!columns) {
            m_error = columns.error();
            return false;
        }
        m_columns = std::move(*columns);
        for (const auto& column : m_columns)
            if (column.role == ColumnRole::extra)
                m_imported.test.extraColumns.push_back(column.heading);
        return true;
    }

    bool takeShot(const CsvRow& row) {
        // Trailing delimiters are common; cells beyond the headings must be empty.
        for (std::size_t i = m_columns.size(); i < row.cells.size(); ++i)
            if (!trimmed(row.cells[i]).empty())
                return refuse(ErrorKind::tooManyCells, row.line, i, std::to_string(row.cells.size()),
                              std::to_string(m_columns.size()));
        if (isSummary(row)) {
            ++m_summaryRows;
            return true;
        }
        Shot shot;
        bool named = false;
        for (std::size_t i = 0; i < m_columns.size(); ++i) {
            std::string cell(i < row.cells.size() ? trimmed(row.cells[i]) : std::string_view());
            if (m_columns[i].role != ColumnRole::metric)
                cell = record::printable(fromCell(std::move(cell)));
            if (!takeCell(shot, i, cell, row.line))
                return false;
            named = named || (m_columns[i].role == ColumnRole::build && !cell.empty());
        }
        if (!named && !clubsUnknown())
            return refuse(ErrorKind::missingBuild, row.line, buildColumn(), "", "");
        if (!named)
            shot.build = buildNamed({});
        record::deriveMissing(shot.readings);
        shot.id = record::ShotId{static_cast<std::int64_t>(m_imported.test.shots.size()) + 1};
        m_imported.test.shots.push_back(std::move(shot));
        m_imported.lines.push_back(row.line);
        return true;
    }

    bool clubsUnknown() const { return m_options.clubs == ReadOptions::Clubs::unknown; }

    // A row that says when or where in the test it was struck is a shot, whatever its club is called.
    bool isPlaced(const CsvRow& row) const {
        for (std::size_t i = 0; i < std::min(m_columns.size(), row.cells.size()); ++i)
            if (const auto cell = trimmed(row.cells[i]);
                m_columns[i].field != nullptr && !cell.empty() && !namesASummary(cell))
                return true;
        return false;
    }

    bool isSummary(const CsvRow& row) const {
        if (isPlaced(row))
            return false;
        for (std::size_t i = 0; i < std::min(m_columns.size(), row.cells.size()); ++i)
            if (m_columns[i].role == ColumnRole::build || i == 0 ||
                (m_columns[i].field != nullptr && m_columns[i].field->key == "shot"))
                if (namesASummary(trimmed(row.cells[i])))
                    return true;
        return false;
    }

    bool takeCell(Shot& shot, std::size_t column, const std::string& cell, std::size_t line) {
        const ColumnMeaning& meaning = m_columns[column];
        switch (meaning.role) {
        case ColumnRole::metric:
            return takeReading(shot, meaning, column, cell, line);
        case ColumnRole::build:
            shot.build = buildNamed(cell);
            return true;
        case ColumnRole::field:
            return meaning.field->take(shot, cell) ||
                   refuse(ErrorKind::unknownWord, line, column,
                          std::string(meaning.field->refused) + " '" + shortened(cell) + "'",
                          std::string(meaning.field->expected));
        case ColumnRole::extra:
            shot.extra.push_back(cell);
            return true;
        }
        return true;
    }

    bool takeReading(Shot& shot, const ColumnMeaning& meaning, std::size_t column, const std::string& cell,
                     std::size_t line) {
        if (cell.empty() || isNoReading(cell))
            return true;
        const auto [written, sign] = withoutSide(cell);
        const auto value = record::numberIn(written, m_marks.of(column));
        if (!value)
            return refuse(value.error() == record::NumberFault::ambiguous ? ErrorKind::ambiguousNumber
                                                                          : ErrorKind::notANumber,
                          line, column, cell, "a number in " + unitWords(meaning.unit));
        const double reading = record::toInternal(sign * *value, meaning.unit);
        if (!(std::fabs(reading) <= record::mostReading))
            return refuse(ErrorKind::beyondMeasure, line, column, cell, "");
        shot.readings.measure(meaning.metric, reading);
        return true;
    }

    static std::string unitWords(record::Unit unit) {
        const auto symbol = record::symbol(unit);
        return symbol.empty() ? "plain figures" : symbol == "°" ? "degrees" : std::string(symbol);
    }

    record::BuildAt buildNamed(const std::string& name) {
        const auto [at, added] = m_builds.try_emplace(name, record::BuildAt(m_imported.test.builds.size()));
        if (added)
            m_imported.test.builds.push_back({name, {}});
        return at->second;
    }

    std::size_t buildColumn() const {
        return static_cast<std::size_t>(std::ranges::find(m_columns, ColumnRole::build, &ColumnMeaning::role) -
                                        m_columns.begin());
    }

    bool refuseRow(ErrorKind kind, std::size_t line, const std::string& found, const std::string& expected) {
        m_error = Error{kind, m_file, line, 0, {}, found, expected};
        return false;
    }

    bool refuse(ErrorKind kind, std::size_t line, std::size_t column, const std::string& found,
                const std::string& expected) {
        const std::string heading = column < m_columns.size() ? m_columns[column].heading : "";
        m_error = Error{kind, m_file, line, column + 1, heading, shortened(found), expected};
        return false;
    }

    std::string m_file;
    const ReadOptions& m_options;
    ImportedTest m_imported;
    std::vector<std::string> m_headings;
    std::size_t m_headingLine = 0;
    std::vector<ColumnMeaning> m_columns;
    std::unordered_map<std::string, record::BuildAt> m_builds;
    Marks m_marks;
    std::optional<Error> m_error;
    std::size_t m_summaryRows = 0;
};

} // namespace

Result<ImportedTest> readShots(const std::string& file, const std::string& bytes, const ReadOptions& options) {
    return Reader(file, options).read(decodeText(bytes));
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

std::vector<std::string> headingsOf(const std::string& path) {
    const auto bytes = readFile(path);
    if (!bytes)
        return {};
    const std::string text = decodeText(*bytes);
    std::vector<std::string> headings;
    (void)eachRow(path, text, delimiterOf(firstLine(text)), [&](CsvRow& row) {
        for (const auto& cell : row.cells)
            headings.emplace_back(trimmed(cell));
        return false;
    });
    return headings;
}

bool isAboutHeadings(ErrorKind kind) {
    return kind == ErrorKind::noBuildColumn || kind == ErrorKind::noMetricColumn || kind == ErrorKind::unknownUnit ||
           kind == ErrorKind::missingUnit;
}

} // namespace knot::files
