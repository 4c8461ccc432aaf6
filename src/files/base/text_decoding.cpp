#include "files/base/text_decoding.h"

#include "files/base/folded_text.h"

#include <unicode/ucnv.h>
#include <unicode/ucsdet.h>
#include <unicode/ustring.h>

#include <algorithm>
#include <array>
#include <memory>
#include <string_view>

namespace knot::files {
namespace {

constexpr std::size_t lookedAt = std::size_t{1} << 16; // bytes that tell what a text is written in

bool isValidUtf8(const std::string& bytes) {
    UErrorCode status = U_ZERO_ERROR;
    u_strFromUTF8(nullptr, 0, nullptr, bytes.data(), static_cast<int32_t>(bytes.size()), &status);
    return status != U_INVALID_CHAR_FOUND;
}

std::string convert(const std::string& bytes, const char* from) {
    UErrorCode status = U_ZERO_ERROR;
    std::string text(bytes.size() * 3 + 8, '\0');
    const int32_t size = ucnv_convert("UTF-8", from, text.data(), static_cast<int32_t>(text.size()), bytes.data(),
                                      static_cast<int32_t>(bytes.size()), &status);
    text.resize(U_FAILURE(status) != 0 ? 0 : static_cast<std::size_t>(size));
    return text;
}

// A table is mostly figures and plain letters, of which UTF-16 has a NUL beside each.
const char* unmarkedUtf16(std::string_view bytes) {
    const auto most = std::min(bytes.size(), lookedAt) / 2;
    std::size_t first = 0;
    std::size_t second = 0;
    for (std::size_t i = 0; i < most; ++i) {
        first += bytes[2 * i] == '\0' ? 1 : 0;
        second += bytes[2 * i + 1] == '\0' ? 1 : 0;
    }
    constexpr double share = 0.3; // of the letters, in a table with headings in another alphabet
    const auto enough = static_cast<std::size_t>(share * static_cast<double>(most));
    if (most < 4 || bytes.size() % 2 != 0)
        return nullptr;
    constexpr std::size_t few = 20; // times as many on one side
    return second > enough && few * first < second  ? "UTF-16LE"
           : first > enough && few * second < first ? "UTF-16BE"
                                                    : nullptr;
}

// What has letters of another alphabet is told by how they follow each other; what is none of these is Windows-1252.
std::string charsetOf(const std::string& bytes) {
    constexpr std::array<std::string_view, 9> others = {"Shift_JIS",    "EUC-JP",       "EUC-KR", "GB18030",   "Big5",
                                                        "windows-1251", "windows-1250", "KOI8-R", "ISO-8859-2"};
    constexpr int least = 30; // of a hundred
    UErrorCode status = U_ZERO_ERROR;
    const std::unique_ptr<UCharsetDetector, decltype(&ucsdet_close)> detector(ucsdet_open(&status), &ucsdet_close);
    ucsdet_setText(detector.get(), bytes.data(), static_cast<int32_t>(std::min(bytes.size(), lookedAt)), &status);
    const UCharsetMatch* match = ucsdet_detect(detector.get(), &status);
    const char* name = match == nullptr ? nullptr : ucsdet_getName(match, &status);
    if (U_FAILURE(status) != 0 || name == nullptr || ucsdet_getConfidence(match, &status) < least)
        return "windows-1252";
    return std::ranges::find(others, std::string_view(name)) != others.end() ? name : "windows-1252";
}

} // namespace

std::string decodeText(std::string bytes) {
    if (bytes.starts_with("\xEF\xBB\xBF"))
        bytes.erase(0, 3);
    else if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF"))
        return withPlainWidth(convert(bytes, "UTF-16"));
    else if (const char* utf16 = unmarkedUtf16(bytes); utf16 != nullptr)
        return withPlainWidth(convert(bytes, utf16));
    if (isValidUtf8(bytes))
        return withPlainWidth(std::move(bytes));
    return withPlainWidth(convert(bytes, charsetOf(bytes).c_str()));
}

} // namespace knot::files
