// Shots on their way to the disk: kept one by one, changed, taken back, and what failing writes leave.
#include "core/simulate/scenarios.h"
#include "logbook/logbook.h"
#include "support/failing_disk.h"
#include "support/folder.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>
#include <sqlite3.h>

#include <fstream>

using namespace knot;
using knot::test::FailingDisk;
using knot::test::Folder;
using logbook::ErrorKind;
using logbook::Logbook;

namespace {

record::Test struckTest(std::size_t shots) {
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.players = {{.id = "aa", .name = "Marit Aasgaard"}};
    test.shots.resize(shots);
    for (std::size_t i = 0; i < shots; ++i)
        test.shots[i].readId = "link:" + std::to_string(i);
    return test;
}

// A test in the logbook with no shots yet, and the same with all of them.
record::Test keptEmpty(Logbook& book, const record::Test& full) {
    record::Test test = full;
    test.shots.clear();
    test.id = *book.save(test);
    test.nameClubs();
    return test;
}

} // namespace

TEST_CASE("a new connection that can't be opened costs a try; the file stays held and nothing is lost") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    FailingDisk disk;
    auto book = *Logbook::create(path);
    const auto full = struckTest(12);
    auto test = keptEmpty(book, full);
    test.shots.assign(full.shots.begin(), full.shots.begin() + 5);
    REQUIRE(book.saveShots(test, 0));
    test.shots.push_back(full.shots[5]);

    SECTION("after three busy tries") {
        sqlite3* other = nullptr;
        sqlite3_open(path.c_str(), &other);
        sqlite3_exec(other, "BEGIN IMMEDIATE", nullptr, nullptr, nullptr);
        for (int i = 0; i < 3; ++i)
            REQUIRE(book.saveShots(test, 5).error().kind == ErrorKind::busy);
        sqlite3_exec(other, "COMMIT", nullptr, nullptr, nullptr);
        sqlite3_close(other);
        disk.failOpening(1);
        CHECK(!book.saveShots(test, 5));
        CHECK(disk.hasFailed());
    }
    SECTION("after the file was put back") {
        std::filesystem::remove(path);
        REQUIRE(book.saveShots(test, 5).error().kind == ErrorKind::gone);
        disk.failOpening(2); // the copy is opened first
        CHECK(!book.writeAnew());
        CHECK(disk.hasFailed());
        CHECK(book.stillThere());
        CHECK(Logbook::read(path)->load(test.id)->shots.size() == 5);
    }
    CHECK(Logbook::open(path).error().kind == ErrorKind::inUse);
    REQUIRE(book.saveShots(test, 5));
    CHECK(Logbook::read(path)->load(test.id)->shots.size() == 6);
}

TEST_CASE("shots kept one at a time read back as if kept whole") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto full = struckTest(40);
    auto test = keptEmpty(book, full);
    for (const auto& shot : full.shots) {
        test.shots.push_back(shot);
        REQUIRE(book.saveShots(test, test.shots.size() - 1));
    }
    CHECK(*book.load(test.id) == test);
    CHECK(book.integrityFaults()->empty());
    const auto entry = book.tests()->front();
    CHECK(entry.counted + entry.setAside <= 40);
    CHECK(entry.turns > 3);
}

