#pragma once

#include "files/error.h"

#include <string>

namespace knot::files {

/// Reads a whole file. A missing or unreadable one is an error with the system's reason.
Result<std::string> readFile(const std::string& path);

/// Turns a text file's bytes into UTF-8 without a byte-order mark: UTF-8 and UTF-16 by their mark,
/// UTF-8 where the bytes are valid, else Windows-1252.
std::string decodeText(std::string bytes);

} // namespace knot::files
