#pragma once

#include "core/record/club.h"
#include "files/base/error.h"

#include <string>
#include <vector>

namespace knot::files {

/// The parts of a shop, from a table with a heading: a row a part. Columns by their first word, in any order: name (or
/// model), kind (head, shaft or grip; without it shafts), mass or weight (g), length (mm, or what its heading or its
/// cells say), balance (mm), loft, lie, volume (cm³), material, flex, price, tip trim, butt and tip stiffness. Other
/// columns are left alone, rows without a name left out. An error names the first cell that is no number, or the
/// heading where no column is a name.
Result<std::vector<record::Part>> stockOf(const std::string& file, const std::string& bytes);

/// Parts as text that is kept with a logbook, and back; nothing of what is not understood.
std::string stockText(const std::vector<record::Part>& parts);
std::vector<record::Part> stockFromText(const std::string& text);

/// Parts with others added: one of the same kind and name takes the place of the one before.
std::vector<record::Part> withStock(std::vector<record::Part> parts, const std::vector<record::Part>& more);

} // namespace knot::files
