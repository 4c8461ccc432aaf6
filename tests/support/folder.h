#pragma once

#include <sqlite3.h>
#include <unistd.h>

#include <filesystem>
#include <string>

namespace knot::test {

/// A folder of its own for each test, gone afterwards.
struct Folder {
    std::filesystem::path path = std::filesystem::temp_directory_path() /
                                 ("knot_folder_" + std::to_string(::getpid()) + "_" + std::to_string(++count));
    Folder() { std::filesystem::create_directories(path); }
    ~Folder() { std::filesystem::remove_all(path); }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    std::string file(const std::string& name) const { return (path / name).string(); }

    static void runSql(const std::string& path, const char* sql) {
        sqlite3* database = nullptr;
        sqlite3_open(path.c_str(), &database);
        sqlite3_exec(database, sql, nullptr, nullptr, nullptr);
        sqlite3_close(database);
    }
    static inline int count = 0;
};

} // namespace knot::test
