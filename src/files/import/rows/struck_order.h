#pragma once

#include "core/record/shot.h"

#include <string>
#include <vector>

namespace knot::files {

/// The order in which the shots of one table were struck, as places in it, where it is another than that of the table,
/// and what is said of it.
struct StruckOrder {
    std::vector<std::size_t> places; ///< empty: as they stand
    std::string note;                ///< a sentence; empty where there is nothing to say
};

/// Told by the times, else by the numbers of the shots: the newest first is turned round; a table sorted by club is put
/// in the order of its times. Clocks that jump otherwise change nothing, and are said.
StruckOrder struckOrder(const std::vector<record::Shot>& shots, std::size_t from);

} // namespace knot::files
