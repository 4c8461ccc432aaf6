#pragma once

#include <cstdint>
#include <map>
#include <memory>
#include <string>
#include <utility>
#include <vector>

namespace SQLite {
class Database;
}

// How each thing of a logbook came to be as it is, so that two logbooks know before and after of each other.
namespace knot::logbook {

enum class Thing { test, player, setting };

/// How often each writer changed a thing. A writer is a logbook that was opened to write, from then until it was
/// closed, under a random name: two copies of a file never are the same one.
struct Version {
    std::map<std::string, std::int64_t> changes;
    std::string of;                   ///< of a test: the id of the one that it is a version of, its own as a rule
    std::string changedAt, deletedAt; ///< ISO 8601; `deletedAt` is empty while it stands
    std::string joined;               ///< of a player who was kept twice: the id of the one that they are

    bool isDeleted() const { return !deletedAt.empty(); }
    std::int64_t revision() const;
    bool operator==(const Version&) const = default;
};

/// How the first stands to the second: `earlier` where the second knows all that changed the first, `apart` where each
/// was changed without the other.
enum class Order { same, earlier, later, apart };
Order orderOf(const Version& a, const Version& b);
/// Every change of both, at the later of their times; the rest as the first has it.
Version together(const Version& a, const Version& b);

// All of these throw SQLite::Exception.

void createVersions(SQLite::Database& database);
/// Without changes where nothing is known of it.
Version versionOf(SQLite::Database& database, Thing thing, const std::string& id);
std::vector<std::pair<std::string, Version>> versionsOf(SQLite::Database& database, Thing thing);
/// Puts a version in the place of what is known of it.
void keepVersion(SQLite::Database& database, Thing thing, const std::string& id, const Version& version);

/// Notes what one writer changes: of players and settings by triggers of its connection, of tests where it is told. The
/// connection is in no transaction when it is made.
class VersionWriter {
public:
    explicit VersionWriter(SQLite::Database& database);
    ~VersionWriter();
    VersionWriter(const VersionWriter&) = delete;
    VersionWriter& operator=(const VersionWriter&) = delete;
    void changed(const std::string& testId);
    void deleted(const std::string& testId);
    /// A player who was kept twice is another one from now on.
    void joined(const std::string& from, const std::string& into);
    /// Statements that failed let go of what they read.
    void release();

    /// Nothing is noted meanwhile.
    class Silence {
    public:
        explicit Silence(SQLite::Database& database);
        Silence(const Silence&) = delete;
        Silence& operator=(const Silence&) = delete;
        ~Silence();

    private:
        SQLite::Database& m_database;
    };

private:
    void note(const std::string& testId, const std::string& deletedAt);
    class Statements;
    std::unique_ptr<Statements> m_statements;
};

/// A setting of more than one computer: stock and starting tables. What was found, which folder is watched, units and
/// what headings mean are each logbook's own.
bool isShared(const std::string& key);

} // namespace knot::logbook
