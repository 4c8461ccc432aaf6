#include "files/base/cell_text.h"

#include <string_view>

namespace knot::files {
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

} // namespace knot::files
