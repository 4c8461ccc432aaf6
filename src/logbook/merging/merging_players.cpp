#include "logbook/merging/merging_players.h"

#include "files/club_json.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <nlohmann/json.hpp>

#include <algorithm>

namespace knot::logbook {
namespace {

using record::Player;

Player inOneOrder(Player player, const std::string& id) {
    player.id = id;
    std::ranges::sort(player.usual, {}, &record::Usual::club);
    return player;
}

} // namespace

void PlayersIn::take(const std::vector<Incoming::OfPlayer>& incoming) {
    for (const auto& one : incoming)
        if (!one.version.isDeleted())
            takeOne(one);
    for (const auto& one : incoming)
        if (one.version.isDeleted())
            takeDeleted(one);
}

void PlayersIn::rename(record::Test& test) const {
    for (Player& player : test.players)
        player.id = now(player.id);
}

void PlayersIn::leaveOut(const std::vector<Incoming::OfPlayer>& incoming) {
    for (const auto& one : incoming)
        if (const auto at = m_deletedHere.find(one.player.id); at != m_deletedHere.end() && isInNoTest(at->first)) {
            removePlayer(m_database, at->first);
            keepVersion(m_database, Thing::player, at->first, at->second);
        }
}

std::optional<PlayerEntry> PlayersIn::here(const std::string& id) const {
    for (const PlayerEntry& entry : listPlayers(m_database))
        if (entry.player.id == id)
            return entry;
    return std::nullopt;
}

std::optional<Player> PlayersIn::namesake(const Player& player) const {
    for (const PlayerEntry& entry : listPlayers(m_database))
        if (entry.player.name == player.name && entry.player.leftHanded == player.leftHanded)
            return entry.player;
    return std::nullopt;
}

bool PlayersIn::isInNoTest(const std::string& id) const {
    const auto entry = here(id);
    return entry && entry->tests == 0;
}

// Through all who were joined.
std::string PlayersIn::now(std::string id) const {
    constexpr int farEnough = 100; // a ring, in a file of somebody else's
    for (int steps = 0; steps < farEnough; ++steps) {
        const std::string next = versionOf(m_database, Thing::player, id).joined;
        if (next.empty())
            break;
        id = next;
    }
    return id;
}

void PlayersIn::fillIn(const Player& own, const Version& ownVersion, const Player& other, const Version& otherVersion) {
    auto said = [](const Player& player) { return files::playerJson(player).dump(); };
    const bool isOtherLater =
        std::pair(otherVersion.changedAt, said(other)) > std::pair(ownVersion.changedAt, said(own));
    Player both = isOtherLater ? filledIn(other, own) : filledIn(own, other);
    both.id = own.id;
    const Player otherWay = isOtherLater ? filledIn(own, other) : filledIn(other, own);
    if (inOneOrder(both, own.id) != inOneOrder(otherWay, own.id))
        m_merged.players.push_back(own.name);
    if (both != own)
        write(own, std::move(both));
    keepVersion(m_database, Thing::player, own.id, together(ownVersion, otherVersion));
}

// Another name that clashes in a test here is not taken.
void PlayersIn::write(const Player& own, Player player) {
    try {
        writePlayer(m_database, player);
    } catch (const PlayersClash&) {
        player.name = own.name;
        writePlayer(m_database, player);
    }
}

void PlayersIn::takeOne(const Incoming::OfPlayer& one) {
    const std::string id = now(one.player.id);
    const Version own = versionOf(m_database, Thing::player, id);
    const auto known = here(id);
    if (known && id != one.player.id) { // joined since: they are called as the one that they are
        Player other = one.player;
        other.name = known->player.name;
        other.leftHanded = known->player.leftHanded;
        return fillIn(known->player, own, other, one.version);
    }
    if (known) {
        const Order order = orderOf(one.version, own);
        if (order == Order::later) {
            write(known->player, one.player);
            keepVersion(m_database, Thing::player, id, one.version);
        } else if (order == Order::apart || (order == Order::same && known->player != one.player)) {
            fillIn(known->player, own, one.player, one.version);
        }
        return;
    }
    if (const auto other = namesake(one.player))
        return joinNamesake(*other, one);
    if (own.isDeleted() && orderOf(one.version, own) != Order::later)
        m_deletedHere[one.player.id] = together(own, one.version);
    writePlayer(m_database, one.player);
    keepVersion(m_database, Thing::player, one.player.id,
                together(one.version, versionOf(m_database, Thing::player, one.player.id)));
}

// Of one name and hand they are one, under the lesser id wherever they meet.
void PlayersIn::joinNamesake(const Player& own, const Incoming::OfPlayer& one) {
    const Version ownVersion = versionOf(m_database, Thing::player, own.id);
    if (own.id < one.player.id) {
        fillIn(own, ownVersion, one.player, one.version);
        return keepJoined(one.player.id, one.version, own.id);
    }
    writePlayer(m_database, one.player);
    joinPlayers(m_database, own.id, one.player.id);
    fillIn(one.player, one.version, own, ownVersion);
    keepJoined(own.id, ownVersion, one.player.id);
}

void PlayersIn::keepJoined(const std::string& id, Version version, const std::string& into) {
    if (version.deletedAt.empty())
        version.deletedAt = version.changedAt.empty() ? "joined" : version.changedAt;
    version.joined = into;
    keepVersion(m_database, Thing::player, id, version);
}

void PlayersIn::takeDeleted(const Incoming::OfPlayer& one) {
    const std::string& id = one.player.id;
    const Version own = versionOf(m_database, Thing::player, id);
    const bool isHere = here(id).has_value();
    if (!one.version.joined.empty()) {
        const std::string into = now(one.version.joined);
        if (isHere && into != id && here(into))
            joinHere(id, into, together(one.version, own));
        else if (!isHere && own.joined.empty() && into != id)
            keepJoined(id, together(one.version, own), into);
        return;
    }
    if (!isHere && own.changes.empty())
        return keepVersion(m_database, Thing::player, id, one.version);
    const Order order = orderOf(own, one.version);
    if (isHere && (order == Order::earlier || order == Order::same) && isInNoTest(id)) {
        removePlayer(m_database, id);
        keepVersion(m_database, Thing::player, id, one.version);
    }
}

void PlayersIn::joinHere(const std::string& id, const std::string& into, const Version& version) {
    try {
        joinPlayers(m_database, id, into);
        keepJoined(id, version, into);
    } catch (const PlayersClash&) { // both hit in one test here: they stay two
    }
}

} // namespace knot::logbook
