#pragma once

#include "files/import/columns.h"

#include <string>
#include <vector>

namespace knot::app {

class Book;

/// Meanings given in earlier imports, by heading: for what reads files by itself (a watched folder, a
/// device's file on a plan).
files::HeadingMap rememberedHeadings();

/// What was said of files with this set of headings, in any order; kept with the logbook, else with the
/// user's settings.
files::HeadingMap rememberedFor(Book& book, const std::vector<std::string>& headings);
void rememberFor(Book& book, const std::vector<std::string>& headings, const files::HeadingMap& answers);

} // namespace knot::app
