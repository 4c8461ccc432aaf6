#include "logbook/merge.h"

#include "core/record/text/digest.h"
#include "files/test_json.h"
#include "logbook/players.h"
#include "logbook/test_rows.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <algorithm>
#include <map>

namespace knot::logbook {
namespace {

using SQLite::Database;
using SQLite::Statement;

// A test without what its players are known by beside their names: that belongs to the logbook.
record::Test withoutRecords(record::Test test) {
    for (record::Player& player : test.players)
        player = {.name = player.name, .leftHanded = player.leftHanded};
    return test;
}

// Hexadecimal digits as a UUID of version 8, whose content is one's own.
std::string asUuid(std::string digits) {
    digits[12] = '8';
    digits[16] = 'a';
    return digits.substr(0, 8) + '-' + digits.substr(8, 4) + '-' + digits.substr(12, 4) + '-' + digits.substr(16, 4) +
           '-' + digits.substr(20, 12);
}

bool standsBeside(const std::string& id) {
    constexpr std::size_t versionAt = 14;
    return id.size() > versionAt && id[versionAt] == '8';
}

bool has(Database& database, const std::string& id) {
    Statement s(database, "SELECT 1 FROM test WHERE id = ?");
    s.bind(1, id);
    return s.executeStep();
}

// A version that was put beside another one elsewhere, of which this logbook has the original.
bool isHereAsAnOriginal(Database& database, const record::Test& other) {
    if (!standsBeside(other.id))
        return false;
    Statement s(database, "SELECT id FROM test WHERE title = ? AND created_at = ?");
    s.bind(1, other.title);
    s.bind(2, other.createdAt);
    while (s.executeStep())
        if (idBeside(readTest(database, s.getColumn(0).getString())) == other.id)
            return true;
    return false;
}

record::Player inOneOrder(record::Player player, const std::string& id) {
    player.id = id;
    std::ranges::sort(player.usual, {}, &record::Usual::club);
    return player;
}

// Who is here learns what was not known; gives the names of those of whom something else is said here.
std::vector<std::string> learnOf(Database& database, const std::vector<record::Test>& tests) {
    std::map<std::string, record::Player> incoming;
    for (const record::Test& test : tests)
        for (const record::Player& player : test.players)
            incoming.emplace(player.id, player);
    std::vector<std::string> differing;
    for (const PlayerEntry& kept : listPlayers(database)) {
        record::Player known = kept.player;
        bool differs = false;
        for (const auto& [id, player] : incoming) {
            if (id != known.id && (player.name != known.name || player.leftHanded != known.leftHanded))
                continue;
            const record::Player learnt = filledIn(known, player);
            differs |= inOneOrder(learnt, known.id) != inOneOrder(filledIn(player, known), known.id);
            known = learnt;
        }
        if (known != kept.player)
            writePlayer(database, known);
        if (differs)
            differing.push_back(known.name);
    }
    return differing;
}

} // namespace

std::string idBeside(const record::Test& other) {
    record::Test bare = record::withNames(withoutRecords(other));
    for (auto* builds : {&bare.builds, &bare.sealedBuilds}) // which formats before the sixth had not
        for (record::Build& build : *builds)
            build.id.clear();
    return asUuid(record::sha256(bare.id + '\n' + files::testJson(bare) + files::hiddenPartsJson(bare)));
}

Merged addTests(Database& database, std::vector<record::Test> tests) {
    Merged merged{.added = {}, .conflicts = {}, .players = learnOf(database, tests)};
    for (record::Test& test : tests) {
        const std::string beside = idBeside(test);
        if (isHereAsAnOriginal(database, test)) {
            ++merged.known;
            continue;
        }
        takeKeptNames(database, test);
        if (has(database, test.id)) {
            if (withoutRecords(readTest(database, test.id)) == withoutRecords(test) || has(database, beside)) {
                ++merged.known;
                continue;
            }
            merged.conflicts.push_back({test.id, beside});
            test.id = beside;
        } else {
            merged.added.push_back(test.id);
        }
        insertTest(database, test);
    }
    return merged;
}

} // namespace knot::logbook
