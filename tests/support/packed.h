#pragma once

#include <zip.h>

#include <map>
#include <string>

namespace knot::test {

/// A spreadsheet of these parts, packed.
inline std::string packed(const std::map<std::string, std::string>& parts) {
    zip_error_t error;
    zip_error_init(&error);
    zip_source_t* target = zip_source_buffer_create(nullptr, 0, 0, &error);
    zip_t* archive = zip_open_from_source(target, ZIP_TRUNCATE, &error);
    zip_source_keep(target);
    for (const auto& [name, text] : parts)
        zip_file_add(archive, name.c_str(), zip_source_buffer(archive, text.data(), text.size(), 0), ZIP_FL_ENC_UTF_8);
    zip_close(archive);
    zip_source_open(target);
    std::string bytes;
    char piece[4096];
    for (zip_int64_t size = 0; (size = zip_source_read(target, piece, sizeof piece)) > 0;)
        bytes.append(piece, static_cast<std::size_t>(size));
    zip_source_close(target);
    zip_source_free(target);
    return bytes;
}

} // namespace knot::test
