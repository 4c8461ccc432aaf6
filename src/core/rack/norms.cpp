#include "core/rack/norms.h"

#include "core/rack/club_kind.h"
#include "core/record/text/table.h"

#include <string_view>

namespace knot::embedded {
extern const std::string_view normTable; // data/norms.csv
} // namespace knot::embedded

namespace knot::rack {

std::optional<Norm> normOf(flight::HeadKind kind, record::Metric metric) {
    for (const auto& cells : record::tableRows(embedded::normTable, 5))
        if (cells[0] == kindName(kind) && cells[1] == record::info(metric).key)
            return Norm{record::tableNumber(cells[2]), cells[3], cells[4]};
    return std::nullopt;
}

} // namespace knot::rack
