#include "files/base/file.h"

#include <fcntl.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstdint>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <random>

namespace knot::files {
namespace {

constexpr std::size_t largest = std::size_t{32} << 20;

// All of `text` at `path`, on disk; false, with errno, where any step fails.
bool writeThrough(const std::string& path, const std::string& text) {
    const int file = ::open(path.c_str(), O_WRONLY | O_NOFOLLOW | O_CLOEXEC);
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
    const auto kind = std::filesystem::status(path, status).type();
    if (kind == std::filesystem::file_type::directory)
        return refuse("it is a folder");
    if (kind == std::filesystem::file_type::not_found)
        return refuse(std::strerror(ENOENT));
    if (kind != std::filesystem::file_type::regular)
        return refuse("it is no file with an end");
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return refuse(std::strerror(errno));
    // Read to its end, whatever its size says: some of the system's own files say 0.
    std::string bytes;
    bytes.reserve(
        static_cast<std::size_t>(std::min<std::uintmax_t>(std::filesystem::file_size(path, status), largest)));
    std::array<char, 1 << 16> block{};
    while (in.read(block.data(), block.size()) || in.gcount() > 0) {
        bytes.append(block.data(), static_cast<std::size_t>(in.gcount()));
        if (bytes.size() > largest)
            return tl::unexpected(Error{ErrorKind::tooLarge, path, 0, 0, {}, {}});
    }
    if (in.bad())
        return refuse(std::strerror(errno));
    return bytes;
}

std::string newBeside(const std::string& path, For who) {
    constexpr int tries = 100;
    const auto folder = std::filesystem::path(path).parent_path();
    std::random_device random;
    for (int i = 0; i < tries; ++i) {
        const std::string name = (folder / (".knotcount-" + std::to_string(random()))).string();
        const int file = ::open(name.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC,
                                who == For::thisUser ? 0600 : 0666);
        if (file >= 0) {
            ::close(file);
            return name;
        }
        if (errno != EEXIST)
            break;
    }
    return {};
}

Result<void> writeFile(const std::string& path, const std::string& text) {
    const std::string partial = newBeside(path, For::whoMayRead);
    if (!partial.empty() && writeThrough(partial, text) && std::rename(partial.c_str(), path.c_str()) == 0)
        return {};
    const int reason = errno;
    if (!partial.empty())
        ::unlink(partial.c_str());
    return tl::unexpected(Error{ErrorKind::cannotWrite, path, 0, 0, {}, std::strerror(reason)});
}

} // namespace knot::files
