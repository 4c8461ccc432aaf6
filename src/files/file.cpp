#include "files/file.h"

#include <fcntl.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <fstream>

namespace knot::files {
namespace {

// All of `text` at `path`, on disk; false, with errno, where any step fails.
bool writeThrough(const std::string& path, const std::string& text) {
    const int file = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0666);
    if (file < 0)
        return false;
    bool written = true;
    for (std::size_t from = 0; written && from < text.size();) {
        const ssize_t size = ::write(file, text.data() + from, text.size() - from);
        if (size < 0 && errno == EINTR)
            continue;
        written = size >= 0;
        from += written ? static_cast<std::size_t>(size) : 0;
    }
    written = written && ::fsync(file) == 0;
    const int reason = errno;
    const bool closed = ::close(file) == 0;
    if (!written)
        errno = reason;
    return written && closed;
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

Result<void> writeFile(const std::string& path, const std::string& text) {
    const std::string partial = path + ".part";
    if (writeThrough(partial, text) && std::rename(partial.c_str(), path.c_str()) == 0)
        return {};
    const int reason = errno;
    ::unlink(partial.c_str());
    return tl::unexpected(Error{ErrorKind::cannotWrite, path, 0, 0, {}, std::strerror(reason)});
}

} // namespace knot::files
