#pragma once

#include <string>
#include <string_view>

namespace knot::record {

/// Without white space at either end: ASCII's, and the spaces of UTF-8 (no-break, thin, figure and
/// so on, the byte order mark). Never cuts a character in half.
std::string_view trimmed(std::string_view text);

/// Without control characters and marks that turn the direction of writing, which a file, a monitor or a
/// user's paste may bring and which no name needs; line ends and tabs stay.
std::string printable(std::string text);

/// With its first letter as a capital, to begin a sentence; letters of ASCII only.
std::string upperFirst(std::string text);

/// ASCII letters in lower case; others as they are.
std::string lowerCase(std::string_view text);

/// How many bytes of white space `text` begins with, 0 for none: one character at most.
std::size_t spaceAtStart(std::string_view text);

} // namespace knot::record