TEST_CASE("however shots are added, changed and taken back, the logbook says the same") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto full = struckTest(40);
    CHECK(rc::check("tail by tail", [&] {
        auto test = keptEmpty(book, full);
        const auto steps = *rc::gen::inRange(1, 12);
        for (int step = 0; step < steps; ++step) {
            const auto from = *rc::gen::inRange<std::size_t>(0, test.shots.size() + 1);
            const auto size = *rc::gen::inRange<std::size_t>(from, full.shots.size() + 1);
            test.shots.resize(from);
            for (std::size_t i = from; i < size; ++i) {
                test.shots.push_back(full.shots[i]);
                test.shots.back().handedOver = *rc::gen::arbitrary<bool>();
                test.shots.back().build = record::BuildAt(*rc::gen::inRange<std::size_t>(0, test.builds.size()));
                test.shots.back().status =
                    *rc::gen::arbitrary<bool>() ? record::ShotStatus::counted : record::ShotStatus::setAside;
            }
            RC_ASSERT(book.saveShots(test, from).has_value());
        }
        // A hand-over is kept with its turn: a flag inside a turn begins one.
        RC_ASSERT(*book.load(test.id) == test);
        std::size_t counted = 0;
        for (const auto& shot : test.shots)
            counted += shot.status == record::ShotStatus::counted ? 1 : 0;
        const auto entries = *book.tests();
        for (const auto& entry : entries)
            if (entry.id == test.id)
                RC_ASSERT(entry.counted == counted);
    }));
    CHECK(book.integrityFaults()->empty());
}

TEST_CASE("whichever write fails, the logbook holds what was acknowledged and nothing half done") {
    const int code = GENERATE(SQLITE_IOERR_WRITE, SQLITE_FULL);
    const auto lasts = GENERATE(FailingDisk::Lasts::once, FailingDisk::Lasts::fromThenOn);
    const Folder folder;
    FailingDisk disk;
    const auto full = struckTest(6);
    int failures = 0;
    for (int nth = 1; nth < 400; ++nth) {
        const auto path = folder.file("n" + std::to_string(nth) + ".knotbook");
        auto made = Logbook::create(path);
        REQUIRE(made);
        auto test = keptEmpty(*made, full);
        disk.failAt(nth, code, lasts);
        std::size_t acknowledged = 0;
        bool refused = false;
        for (const auto& shot : full.shots) {
            test.shots.push_back(shot);
            test.progress.confirmed = static_cast<int>(test.shots.size());
            const auto kept = made->saveShotsAndHead(test, acknowledged);
            if (kept) {
                acknowledged = test.shots.size();
                continue;
            }
            refused = true;
            CHECK((kept.error().kind == ErrorKind::full || kept.error().kind == ErrorKind::storage));
            CHECK(!logbook::sentence(kept.error()).empty());
        }
        const bool failed = disk.hasFailed();
        disk.mend();
        failures += refused ? 1 : 0;
        if (lasts == FailingDisk::Lasts::once) { // what stayed in memory went along with a later shot, or goes now
            REQUIRE(made->saveShotsAndHead(test, acknowledged));
            acknowledged = test.shots.size();
        }
        made = tl::unexpected(logbook::Error{}); // closed, as by an end of the program
        auto again = Logbook::open(path);
        REQUIRE(again);
        CHECK(again->integrityFaults()->empty());
        const auto read = *again->load(test.id);
        REQUIRE(read.shots.size() >= acknowledged);
        CHECK(read.progress.confirmed == static_cast<int>(read.shots.size()));
        CHECK(std::equal(read.shots.begin(), read.shots.end(), full.shots.begin()));
        if (!failed)
            break; // the n-th write is beyond the last
    }
    CHECK(failures > 10);
}

TEST_CASE("making, opening and changing a logbook survive any failing write too") {
    const Folder folder;
    FailingDisk disk;
    const auto test = struckTest(12);
    int refused = 0;
    for (int nth = 1; nth < 400; ++nth) {
        const auto path = folder.file("w" + std::to_string(nth) + ".knotbook");
        disk.failAt(nth, SQLITE_IOERR_WRITE, FailingDisk::Lasts::once);
        auto book = Logbook::create(path);
        const auto first = book ? book->save(test) : tl::unexpected(book.error());
        const auto units = book ? book->setUnits({.distance = record::DistanceUnit::yd}) : tl::unexpected(book.error());
        const auto gone = first ? book->remove(*first) : tl::unexpected(logbook::Error{});
        const bool failed = disk.hasFailed();
        disk.mend();
        if (!failed)
            break;
        refused += !first || !units || !gone ? 1 : 0;
        if (!book)
            continue;
        CHECK(book->integrityFaults()->empty());
        const auto listed = book->tests();
        REQUIRE(listed);
        CHECK(listed->size() == (first && !gone ? 1U : 0U));
        CHECK(book->save(test));
    }
    CHECK(refused > 5);
}

