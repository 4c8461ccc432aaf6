#include "logbook/listing.h"

#include "core/judge/reading.h"
#include "core/record/typed/number_in.h"
#include "files/test_json.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <algorithm>
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

// All together: one by one each would wait for the disk.
void keepTallies(Database& database, const std::map<std::string, std::string>& tallies) {
    if (tallies.empty())
        return;
    SQLite::Transaction transaction(database, SQLite::TransactionBehavior::IMMEDIATE);
    Statement s(database, "INSERT OR REPLACE INTO tally(test_id, turns) VALUES(?, ?)");
    for (const auto& [id, tally] : tallies) {
        s.reset();
        s.bind(1, id);
        s.bind(2, tally);
        s.exec();
    }
    transaction.commit();
}

// False, with nothing changed, where the text is no tally of this test.
bool applyTally(const std::string& tally, TestEntry& entry) {
    TestEntry counted = entry;
    std::string_view left = tally;
    auto number = [&](char after) {
        const auto end = std::min(left.find(after), left.size());
        const auto value = end < left.size() ? record::countIn(left.substr(0, end)) : std::nullopt;
        left.remove_prefix(value ? end + 1 : 0);
        return value;
    };
    while (!left.empty()) {
        const auto build = number(' ');
        const auto shots = number(' ');
        const auto setAside = number(';');
        if (!build || !shots || !setAside || *build >= counted.builds.size())
            return false;
        counted.setAside += *setAside;
        counted.counted += *shots;
        if (*shots == 0)
            continue;
        ++counted.turns;
        counted.builds[*build].counted.push_back(*shots);
    }
    entry = std::move(counted);
    return true;
}

// "0 Fern carries farther: real"
void applyFinding(const std::string& kept, TestEntry& entry) {
    const auto space = kept.find(' ');
    const auto verdict = record::numberIn(kept.substr(0, space), record::DecimalMark::point);
    if (space == std::string::npos || !verdict || !(*verdict >= -1) ||
        *verdict > static_cast<int>(judge::Verdict::uncontrolled))
        return;
    entry.finding = TestEntry::Finding{.verdict = static_cast<int>(*verdict), .text = kept.substr(space + 1)};
}

} // namespace

std::string findingKey(const std::string& testId) {
    return "found:" + testId;
}

void forgetFinding(Database& database, const std::string& testId) {
    Statement said(database, "DELETE FROM setting WHERE key = ?");
    said.bind(1, findingKey(testId));
    said.exec();
}

std::vector<TestEntry> listTests(Database& database) {
    std::vector<TestEntry> entries;
    std::map<std::string, std::size_t> place;
    Statement heads(database, "SELECT id, title, question, created_at FROM test "
                              "ORDER BY julianday(created_at) DESC, created_at DESC, title");
    while (heads.executeStep()) {
        place[heads.getColumn(0).getString()] = entries.size();
        entries.push_back({.id = heads.getColumn(0).getString(),
                           .title = heads.getColumn(1).getString(),
                           .question = heads.getColumn(2).getString(),
                           .createdAt = heads.getColumn(3).getString(),
                           .builds = {}});
    }
    Statement players(database, "SELECT t.test_id, t.player_id, p.name FROM test_player t JOIN player p "
                                "ON p.id = t.player_id ORDER BY t.test_id, t.position");
    while (players.executeStep())
        if (const auto at = place.find(players.getColumn(0).getString()); at != place.end()) {
            TestEntry& entry = entries[at->second];
            entry.playerIds.push_back(players.getColumn(1).getString());
            entry.players += (entry.players.empty() ? "" : ", ") + players.getColumn(2).getString();
        }
    Statement builds(database, "SELECT test_id, name FROM test_build ORDER BY test_id, position");
    while (builds.executeStep())
        if (const auto at = place.find(builds.getColumn(0).getString()); at != place.end())
            entries[at->second].builds.push_back({builds.getColumn(1).getString(), {}});
    std::vector<bool> told(entries.size());
    Statement tallies(database, "SELECT test_id, turns FROM tally");
    while (tallies.executeStep())
        if (const auto at = place.find(tallies.getColumn(0).getString()); at != place.end())
            told[at->second] = applyTally(tallies.getColumn(1).getString(), entries[at->second]);
    std::map<std::string, std::string> counted;
    for (std::size_t i = 0; i < entries.size(); ++i)
        if (!told[i]) {
            std::string tally = countTurns(database, entries[i].id);
            applyTally(tally, entries[i]);
            counted.emplace(entries[i].id, std::move(tally));
        }
    try {
        keepTallies(database, counted);
    } catch (const SQLite::Exception&) {
        // A disk that is full or busy costs the next listing its time, nothing else.
    }
    Statement said(database, "SELECT key, value FROM setting WHERE key LIKE 'found:%'");
    while (said.executeStep())
        if (const auto at = place.find(said.getColumn(0).getString().substr(findingKey({}).size())); at != place.end())
            applyFinding(said.getColumn(1).getString(), entries[at->second]);
    return entries;
}

std::vector<record::Part> listParts(Database& database, const std::string& name) {
    std::map<std::pair<record::PartKind, std::string>, record::Part> known;
    Statement s(database, "SELECT head FROM test ORDER BY created_at");
    while (s.executeStep()) {
        const auto head = files::readTestHeadJson(name, s.getColumn(0).getString());
        if (!head)
            continue;
        for (const auto* builds : {&head->builds, &head->sealedBuilds})
            for (const auto& build : *builds)
                for (const auto* part : {&build.club.head, &build.club.shaft, &build.club.grip})
                    if (!part->name.empty())
                        known[{part->kind, part->name}] = *part;
    }
    std::vector<record::Part> parts;
    parts.reserve(known.size());
    for (auto& [key, part] : known)
        parts.push_back(std::move(part));
    return parts;
}

} // namespace knot::logbook
