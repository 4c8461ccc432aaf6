// What the logbook does not keep, where its file is not what it was, and what older files become.
#include "core/simulate/scenarios.h"
#include "files/base/file.h"
#include "files/test_json.h"
#include "logbook/logbook.h"
#include "support/folder.h"

#include <catch2/catch.hpp>
#include <sqlite3.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <functional>
#include <limits>

using namespace knot;
using knot::test::Folder;
using logbook::ErrorKind;
using logbook::Logbook;

namespace {

std::string bytesOf(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

void fixture(const Folder& folder, const std::string& path, int format) {
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format" + std::to_string(format) + ".sql");
    const std::string script{std::istreambuf_iterator<char>(sql), {}};
    REQUIRE(!script.empty());
    folder.runSql(path, script.c_str());
}

} // namespace

TEST_CASE("what could not be read back is not kept, and the sentence says what is wrong") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.id = *book.save(test);
    const auto before = *book.load(test.id);
    test.card.margins[record::Metric::carry] = std::numeric_limits<double>::infinity();
    for (const auto& refused : {book.saveHead(test), book.saveShotsAndHead(test, 0)}) {
        REQUIRE(!refused);
        CHECK(refused.error().kind == ErrorKind::invalid);
        CHECK(logbook::sentence(refused.error()).starts_with("Not kept: The worthwhile gap in carry must be"));
    }
    CHECK(!book.save(test));
    test = before;
    test.shots.back().readings.measure(record::Metric::side, std::numeric_limits<double>::quiet_NaN());
    CHECK(book.saveShots(test, test.shots.size() - 1).error().kind == ErrorKind::invalid);
    CHECK(*book.load(test.id) == before);
}

TEST_CASE("no write says that it was done on a file that is gone or was replaced") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    auto book = *Logbook::create(path);
    auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    test.id = *book.save(test);
    const std::function<logbook::Result<void>()> writes[] = {
        [&]() -> logbook::Result<void> { return book.save(test).map([](const auto&) {}); },
        [&] { return book.saveHead(test); },
        [&] { return book.saveShots(test, 3); },
        [&] { return book.saveShotsAndHead(test, 3); },
        [&] { return book.setUnits({}); },
        [&] { return book.setSetting("x", "y"); },
        [&] { return book.remove(test.id); },
    };
    std::filesystem::rename(path, folder.file("away.knotbook"));
    for (const auto& write : writes)
        CHECK(write().error().kind == ErrorKind::gone);
    std::ofstream(path) << "another file";
    for (const auto& write : writes)
        CHECK(write().error().kind == ErrorKind::replaced);
    CHECK(bytesOf(path) == "another file");
}

TEST_CASE("a logbook of format 3 gets ids for its shots and reads the same otherwise") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    fixture(folder, path, 3);
    auto book = Logbook::open(path);
    REQUIRE(book);
    CHECK(book->integrityFaults()->empty());
    CHECK(std::filesystem::exists(folder.file("old.format3.knotbook")));
    REQUIRE(book->tests()->size() == 1);
    const auto test = *book->load(book->tests()->front().id);
    CHECK(test.title == "Format three");
    REQUIRE(test.shots.size() == 5);
    for (std::size_t i = 0; i < 5; ++i) {
        CHECK(test.shots[i].id == record::ShotId{static_cast<std::int64_t>(i) + 1});
        CHECK(test.shots[i].readId == "link:" + std::to_string(i + 1));
    }
    CHECK(test.shots[0].status == record::ShotStatus::warmUp);
    CHECK(test.shots[2].reason == "thin");
    CHECK(test.shots[2].setAsideWhen == record::SetAsideWhen::called);
    CHECK(test.feels.front().words == "dead");
    CHECK(test.nameOf(test.guesses.front().said) == "Flint");
    CHECK(test.progress.confirmed == 2);
    CHECK(test.sittings.front().startedAt == "2026-05-02T09:00:00");
}

TEST_CASE("reading an older logbook leaves its file to the byte") {
    for (const int format : {1, 2, 3}) {
        const Folder folder;
        const auto path = folder.file("old.knotbook");
        fixture(folder, path, format);
        const auto before = bytesOf(path);
        {
            auto book = Logbook::read(path);
            REQUIRE(book);
            REQUIRE(!book->tests()->empty());
            const auto test = book->load(book->tests()->front().id);
            REQUIRE(test);
            CHECK(!test->shots.empty());
            CHECK(test->shots.front().id == record::ShotId{1});
        }
        CHECK(bytesOf(path) == before);
        CHECK(!std::filesystem::exists(folder.file("old.format" + std::to_string(format) + ".knotbook")));
    }
}

