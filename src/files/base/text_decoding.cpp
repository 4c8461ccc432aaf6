#include "files/base/text_decoding.h"

#include <unicode/ucnv.h>
#include <unicode/ustring.h>

namespace knot::files {
namespace {

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

} // namespace

std::string decodeText(std::string bytes) {
    if (bytes.starts_with("\xEF\xBB\xBF"))
        bytes.erase(0, 3);
    else if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF"))
        return convert(bytes, "UTF-16");
    if (isValidUtf8(bytes))
        return bytes;
    return convert(bytes, "windows-1252");
}

} // namespace knot::files
