#pragma once

#include "files/import/forms/sheet.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace knot::files {

/// Whether a text begins as JSON does, or as HTML or XML do.
bool looksLikeJson(std::string_view text);
bool looksLikeMarkup(std::string_view text);

/// Shots as JSON: an array of objects, an object with such an array in it (what stands beside it goes above the
/// table), an object of arrays, or an object a line. Objects inside a shot are taken apart: {"ball": {"speed": 60}} is
/// "ball speed". Refuses what is no JSON with its line, and what holds no shots.
Result<std::vector<Sheet>> sheetsOfJson(const std::string& file, const std::string& text);

/// The tables of an HTML page, whatever the file is called, or the sheets of a workbook in one XML file. No part of it
/// is fetched from elsewhere.
Result<std::vector<Sheet>> sheetsOfMarkup(const std::string& file, const std::string& text);

/// A text whose columns are set out with blanks: by runs of two and more, or where all lines are blank.
std::optional<Sheet> sheetOfBlanks(const std::string& text);

} // namespace knot::files
