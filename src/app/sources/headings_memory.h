#pragma once

#include "files/csv_headings.h"

namespace knot::app {

/// Meanings given in earlier imports, by heading.
files::HeadingMap rememberedHeadings();
void rememberHeadings(const files::HeadingMap& map);

} // namespace knot::app
