// The file alone is the logbook, whole at any moment, and in one program's hands at a time.
#include "core/simulate/scenarios.h"
#include "logbook/lock_file.h"
#include "logbook/logbook.h"
#include "support/failing_disk.h"
#include "support/folder.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>
#include <sqlite3.h>

#include <sys/wait.h>
#include <unistd.h>

#include <csignal>
#include <filesystem>
#include <fstream>
#include <map>

using namespace knot;
using knot::test::FailingDisk;
using knot::test::Folder;
using logbook::ErrorKind;
using logbook::Logbook;

namespace {

record::Test wedges() {
    return simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
}

// Another program's connection.
struct Stranger {
    explicit Stranger(const std::string& path) { sqlite3_open(path.c_str(), &database); }
    Stranger(const Stranger&) = delete;
    Stranger& operator=(const Stranger&) = delete;
    ~Stranger() { sqlite3_close(database); }
    void run(const char* sql) const {
        INFO(sql);
        REQUIRE(sqlite3_exec(database, sql, nullptr, nullptr, nullptr) == SQLITE_OK);
    }
    sqlite3* database = nullptr;
};

// Strikes the shots of a test into a logbook one by one, and says how many are kept.
void strike(Logbook& book, record::Test& test, const record::Test& full, std::size_t upTo) {
    while (test.shots.size() < upTo) {
        test.shots.push_back(full.shots[test.shots.size()]);
        REQUIRE(book.saveShots(test, test.shots.size() - 1));
    }
}

record::Test begun(Logbook& book, const record::Test& full) {
    record::Test test = full;
    test.shots.clear();
    test.id = *book.save(test);
    return test;
}

bool nothingBeside(const Folder& folder) {
    for (const auto& entry : std::filesystem::directory_iterator(folder.file("")))
        if (entry.path().extension() != ".knotbook")
            return false;
    return true;
}

} // namespace

TEST_CASE("another program's write in the middle of a save costs one try, not all that follow") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    auto book = *Logbook::create(path);
    const auto full = wedges();
    auto test = begun(book, full);
    strike(book, test, full, 3);
    const int holds = GENERATE(1, 4); // tries while the other writes
    {
        const Stranger other(path);
        other.run("BEGIN IMMEDIATE");
        other.run("INSERT INTO setting VALUES('x', 'y')");
        test.shots.push_back(full.shots[3]);
        for (int i = 0; i < holds; ++i) {
            const auto kept = book.saveShots(test, 3);
            REQUIRE(!kept);
            CHECK(kept.error().kind == ErrorKind::busy);
        }
        other.run("COMMIT");
        REQUIRE(book.saveShots(test, 3));
    }
    strike(book, test, full, 8);
    CHECK(book.load(test.id)->shots.size() == 8);
    CHECK(nothingBeside(folder));
}

TEST_CASE("a copy, a rename or a move taken while the logbook is open holds every acknowledged shot") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    const auto full = wedges();
    std::string id;
    {
        auto book = *Logbook::create(path);
        auto test = begun(book, full);
        id = test.id;
        for (std::size_t shots = 1; shots <= 20; ++shots) {
            strike(book, test, full, shots);
            const auto copy = folder.file(std::to_string(shots) + ".knotbook");
            std::filesystem::copy_file(path, copy);
            auto copied = Logbook::read(copy);
            REQUIRE(copied);
            CHECK(copied->load(id)->shots.size() == shots);
            CHECK(copied->integrityFaults()->empty());
        }
        std::filesystem::rename(path, folder.file("moved.knotbook"));
        test.shots.push_back(full.shots[20]);
        CHECK(book.saveShots(test, 20).error().kind == ErrorKind::gone);
        CHECK(Logbook::read(folder.file("moved.knotbook"))->load(id)->shots.size() == 20);
        // What is put back holds all that was kept, and the moved one is left alone.
        REQUIRE(book.writeAnew());
        REQUIRE(book.saveShots(test, 20));
    }
    CHECK(Logbook::open(path)->load(id)->shots.size() == 21);
    CHECK(Logbook::open(folder.file("moved.knotbook"))->load(id)->shots.size() == 20);
}