TEST_CASE("ids stay with their shots when one is filed between them") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.id = *book.save(test);
    const auto ids = [&] {
        std::vector<record::ShotId> all;
        const auto kept = *book.load(test.id);
        for (const auto& shot : kept.shots)
            all.push_back(shot.id);
        return all;
    };
    const auto before = ids();
    record::Shot late = test.shots[10];
    late.id = test.nextShotId();
    test.shots.insert(test.shots.begin() + 10, late);
    REQUIRE(book.saveShots(test, 10));
    auto after = ids();
    CHECK(after[10] == late.id);
    after.erase(after.begin() + 10);
    CHECK(after == before);
}

TEST_CASE("a logbook that lies is refused in words, and looking at it is safe") {
    struct Lie {
        const char* sql;
        const char* words; ///< of the refusal
    };
    const Lie lies[] = {
        {"UPDATE turn SET build = 1 - build; PRAGMA foreign_keys = OFF; UPDATE turn SET build = 40 WHERE position = 2",
         "names a club that is not on the rack"},
        {"UPDATE turn SET build = -1 WHERE position = 2", "names a club that is not on the rack"},
        {"DELETE FROM test_build WHERE position = 1", "its clubs stand there twice, and differ"},
        {"UPDATE shot SET extra = '[\"1\",\"2\",\"3\"]' WHERE position = 3", "has 3 cells for 0 columns"},
        {"UPDATE shot SET carry_m = 'abc' WHERE position = 3", "its carry is no number"},
        {"UPDATE shot SET carry_m = 1e100 WHERE position = 3", "beyond a million"},
        {"PRAGMA foreign_keys = OFF; DELETE FROM turn WHERE position >= 4", "of a stint that is not there"},
        {"PRAGMA foreign_keys = OFF; DELETE FROM sitting", "of a stint that is not there"},
        {"UPDATE test SET head = substr(head, 1, 200)", "not JSON"},
        {"UPDATE test SET head = replace(head, '\"turn_length\":', '\"turn_length\":9')", "shots of a stint"},
        {"UPDATE test SET head = replace(head, '\"rounds\":', '\"rounds\":300000000')", "no whole number"},
    };
    for (const Lie& lie : lies) {
        INFO(lie.sql);
        const Folder folder;
        const auto path = folder.file("a.knotbook");
        auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
        test.extraColumns.clear();
        for (auto& shot : test.shots)
            shot.extra.clear();
        test.plan.turnLength = 111;
        const auto id = *Logbook::create(path)->save(test);
        Folder::runSql(path, lie.sql);
        auto book = Logbook::open(path);
        REQUIRE(book);
        CHECK(book->tests()); // the list stands, so that the others can be opened
        const auto loaded = book->load(id);
        REQUIRE(!loaded);
        CHECK(logbook::sentence(loaded.error()).find(lie.words) != std::string::npos);
        const auto faults = *book->integrityFaults();
        CHECK(!faults.empty());
        auto whole = *Logbook::create(folder.file("whole.knotbook"));
        const auto merged = whole.addAll(*book);
        REQUIRE(!merged);
        CHECK(merged.error().kind == ErrorKind::damaged);
        CHECK(whole.tests()->empty());
        CHECK(std::ranges::any_of(faults, [&](const auto& each) { return each.find(lie.words) != std::string::npos; }));
    }
}

TEST_CASE("a logbook whose tables are not ours is refused whole") {
    const char* changes[] = {
        "CREATE TRIGGER eat AFTER INSERT ON shot BEGIN DELETE FROM shot WHERE position = new.position; END",
        "CREATE TABLE own(x)",
        "ALTER TABLE shot ADD COLUMN own TEXT",
        "DROP TRIGGER tally_after_insert",
        "DROP INDEX shot_by_turn",
        // Rows that give way to others without a word.
        "ALTER TABLE turn RENAME TO t; CREATE TABLE turn AS SELECT * FROM t; DROP TABLE t",
        "PRAGMA writable_schema = ON; UPDATE sqlite_schema SET sql = replace(sql, 'PRIMARY KEY(test_id, position),', "
        "'PRIMARY KEY(test_id, position) ON CONFLICT REPLACE,') WHERE name = 'shot'",
    };
    for (const char* change : changes) {
        INFO(change);
        const Folder folder;
        const auto path = folder.file("a.knotbook");
        REQUIRE(Logbook::create(path)->save(simulate::testFrom(*simulate::scenarioByKey("wedge-loft"))));
        Folder::runSql(path, change);
        for (const auto& refused : {Logbook::open(path), Logbook::read(path)}) {
            REQUIRE(!refused);
            CHECK(refused.error().kind == ErrorKind::damaged);
        }
    }
}

