#include "core/rack/table_text.h"

#include "core/record/text/number_text.h"
#include "core/record/text/text.h"

#include <algorithm>
#include <cmath>

namespace knot::rack {
namespace {

std::vector<std::string> cellsOf(std::string_view line) {
    const char mark = line.find(';') != std::string_view::npos    ? ';'
                      : line.find('\t') != std::string_view::npos ? '\t'
                                                                  : ',';
    std::vector<std::string> cells;
    for (std::size_t from = 0; from <= line.size();) {
        const auto end = std::min(line.find(mark, from), line.size());
        cells.emplace_back(record::trimmed(line.substr(from, end - from)));
        from = end + 1;
    }
    return cells;
}

} // namespace

bool eachTableLine(const std::string& text, std::string& reason,
                   const std::function<std::string(const std::vector<std::string>& cells)>& take) {
    std::size_t number = 0;
    for (std::size_t from = 0; from < text.size();) {
        const auto end = std::min(text.find('\n', from), text.size());
        const std::string line = text.substr(from, end - from);
        from = end + 1;
        ++number;
        if (line.find_first_not_of(" \t\r") == std::string::npos)
            continue;
        if (std::string why = take(cellsOf(line)); !why.empty()) {
            reason = "Line " + std::to_string(number) + ": " + why;
            return false;
        }
    }
    return true;
}

std::string tableLine(const std::vector<std::string>& cells) {
    std::string line;
    for (const auto& cell : cells)
        line += (line.empty() ? "" : ", ") + cell;
    return line + "\n";
}

std::string tableFigure(double value) {
    const double size = std::fabs(value);
    return (value < 0 ? "-" : "") + record::fixed(size, size == std::floor(size) ? 0 : 1);
}

} // namespace knot::rack
