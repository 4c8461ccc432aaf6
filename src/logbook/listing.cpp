#include "logbook/listing.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <charconv>
#include <map>

namespace knot::logbook {
namespace {

using SQLite::Database;
using SQLite::Statement;

// A tally is one "build counted set-aside" for each turn, with a semicolon after it.
std::string countTurns(Database& database, const std::string& id) {
    Statement s(database, "SELECT t.build, sum(x.status = 'counted'), sum(x.status = 'set_aside') FROM turn t "
                          "JOIN shot x ON x.test_id = t.test_id AND x.turn = t.position WHERE t.test_id = ? "
                          "GROUP BY t.position ORDER BY t.position");
    s.bind(1, id);
    std::string tally;
    while (s.executeStep())
        tally += std::to_string(s.getColumn(0).getInt64()) + ' ' + std::to_string(s.getColumn(1).getInt64()) + ' ' +
                 std::to_string(s.getColumn(2).getInt64()) + ';';
    return tally;
}

void keepTally(Database& database, const std::string& id, const std::string& tally) {
    Statement s(database, "INSERT OR REPLACE INTO tally(test_id, turns) VALUES(?, ?)");
    s.bind(1, id);
    s.bind(2, tally);
    s.exec();
}

void applyTally(const std::string& tally, TestEntry& entry) {
    const char* at = tally.data();
    const char* const end = at + tally.size();
    auto number = [&] {
        std::size_t value = 0;
        at = std::from_chars(at, end, value).ptr;
        if (at != end)
            ++at;
        return value;
    };
    while (at < end) {
        const std::size_t build = number();
        const std::size_t counted = number();
        entry.setAside += number();
        entry.counted += counted;
        if (counted == 0)
            continue;
        ++entry.turns;
        entry.builds.at(build).counted.push_back(counted);
    }
}

} // namespace

std::vector<TestEntry> listTests(Database& database) {
    std::vector<TestEntry> entries;
    std::map<std::string, std::size_t> place;
    Statement heads(database, "SELECT id, title, question, player, created_at FROM test "
                              "ORDER BY created_at DESC, title");
    while (heads.executeStep()) {
        place[heads.getColumn(0).getString()] = entries.size();
        entries.push_back({.id = heads.getColumn(0).getString(),
                           .title = heads.getColumn(1).getString(),
                           .question = heads.getColumn(2).getString(),
                           .player = heads.getColumn(3).getString(),
                           .createdAt = heads.getColumn(4).getString(),
                           .builds = {}});
    }
    Statement builds(database, "SELECT test_id, name FROM test_build ORDER BY test_id, position");
    while (builds.executeStep())
        entries[place.at(builds.getColumn(0).getString())].builds.push_back({builds.getColumn(1).getString(), {}});
    std::vector<bool> told(entries.size());
    Statement tallies(database, "SELECT test_id, turns FROM tally");
    while (tallies.executeStep()) {
        const std::size_t at = place.at(tallies.getColumn(0).getString());
        applyTally(tallies.getColumn(1).getString(), entries[at]);
        told[at] = true;
    }
    for (std::size_t i = 0; i < entries.size(); ++i)
        if (!told[i]) {
            const std::string tally = countTurns(database, entries[i].id);
            applyTally(tally, entries[i]);
            try {
                keepTally(database, entries[i].id, tally);
            } catch (const SQLite::Exception&) {
                // A disk that is full or busy costs the next listing its time, nothing else.
            }
        }
    return entries;
}

} // namespace knot::logbook
