#pragma once

#include "files/import/columns.h"
#include "files/import/sheet.h"

#include <map>
#include <optional>
#include <string>
#include <vector>

namespace knot::files {

/// Where the table stands in a sheet: what is above it, its headings, a row of units.
struct TableAt {
    std::size_t heading = 0;
    std::optional<std::size_t> groups; ///< "Ball" and "Club" over "Speed" and "Speed": the row above
    std::optional<std::size_t> units;
    std::size_t first = 0;                         ///< row of the first shot, or of what stands there
    std::vector<std::string> headings;             ///< as they stand, without control characters
    std::size_t understood = 0;                    ///< headings that name a measurement
    std::map<std::string, std::string> above = {}; ///< "Player: Runa Veld" above the table: by field key
    std::size_t titleRows = 0;                     ///< other rows above it
    std::string lastTitle = {};                    ///< the last of them, where it is one cell
};

/// Finds the table of a sheet: the row in which most headings are known. Nothing in a sheet without any
/// row; where no heading is known, the first row is taken for the headings. Headings in two rows, what
/// is measured under what it is of, are read as one: "Ball Speed".
std::optional<TableAt> findTable(const Sheet& sheet, const HeadingMap& map);

/// The first cell of a row that is not empty.
std::string firstFilledCell(const Sheet& sheet, std::size_t row);

/// What a row under the headings is.
enum class RowKind {
    shot,
    blank,
    summary,  ///< averages and the like
    headings, ///< the headings once more
    group     ///< a club's name by itself, for the rows under it
};

/// What the rows from `table.first` on are; `columns` says where a shot's club and place stand.
std::vector<RowKind> rowKinds(const Sheet& sheet, const TableAt& table, const std::vector<ColumnTaken>& columns);

} // namespace knot::files