TEST_CASE("a logbook that takes another's place while it is open is never touched by it") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    const auto full = wedges();
    std::string others;
    {
        auto other = *Logbook::create(folder.file("b.knotbook"));
        others = *other.save(full);
    }
    {
        auto book = *Logbook::create(path);
        auto test = begun(book, full);
        strike(book, test, full, 10);
        std::filesystem::rename(folder.file("b.knotbook"), path);
        test.shots.push_back(full.shots[10]);
        CHECK(book.saveShots(test, 10).error().kind == ErrorKind::replaced);
        CHECK(!book.writeAnew());
    }
    auto there = Logbook::open(path);
    REQUIRE(there);
    CHECK(there->integrityFaults()->empty());
    CHECK(there->tests()->size() == 1);
    CHECK(there->load(others)->shots.size() == full.shots.size());
    CHECK(nothingBeside(folder));
}

TEST_CASE("one program at a time holds a logbook, by whatever name") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    std::filesystem::create_symlink(path, folder.file("symbolic.knotbook"));
    {
        auto book = *Logbook::create(path);
        std::filesystem::create_hard_link(path, folder.file("hard.knotbook"));
        for (const char* name : {"a.knotbook", "symbolic.knotbook", "hard.knotbook"}) {
            const auto second = Logbook::open(folder.file(name));
            REQUIRE(!second);
            CHECK(second.error().kind == ErrorKind::inUse);
            CHECK(logbook::sentence(second.error()).find("open in another Knot Count") != std::string::npos);
            CHECK(Logbook::read(folder.file(name)));
            CHECK(book.isAt(folder.file(name)));
        }
        const Logbook moved = std::move(book);
        CHECK(!Logbook::open(path));
    }
    CHECK(Logbook::open(path));
    CHECK(!logbook::HeldFile::isHeld(path));
}

TEST_CASE("what holds a logbook ends with the program, however that ends, and nothing stale keeps an owner out") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    REQUIRE(Logbook::create(path));
    std::ofstream(path + ".lock") << "a stale word of an older Knot Count";
    int ready[2];
    REQUIRE(::pipe(ready) == 0);
    const pid_t child = ::fork();
    if (child == 0) {
        const auto held = logbook::HeldFile::hold(path);
        const char word = held ? 'y' : 'n';
        std::ignore = ::write(ready[1], &word, 1);
        ::pause();
        ::_exit(0);
    }
    char word = 0;
    REQUIRE(::read(ready[0], &word, 1) == 1);
    CHECK(word == 'y');
    CHECK(Logbook::open(path).error().kind == ErrorKind::inUse);
    ::kill(child, SIGKILL);
    ::waitpid(child, nullptr, 0);
    CHECK(Logbook::open(path));
    ::close(ready[0]);
    ::close(ready[1]);
}

TEST_CASE("a logbook is made whole or not at all, and an empty or half-made one is taken for new") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    SECTION("no byte was written") {
        std::ofstream{path};
    }
    SECTION("an earlier program got as far as the first page") {
        const Stranger maker(path);
        maker.run("PRAGMA page_size = 4096; PRAGMA user_version = 0; VACUUM; CREATE TABLE x(y); DROP TABLE x");
        REQUIRE(std::filesystem::file_size(path) > 0);
    }
    SECTION("something of another's stands beside, and is let be") {
        std::ofstream(folder.file("a.part.knotbook")) << "a letter";
        REQUIRE(Logbook::create(path));
        CHECK(std::filesystem::file_size(folder.file("a.part.knotbook")) == 8);
    }
    auto book = Logbook::open(path);
    REQUIRE(book);
    REQUIRE(book->save(wedges()));
    CHECK(book->tests()->size() == 1);
    CHECK(book->integrityFaults()->empty());
    CHECK(nothingBeside(folder));
}

