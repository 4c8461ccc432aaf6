#pragma once

#include "files/import/table.h"

#include <vector>

namespace knot::files {

/// The tables of a sheet as sheets of their own, each with what stands above it: tables with other headings below each
/// other, tables beside each other behind a blank column, and a table that has a shot a column, turned. Empty for
/// a sheet that is one table.
std::vector<Sheet> tablesApart(const Sheet& sheet, const HeadingMap& map);

} // namespace knot::files
