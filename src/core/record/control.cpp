#include "core/record/control.h"

#include "core/record/text/names.h"
#include "core/record/text/table.h"

#include <algorithm>

namespace knot::embedded {
extern const std::string_view heldTable; // data/held.csv
}

namespace knot::record {

std::vector<Held> usualControls(TestKind kind) {
    std::string word = nameOf(kindNames, kind);
    std::erase(word, '_');
    std::vector<Held> controls;
    for (const auto& row : tableRows(embedded::heldTable, 3))
        if (row[0] == "all" || (" " + row[0] + " ").find(" " + word + " ") != std::string::npos)
            controls.push_back({row[1], true, row[2]});
    return controls;
}

std::vector<Held> heldAsUsual(TestKind kind) {
    auto controls = usualControls(kind);
    for (Held& control : controls)
        control.slip.clear();
    return controls;
}

std::string whyVisible(TestKind kind) {
    switch (kind) {
    case TestKind::head:
    case TestKind::wholeClubs:
        return "A head can't be hidden from the one who swings it; the reading can be blind.";
    case TestKind::loft:
        return "A sleeve setting shows at address; the reading can be blind.";
    case TestKind::length:
    case TestKind::lie:
        return "Length and lie show at address; the reading can be blind.";
    case TestKind::delivery:
        return "A delivery can't be hidden from the one who makes it; the reading can be blind.";
    default:
        return {};
    }
}

} // namespace knot::record
