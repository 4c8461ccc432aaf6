#include "core/reach/offer.h"

#include "core/rack/club_kind.h"
#include "core/record/text/table.h"

#include <array>
#include <stdexcept>
#include <string_view>

namespace knot::embedded {
extern const std::string_view loftTable; // data/lofts.csv
} // namespace knot::embedded

namespace knot::reach {
namespace {

Offer readOffer(flight::HeadKind kind) {
    for (const auto& cells : record::tableRows(embedded::loftTable, 6))
        if (cells[0] == rack::kindName(kind)) {
            auto number = [&](std::size_t i) { return record::tableNumber(cells[i]); };
            return {number(1), number(2), number(3), number(4), number(5)};
        }
    throw std::logic_error("data/lofts.csv lacks a kind");
}

} // namespace

const Offer& offerOf(flight::HeadKind kind) {
    using flight::HeadKind;
    static const std::array offers = {readOffer(HeadKind::driver), readOffer(HeadKind::wood), readOffer(HeadKind::iron),
                                      readOffer(HeadKind::wedge)};
    return offers.at(static_cast<std::size_t>(kind));
}

} // namespace knot::reach
