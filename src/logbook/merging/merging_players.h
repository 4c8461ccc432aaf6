#pragma once

#include "logbook/merging/merge.h"
#include "logbook/players.h"

#include <map>

namespace knot::logbook {

/// The players of another logbook come in: known by id, else by name and hand. Of what both say of one the last said
/// stands, and lacks nothing that the other knows. The caller holds the transaction; throws as the rows do.
class PlayersIn {
public:
    PlayersIn(SQLite::Database& database, Merged& merged)
        : m_database(database)
        , m_merged(merged) {}
    void take(const std::vector<Incoming::OfPlayer>& incoming);
    /// Who the players of a test are here.
    void rename(record::Test& test) const;
    /// Who was taken away here, and came for no test, stays away.
    void leaveOut(const std::vector<Incoming::OfPlayer>& incoming);

private:
    std::optional<PlayerEntry> here(const std::string& id) const;
    std::optional<record::Player> namesake(const record::Player& player) const;
    bool isInNoTest(const std::string& id) const;
    std::string now(std::string id) const;
    void fillIn(const record::Player& own, const Version& ownVersion, const record::Player& other,
                const Version& otherVersion);
    void write(const record::Player& own, record::Player player);
    void takeOne(const Incoming::OfPlayer& one);
    void joinNamesake(const record::Player& own, const Incoming::OfPlayer& one);
    void keepJoined(const std::string& id, Version version, const std::string& into);
    void takeDeleted(const Incoming::OfPlayer& one);
    void joinHere(const std::string& id, const std::string& into, const Version& version);

    SQLite::Database& m_database;
    Merged& m_merged;
    std::map<std::string, Version> m_deletedHere;
};

} // namespace knot::logbook
