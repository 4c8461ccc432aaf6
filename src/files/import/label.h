#pragma once

#include "files/import/shot_file.h"

namespace knot::files {

/// Takes the labels of a file's clubs apart at what parts every one of them in two, such as " – " or "/", where both
/// parts come again: clubs that are one without their second part, in either case, become one. A tag stays with the
/// club's name.
void splitLabels(ImportedTest& imported, SecondPart second);

} // namespace knot::files
