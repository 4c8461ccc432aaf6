#include "logbook/players.h"

#include "core/record/text/text.h"
#include "files/club_json.h"
#include "files/json_read.h"
#include "logbook/test_rows.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <map>
#include <stdexcept>

namespace knot::logbook {
namespace {

using record::Player;
using SQLite::Database;
using SQLite::Statement;

Player playerIn(const std::string& id, const std::string& about) {
    try {
        Player player = files::playerFrom(nlohmann::json::parse(record::printable(about)));
        player.id = id;
        return player;
    } catch (const files::Unreadable& reason) {
        throw std::runtime_error("a player can't be read: " + reason.why);
    } catch (const nlohmann::json::exception&) {
        throw std::runtime_error("a player can't be read");
    }
}

std::optional<Player> playerById(Database& database, const std::string& id) {
    Statement s(database, "SELECT about FROM player WHERE id = ?");
    s.bind(1, id);
    return s.executeStep() ? std::optional(playerIn(id, s.getColumn(0).getString())) : std::nullopt;
}

std::optional<std::string> sameAs(Database& database, const Player& player) {
    Statement s(database, "SELECT id FROM player WHERE name = ? AND left_handed = ? ORDER BY id");
    s.bind(1, player.name);
    s.bind(2, player.leftHanded ? 1 : 0);
    return s.executeStep() ? std::optional(s.getColumn(0).getString()) : std::nullopt;
}

void put(Database& database, const Player& player) {
    Statement s(database,
                "INSERT INTO player(id, name, left_handed, about) VALUES(?, ?, ?, ?) ON CONFLICT(id) DO "
                "UPDATE SET name = excluded.name, left_handed = excluded.left_handed, about = excluded.about");
    s.bind(1, player.id);
    s.bind(2, player.name);
    s.bind(3, player.leftHanded ? 1 : 0);
    s.bind(4, files::playerJson(player).dump(-1, ' ', false, nlohmann::json::error_handler_t::replace));
    s.exec();
}

std::string idOf(Database& database, Player player) {
    if (!player.id.empty() && playerById(database, player.id))
        return player.id;
    if (const auto same = sameAs(database, player)) {
        const auto known = playerById(database, *same);
        if (const Player now = filledIn(*known, player); now != *known)
            put(database, now);
        return *same;
    }
    if (player.id.empty())
        player.id = newId();
    put(database, player);
    return player.id;
}

std::vector<std::string> idsOf(Database& database, const std::string& testId) {
    std::vector<std::string> ids;
    Statement s(database, "SELECT player_id FROM test_player WHERE test_id = ? ORDER BY position");
    s.bind(1, testId);
    while (s.executeStep())
        ids.push_back(s.getColumn(0).getString());
    return ids;
}

// A name that was typed and thought better of is nobody.
void forgetIfOnlyAName(Database& database, const std::string& id) {
    const auto player = playerById(database, id);
    Player bare;
    if (player)
        bare = {.id = id, .name = player->name, .leftHanded = player->leftHanded};
    if (!player || *player != bare)
        return;
    Statement s(database, "DELETE FROM player WHERE id = ? AND id NOT IN (SELECT player_id FROM test_player)");
    s.bind(1, id);
    s.exec();
}

// Shots name their players.
void renameInShots(Database& database, const std::string& id, const std::string& before, const std::string& now) {
    Statement s(database, "UPDATE turn SET player = ? WHERE player = ? AND test_id IN "
                          "(SELECT test_id FROM test_player WHERE player_id = ?)");
    s.bind(1, now);
    s.bind(2, before);
    s.bind(3, id);
    s.exec();
}

// A test that another player of this name is in, or an empty text.
std::string testWithAnother(Database& database, const std::string& id, const std::string& name) {
    Statement s(database, "SELECT t.title FROM test t JOIN test_player own ON own.test_id = t.id AND own.player_id = ? "
                          "JOIN test_player o ON o.test_id = t.id AND o.player_id <> ? "
                          "JOIN player p ON p.id = o.player_id WHERE p.name = ?");
    s.bind(1, id);
    s.bind(2, id);
    s.bind(3, name);
    return s.executeStep() ? s.getColumn(0).getString() : std::string();
}

} // namespace

Player filledIn(Player player, const Player& other) {
    auto number = [](std::optional<double>& own, const std::optional<double>& others) { own = own ? own : others; };
    auto text = [](std::string& own, const std::string& others) { own = own.empty() ? others : own; };
    number(player.clubSpeed, other.clubSpeed);
    number(player.ironSpeed, other.ironSpeed);
    number(player.height, other.height);
    number(player.wristToFloor, other.wristToFloor);
    number(player.hand, other.hand);
    for (auto member : {&Player::tempo, &Player::transition, &Player::shape, &Player::miss, &Player::played,
                        &Player::plays, &Player::goals, &Player::health})
        text(player.*member, other.*member);
    if (player.costs == record::Side::notSaid)
        player.costs = other.costs;
    for (const record::Usual& usual : other.usual)
        if (std::ranges::find(player.usual, usual.club, &record::Usual::club) == player.usual.end())
            player.usual.push_back(usual);
    return player;
}

std::vector<PlayerEntry> listPlayers(Database& database) {
    std::vector<PlayerEntry> players;
    Statement s(database, "SELECT p.id, p.about, (SELECT count(*) FROM test_player t WHERE t.player_id = p.id) "
                          "FROM player p ORDER BY p.name, p.left_handed, p.id");
    while (s.executeStep())
        players.push_back({playerIn(s.getColumn(0).getString(), s.getColumn(1).getString()),
                           static_cast<std::size_t>(s.getColumn(2).getInt64())});
    return players;
}

std::vector<Player> playersOf(Database& database, const std::string& testId) {
    std::vector<Player> players;
    Statement s(database, "SELECT p.id, p.about FROM test_player t JOIN player p ON p.id = t.player_id "
                          "WHERE t.test_id = ? ORDER BY t.position");
    s.bind(1, testId);
    while (s.executeStep())
        players.push_back(playerIn(s.getColumn(0).getString(), s.getColumn(1).getString()));
    return players;
}

void takeKeptNames(Database& database, record::Test& test) {
    std::map<std::string, std::string> now; // of those who have another name
    for (const Player& player : test.players)
        if (const auto kept = player.id.empty() ? std::nullopt : playerById(database, player.id);
            kept && kept->name != player.name)
            now[player.name] = kept->name;
    if (now.empty())
        return;
    auto rename = [&](std::string& name) {
        if (const auto at = now.find(name); at != now.end())
            name = at->second;
    };
    for (Player& player : test.players)
        rename(player.name);
    for (std::size_t i = 0; i < test.players.size(); ++i)
        if (test.playerIndex(test.players[i].name) != record::PlayerAt(i))
            throw PlayersClash("two players of “" + test.title + "” are called “" + test.players[i].name + "” now");
    for (record::Shot& shot : test.shots)
        rename(shot.player);
    for (record::Amendment& amendment : test.amendments)
        for (record::Shot& shot : amendment.was)
            rename(shot.player);
}

void writePlayersOf(Database& database, const record::Test& test) {
    std::vector<std::string> ids;
    ids.reserve(test.players.size());
    for (const Player& player : test.players)
        ids.push_back(idOf(database, player));
    if (ids == idsOf(database, test.id))
        return;
    const auto before = idsOf(database, test.id);
    Statement clear(database, "DELETE FROM test_player WHERE test_id = ?");
    clear.bind(1, test.id);
    clear.exec();
    Statement s(database, "INSERT INTO test_player(test_id, position, player_id) VALUES(?, ?, ?)");
    for (std::size_t i = 0; i < ids.size(); ++i) {
        s.reset();
        s.bind(1, test.id);
        s.bind(2, static_cast<int64_t>(i));
        s.bind(3, ids[i]);
        s.exec();
    }
    for (const std::string& id : before)
        forgetIfOnlyAName(database, id);
}

void writePlayer(Database& database, const Player& player) {
    if (const auto before = playerById(database, player.id); before && before->name != player.name) {
        if (const auto title = testWithAnother(database, player.id, player.name); !title.empty())
            throw PlayersClash("“" + player.name + "” is another player of “" + title + "”");
        renameInShots(database, player.id, before->name, player.name);
    }
    put(database, player);
}

void joinPlayers(Database& database, const std::string& from, const std::string& into) {
    const auto one = playerById(database, from);
    const auto other = playerById(database, into);
    if (!one || !other || from == into)
        throw PlayersClash("one of the two is not in the logbook");
    Statement both(database, "SELECT t.title FROM test t JOIN test_player a ON a.test_id = t.id AND a.player_id = ? "
                             "JOIN test_player b ON b.test_id = t.id AND b.player_id = ?");
    both.bind(1, from);
    both.bind(2, into);
    if (both.executeStep())
        throw PlayersClash("both hit in “" + both.getColumn(0).getString() + "”");
    if (const auto title = testWithAnother(database, from, other->name); !title.empty())
        throw PlayersClash("“" + other->name + "” is another player of “" + title + "”");
    renameInShots(database, from, one->name, other->name);
    Statement s(database, "UPDATE test_player SET player_id = ? WHERE player_id = ?");
    s.bind(1, into);
    s.bind(2, from);
    s.exec();
    put(database, filledIn(*other, *one));
    removePlayer(database, from);
}

void removePlayer(Database& database, const std::string& id) {
    Statement in(database, "SELECT t.title FROM test t JOIN test_player p ON p.test_id = t.id WHERE p.player_id = ?");
    in.bind(1, id);
    if (in.executeStep())
        throw PlayersClash("shots of theirs are in “" + in.getColumn(0).getString() + "”");
    Statement s(database, "DELETE FROM player WHERE id = ?");
    s.bind(1, id);
    s.exec();
}

} // namespace knot::logbook
