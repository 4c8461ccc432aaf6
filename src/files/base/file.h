#pragma once

#include "files/base/error.h"

#include <string>

namespace knot::files {

/// Reads a whole file of up to 32 MiB. A missing or unreadable one is an error with the system's reason;
/// what has no end (a pipe, a device) is not read.
Result<std::string> readFile(const std::string& path);

/// Writes text to a file by way of a neighbour that is renamed once it is on disk, so that a failure
/// or a cut of power leaves the old file whole. What is left half-written is taken away.
Result<void> writeFile(const std::string& path, const std::string& text);

} // namespace knot::files
