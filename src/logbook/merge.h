#pragma once

#include "core/record/test.h"

#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// What became of the tests of one logbook that were added to another.
struct Merged {
    std::vector<std::string> added; ///< ids of those that were not here
    std::size_t known = 0;          ///< that were here already, word for word
    /// Here and there by the same id, and not the same: both stand here from then on.
    struct Conflict {
        std::string here, there; ///< ids in the logbook that was added to
    };
    std::vector<Conflict> conflicts;
    std::vector<std::string> players; ///< of whom the two logbooks say something else: names
    bool operator==(const Merged&) const = default;
};

/// The id under which another version of a test stands beside the one that is here: it follows from that version alone,
/// so that adding it again finds it.
std::string idBeside(const record::Test& other);

/// Adds tests, each as it was read from another logbook, their players known by id, else by name and hand. Nothing that
/// is here is overwritten. Adding again adds nothing, and the order of several logbooks does not matter. The caller
/// holds the transaction; throws as the rows do.
Merged addTests(SQLite::Database& database, std::vector<record::Test> tests);

} // namespace knot::logbook
