#pragma once

#include "files/import/headings/vocabulary.h"

#include <array>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace knot::files {

/// The words of a text in lower case and without accents; what is neither letter nor figure parts them.
std::vector<std::string> wordsIn(std::string_view text);

/// What may stand behind a canonical name, of readings that cannot be.
const std::array<std::pair<Doubtful, std::string_view>, 4>& decidedWords();

/// A heading in words, by a vocabulary's words, units and sides.
HeadingWords headingWords(const Vocabulary& vocabulary, const std::string& heading);

} // namespace knot::files
