#pragma once

#include <string>
#include <string_view>

namespace knot::record {

/// Without white space at either end: ASCII's, and the spaces of UTF-8 (no-break, thin, figure and
/// so on, the byte order mark). Never cuts a character in half.
std::string_view trimmed(std::string_view text);

/// ASCII letters in lower case; others as they are.
std::string lowerCase(std::string_view text);

/// How many bytes of white space `text` begins with, 0 for none: one character at most.
std::size_t spaceAtStart(std::string_view text);

} // namespace knot::record
