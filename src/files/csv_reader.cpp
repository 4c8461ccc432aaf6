#include "files/csv_reader.h"

#include "core/record/names.h"

#include "core/record/number_text.h"
#include "files/csv_cells.h"
#include "files/text_decoding.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <unordered_map>

namespace knot::files {
namespace {

using record::Metric;
using record::Shot;
using record::ShotStatus;

std::string shortened(const std::string& text) {
    return text.size() <= 40 ? text : text.substr(0, 37) + "…";
}

bool isNoReading(const std::string& cell) {
    return std::ranges::all_of(cell, [](char c) { return c == '-'; }) || cell == "–" || cell == "—" || cell == "n/a" ||
           cell == "N/A" || cell == "NA";
}

// A number as exports write them: decimal point or comma, a true minus, a side letter L or R before
// or after (left is negative).
std::optional<double> numberIn(std::string cell) {
    double sign = 1;
    auto side = [&](char c) { return c == 'L' || c == 'l' ? -1.0 : c == 'R' || c == 'r' ? 1.0 : 0.0; };
    if (!cell.empty() && side(cell.back()) != 0) {
        sign = side(cell.back());
        cell = trimmed(cell.substr(0, cell.size() - 1));
    } else if (!cell.empty() && side(cell.front()) != 0) {
        sign = side(cell.front());
        cell = trimmed(cell.substr(1));
    }
    if (cell.starts_with("\u2212"))
        cell.replace(0, 3, "-");
    if (cell.starts_with('+'))
        cell.erase(0, 1);
    if (cell.find('.') == std::string::npos)
        std::ranges::replace(cell, ',', '.');
    const auto value = record::numberFromText(cell);
    return value ? std::optional(sign * *value) : std::nullopt;
}

// "Average", "Std. Dev." and the like, which exports put under their shots.
bool namesASummary(const std::string& cell) {
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
        if (trimmed(text).find_first_not_of("\n") == std::string::npos)
            return tl::unexpected(Error{ErrorKind::emptyFile, m_file, 0, 0, {}, {}});
        // One line is one shot at most; room for all at once keeps the peak of memory low.
        m_imported.test.shots.reserve(static_cast<std::size_t>(std::ranges::count(text, '\n')));
        const char delimiter = delimiterOf(text.substr(0, text.find('\n')));
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
        if (m_headings.empty()) {
            m_headings = row.cells;
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
            const std::string cell = i < row.cells.size() ? trimmed(row.cells[i]) : std::string();
            if (!takeCell(shot, i, cell, row.line))
                return false;
            named = named || (m_columns[i].role == ColumnRole::build && !cell.empty());
        }
        if (!named && !clubsUnknown())
            return refuse(ErrorKind::missingBuild, row.line, columnOf(ColumnRole::build), "", "");
        if (!named)
            shot.build = buildNamed({});
        record::deriveMissing(shot.readings);
        m_imported.test.shots.push_back(std::move(shot));
        return true;
    }

    bool clubsUnknown() const { return m_options.clubs == ReadOptions::Clubs::unknown; }

    bool isSummary(const CsvRow& row) const {
        for (std::size_t i = 0; i < std::min(m_columns.size(), row.cells.size()); ++i)
            if (m_columns[i].role == ColumnRole::build || m_columns[i].role == ColumnRole::shot || i == 0)
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
        case ColumnRole::shot:
            shot.number = cell;
            return true;
        case ColumnRole::sitting:
            shot.sitting = cell;
            return true;
        case ColumnRole::player:
            shot.player = cell;
            return true;
        case ColumnRole::round:
            shot.round = cell;
            return true;
        case ColumnRole::turn:
            shot.turn = cell;
            return true;
        case ColumnRole::status:
            return takeWord(shot.status, record::statusNames, ErrorKind::unknownStatus, column, cell, line);
        case ColumnRole::reason:
            shot.reason = cell;
            return true;
        case ColumnRole::takenAt:
            shot.takenAt = cell;
            return true;
        case ColumnRole::delivery:
            shot.delivery = cell;
            return true;
        case ColumnRole::feel:
            return takeFeel(shot, column, cell, line);
        case ColumnRole::note:
            shot.note = cell;
            return true;
        case ColumnRole::handedOver:
            shot.handedOver = cell == "1" || lowerCase(cell) == "yes";
            return true;
        case ColumnRole::setAsideWhen:
            return takeWord(shot.setAsideWhen, record::setAsideWhenNames, ErrorKind::unknownSetAsideWhen, column, cell,
                            line);
        case ColumnRole::mark:
            return takeWord(shot.mark, record::markNames, ErrorKind::unknownMark, column, cell, line);
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
        const auto value = numberIn(cell);
        if (!value)
            return refuse(ErrorKind::notANumber, line, column, cell, "a number in " + unitWords(meaning.unit));
        shot.readings.measure(meaning.metric, record::toInternal(*value, meaning.unit));
        return true;
    }

    static std::string unitWords(record::Unit unit) {
        const auto symbol = record::symbol(unit);
        return symbol.empty() ? "plain figures" : symbol == "°" ? "degrees" : std::string(symbol);
    }

    // One of the words of an enumeration; empty is the first of them.
    template<typename Value, std::size_t N>
    bool takeWord(Value& value, const std::array<const char*, N>& names, ErrorKind refusal, std::size_t column,
                  const std::string& cell, std::size_t line) {
        if (cell.empty())
            return true;
        const auto named = record::valueNamed<Value>(names, lowerCase(cell));
        if (!named)
            return refuse(refusal, line, column, cell, "");
        value = *named;
        return true;
    }

    bool takeFeel(Shot& shot, std::size_t column, const std::string& cell, std::size_t line) {
        if (cell.empty())
            return true;
        const char* end = cell.data() + cell.size();
        const auto [stop, error] = std::from_chars(cell.data(), end, shot.feel);
        if (error != std::errc() || stop != end || shot.feel < 1 || shot.feel > 10)
            return refuse(ErrorKind::notANumberOfFeel, line, column, cell, "");
        return true;
    }

    std::size_t buildNamed(const std::string& name) {
        const auto [at, added] = m_builds.try_emplace(name, m_imported.test.builds.size());
        if (added)
            m_imported.test.builds.push_back({name, {}});
        return at->second;
    }

    std::size_t columnOf(ColumnRole role) const {
        return static_cast<std::size_t>(std::ranges::find(m_columns, role, &ColumnMeaning::role) - m_columns.begin());
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
    std::unordered_map<std::string, std::size_t> m_builds;
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
    (void)eachRow(path, text, delimiterOf(text.substr(0, text.find('\n'))), [&](CsvRow& row) {
        for (const auto& cell : row.cells)
            headings.push_back(trimmed(cell));
        return false;
    });
    return headings;
}

bool isAboutHeadings(ErrorKind kind) {
    return kind == ErrorKind::noBuildColumn || kind == ErrorKind::noMetricColumn || kind == ErrorKind::unknownUnit ||
           kind == ErrorKind::missingUnit;
}

} // namespace knot::files
