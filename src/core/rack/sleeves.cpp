#include "core/rack/sleeves.h"

#include "core/rack/table_text.h"
#include "core/record/text/number_text.h"
#include "core/record/text/table.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <algorithm>
#include <array>
#include <string_view>

namespace knot::embedded {
extern const std::string_view sleeveTable; // data/sleeves.csv
} // namespace knot::embedded

namespace knot::rack {

const std::vector<SleeveRow>& usualSleeves() {
    static const std::vector<SleeveRow> rows = [] {
        std::vector<SleeveRow> made;
        for (const auto& row : record::tableRows(embedded::sleeveTable, 5))
            made.push_back(
                {row[0],
                 {row[1], record::tableNumber(row[2]), record::tableNumber(row[3]), record::tableNumber(row[4])}});
        return made;
    }();
    return rows;
}

std::string sleeveTableText(const std::vector<SleeveRow>& rows) {
    std::string text;
    for (const SleeveRow& row : rows)
        text += tableLine({row.family, row.sleeve.setting, tableFigure(row.sleeve.loft), tableFigure(row.sleeve.face),
                           tableFigure(row.sleeve.lie)});
    return text;
}

std::optional<std::vector<SleeveRow>> sleeveTableFrom(const std::string& text, std::string& reason) {
    std::vector<SleeveRow> rows;
    const bool taken = eachTableLine(text, reason, [&](const std::vector<std::string>& cells) -> std::string {
        if (cells.size() != 5 || cells[0].empty() || cells[1].empty())
            return "expected a family, a setting, loft, face and lie, with commas between.";
        std::array<double, 3> angles{};
        for (std::size_t i = 0; i < angles.size(); ++i) {
            const auto angle = record::numberIn(cells[i + 2]);
            if (!angle)
                return "'" + cells[i + 2] + "' is not a number.";
            angles[i] = *angle;
        }
        rows.push_back({cells[0], {cells[1], angles[0], angles[1], angles[2]}});
        return {};
    });
    return taken ? std::optional(rows) : std::nullopt;
}

std::optional<record::Sleeve> sleeveOf(const std::vector<SleeveRow>& rows, const std::string& head,
                                       const std::string& setting) {
    const auto at = std::ranges::find_if(rows, [&](const SleeveRow& row) {
        return record::lowerCase(head).starts_with(record::lowerCase(row.family)) &&
               record::lowerCase(row.sleeve.setting) == record::lowerCase(setting);
    });
    return at == rows.end() ? std::nullopt : std::optional(at->sleeve);
}

} // namespace knot::rack
