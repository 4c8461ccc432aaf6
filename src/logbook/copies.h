#pragma once

#include <string>

// A logbook's file, what SQLite puts beside it, and copies of both.
namespace knot::logbook {

/// SQLite writes its journal beside the file under a longer name.
bool hasRoomForJournal(const std::string& path);

/// Takes a file away with its journals.
void removeWithBesides(const std::string& path);

/// A copy of a file and of what lies beside it, in the system's place for such, for this user alone; throws where it
/// can't be made.
std::string temporaryCopy(const std::string& path);

} // namespace knot::logbook
