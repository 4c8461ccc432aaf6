#pragma once

#include "files/import/columns.h"

#include <vector>

namespace knot::files {

/// Asks about columns of readings that do not go together, by physics alone (core/flight for the flight): the likely
/// mistake, two columns swapped, another unit or sides turned round, is taken where it makes them go together. What a
/// user answered is believed. `rows` are the shots looked at.
void askTogether(const Sheet& sheet, const std::vector<std::size_t>& rows, std::vector<ColumnTaken>& columns);

} // namespace knot::files
