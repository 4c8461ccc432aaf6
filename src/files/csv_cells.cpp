#include "files/csv_cells.h"

#include <csv.h>

#include <algorithm>
#include <array>
#include <cstring>
#include <string_view>

namespace knot::files {
namespace {

constexpr std::size_t longestLine = std::size_t{1} << 20;

struct Collector {
    CsvRow row;
    std::size_t cellCount = 0;
    const std::function<bool(CsvRow&)>* visit = nullptr;
    bool stopped = false;

    // Cells are reused from row to row, so that a long file does not allocate for each.
    void cell(const char* data, std::size_t size) {
        if (cellCount == row.cells.size())
            row.cells.emplace_back();
        row.cells[cellCount++].assign(data, size);
    }
    void endRow() {
        row.cells.resize(cellCount);
        cellCount = 0;
        if (!stopped)
            stopped = !(*visit)(row);
    }
};

void onCell(void* data, std::size_t size, void* collector) {
    static_cast<Collector*>(collector)->cell(static_cast<const char*>(data), size);
}

void onRow(int, void* collector) {
    static_cast<Collector*>(collector)->endRow();
}

struct Parser {
    csv_parser state{};
    bool ready = csv_init(&state, CSV_STRICT | CSV_STRICT_FINI) == 0;
    Parser() = default;
    Parser(const Parser&) = delete;
    Parser& operator=(const Parser&) = delete;
    ~Parser() { csv_free(&state); }
};

} // namespace

namespace {

bool wantsApostrophe(char first) {
    return std::string_view("=+-@'\t\r").find(first) != std::string_view::npos;
}

} // namespace

std::string asCell(std::string text) {
    return !text.empty() && wantsApostrophe(text.front()) ? "'" + text : text;
}

std::string fromCell(std::string cell) {
    if (cell.size() > 1 && cell.front() == '\'' && wantsApostrophe(cell[1]))
        cell.erase(0, 1);
    return cell;
}

char delimiterOf(const std::string& headingLine) {
    constexpr std::array<char, 3> candidates = {',', ';', '\t'};
    std::array<int, 3> count{};
    bool quoted = false;
    for (const char c : headingLine) {
        quoted = c == '"' ? !quoted : quoted;
        for (std::size_t i = 0; i < candidates.size(); ++i)
            count[i] += !quoted && c == candidates[i] ? 1 : 0;
    }
    return candidates[static_cast<std::size_t>(std::ranges::max_element(count) - count.begin())];
}

Result<void> eachRow(const std::string& file, const std::string& text, char delimiter,
                     const std::function<bool(CsvRow&)>& visit) {
    auto fail = [&](ErrorKind kind, std::size_t line) { return tl::unexpected(Error{kind, file, line, 0, {}, {}}); };
    Parser parser;
    csv_set_delim(&parser.state, static_cast<unsigned char>(delimiter));
    // The library trims what stands around cells; a tab that parts them must not be trimmed.
    csv_set_space_func(&parser.state, [](unsigned char c) { return c == ' ' ? 1 : 0; });
    Collector collector;
    collector.visit = &visit;
    std::size_t line = 0;
    // Line by line, so that a row knows the line it stands on even after quoted line ends.
    for (std::size_t from = 0; from < text.size() && !collector.stopped;) {
        const std::size_t end = std::min(text.find('\n', from), text.size() - 1) + 1;
        ++line;
        if (end - from > longestLine)
            return fail(ErrorKind::lineTooLong, line);
        if (std::memchr(text.data() + from, 0, end - from) != nullptr)
            return fail(ErrorKind::nulByte, line);
        collector.row.line = line;
        if (csv_parse(&parser.state, text.data() + from, end - from, onCell, onRow, &collector) != end - from)
            return fail(ErrorKind::badQuotes, line);
        from = end;
    }
    if (!collector.stopped && csv_fini(&parser.state, onCell, onRow, &collector) != 0)
        return fail(ErrorKind::badQuotes, line);
    return {};
}

} // namespace knot::files
