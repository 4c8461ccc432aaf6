// Whatever stands in a file, a logbook or on the line: it is refused in words or read whole, and what
// was read can be judged, written and read again. Meant for the sanitizers (`./check --long`).
#include "core/bay/hand.h"
#include "core/bay/strike.h"
#include "core/judge/judge.h"
#include "core/record/check.h"
#include "core/simulate/scenarios.h"
#include "core/words/remarks/remarks.h"
#include "files/csv_writer.h"
#include "files/test_json.h"
#include "link/conversation.h"
#include "logbook/logbook.h"
#include "mutation/mutator.h"
#include "support/folder.h"

#include <catch2/catch.hpp>

#include <sqlite3.h>

#include <cmath>
#include <fstream>
#include <set>

using namespace knot;
using knot::test::Folder;
using knot::test::Mutator;

namespace {

// What every page does with a test that was read; the same test once.
void requireJudged(const record::Test& test) {
    static std::set<std::size_t> judged;
    if (!judged.insert(std::hash<std::string>()(files::testJson(test))).second)
        return;
    const auto reading = judge::judge({.subject = judge::Case::of(test)});
    REQUIRE(reading);
    for (const auto& row : reading->average)
        REQUIRE(std::isfinite(row.gap));
    for (const auto& line : words::sentences(*reading, {}))
        REQUIRE(line.ends_with("."));
    for (const auto& shot : test.shots)
        REQUIRE(shot.build < test.builds.size());
}

// Tries mutants of the seeds until there were as many as wanted; returns how many were read.
template<typename Try>
std::size_t readOf(std::string_view kind, std::vector<std::string> seeds, Try tried, std::size_t share = 1) {
    const auto whole = seeds;
    Mutator mutator(std::move(seeds));
    std::size_t read = 0;
    for (std::size_t i = 0; i < whole.size() + test::mutations() / share; ++i) {
        const std::string text = i < whole.size() ? whole[i] : mutator.next();
        std::ofstream(test::mutantFile(kind), std::ios::binary) << text;
        INFO("mutant " << i << " of " << kind << ": " << test::mutantFile(kind).string());
        read += tried(text) ? 1 : 0;
    }
    std::filesystem::remove(test::mutantFile(kind));
    return read;
}

// A short test with something in every part.
record::Test shortTest(const char* scenario) {
    auto test = simulate::testFrom(*simulate::scenarioByKey(scenario));
    test.shots.resize(12);
    test.shots[3].status = record::ShotStatus::setAside;
    test.shots[3].reason = "thin";
    test.feels = {{"2", test.shots[5].build, {7, 0, 3, 10, 0, 1}, "lively"}};
    test.guesses = {{test.shots[5].build, test.builds.front().name, "2"}};
    return test;
}

} // namespace

TEST_CASE("a damaged shot file is refused in words, or read, judged and written") {
    auto seeds = test::seedsIn("csv");
    seeds.push_back(files::shotCsv(shortTest("five-wood")));
    const auto read = readOf("csv", std::move(seeds), [](const std::string& text) {
        const auto shots = files::readShots("mutant.csv", text);
        if (!shots) {
            REQUIRE(files::sentence(shots.error()).size() > 20);
            return false;
        }
        requireJudged(shots->test);
        const auto again = files::readShots("mutant.csv", files::shotCsv(shots->test));
        REQUIRE(again);
        REQUIRE(again->test.shots.size() == shots->test.shots.size());
        return true;
    });
    CHECK(read > 3);
}

TEST_CASE("a damaged exported test is refused in words, or read, judged and written the same") {
    auto seeds = test::seedsIn("json");
    seeds.push_back(files::testJson(shortTest("wedge-loft")));
    const auto read = readOf("json", std::move(seeds), [](const std::string& text) {
        const auto imported = files::readTestJson("mutant.json", text);
        if (!imported) {
            REQUIRE(files::sentence(imported.error()).size() > 20);
            return false;
        }
        REQUIRE(record::faultsOf(imported->test).empty());
        requireJudged(imported->test);
        const auto written = files::testJson(imported->test);
        const auto again = files::readTestJson("mutant.json", written);
        REQUIRE(again);
        REQUIRE(files::testJson(again->test) == written);
        return true;
    });
    CHECK(read > 3);
}

TEST_CASE("whatever comes over the line, the test in the bay can be judged and kept") {
    auto sitting = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    sitting.shots.clear();
    sitting.stage = record::Stage::openSitting;
    auto seeds = test::seedsIn("link");
    for (auto& seed : seeds)
        seed.erase(0, seed.find('{')); // the fuzzer's own first byte
    const auto taken = readOf("link", std::move(seeds), [&](const std::string& text) {
        link::Receipts receipts;
        link::Conversation conversation(receipts);
        auto test = sitting;
        bay::beginSitting(test, "2031-05-04T10:00:00+02:00");
        bay::takeInHand(test, record::BuildAt(0));
        for (std::size_t at = 0; at < text.size(); at += 100) {
            const auto heard = conversation.take(std::string_view(text).substr(at, 100));
            REQUIRE((heard.reply.empty() || heard.reply.back() == '\n'));
            for (const auto& message : heard.messages)
                if (const auto* shot = std::get_if<link::ShotRead>(&message);
                    shot != nullptr && !bay::isKnown(test, shot->id)) {
                    bay::takeInHand(test, record::BuildAt(test.shots.size() % test.builds.size()));
                    bay::addShot(test, {.readings = shot->readings, .at = shot->at, .readId = shot->id, .reason = {}});
                }
            if (heard.hangUp)
                break;
        }
        REQUIRE(record::faultsOf(test).empty());
        requireJudged(test);
        return !test.shots.empty();
    });
    CHECK(taken > 3);
}

