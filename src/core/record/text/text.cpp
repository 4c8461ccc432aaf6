#include "core/record/text/text.h"

#include <algorithm>
#include <array>
#include <utility>

namespace knot::record {
namespace {

constexpr std::array<std::string_view, 21> spaces = {
    " ",      "\t",     "\r",     "\n",     "\v",     "\f",     "\u0085", "\u00a0", "\u2000", "\u2001", "\u2002",
    "\u2003", "\u2004", "\u2005", "\u2006", "\u2007", "\u2008", "\u2009", "\u200a", "\u202f", "\ufeff"};

// Nearly every text begins and ends with a character of ASCII, which tells by itself.
bool isAscii(char c) {
    return static_cast<unsigned char>(c) < 0x80;
}

bool isAsciiSpace(char c) {
    return c == ' ' || (c >= '\t' && c <= '\r');
}

std::size_t spaceAtEnd(std::string_view text) {
    if (text.empty() || isAscii(text.back()))
        return !text.empty() && isAsciiSpace(text.back()) ? 1 : 0;
    for (const auto space : spaces)
        if (text.ends_with(space))
            return space.size();
    return 0;
}

} // namespace

std::size_t spaceAtStart(std::string_view text) {
    if (text.empty() || isAscii(text.front()))
        return !text.empty() && isAsciiSpace(text.front()) ? 1 : 0;
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

namespace {

// How many bytes of what is not to be printed `text` begins with.
std::size_t unprintableAt(std::string_view text) {
    const auto first = static_cast<unsigned char>(text.front());
    if (first < 0x20)
        return first == '\n' || first == '\t' ? 0 : 1;
    if (first == 0x7f)
        return 1;
    if (first == 0xc2 && text.size() > 1) // U+0080 to U+009F
        return static_cast<unsigned char>(text[1]) < 0xa0 && static_cast<unsigned char>(text[1]) >= 0x80 ? 2 : 0;
    constexpr std::array<std::string_view, 12> turning = {"\u200e", "\u200f", "\u202a", "\u202b", "\u202c", "\u202d",
                                                          "\u202e", "\u2066", "\u2067", "\u2068", "\u2069", "\u061c"};
    if (first == 0xe2 || first == 0xd8)
        for (const auto mark : turning)
            if (text.starts_with(mark))
                return mark.size();
    return 0;
}

} // namespace

std::string printable(std::string text) {
    std::string clean;
    std::size_t kept = 0; // up to here `clean` has what is to be printed
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t size = unprintableAt(std::string_view(text).substr(at));
        if (size > 0) {
            clean.append(text, kept, at - kept);
            kept = at + size;
        }
        at += std::max<std::size_t>(size, 1);
    }
    return kept == 0 ? std::move(text) : clean.append(text, kept);
}

std::string lowerCase(std::string_view text) {
    std::string lower(text);
    for (char& c : lower)
        if (c >= 'A' && c <= 'Z')
            c = static_cast<char>(c - 'A' + 'a');
    return lower;
}

std::string upperFirst(std::string text) {
    if (!text.empty() && text[0] >= 'a' && text[0] <= 'z')
        text[0] = static_cast<char>(text[0] - 'a' + 'A');
    return text;
}

} // namespace knot::record
