#include "core/rack/head_kind.h"

#include <array>

namespace knot::rack {

using flight::HeadKind;

HeadKind headKind(const record::Part& head) {
    constexpr double driverVolume = 300; // cm³
    constexpr double woodVolume = 60;
    constexpr double wedgeLoft = 44;
    constexpr double ironLoft = 24;
    constexpr double woodLoft = 13;
    if (head.volume)
        return *head.volume > driverVolume ? HeadKind::driver
               : *head.volume > woodVolume ? HeadKind::wood
                                           : HeadKind::iron;
    if (!head.loft)
        return HeadKind::wood;
    return *head.loft >= wedgeLoft ? HeadKind::wedge
           : *head.loft > ironLoft ? HeadKind::iron
           : *head.loft < woodLoft ? HeadKind::driver
                                   : HeadKind::wood;
}

std::string_view kindName(HeadKind kind) {
    constexpr std::array<std::string_view, 4> names = {"driver", "wood", "iron", "wedge"};
    return names.at(static_cast<std::size_t>(kind));
}

} // namespace knot::rack