namespace {

std::string bytesOf(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

// Logbooks as they are: today's format with two short tests, and one of each older format.
std::vector<std::string> wholeLogbooks() {
    const Folder folder;
    std::vector<std::string> books;
    {
        auto book = *logbook::Logbook::create(folder.file("today.knotbook"));
        for (const char* scenario : {"wedge-loft", "five-wood"})
            REQUIRE(book.save(shortTest(scenario)));
    }
    books.push_back(bytesOf(folder.file("today.knotbook")));
    for (const char* format : {"format1", "format2", "format3"}) {
        const auto path = folder.file(std::string(format) + ".knotbook");
        Folder::runSql(path, bytesOf(std::string(KNOT_TEST_DATA) + "/logbook/" + format + ".sql").c_str());
        books.push_back(bytesOf(path));
    }
    return books;
}

// Every test of a logbook, as far as the logbook gives them.
std::size_t judgedOf(logbook::Logbook& book) {
    const auto tests = book.tests();
    if (!tests)
        return 0;
    std::size_t judged = 0;
    for (const auto& entry : *tests)
        if (const auto test = book.load(entry.id)) {
            REQUIRE(record::faultsOf(*test).empty());
            requireJudged(*test);
            ++judged;
        } else {
            REQUIRE(logbook::sentence(test.error()).size() > 20);
        }
    return judged;
}

std::size_t judgedIn(const std::string& path) {
    std::size_t judged = 0;
    if (auto book = logbook::Logbook::read(path)) {
        judged += judgedOf(*book);
        (void)book->integrityFaults();
    } else {
        REQUIRE(logbook::sentence(book.error()).size() > 20);
    }
    if (auto book = logbook::Logbook::open(path)) {
        judged += judgedOf(*book);
        if (const auto tests = book->tests(); tests && !tests->empty())
            if (const auto test = book->load(tests->front().id))
                (void)book->save(*test);
    }
    return judged;
}

} // namespace

TEST_CASE("a damaged logbook is refused in words, or each of its tests can be judged and kept") {
    const Folder folder;
    const auto path = folder.file("mutant.knotbook");
    const auto read = readOf(
        "logbook", wholeLogbooks(),
        [&](const std::string& bytes) {
            for (const auto& entry : std::filesystem::directory_iterator(folder.path))
                std::filesystem::remove_all(entry.path());
            std::ofstream(path, std::ios::binary) << bytes;
            return judgedIn(path) > 0;
        },
        2);
    CHECK(read > 3);
}

TEST_CASE("a logbook with any value in any cell is refused in words, or its tests can be judged") {
    const Folder folder;
    const auto path = folder.file("mutant.knotbook");
    const auto whole = wholeLogbooks().front();
    // Which cells there are.
    std::vector<std::pair<std::string, std::string>> columns;
    std::ofstream(path, std::ios::binary) << whole;
    sqlite3* database = nullptr;
    REQUIRE(sqlite3_open(path.c_str(), &database) == SQLITE_OK);
    REQUIRE(sqlite3_exec(
                database,
                "select m.name, c.name from sqlite_master m, pragma_table_info(m.name) c where m.type = 'table'",
                [](void* out, int, char** cells, char**) {
                    static_cast<decltype(columns)*>(out)->emplace_back(cells[0], cells[1]);
                    return 0;
                },
                &columns, nullptr) == SQLITE_OK);
    sqlite3_close(database);
    REQUIRE(columns.size() > 20);
    const std::vector<std::string> values = {
        "-1",         "0",
        "1",          "7",
        "2147483648", "9223372036854775807",
        "-9e18",      "1e308",
        "-1e160",     "9e999",
        "'abc'",      "''",
        "'1'",        "x'00ff'",
        "null",       "hex(randomblob(40))",
        "'{}'",       "'[]'",
        "'nan'",      "0.5",
        "'2031'",     "char(27)",
    };
    std::mt19937_64 random(20262);
    std::size_t read = 0;
    for (std::size_t i = 0; i < test::mutations() / 2; ++i) {
        for (const auto& entry : std::filesystem::directory_iterator(folder.path))
            std::filesystem::remove_all(entry.path());
        std::ofstream(path, std::ios::binary) << whole;
        std::string sql = "pragma ignore_check_constraints = on;";
        for (std::size_t left = 1 + random() % 2; left > 0; --left) {
            const auto& [table, column] = columns[random() % columns.size()];
            sql += "update \"" + table + "\" set \"" + column + "\" = " + values[random() % values.size()] +
                   " where rowid % " + std::to_string(1 + random() % 7) + " = 0;";
        }
        INFO(sql);
        std::ofstream(test::mutantFile("cell")) << sql;
        Folder::runSql(path, sql.c_str());
        read += judgedIn(path) > 0 ? 1 : 0;
    }
    std::filesystem::remove(test::mutantFile("cell"));
    CHECK(read > 3);
}
