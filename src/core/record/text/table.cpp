#include "core/record/text/table.h"

#include "core/record/text/number_text.h"
#include "core/record/typed/number_in.h"

#include <stdexcept>

namespace knot::record {
namespace {

std::vector<std::string> split(std::string_view text, char separator) {
    std::vector<std::string> parts;
    while (true) {
        const auto at = text.find(separator);
        parts.emplace_back(text.substr(0, at));
        if (at == std::string_view::npos)
            return parts;
        text.remove_prefix(at + 1);
    }
}

} // namespace

std::vector<std::vector<std::string>> tableRows(std::string_view text, std::size_t columns) {
    std::vector<std::vector<std::string>> rows;
    for (const std::string& line : split(text, '\n')) {
        if (line.empty())
            continue;
        auto cells = split(line, ',');
        if (cells.size() != columns)
            throw std::logic_error("a table row has another width: " + line);
        rows.push_back(std::move(cells));
    }
    if (!rows.empty())
        rows.erase(rows.begin());
    return rows;
}

double tableNumber(const std::string& cell) {
    if (const auto number = numberIn(cell))
        return *number;
    throw std::logic_error("a table cell is not a number: " + cell);
}

} // namespace knot::record
