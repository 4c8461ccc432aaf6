#pragma once

#include "core/record/test.h"
#include "logbook/merging/versions.h"

#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// What of one logbook is added to another.
struct Incoming {
    /// A test with its version; without a test, one that was deleted there.
    struct OfTest {
        std::string id;
        Version version;
        std::optional<record::Test> test;
    };
    struct OfPlayer {
        record::Player player; ///< the id alone where they were taken away
        Version version;
    };
    struct OfSetting {
        std::string key, value;
        Version version;
    };
    std::vector<OfTest> tests;
    std::vector<OfPlayer> players;
    std::vector<OfSetting> settings;
};

/// What became of what was added. Tests by their ids in the logbook that it was added to.
struct Merged {
    std::vector<std::string> added;   ///< were not here
    std::vector<std::string> later;   ///< were changed there since, and are now as they are there
    std::size_t fewer = 0;            ///< of those, with fewer shots than stood here
    std::vector<std::string> back;    ///< were deleted here, and are back with what was changed there meanwhile
    std::vector<std::string> deleted; ///< were deleted there since, and are gone
    std::vector<std::string> known;   ///< stood here, the same or later
    std::size_t gone = 0;             ///< were deleted here since
    /// Changed here and there, each without the other: both stand here from then on.
    struct Conflict {
        std::string here, there;
        bool operator==(const Conflict&) const = default;
    };
    std::vector<Conflict> conflicts;
    std::vector<std::string> players;  ///< of whom here and there something else was said: names
    std::vector<std::string> settings; ///< changed here and there: keys; the last change stands
    /// For `Logbook::takeBack`; empty where nothing was changed.
    struct Step {
        std::string changes;                               ///< as SQLite's session extension has them
        std::vector<std::pair<std::string, Version>> left; ///< tests as it left them
        bool empty() const { return changes.empty(); }
    } step;
};

/// A test without what its players are known by beside their names: that belongs to the logbook.
record::Test withoutRecords(record::Test test);

/// Who changed what came as a file, or was kept by an earlier format: what it holds.
inline constexpr const char* byContent = "content ";

/// A version by what a test holds, for one of which nobody knows how it came to be: files, older formats.
Version versionByContent(const record::Test& test, const std::string& of);

Version versionByContent(const record::Player& player);
Version versionByContent(const std::string& key, const std::string& value);

/// The id under which another version of a test stands beside the one that is here: it follows from that version alone,
/// so that adding it again finds it.
std::string idBeside(const record::Test& other);

/// An id for a version that is gone, the same everywhere.
std::string idOf(const Version& version);

/// A test that came as a file, under its id there, with its players.
Incoming incomingFrom(record::Test test);

/// Everything of a logbook that may be added to another; tests of these ids where there are any.
Incoming incomingFrom(SQLite::Database& database, const std::vector<std::string>& only = {});

/// What came of it, in a sentence: "3 tests came from bay.knotbook; 2 stood here already."
std::string mergedText(const Merged& merged, const std::string& from);

/// Adds it: of what one side changed after the other the later stands, deleted or not; of a test that both changed,
/// each without the other, both stand, except where the shots and amendments of one begin with those of the other and
/// nothing else was declared. Adding again adds nothing, and the order of several logbooks does not matter. The caller
/// holds the transaction; throws as the rows do.
Merged merge(SQLite::Database& database, Incoming incoming);

} // namespace knot::logbook
