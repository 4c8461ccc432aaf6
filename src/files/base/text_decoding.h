#pragma once

#include <string>

namespace knot::files {

/// Turns a text file's bytes into UTF-8 without a byte-order mark: UTF-8 and UTF-16 by their mark, UTF-16 without one
/// by its NULs, UTF-8 where the bytes are valid, else another alphabet's code page where ICU tells one, else
/// Windows-1252. Wide letters and figures become plain ones.
std::string decodeText(std::string bytes);

} // namespace knot::files