TEST_CASE("views of others are let be, through every way of writing") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    test.id = *Logbook::create(path)->save(test);
    Folder::runSql(path, "CREATE VIEW sight AS SELECT test_id, carry FROM shot");
    {
        auto book = *Logbook::open(path);
        CHECK(book.integrityFaults()->empty());
        REQUIRE(book.saveHead(*book.load(test.id)));
        auto other = *Logbook::create(folder.file("b.knotbook"));
        REQUIRE(other.addAll(book));
    }
    Folder::runSql(path, "CREATE TEMP TABLE seen AS SELECT count(carry) FROM sight"); // it still looks at the shots
    CHECK(Logbook::read(path));
}

TEST_CASE("a tally that is wrong is counted anew and keeps no list from standing") {
    for (const char* tally : {"9 9 9;", "0 x 1;", "0 1", "18446744073709551615 1 1;", ""}) {
        const Folder folder;
        const auto path = folder.file("a.knotbook");
        const auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
        REQUIRE(Logbook::create(path)->save(test));
        Folder::runSql(path,
                       ("INSERT OR REPLACE INTO tally SELECT id, '" + std::string(tally) + "' FROM test").c_str());
        auto book = Logbook::open(path);
        REQUIRE(book->tests());
        CHECK(book->tests()->size() == 1);
    }
}

TEST_CASE("a migration that is refused leaves nothing behind") {
    for (const int format : {1, 2, 3}) {
        const Folder folder;
        const auto path = folder.file("old.knotbook");
        fixture(folder, path, format);
        Folder::runSql(path, "CREATE TRIGGER own AFTER INSERT ON setting BEGIN SELECT 1; END; "
                             "CREATE TABLE tally(x); CREATE TABLE extra_table(y)");
        for (int tries = 0; tries < 3; ++tries)
            CHECK(!Logbook::open(path));
        std::size_t files = 0;
        for (const auto& entry : std::filesystem::directory_iterator(folder.path)) {
            ++files;
            CHECK(entry.path().filename() != "old.knotbook.part");
        }
        CHECK(files == 1);
    }
}

TEST_CASE("bringing an older logbook up to date takes nothing that stands beside it") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    fixture(folder, path, 3);
    const auto letter = folder.file("letter.txt");
    std::ofstream(letter) << "mine";
    std::filesystem::create_symlink(letter, folder.file("old.knotbook.part"));
    REQUIRE(Logbook::open(path));
    CHECK(bytesOf(letter) == "mine");
    CHECK(std::filesystem::is_symlink(folder.file("old.knotbook.part")));
    const auto kept = folder.file("old.format3.knotbook");
    REQUIRE(std::filesystem::exists(kept));
    using std::filesystem::perms;
    CHECK((std::filesystem::status(kept).permissions() & (perms::group_all | perms::others_all)) == perms::none);
}

TEST_CASE("what is made beside a logbook takes nothing that stands there, and is for its user alone") {
    const Folder folder;
    const auto letter = folder.file("letter.txt");
    std::ofstream(letter) << "mine";
    for (const char* name : {"a.knotbook.part", "a.txt.part"})
        std::filesystem::create_symlink(letter, folder.file(name));
    const auto path = folder.file("a.knotbook");
    REQUIRE(Logbook::create(path));
    REQUIRE(files::writeFile(folder.file("a.txt"), "report"));
    CHECK(bytesOf(letter) == "mine");
    CHECK_FALSE(std::filesystem::is_symlink(path));
    using std::filesystem::perms;
    CHECK((std::filesystem::status(path).permissions() & (perms::group_all | perms::others_all)) == perms::none);
    // Nothing else is left beside them.
    std::size_t files = 0;
    for (const auto& entry : std::filesystem::directory_iterator(std::filesystem::path(path).parent_path()))
        files += entry.is_regular_file() && !entry.is_symlink() ? 1 : 0;
    CHECK(files == 3);
}

TEST_CASE("a name that leaves no room for a journal is refused before anything is struck") {
    const Folder folder;
    const std::string longest(255 - 9, 'x'); // with a byte more there is no room for "-journal"
    CHECK(Logbook::create(folder.file(longest)));
    for (const auto& refused :
         {Logbook::create(folder.file(longest + "xx")), Logbook::open(folder.file(longest + "xx"))}) {
        REQUIRE(!refused);
        CHECK(logbook::sentence(refused.error()).find("its name is too long") != std::string::npos);
    }
}

TEST_CASE("a copy to read an older logbook by has no name while it is read") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    fixture(folder, path, 3);
    const auto temporary = std::filesystem::temp_directory_path();
    auto copies = [&] {
        std::size_t found = 0;
        for (const auto& entry : std::filesystem::directory_iterator(temporary))
            found += entry.path().filename().string().starts_with(".knotcount-") ? 1 : 0;
        return found;
    };
    const std::size_t before = copies();
    auto book = Logbook::read(path);
    REQUIRE(book);
    CHECK(copies() == before);
    CHECK_FALSE(book->tests()->empty());
    CHECK(book->load(book->tests()->front().id));
}
