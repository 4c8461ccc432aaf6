#include "files/base/folded_text.h"

#include "core/record/text/text.h"

#include <unicode/normalizer2.h>
#include <unicode/unistr.h>

#include <algorithm>

namespace knot::files {
namespace {

bool isAscii(std::string_view text) {
    return std::ranges::all_of(text, [](char c) { return (c & 0x80) == 0; });
}

// Accents are marks of their own once a letter is taken apart.
bool isAccent(UChar unit) {
    return unit >= 0x0300 && unit <= 0x036f;
}

} // namespace

std::string folded(std::string_view text) {
    if (isAscii(text))
        return record::lowerCase(text);
    UErrorCode status = U_ZERO_ERROR;
    const icu::Normalizer2* apart = icu::Normalizer2::getNFDInstance(status);
    const icu::Normalizer2* together = icu::Normalizer2::getNFCInstance(status);
    if (U_FAILURE(status) != 0)
        return record::lowerCase(text);
    const auto whole =
        icu::UnicodeString::fromUTF8(icu::StringPiece(text.data(), static_cast<int32_t>(text.size()))).foldCase();
    icu::UnicodeString plain;
    const auto parted = apart->normalize(whole, status);
    for (int32_t i = 0; i < parted.length(); ++i)
        if (!isAccent(parted[i]))
            plain.append(parted[i]);
    std::string utf8;
    together->normalize(plain, status).toUTF8String(utf8);
    return U_FAILURE(status) != 0 ? record::lowerCase(text) : utf8;
}

std::string withPlainWidth(std::string text) {
    if (text.find('\xEF') == std::string::npos && text.find('\xE3') == std::string::npos)
        return text;
    // U+FF01 to U+FF5E stand for the signs from "!" to "~", in three bytes each: EF BC 81 to EF BD 9E.
    std::string plain;
    plain.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const auto at = [&](std::size_t k) {
            return i + k < text.size() ? static_cast<unsigned char>(text[i + k]) : 0U;
        };
        const unsigned sign = at(0) == 0xEF ? ((at(1) & 0x3FU) << 6U) + (at(2) & 0x3FU) : 0U;
        if (at(0) == 0xEF && (at(1) == 0xBC || at(1) == 0xBD) && sign >= 0xF01 && sign <= 0xF5E) {
            plain += static_cast<char>(sign - 0xF00 + 0x20);
            i += 3;
        } else if (at(0) == 0xE3 && at(1) == 0x80 && at(2) == 0x80) { // the wide blank
            plain += ' ';
            i += 3;
        } else {
            plain += text[i++];
        }
    }
    return plain;
}

} // namespace knot::files
