#pragma once

#include "core/reach/chart.h"
#include "files/base/error.h"

#include <string>

namespace knot::files {

/// Whether a text begins as a chart of wanted launch, spin, height and descent by ball speed does.
bool looksLikeChart(const std::string& bytes);

/// Reads a chart of one's own: a delimited text whose headings are the kind of club, ball speed from and to, and any of
/// launch, spin, height and descent, each from and to; units in the headings, else m/s, degrees, rpm and m. A cell that
/// is empty leaves that end open. `name` is the file's, and the chart's.
Result<reach::Chart> readChart(const std::string& name, const std::string& bytes);

} // namespace knot::files