TEST_CASE("whichever write fails while a logbook is made, nothing is left that can't be made again") {
    const Folder folder;
    FailingDisk disk;
    const auto lasts = GENERATE(FailingDisk::Lasts::once, FailingDisk::Lasts::fromThenOn);
    bool failed = true;
    for (int nth = 1; failed && nth < 300; ++nth) {
        const auto path = folder.file("n" + std::to_string(nth) + ".knotbook");
        disk.failAt(nth, SQLITE_FULL, lasts);
        const bool made = Logbook::create(path).has_value();
        failed = disk.hasFailed();
        disk.mend();
        CHECK(made == std::filesystem::exists(path));
        CHECK(nothingBeside(folder));
        CHECK((made ? Logbook::open(path) : Logbook::create(path)).has_value());
    }
    CHECK(!failed); // the last one went through
}

TEST_CASE("killed at any moment of its making, a logbook can be made or opened again") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    int whole = 0;
    for (int kill = 0; kill < 80; ++kill) {
        const pid_t child = ::fork();
        if (child == 0) {
            for (;;) {
                std::ignore = Logbook::create(path);
                ::unlink(path.c_str());
            }
        }
        ::usleep(static_cast<useconds_t>(500 + 317 * kill)); // up to some makings, each cut at another place
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        auto book = std::filesystem::exists(path) ? Logbook::open(path) : Logbook::create(path);
        REQUIRE(book);
        whole += book->save(wedges()) ? 1 : 0;
        book = tl::unexpected(logbook::Error{});
        REQUIRE(std::filesystem::remove(path));
    }
    CHECK(whole == 80);
}

TEST_CASE("a logbook that a killed program left in the middle of a write reads as before it, whoever looks") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    const auto full = wedges();
    std::string id;
    {
        auto book = *Logbook::create(path);
        auto test = begun(book, full);
        id = test.id;
        strike(book, test, full, 12);
    }
    // A write that has reached the file and is not finished: its journal lies beside.
    const pid_t child = ::fork();
    if (child == 0) {
        const Stranger half(path);
        sqlite3_exec(half.database,
                     "PRAGMA cache_size = 1; PRAGMA cache_spill = 1; BEGIN; DELETE FROM shot; "
                     "UPDATE test SET title = printf('%.9000c', 'x');",
                     nullptr, nullptr, nullptr);
        ::kill(::getpid(), SIGKILL);
    }
    ::waitpid(child, nullptr, 0);
    REQUIRE(std::filesystem::exists(path + "-journal"));
    auto looked = Logbook::read(path);
    REQUIRE(looked);
    CHECK(looked->load(id)->shots.size() == 12);
    CHECK(std::filesystem::exists(path + "-journal")); // looking changed nothing
    auto opened = Logbook::open(path);
    REQUIRE(opened);
    CHECK(opened->load(id)->shots.size() == 12);
    CHECK(opened->integrityFaults()->empty());
    CHECK(nothingBeside(folder));
}

TEST_CASE("a logbook of the journal that formats 1 to 4 had is read whole and goes on as one file") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    const auto full = wedges();
    std::string id;
    {
        auto book = *Logbook::create(path);
        auto test = begun(book, full);
        id = test.id;
        strike(book, test, full, 5);
    }
    const pid_t child = ::fork();
    if (child == 0) { // killed, so that the last write stands beside the file alone
        const Stranger old(path);
        sqlite3_exec(old.database, "PRAGMA journal_mode = WAL; UPDATE test SET question = 'kept beside'", nullptr,
                     nullptr, nullptr);
        ::kill(::getpid(), SIGKILL);
    }
    ::waitpid(child, nullptr, 0);
    REQUIRE(std::filesystem::exists(path + "-wal"));
    CHECK(Logbook::read(path)->tests()->front().question == "kept beside");
    {
        auto book = Logbook::open(path);
        REQUIRE(book);
        CHECK(book->tests()->front().question == "kept beside");
        CHECK(book->load(id)->shots.size() == 5);
    }
    CHECK(nothingBeside(folder));
}

