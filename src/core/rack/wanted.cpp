#include "core/rack/wanted.h"

#include "core/rack/club_kind.h"
#include "core/record/text/table.h"

#include <array>
#include <cmath>
#include <string_view>

namespace knot::embedded {
extern const std::string_view windowTable; // data/windows.csv
} // namespace knot::embedded

namespace knot::rack {
namespace {

struct Row {
    double ballSpeed = 0;
    WantedWindow window;
};

std::vector<Row> rowsOf(flight::HeadKind kind) {
    std::vector<Row> rows;
    for (const auto& cells : record::tableRows(embedded::windowTable, 7))
        if (cells[0] == kindName(kind)) {
            auto number = [&](std::size_t i) { return record::tableNumber(cells[i]); };
            rows.push_back({number(1), {number(2), number(3), number(4), number(5), number(6)}});
        }
    return rows;
}

} // namespace

std::optional<WantedWindow> wantedWindow(flight::HeadKind kind, double ballSpeed) {
    static const std::array tables = {rowsOf(flight::HeadKind::driver), rowsOf(flight::HeadKind::wood),
                                      rowsOf(flight::HeadKind::iron), rowsOf(flight::HeadKind::wedge)};
    const std::vector<Row>& rows = tables.at(static_cast<std::size_t>(kind));
    for (std::size_t i = 0; i + 1 < rows.size(); ++i) {
        const Row& slow = rows[i];
        const Row& fast = rows[i + 1];
        if (ballSpeed < slow.ballSpeed || ballSpeed > fast.ballSpeed)
            continue;
        const double share = (ballSpeed - slow.ballSpeed) / (fast.ballSpeed - slow.ballSpeed);
        auto between = [&](double WantedWindow::*of, double round) {
            const double value = slow.window.*of + (fast.window.*of - slow.window.*of) * share;
            return std::round(value / round) * round; // nobody wants a tenth of a degree
        };
        return WantedWindow{between(&WantedWindow::launchLow, 0.5), between(&WantedWindow::launchHigh, 0.5),
                            between(&WantedWindow::spinLow, 50), between(&WantedWindow::spinHigh, 50),
                            slow.window.descentLow};
    }
    return std::nullopt;
}

} // namespace knot::rack
