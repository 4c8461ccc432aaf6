#include "core/record/text.h"

#include <array>

namespace knot::record {
namespace {

constexpr std::array<std::string_view, 21> spaces = {
    " ",      "\t",     "\r",     "\n",     "\v",     "\f",     "\u0085", "\u00a0", "\u2000", "\u2001", "\u2002",
    "\u2003", "\u2004", "\u2005", "\u2006", "\u2007", "\u2008", "\u2009", "\u200a", "\u202f", "\ufeff"};

std::size_t spaceAtEnd(std::string_view text) {
    for (const auto space : spaces)
        if (text.ends_with(space))
            return space.size();
    return 0;
}

} // namespace

std::size_t spaceAtStart(std::string_view text) {
    for (const auto space : spaces)
        if (text.starts_with(space))
            return space.size();
    return 0;
}

std::string_view trimmed(std::string_view text) {
    while (const std::size_t size = spaceAtStart(text))
        text.remove_prefix(size);
    while (const std::size_t size = spaceAtEnd(text))
        text.remove_suffix(size);
    return text;
}

std::string lowerCase(std::string_view text) {
    std::string lower(text);
    for (char& c : lower)
        if (c >= 'A' && c <= 'Z')
            c = static_cast<char>(c - 'A' + 'a');
    return lower;
}

} // namespace knot::record
