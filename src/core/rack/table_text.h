#pragma once

#include <functional>
#include <string>
#include <vector>

// Tables that a user edits as text: a row a line, cells by commas; by semicolons or tabs where a line has one,
// so that numbers may have a decimal comma.
namespace knot::rack {

/// Calls `take` with the cells of each line that is not empty. It gives back why a line can't be taken; the first such
/// ends it, and the reason names the line.
bool eachTableLine(const std::string& text, std::string& reason,
                   const std::function<std::string(const std::vector<std::string>& cells)>& take);

std::string tableLine(const std::vector<std::string>& cells);

/// A number as it would be typed: whole ones without a decimal, negative ones with a hyphen.
std::string tableFigure(double value);

} // namespace knot::rack
