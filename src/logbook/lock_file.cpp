#include "logbook/lock_file.h"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <filesystem>
#include <utility>

namespace knot::logbook {
namespace {

// A byte that SQLite never locks: its own stand at 1 GiB and after.
constexpr off_t lockedByte = (off_t{1} << 30) - 16;

struct flock lockOf(short type) {
    struct flock lock {};
    lock.l_type = type;
    lock.l_whence = SEEK_SET;
    lock.l_start = lockedByte;
    lock.l_len = 1;
    return lock;
}

tl::unexpected<Error> refusal(const std::string& path, int reason) {
    const bool readOnly = reason == EACCES || reason == EPERM || reason == EROFS;
    const std::string detail = reason == ENOENT ? "there is no such file" : std::strerror(reason);
    return tl::unexpected(Error{readOnly ? ErrorKind::readOnly : ErrorKind::cannotOpen, path, detail});
}

} // namespace

std::optional<FileIdentity> identityOf(const std::string& path) {
    struct stat found {};
    if (::stat(path.c_str(), &found) != 0)
        return std::nullopt;
    return FileIdentity{found.st_dev, found.st_ino};
}

Result<HeldFile> HeldFile::hold(const std::string& path, Missing missing) {
    const int create = missing == Missing::make ? O_CREAT : 0;
    const int file = ::open(path.c_str(), O_RDWR | O_CLOEXEC | O_NONBLOCK | create, 0666);
    if (file < 0)
        return refusal(path, errno);
    struct stat opened {};
    if (::fstat(file, &opened) != 0 || !S_ISREG(opened.st_mode)) {
        ::close(file);
        return tl::unexpected(Error{ErrorKind::notALogbook, path, {}});
    }
    HeldFile held(file, {opened.st_dev, opened.st_ino});
    struct flock lock = lockOf(F_WRLCK);
    if (::fcntl(file, F_OFD_SETLK, &lock) != 0 && (errno == EAGAIN || errno == EACCES))
        return tl::unexpected(Error{ErrorKind::inUse, path, {}});
    return held;
}

bool HeldFile::isHeld(const std::string& path) {
    const int file = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
    if (file < 0)
        return false;
    struct flock lock = lockOf(F_WRLCK);
    const bool held = ::fcntl(file, F_OFD_GETLK, &lock) == 0 && lock.l_type != F_UNLCK;
    ::close(file);
    return held;
}

HeldFile::HeldFile(HeldFile&& other) noexcept
    : m_file(std::exchange(other.m_file, -1))
    , m_identity(other.m_identity) {}

HeldFile& HeldFile::operator=(HeldFile&& other) noexcept {
    std::swap(m_file, other.m_file);
    std::swap(m_identity, other.m_identity);
    return *this;
}

HeldFile::~HeldFile() {
    if (m_file >= 0)
        ::close(m_file);
}

bool HeldFile::sync(const std::string& path) const {
    return ::fsync(m_file) == 0 && syncFolderOf(path);
}

bool renameIfFree(const std::string& from, const std::string& to) {
    if (::renameat2(AT_FDCWD, from.c_str(), AT_FDCWD, to.c_str(), RENAME_NOREPLACE) == 0)
        return true;
    if (errno != EINVAL && errno != ENOSYS)
        return false;
    // A file system that can't refuse to replace: a second name does.
    return ::link(from.c_str(), to.c_str()) == 0 && ::unlink(from.c_str()) == 0;
}

bool syncFolderOf(const std::string& path) {
    const auto parent = std::filesystem::path(path).parent_path();
    const int folder = ::open(parent.empty() ? "." : parent.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
    if (folder < 0)
        return false;
    const bool synced = ::fsync(folder) == 0;
    ::close(folder);
    return synced;
}

} // namespace knot::logbook
