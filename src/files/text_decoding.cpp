#include "files/text_decoding.h"

#include <unicode/ucnv.h>
#include <unicode/ustring.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>

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

Result<std::string> readFile(const std::string& path) {
    auto refuse = [&](const std::string& reason) {
        return tl::unexpected(Error{ErrorKind::cannotOpen, path, 0, 0, {}, reason});
    };
    std::error_code status;
    if (std::filesystem::is_directory(path, status))
        return refuse("it is a folder");
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return refuse(std::strerror(errno));
    in.seekg(0, std::ios::end);
    const auto size = in.tellg();
    in.seekg(0);
    std::string bytes(size > 0 ? static_cast<std::size_t>(size) : 0, '\0');
    in.read(bytes.data(), static_cast<std::streamsize>(bytes.size()));
    if (in.bad())
        return refuse(std::strerror(errno));
    bytes.resize(static_cast<std::size_t>(in.gcount()));
    return bytes;
}

std::string decodeText(std::string bytes) {
    if (bytes.starts_with("\xEF\xBB\xBF"))
        bytes.erase(0, 3);
    else if (bytes.starts_with("\xFF\xFE") || bytes.starts_with("\xFE\xFF"))
        return convert(bytes, "UTF-16");
    return isValidUtf8(bytes) ? bytes : convert(bytes, "windows-1252");
}

} // namespace knot::files
