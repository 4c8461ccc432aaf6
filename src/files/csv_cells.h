#pragma once

#include "files/error.h"

#include <functional>
#include <string>
#include <vector>

namespace knot::files {

/// A text as it stands in a cell: with an apostrophe before it where a spreadsheet would take it for a
/// formula; and back.
std::string asCell(std::string text);
std::string fromCell(std::string cell);

/// One row of a delimited file and the line on which it ends.
struct CsvRow {
    std::size_t line = 0;
    std::vector<std::string> cells;
};

/// Which character parts the cells: the one of , ; and tab that the heading line holds most often
/// outside quotes.
char delimiterOf(const std::string& headingLine);

/// Splits text into rows (RFC 4180; Windows and Unix line ends; empty lines are passed over) and
/// hands each to `visit`, which returns false to stop. Refuses NUL bytes, open quotes and lines
/// over 1 MiB.
Result<void> eachRow(const std::string& file, const std::string& text, char delimiter,
                     const std::function<bool(CsvRow&)>& visit);

} // namespace knot::files
