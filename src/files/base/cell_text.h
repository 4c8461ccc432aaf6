#pragma once

#include <string>

namespace knot::files {

/// A text as it stands in a cell: with an apostrophe before it where a spreadsheet would take it for a
/// formula; and back.
std::string asCell(std::string text);
std::string fromCell(std::string cell);

} // namespace knot::files
