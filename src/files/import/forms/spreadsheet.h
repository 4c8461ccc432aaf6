#pragma once

#include "files/import/forms/sheet.h"

#include <string>
#include <vector>

namespace knot::files {

/// Whether bytes begin as a spreadsheet's file does (a ZIP archive).
bool looksLikeSpreadsheet(std::string_view bytes);

/// The sheets of a spreadsheet that have any cell, in their order: XLSX (shared, inline and formula
/// texts alike) or ODS. Numbers are written plainly, dates and times as ISO 8601 says; of a formula its
/// last result; an error as it stands ("#DIV/0!"). Refused: what is neither, is damaged or locked with a
/// password, has more than 1000 columns or 200,000 rows, or unpacks to more than 128 MiB.
Result<std::vector<Sheet>> sheetsOf(const std::string& file, const std::string& bytes, const Stretch& stretch = {});

} // namespace knot::files
