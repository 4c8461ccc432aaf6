#pragma once

#include "core/record/test.h"

#include <cstddef>
#include <stdexcept>
#include <string>
#include <vector>

namespace SQLite {
class Database;
}

namespace knot::logbook {

/// A player of the logbook, and in how many of its tests they are.
struct PlayerEntry {
    record::Player player;
    std::size_t tests = 0;
};

/// The other has what the first lacks; what both have stays as the first has it.
record::Player filledIn(record::Player player, const record::Player& other);

// All of these throw SQLite::Exception; what must not be done throws PlayersClash.

struct PlayersClash : std::runtime_error {
    using std::runtime_error::runtime_error;
};

std::vector<PlayerEntry> listPlayers(SQLite::Database& database);
/// Those of a test, in its order.
std::vector<record::Player> playersOf(SQLite::Database& database, const std::string& testId);
/// Calls the players of a test what the logbook calls them now, also in its shots. Nobody may be called like
/// another of the test then.
void takeKeptNames(SQLite::Database& database, record::Test& test);
/// Says who is in a test. A player whom the logbook has, by id, else by name and hand, is that one and
/// stays as they are there, and learns what they lacked where they were found by name; others are kept as they come.
void writePlayersOf(SQLite::Database& database, const record::Test& test);
/// Keeps what is known of a player; another name is theirs in every test.
void writePlayer(SQLite::Database& database, const record::Player& player);
/// One player was kept twice: all tests of the first are the second's, who learns what they lacked.
void joinPlayers(SQLite::Database& database, const std::string& from, const std::string& into);
/// A player who is in no test any more.
void removePlayer(SQLite::Database& database, const std::string& id);

} // namespace knot::logbook
