#pragma once

#include "logbook/error.h"

#include <sys/types.h>

#include <optional>
#include <string>

namespace knot::logbook {

/// Which file it is, whatever it is called: symbolic and hard links lead to the same.
struct FileIdentity {
    dev_t device = 0;
    ino_t inode = 0;
    bool operator==(const FileIdentity&) const = default;
};
/// Nothing where no file is.
std::optional<FileIdentity> identityOf(const std::string& path);

/// A file that is held for one program: a lock of the kernel's on the file itself, which ends with the
/// program, however that ends, and leaves nothing behind. A file system that knows no locks holds
/// nothing. Keeps the file open, and closes it when it goes.
class HeldFile {
public:
    enum class Missing { refuse, make };
    /// Holds a file that can be written. `inUse` where another program holds it.
    static Result<HeldFile> hold(const std::string& path, Missing missing = Missing::refuse);
    /// Whether some program, this one too, holds a file.
    static bool isHeld(const std::string& path);

    HeldFile(HeldFile&& other) noexcept;
    HeldFile& operator=(HeldFile&& other) noexcept;
    HeldFile(const HeldFile&) = delete;
    HeldFile& operator=(const HeldFile&) = delete;
    ~HeldFile();

    const FileIdentity& identity() const { return m_identity; }
    /// On disk, with its name.
    bool sync(const std::string& path) const;

private:
    HeldFile(int file, FileIdentity identity)
        : m_file(file)
        , m_identity(identity) {}
    int m_file = -1;
    FileIdentity m_identity;
};

/// Gives a file another name, which nothing may have; false, with errno, where it can't.
bool renameIfFree(const std::string& from, const std::string& to);
/// The names in the folder of a file are on disk.
bool syncFolderOf(const std::string& path);

} // namespace knot::logbook
