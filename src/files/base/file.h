#pragma once

#include "files/base/error.h"

#include <string>

namespace knot::files {

/// Reads a whole file of up to 32 MiB. A missing or unreadable one is an error with the system's reason;
/// what has no end (a pipe, a device) is not read.
Result<std::string> readFile(const std::string& path);

/// Whom a file is for: this user alone, or whoever the system lets read the user's files.
enum class For { thisUser, whoMayRead };
/// Makes an empty file beside another one, under a name that nothing had and through no link: what is written whole
/// before it takes the other's name. Its path; empty, with errno, where none can be made.
std::string newBeside(const std::string& path, For who);

/// Writes text to a file by way of a neighbour that is renamed once it is on disk, so that a failure
/// or a cut of power leaves the old file whole. What is left half-written is taken away.
Result<void> writeFile(const std::string& path, const std::string& text);

} // namespace knot::files
