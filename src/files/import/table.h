#pragma once

#include "files/import/columns.h"
#include "files/import/forms/sheet.h"

#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace knot::files {

/// What is said above a table of where it was struck.
inline constexpr std::string_view placeKey = "place";

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

/// How many of a row's cells hold anything.
std::size_t filledCells(const Sheet& sheet, std::size_t row);
/// How many headings name a measurement.
std::size_t metricsAmong(const std::vector<std::string>& headings, const HeadingMap& map);
/// Whether any cell of a row is a number, or stands for one; and whether two are numbers.
bool hasNumber(const Sheet& sheet, std::size_t row);
bool hasReading(const Sheet& sheet, std::size_t row);
/// Whether a row holds units and nothing else.
bool isUnitRow(const Sheet& sheet, std::size_t row);
/// A number, or what stands where one was not read: no club's name.
bool isNumber(std::string_view cell);

} // namespace knot::files
