#pragma once

#include "files/import/table.h"

#include <vector>

namespace knot::files {

/// The tables of a sheet as sheets of their own, each with what stands above it; none for a sheet that is one table.
struct TablesApart {
    std::vector<Sheet> tables;
    std::size_t averages = 0; ///< tables whose headings say that they hold averages: they are left out
};

/// Parts tables with other headings below each other and tables beside each other behind a blank column, and turns a
/// table that has a shot a column.
TablesApart tablesApart(const Sheet& sheet, const HeadingMap& map);

} // namespace knot::files
