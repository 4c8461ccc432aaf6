#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace knot::record {

/// The rows of a table file that is compiled in (data/*.csv), without its heading; no quoting. A row
/// of another width is a fault of the build and throws std::logic_error.
std::vector<std::vector<std::string>> tableRows(std::string_view text, std::size_t columns);

/// The number in a cell of such a table; anything else throws std::logic_error.
double tableNumber(const std::string& cell);

} // namespace knot::record
