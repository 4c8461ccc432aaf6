#include "core/reach/chart.h"

#include "core/rack/club_kind.h"
#include "core/record/text/table.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <stdexcept>
#include <string_view>

namespace knot::embedded {
extern const std::string_view windowTable; // data/windows.csv
} // namespace knot::embedded

namespace knot::reach {
namespace {

constexpr std::array bands = {&Wanted::launch, &Wanted::spin, &Wanted::height, &Wanted::descent};

Chart readChart() {
    using flight::HeadKind;
    Chart chart;
    for (const auto& cells : record::tableRows(embedded::windowTable, 3 + 2 * bands.size())) {
        Chart::Row row;
        const auto kinds = {HeadKind::driver, HeadKind::wood, HeadKind::iron, HeadKind::wedge};
        const auto kind = std::ranges::find(kinds, cells[0], rack::kindName);
        if (kind == kinds.end())
            throw std::logic_error("data/windows.csv: " + cells[0]);
        row.kind = *kind;
        auto number = [&](std::size_t i) {
            return cells[i].empty() ? std::nullopt : std::optional(record::tableNumber(cells[i]));
        };
        row.ballSpeedFrom = record::tableNumber(cells[1]);
        row.ballSpeedTo = record::tableNumber(cells[2]);
        for (std::size_t i = 0; i < bands.size(); ++i)
            row.wanted.*bands[i] = {number(3 + 2 * i), number(4 + 2 * i)};
        chart.rows.push_back(row);
    }
    return chart;
}

// As short as it is, for programs.
std::string written(double value) {
    std::array<char, 32> text{};
    const auto end = std::to_chars(text.data(), text.data() + text.size(), std::round(value * 100) / 100).ptr;
    return {text.data(), end};
}

} // namespace

std::optional<Wanted> Chart::at(flight::HeadKind kind, double ballSpeed) const {
    for (const Row& row : rows)
        if (row.kind == kind && ballSpeed >= row.ballSpeedFrom && ballSpeed < row.ballSpeedTo)
            return row.wanted;
    return std::nullopt;
}

const Chart& usualChart() {
    static const Chart chart = readChart();
    return chart;
}

std::string chartText(const std::vector<Chart::Row>& rows) {
    std::string text = "kind,ball_speed_from_ms,ball_speed_to_ms,launch_from_deg,launch_to_deg,spin_from_rpm,"
                       "spin_to_rpm,height_from_m,height_to_m,descent_from_deg,descent_to_deg\n";
    for (const Chart::Row& row : rows) {
        text +=
            std::string(rack::kindName(row.kind)) + ',' + written(row.ballSpeedFrom) + ',' + written(row.ballSpeedTo);
        for (const auto band : bands)
            for (const auto& end : {(row.wanted.*band).from, (row.wanted.*band).to})
                text += ',' + (end ? written(*end) : std::string());
        text += '\n';
    }
    return text;
}

} // namespace knot::reach
