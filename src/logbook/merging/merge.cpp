#include "logbook/merging/merge.h"

#include "core/record/text/digest.h"
#include "core/record/text/number_text.h"
#include "files/club_json.h"
#include "files/stock.h"
#include "files/test_json.h"
#include "logbook/merging/merging_players.h"
#include "logbook/merging/merging_tests.h"
#include "logbook/test_rows.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <algorithm>
#include <map>
#include <set>

namespace knot::logbook {
namespace {

using record::Player;
using record::Test;
using SQLite::Database;
using SQLite::Statement;

std::string contentOf(const Test& test) {
    Test bare = record::withNames(withoutRecords(test));
    for (auto* builds : {&bare.builds, &bare.sealedBuilds}) // which formats before the sixth had not
        for (record::Build& build : *builds)
            build.id.clear();
    bare.id.clear();
    return files::testJson(bare) + files::hiddenPartsJson(bare);
}

// Hexadecimal digits as a UUID of version 8, whose content is one's own.
std::string asUuid(std::string digits) {
    digits[12] = '8';
    digits[16] = 'a';
    return digits.substr(0, 8) + '-' + digits.substr(8, 4) + '-' + digits.substr(12, 4) + '-' + digits.substr(16, 4) +
           '-' + digits.substr(20, 12);
}

} // namespace

Test withoutRecords(Test test) {
    for (Player& player : test.players)
        player = {.name = player.name, .leftHanded = player.leftHanded};
    return test;
}

std::string idBeside(const Test& other) {
    return asUuid(record::sha256(other.id + '\n' + contentOf(other)));
}

std::string idOf(const Version& version) {
    std::string text = version.of;
    for (const auto& [writer, times] : version.changes)
        text += '\n' + writer + ' ' + std::to_string(times);
    return asUuid(record::sha256(text));
}

Version versionByContent(const Test& test, const std::string& of) {
    return {.changes = {{byContent + record::sha256(contentOf(test)), 1}},
            .of = of,
            .changedAt = test.createdAt,
            .deletedAt = {},
            .joined = {}};
}

Version versionByContent(const Player& player) {
    return {.changes = {{byContent + record::sha256(files::playerJson(player).dump()), 1}},
            .of = player.id,
            .changedAt = {},
            .deletedAt = {},
            .joined = {}};
}

Version versionByContent(const std::string& key, const std::string& value) {
    return {
        .changes = {{byContent + record::sha256(value), 1}}, .of = key, .changedAt = {}, .deletedAt = {}, .joined = {}};
}

Incoming incomingFrom(Test test) {
    Incoming all;
    for (Player& player : test.players) {
        if (player.id.empty())
            player.id = newId();
        all.players.push_back({player, versionByContent(player)});
    }
    test.nameClubs();
    const std::string id = test.id;
    const Version version = versionByContent(test, id);
    all.tests.push_back({id, version, std::move(test)});
    return all;
}

Incoming incomingFrom(Database& database, const std::vector<std::string>& only) {
    Incoming all;
    std::set<std::string> players;
    for (auto& [id, version] : versionsOf(database, Thing::test)) {
        if (!only.empty() && std::ranges::find(only, id) == only.end())
            continue;
        if (version.of.empty())
            version.of = id;
        std::optional<Test> test;
        if (!version.isDeleted())
            test = readTest(database, id);
        for (const Player& player : test ? test->players : std::vector<Player>())
            players.insert(player.id);
        all.tests.push_back({id, version, std::move(test)});
    }
    std::map<std::string, Player> known;
    for (const PlayerEntry& entry : listPlayers(database))
        known[entry.player.id] = entry.player;
    for (const auto& [id, version] : versionsOf(database, Thing::player))
        if (only.empty() || players.contains(id))
            all.players.push_back({version.isDeleted() || !known.contains(id) ? Player{.id = id} : known[id], version});
    Statement s(database, "SELECT key, value FROM setting ORDER BY key");
    while (only.empty() && s.executeStep())
        if (const std::string key = s.getColumn(0).getString(); isShared(key))
            all.settings.push_back({key, s.getColumn(1).getString(), versionOf(database, Thing::setting, key)});
    return all;
}

namespace {

void takeSettings(Database& database, const std::vector<Incoming::OfSetting>& incoming, Merged& merged) {
    auto put = [&](const std::string& key, const std::string& value) {
        Statement s(database, "INSERT OR REPLACE INTO setting(key, value) VALUES(?, ?)");
        s.bind(1, key);
        s.bind(2, value);
        s.exec();
    };
    for (const auto& one : incoming) {
        const Version own = versionOf(database, Thing::setting, one.key);
        const Order order = orderOf(one.version, own);
        Statement s(database, "SELECT value FROM setting WHERE key = ?");
        s.bind(1, one.key);
        const std::string value = s.executeStep() ? s.getColumn(0).getString() : std::string();
        if (!isShared(one.key) || order == Order::earlier || (order == Order::same && value == one.value))
            continue;
        const bool isTheirs = std::pair(one.version.changedAt, one.value) > std::pair(own.changedAt, value);
        if (order == Order::later || value.empty()) {
            put(one.key, one.value);
        } else if (one.key == "stock") { // a part of either is on a shelf; what is said of one last stands
            const auto here = files::stockFromText(value);
            const auto there = files::stockFromText(one.value);
            auto all = isTheirs ? files::withStock(here, there) : files::withStock(there, here);
            std::ranges::sort(all, {}, [](const record::Part& part) { return std::pair(part.kind, part.name); });
            put(one.key, files::stockText(all));
        } else if (value != one.value) {
            merged.settings.push_back(one.key);
            if (isTheirs)
                put(one.key, one.value);
        }
        keepVersion(database, Thing::setting, one.key, together(one.version, own));
    }
}

} // namespace

std::string mergedText(const Merged& merged, const std::string& from) {
    auto tests = [](std::size_t count, const char* one, const char* more) {
        return record::counted(count, "test") + (count == 1 ? one : more);
    };
    std::string text = record::counted(merged.added.size() + merged.conflicts.size(), "test") + " came from " + from;
    if (!merged.known.empty())
        text += "; " + std::to_string(merged.known.size()) + " stood here already";
    if (merged.gone > 0)
        text += "; " + std::to_string(merged.gone) + " had been deleted here";
    if (!merged.later.empty())
        text += "; " + tests(merged.later.size(), " is", " are") + " now as changed there";
    if (merged.fewer > 0)
        text += ", " + std::to_string(merged.fewer) + " with fewer shots than before";
    if (!merged.back.empty())
        text += "; " + tests(merged.back.size(), " that was", " that were") + " deleted here " +
                (merged.back.size() == 1 ? "is" : "are") + " back, changed there meanwhile";
    if (!merged.deleted.empty())
        text += "; " + tests(merged.deleted.size(), " that was", " that were") + " deleted there " +
                (merged.deleted.size() == 1 ? "is" : "are") + " gone";
    if (!merged.conflicts.empty())
        text += "; " + tests(merged.conflicts.size(), " was", " were") + " changed here and there, and stand" +
                (merged.conflicts.size() == 1 ? "s" : "") + " in both versions";
    std::string names;
    for (const std::string& name : merged.players)
        names += (names.empty() ? "" : ", ") + name;
    if (!names.empty())
        text += "; of " + names + " something else was said here and there, and what was said last stands";
    if (!merged.settings.empty())
        text += "; a starting table was changed here and there, and the last change stands";
    return text + ".";
}

Merged merge(Database& database, Incoming incoming) {
    Merged merged;
    PlayersIn players(database, merged);
    players.take(incoming.players);
    TestsIn tests(database, merged);
    for (auto& one : incoming.tests) {
        if (one.test)
            players.rename(*one.test);
        tests.take(std::move(one));
    }
    players.leaveOut(incoming.players);
    takeSettings(database, incoming.settings, merged);
    return merged;
}

} // namespace knot::logbook
