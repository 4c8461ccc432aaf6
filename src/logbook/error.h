#pragma once

#include <string>
#include <tl/expected.hpp>

namespace knot::logbook {

enum class ErrorKind {
    cannotOpen,
    notALogbook,
    damaged,
    newer,
    exists,
    busy,
    inUse, ///< held by another Knot Count
    full,
    readOnly,
    noSuchTest,
    gone,
    replaced,
    changedElsewhere, ///< other shots stand there than were kept
    invalid,          ///< what was to be kept could not be read back
    storage
};

/// What went wrong with a logbook file.
struct Error {
    ErrorKind kind = ErrorKind::storage;
    std::string file;
    std::string detail;
};

template<typename T> using Result = tl::expected<T, Error>;

/// One sentence that says what, where and what to do.
std::string sentence(const Error& error);

} // namespace knot::logbook
