#pragma once

#include <optional>
#include <string>

namespace knot::plan {

/// A key of 128 random bits from the operating system, and two that check them, as ten words of five
/// letters: to be written down by hand and typed again. Lower case, one space between.
std::string newKeyWords();

/// The ten words in a text as `newKeyWords` writes them, whatever its case, spaces, commas and line ends;
/// nothing where it is no such key, as after most slips of the pen.
std::optional<std::string> keyWordsIn(const std::string& text);

} // namespace knot::plan
