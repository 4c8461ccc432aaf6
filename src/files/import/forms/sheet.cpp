#include "files/import/forms/sheet.h"

#include "core/record/text/text.h"

#include <csv.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <map>
#include <utility>

namespace knot::files {
namespace {

constexpr std::size_t longestLine = std::size_t{1} << 20;
constexpr std::size_t sampledLines = 40;
constexpr std::size_t linesATelling = 500;

struct Parser {
    csv_parser state{};
    bool ready = csv_init(&state, CSV_STRICT | CSV_STRICT_FINI) == 0;
    Parser() = default;
    Parser(const Parser&) = delete;
    Parser& operator=(const Parser&) = delete;
    ~Parser() { csv_free(&state); }
};

struct Filled {
    Sheet sheet;
    std::size_t line = 0;
    std::size_t cells = 0;
    std::size_t widest = 0;
    bool hasQuote = false; ///< a cell begins with one
};

void onCell(void* data, std::size_t size, void* filled) {
    auto* to = static_cast<Filled*>(filled);
    ++to->cells;
    to->hasQuote = to->hasQuote || (size > 0 && *static_cast<const char*>(data) == '"');
    to->sheet.addCell({static_cast<const char*>(data), size});
}

void onRow(int, void* filled) {
    auto* to = static_cast<Filled*>(filled);
    to->widest = std::max(to->widest, to->cells);
    to->cells = 0;
    to->sheet.endRow(to->line);
}

constexpr std::array<char, 4> delimiters = {',', ';', '\t', '|'};

// How many of the first lines have so many of a delimiter, outside quotes.
using Lines = std::map<std::size_t, std::size_t>;
std::array<Lines, delimiters.size()> linesByMarks(std::string_view text) {
    std::array<Lines, delimiters.size()> lines;
    std::array<std::size_t, delimiters.size()> count{};
    bool quoted = false;
    std::size_t seen = 0;
    for (std::size_t i = 0; i <= text.size() && seen < sampledLines; ++i) {
        const char c = i < text.size() ? text[i] : '\n';
        quoted = c != '\n' && (c == '"' ? !quoted : quoted); // an inch mark opens nothing for long
        for (std::size_t k = 0; k < delimiters.size(); ++k)
            count[k] += !quoted && c == delimiters[k] ? 1 : 0;
        if (c != '\n')
            continue;
        ++seen;
        for (std::size_t k = 0; k < delimiters.size(); ++k)
            ++lines[k][std::exchange(count[k], 0)];
    }
    return lines;
}

// Which character parts the cells: the one that gives most of the first lines the same number of cells,
// and many of them.
char delimiterOf(std::string_view text) {
    const auto lines = linesByMarks(text);
    char best = delimiters.front();
    std::pair<std::size_t, std::size_t> most; // lines, marks in each
    for (std::size_t k = 0; k < delimiters.size(); ++k)
        for (const auto& [marks, often] : lines[k])
            if (marks > 0 && std::pair(often, marks) > most) {
                best = delimiters[k];
                most = {often, marks};
            }
    return best;
}

} // namespace

void Sheet::endRow(std::size_t line) {
    m_rows.push_back({static_cast<std::uint32_t>(m_ends.size()), static_cast<std::uint32_t>(line)});
}

void Sheet::reserve(std::size_t bytes) {
    m_text.reserve(bytes);
}

std::string_view Sheet::cell(std::size_t row, std::size_t column) const {
    const std::size_t at = begin(row) + column;
    if (at >= m_rows[row].end)
        return {};
    const std::size_t from = at == 0 ? 0 : m_ends[at - 1];
    return std::string_view(m_text).substr(from, m_ends[at] - from);
}

bool Sheet::isBlank(std::size_t row) const {
    for (std::size_t i = 0; i < columns(row); ++i)
        if (!cell(row, i).empty())
            return false;
    return true;
}

namespace {

// Marks of inches in the middle of a cell are no quotes where the text can be read no other way.
enum class Quotes { strict, inchMarks };

Result<Sheet> parsed(const std::string& file, const std::string& text, Quotes quotes, const Stretch& stretch) {
    auto fail = [&](ErrorKind kind, std::size_t line, std::string found = {}, std::string expected = {}) {
        return tl::unexpected(Error{kind, file, line, 0, {}, std::move(found), std::move(expected)});
    };
    Parser parser;
    if (quotes == Quotes::inchMarks)
        csv_set_quote(&parser.state, 0); // which no line holds
    csv_set_delim(&parser.state, static_cast<unsigned char>(delimiterOf(text)));
    // The library trims what stands around cells; a tab that parts them must not be trimmed.
    csv_set_space_func(&parser.state, [](unsigned char c) { return c == ' ' ? 1 : 0; });
    Filled filled;
    filled.sheet.reserve(text.size());
    // Line by line, so that a row knows the line it stands on even after quoted line ends.
    for (std::size_t from = 0; from < text.size();) {
        const std::size_t end = std::min(text.find('\n', from), text.size() - 1) + 1;
        ++filled.line;
        if (end - from > longestLine)
            return fail(ErrorKind::lineTooLong, filled.line);
        if (std::memchr(text.data() + from, 0, end - from) != nullptr)
            return fail(ErrorKind::nulByte, filled.line);
        if (csv_parse(&parser.state, text.data() + from, end - from, onCell, onRow, &filled) != end - from)
            return fail(ErrorKind::badQuotes, filled.line);
        if (quotes == Quotes::inchMarks && filled.hasQuote)
            return fail(ErrorKind::badQuotes, filled.line);
        if (std::max(filled.widest, filled.cells) > mostColumns)
            return fail(ErrorKind::tooManyColumns, filled.line, std::to_string(std::max(filled.widest, filled.cells)),
                        std::to_string(mostColumns));
        if (filled.sheet.rows() > mostRows)
            return fail(ErrorKind::tooManyRows, 0, {}, std::to_string(mostRows));
        from = end;
        if (filled.line % linesATelling == 0 &&
            !stretch.tell(static_cast<double>(from) / static_cast<double>(text.size())))
            return fail(ErrorKind::givenUp, 0);
    }
    if (csv_fini(&parser.state, onCell, onRow, &filled) != 0)
        return fail(ErrorKind::badQuotes, filled.line);
    return std::move(filled.sheet);
}

} // namespace

Result<Sheet> sheetOfText(const std::string& file, const std::string& text, const Stretch& stretch) {
    if (record::trimmed(text).empty())
        return tl::unexpected(Error{ErrorKind::emptyFile, file, 0, 0, {}, {}});
    auto sheet = parsed(file, text, Quotes::strict, stretch);
    if (!sheet && sheet.error().kind == ErrorKind::badQuotes)
        if (auto lenient = parsed(file, text, Quotes::inchMarks, stretch))
            return lenient;
    return sheet;
}

} // namespace knot::files