TEST_CASE("shots that another program put there are not written over") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    auto book = *Logbook::create(path);
    const auto full = wedges();
    auto test = begun(book, full);
    strike(book, test, full, 6);
    {
        const Stranger other(path);
        other.run("DELETE FROM shot WHERE position >= 4");
    }
    test.shots.push_back(full.shots[6]);
    const auto kept = book.saveShots(test, 6);
    REQUIRE(!kept);
    CHECK(kept.error().kind == ErrorKind::changedElsewhere);
    REQUIRE(book.load(test.id)); // whoever looks again knows
    test.shots.resize(4);
    test.shots.push_back(full.shots[6]);
    CHECK(book.saveShots(test, 4));
}

TEST_CASE("in any order of save, remove, replace, delete and reopen the logbook says what a map in memory says") {
    const auto full = wedges();
    CHECK(rc::check("a logbook is a map", [&] {
        const Folder folder;
        const auto path = folder.file("a.knotbook");
        std::map<std::string, record::Test> memory;
        auto book = std::make_unique<Logbook>(*Logbook::create(path));
        auto some = [&]() -> record::Test* {
            if (memory.empty())
                return nullptr;
            return &std::next(memory.begin(), *rc::gen::inRange<long>(0, static_cast<long>(memory.size())))->second;
        };
        // A file that was deleted meanwhile is put back first.
        auto written = [&](auto write) {
            auto done = write();
            if (!done && done.error().kind == ErrorKind::gone) {
                RC_ASSERT(book->writeAnew().has_value());
                done = write();
            }
            RC_ASSERT(done.has_value());
            return done;
        };
        const auto steps = *rc::gen::inRange(1, 25);
        for (int step = 0; step < steps; ++step) {
            record::Test* test = some();
            switch (*rc::gen::inRange(0, 7)) {
            case 0: {
                record::Test fresh = full;
                fresh.shots.resize(*rc::gen::inRange<std::size_t>(0, 20));
                fresh.title = "test " + std::to_string(step);
                fresh.id = *written([&] { return book->save(fresh); });
                fresh.players = book->load(fresh.id)->players; // who is new has an identity from then on
                fresh.nameClubs();
                memory[fresh.id] = fresh;
                break;
            }
            case 1:
                if (test != nullptr) {
                    const std::string id = test->id;
                    written([&] { return book->remove(id); });
                    memory.erase(id);
                }
                break;
            case 2:
                if (test != nullptr) {
                    const auto from = *rc::gen::inRange<std::size_t>(0, test->shots.size() + 1);
                    test->shots.resize(from);
                    for (auto i = from; i < from + 3; ++i)
                        test->shots.push_back(full.shots[i]);
                    written([&] { return book->saveShots(*test, from); });
                }
                break;
            case 3:
                if (test != nullptr) {
                    test->question = "asked " + std::to_string(step);
                    written([&] { return book->saveHead(*test); });
                }
                break;
            case 4:
                std::filesystem::remove(path);
                break;
            case 5:
                if (std::filesystem::exists(path)) {
                    book.reset();
                    book = std::make_unique<Logbook>(*Logbook::open(path));
                }
                break;
            default: // another name, taken and given back
                if (std::filesystem::exists(path)) {
                    std::filesystem::rename(path, folder.file("away.knotbook"));
                    std::filesystem::rename(folder.file("away.knotbook"), path);
                }
                break;
            }
        }
        RC_ASSERT(book->tests()->size() == memory.size());
        for (auto& [id, test] : memory) {
            test.nameShots();
            RC_ASSERT(*book->load(id) == test);
        }
    }));
}
