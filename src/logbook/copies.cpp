#include "logbook/copies.h"

#include "files/base/file.h"

#include <sys/stat.h>

#include <array>
#include <climits>
#include <filesystem>
#include <stdexcept>
#include <string_view>

namespace knot::logbook {
namespace {

constexpr std::array<const char*, 3> besides = {"-journal", "-wal", "-shm"};

} // namespace

void removeWithBesides(const std::string& path) {
    std::error_code gone;
    std::filesystem::remove(path, gone);
    for (const char* suffix : besides)
        std::filesystem::remove(path + suffix, gone);
}

std::string temporaryCopy(const std::string& path) {
    std::string copy =
        files::newBeside((std::filesystem::temp_directory_path() / "copy").string(), files::For::thisUser);
    if (copy.empty())
        throw std::runtime_error("no copy of it can be made");
    std::filesystem::copy_file(path, copy, std::filesystem::copy_options::overwrite_existing);
    for (const char* suffix : {"-journal", "-wal"})
        if (std::filesystem::exists(path + suffix))
            std::filesystem::copy_file(path + suffix, copy + suffix);
    for (const char* suffix : {"", "-journal", "-wal"})
        (void)::chmod((copy + suffix).c_str(), 0600);
    return copy;
}

bool hasRoomForJournal(const std::string& path) {
    return std::filesystem::path(path).filename().string().size() + std::string_view("-journal").size() <= NAME_MAX;
}

} // namespace knot::logbook
