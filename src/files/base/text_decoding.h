#pragma once

#include <string>

namespace knot::files {

/// Turns a text file's bytes into UTF-8 without a byte-order mark: UTF-8 and UTF-16 by their mark,
/// UTF-8 where the bytes are valid, else Windows-1252.
std::string decodeText(std::string bytes);

} // namespace knot::files