TEST_CASE("a file deleted while it is open is noticed, and can be put back whole") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    auto book = *Logbook::create(path);
    const auto full = struckTest(5);
    auto test = keptEmpty(book, full);
    test.shots = full.shots;
    REQUIRE(book.saveShots(test, 0));
    std::filesystem::remove(path);
    test.shots.push_back(full.shots[0]);
    const auto refused = book.saveShots(test, 5);
    REQUIRE(!refused);
    CHECK(refused.error().kind == ErrorKind::gone);
    REQUIRE(book.writeAnew());
    REQUIRE(book.saveShots(test, 5));
    auto again = Logbook::read(path);
    REQUIRE(again);
    CHECK(again->integrityFaults()->empty());
    CHECK(again->load(test.id)->shots.size() == 6);
}

TEST_CASE("another file in the place of the open one is not written to") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    auto book = *Logbook::create(path);
    auto test = keptEmpty(book, struckTest(2));
    std::filesystem::rename(path, folder.file("moved.knotbook"));
    std::ofstream(path) << "something else";
    test.shots = struckTest(2).shots;
    const auto refused = book.saveShots(test, 0);
    REQUIRE(!refused);
    CHECK(refused.error().kind == ErrorKind::replaced);
}

TEST_CASE("a logbook of format 2 is brought up to date with its shots") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format2.sql");
    const std::string script{std::istreambuf_iterator<char>(sql), {}};
    folder.runSql(path, script.c_str());
    auto book = Logbook::open(path);
    REQUIRE(book);
    CHECK(book->integrityFaults()->empty());
    CHECK(std::filesystem::exists(folder.file("old.format2.knotbook")));
    REQUIRE(book->tests()->size() == 1);
    CHECK(book->tests()->front().counted == 3);
    CHECK(book->tests()->front().setAside == 1);
    auto test = *book->load(book->tests()->front().id);
    REQUIRE(test.shots.size() == 5);
    CHECK(test.shots[3].reason == "thin");
    CHECK(test.shots[4].readings.at(record::Metric::carry) == 149);
    test.shots[4].readId = "link:9";
    REQUIRE(book->saveShots(test, 4));
    CHECK(*book->load(test.id) == test);
}

TEST_CASE("a real disk that fills up keeps what was acknowledged, and takes the rest once there is room") {
    const Folder folder;
    const std::string disk = folder.file("disk");
    std::filesystem::create_directories(disk);
    if (std::system(("mount -t tmpfs -o size=400k knot " + disk + " 2> /dev/null").c_str()) != 0) {
        WARN("No small file system can be mounted here: only failing writes were tried.");
        return;
    }
    const auto path = disk + "/a.knotbook";
    const auto full = struckTest(45);
    record::Test test;
    std::size_t kept = 0;
    {
        auto book = *Logbook::create(path);
        test = keptEmpty(book, full);
        std::ofstream(disk + "/filler") << std::string(std::size_t{400} << 10, 'x'); // as much as there is room for
        std::size_t refused = 0;
        while (test.shots.size() < full.shots.size()) {
            test.shots.push_back(full.shots[test.shots.size()]);
            if (book.saveShots(test, kept))
                kept = test.shots.size();
            else
                ++refused;
        }
        CHECK(refused > 0);
        const auto seen = Logbook::read(path)->load(test.id);
        REQUIRE(seen);
        CHECK(seen->shots.size() == kept);
        std::filesystem::remove(disk + "/filler");
        CHECK(book.saveShots(test, kept));
    }
    auto again = Logbook::open(path);
    REQUIRE(again);
    CHECK(again->integrityFaults()->empty());
    CHECK(again->load(test.id)->shots == test.shots);
    again = tl::unexpected(logbook::Error{}); // closed before its disk goes
    CHECK(std::system(("umount " + disk).c_str()) == 0);
}
