#pragma once

#include "files/door/made_file.h"

#include <string>
#include <vector>

namespace knot::test {

/// A table before it takes a form.
struct Grid {
    std::vector<std::string> headings;
    std::vector<std::vector<std::string>> rows;
};

/// As a text or a workbook of some form; `above` stands over it where the form has room for it. Tables by club take
/// the club's name out of its column.
std::string inForm(Form form, const Grid& grid, const std::string& above, std::size_t clubColumn);
std::string suffixOf(Form form);
/// "Ball Speed [mph]" in capitals, but for what stands in brackets.
std::string inCapitals(const std::string& heading);

} // namespace knot::test
