#pragma once

#include <string>
#include <string_view>

namespace knot::files {

/// A word as it is looked up: in lower case of any alphabet, without accents, wide letters and brackets as plain
/// ones. "SCHLÄGER" and "Schlager" are one, and so are "（ｍ）" and "(m)".
std::string folded(std::string_view text);

/// Wide letters, figures, brackets and blanks of Japanese and Chinese text as plain ones; nothing else changes.
std::string withPlainWidth(std::string text);

} // namespace knot::files
