#pragma once

#include "files/import/cells/cell_number.h"
#include "files/import/columns.h"
#include "files/import/rows/rows.h"

#include <vector>

namespace knot::files {

/// Asks about what cannot be, a question a column with the likely answer taken: marks that are no number, readings no
/// ball or club has (0 rpm, −9999, a smash of 3), thousands parted by a point, a unit that no reading fits, and columns
/// that do not go together: ball slower than club, carry beyond total, a flight that the other numbers don't give,
/// sides turned round. `kinds` are those of the rows from `table.first` on. Columns that were answered stay as they
/// are.
void askAboutValues(const Sheet& sheet, const TableAt& table, const std::vector<RowKind>& kinds,
                    std::vector<ColumnTaken>& columns);

/// The reading that a cell's number is, in SI: in its unit, with the sign that its heading or the cell beside it gives;
/// nothing where it cannot be and such are left out, or where it is no number of this metric.
bool isOfMetric(const CellNumber& number, record::Metric metric);
std::optional<double> readingOf(const CellNumber& number, const ColumnTaken& column, std::string_view sideCell);

/// Whether a reading, in SI, is one that some ball or club could have.
bool canBe(record::Metric metric, double reading);

} // namespace knot::files
