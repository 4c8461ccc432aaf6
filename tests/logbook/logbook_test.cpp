#include "core/simulate/scenarios.h"
#include "logbook/logbook.h"
#include "support/build_test.h"
#include "support/folder.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <catch2/catch.hpp>

#include <filesystem>
#include <fstream>
#include <iterator>

using namespace knot;
using knot::test::Folder;
using logbook::ErrorKind;
using logbook::Logbook;
namespace fs = std::filesystem;

namespace {

std::string bytesOf(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    return {std::istreambuf_iterator<char>(in), {}};
}

record::Test fullTest() {
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.card.comparison = record::Comparison::whichOfThese;
    test.card.margins[record::Metric::spin] = 250;
    test.card.covariates = {record::Metric::strikeHigh, record::Metric::clubSpeed};
    test.card.wants[*record::outcomeFromText("launch_deg")] = {record::Want::Kind::near, 13.5};
    test.card.trendColumn = "weight_g";
    test.card.setAsideRule = record::SetAsideRule::byNumbers;
    test.card.shapes = {{record::Shape::Kind::ellipse, "green", -1.5, 185, 14, 20},
                        {record::Shape::Kind::fairway, "lane", 0, 0, 25, 0}};
    test.card.targets = {{record::Metric::launch, "", 12, 15}, {record::Metric::carry, "Fern", 180, 190}};
    test.shots[21].mark = record::Mark::player;
    test.shots[22].setAsideWhen = record::SetAsideWhen::byRule;
    test.guesses = {{record::BuildAt(1), "Fern", "2"}};
    test.feels = {{"2", record::BuildAt(1), {7, 0, 3, 10, 0, 1}, "lively, \"quick\""}};
    test.sittings = {{"2026-05-02", "2026-05-02T09:00:00", {record::Place::outdoors, 3.5, 14, "range", "mat"}}};
    test.events = {{record::EventKind::stop, "2026-05-02T09:40:00", 20, "elbow"}};
    test.sittings.back().later = {{"2026-05-02T09:20:00", 12, {record::Place::outdoors, 6.5, 13, "range", "mat"}}};
    test.events.push_back({record::EventKind::flag, "2026-05-02T09:41:00", 21, ""});
    test.feels.back().versus = record::Versus::worse;
    test.feels.back().against = "1";
    test.players = {{.id = "aa", .name = "Marit Aasgaard"}, {.id = "bb", .name = "Odd Farstad", .leftHanded = true}};
    test.progress = {.warmedUp = true,
                     .confirmed = 3,
                     .named = 1,
                     .handedOverAt = "2026-05-02T09:30:00",
                     .inHand = record::BuildAt(1),
                     .player = record::PlayerAt(1),
                     .delivery = "low",
                     .handOverNext = true,
                     .nextMark = record::Mark::day};
    test.shots[20].call = record::Call::soSo;
    test.shots[19].mark = record::Mark::day;
    test.shots[18].delivery = "high";
    test.shots[17].player = "Odd Farstad";
    test.shots[23].readId = "link:23";
    test.extraColumns = {"weight_g"};
    for (auto& shot : test.shots)
        shot.extra = {"74"};
    test.shots[7].status = record::ShotStatus::setAside;
    test.shots[7].reason = "thin, \"called\"";
    test.shots[8].feel = 9;
    test.shots[9].readings.clear(record::Metric::spin);
    test.shots[10].readings.model(record::Metric::curve, -2.5);
    test.nameShots();
    test.amendments.push_back({"2026-05-02T10:00:00", "shot 12: struck with Fern after all", {test.shots[11]}});
    return test;
}

} // namespace

TEST_CASE("a test comes back from the logbook as it was kept") {
    const Folder folder;
    auto book = Logbook::create(folder.file("a.knotbook"));
    REQUIRE(book);
    auto test = fullTest();
    test.id = *book->save(test);
    test.nameClubs();
    CHECK(*book->load(test.id) == test);
    auto again = Logbook::read(folder.file("a.knotbook"));
    REQUIRE(again);
    CHECK(*again->load(test.id) == test);
}

TEST_CASE("the list tells counts turn by turn without loading shots") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto id = *book.save(fullTest());
    const auto list = *book.tests();
    REQUIRE(list.size() == 1);
    CHECK(list[0].id == id);
    CHECK(list[0].counted == 44);
    CHECK(list[0].setAside == 1);
    CHECK(list[0].turns == 17); // another player's shot and another day cut one each
    CHECK(list[0].players == "Marit Aasgaard, Odd Farstad");
    REQUIRE(list[0].builds.size() == 3);
    CHECK(list[0].builds[1].counted.size() == 5);
}

TEST_CASE("keeping a known test replaces it and leaves no stray rows") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = fullTest();
    test.id = *book.save(test);
    test.nameClubs();
    test.shots.resize(12);
    test.title = "Shorter";
    CHECK(*book.save(test) == test.id);
    CHECK(book.tests()->size() == 1);
    CHECK(*book.load(test.id) == test);
    CHECK(book.integrityFaults()->empty());
    REQUIRE(book.remove(test.id));
    CHECK(book.tests()->empty());
    CHECK(book.integrityFaults()->empty());
    CHECK(book.load(test.id).error().kind == ErrorKind::noSuchTest);
    CHECK(book.remove(test.id).error().kind == ErrorKind::noSuchTest);
}

TEST_CASE("what is declared and the units are kept on their own") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = fullTest();
    test.id = *book.save(test);
    test.nameClubs();
    test.card.baseline = test.builds[*test.buildIndex("Ochre")].id;
    test.card.primary = {*record::outcomeFromText("side_m"), *record::outcomeFromText("spread:side_m")};
    test.card.margins.clear();
    REQUIRE(book.saveHead(test));
    CHECK(*book.load(test.id) == test);
    CHECK(*book.units() == record::DisplayUnits{});
    const record::DisplayUnits units{.speed = record::SpeedUnit::mph, .distance = record::DistanceUnit::yd};
    REQUIRE(book.setUnits(units));
    CHECK(*Logbook::read(book.path())->units() == units);
}

TEST_CASE("two logbooks of one machine never share an id") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto first = *book.save(fullTest());
    const auto second = *book.save(fullTest());
    CHECK(first != second);
    CHECK(first.size() == 36);
    CHECK(book.tests()->size() == 2);
}

TEST_CASE("foreign, damaged and newer files are refused with a sentence and left as they are") {
    const Folder folder;
    const auto good = folder.file("good.knotbook");
    {
        auto book = *Logbook::create(good);
        (void)book.save(fullTest());
    }
    auto refusedAs = [&](const std::string& path, ErrorKind kind, const std::string& words) {
        const auto before = bytesOf(path);
        auto opened = Logbook::open(path);
        REQUIRE(!opened);
        CHECK(opened.error().kind == kind);
        CHECK(logbook::sentence(opened.error()).find(words) != std::string::npos);
        CHECK(bytesOf(path) == before);
    };
    const auto text = folder.file("text.knotbook");
    std::ofstream(text) << "build,carry_m\nA,150\n" << std::string(600, 'x');
    refusedAs(text, ErrorKind::notALogbook, "is not a Knot Count logbook");
    const auto foreign = folder.file("foreign.knotbook");
    Folder::runSql(foreign, "CREATE TABLE x(y); INSERT INTO x VALUES(1)");
    refusedAs(foreign, ErrorKind::notALogbook, "is not a Knot Count logbook");
    const auto newer = folder.file("newer.knotbook");
    fs::copy_file(good, newer);
    Folder::runSql(newer, "PRAGMA user_version = 99");
    refusedAs(newer, ErrorKind::newer, "written by a newer Knot Count (format 99)");
    const auto cut = folder.file("cut.knotbook");
    fs::copy_file(good, cut);
    fs::resize_file(cut, fs::file_size(cut) / 2);
    refusedAs(cut, ErrorKind::damaged, "is damaged");
    const auto scribbled = folder.file("scribbled.knotbook");
    fs::copy_file(good, scribbled);
    {
        std::fstream out(scribbled, std::ios::in | std::ios::out | std::ios::binary);
        out.seekp(4096 * 3);
        out << std::string(8192, '\xA5');
    }
    refusedAs(scribbled, ErrorKind::damaged, "is damaged");
    CHECK(Logbook::open(folder.file("none.knotbook")).error().kind == ErrorKind::cannotOpen);
    CHECK(Logbook::create(good).error().kind == ErrorKind::exists);
}

TEST_CASE("the file names itself and its format to any SQLite tool") {
    const Folder folder;
    const auto path = folder.file("a.knotbook");
    { auto book = *Logbook::create(path); }
    const auto bytes = bytesOf(path);
    REQUIRE(bytes.size() > 100);
    CHECK(bytes.substr(68, 4) == "Knot"); // application_id
    CHECK(bytes[63] == 7);                // user_version
    CHECK(bytes[18] == 1);                // no write-ahead log: the file is all there is
}

TEST_CASE("a logbook of format 1 is kept beside as it was and brought up to date") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format1.sql");
    const std::string script{std::istreambuf_iterator<char>(sql), {}};
    REQUIRE(!script.empty());
    Folder::runSql(path, script.c_str());
    auto book = Logbook::open(path);
    REQUIRE(book);
    CHECK(book->integrityFaults()->empty());
    CHECK(book->units()->distance == record::DistanceUnit::yd);
    REQUIRE(book->tests()->size() == 1);
    const auto test = *book->load(book->tests()->front().id);
    CHECK(test.title == "Kept by format 1");
    CHECK(test.playerNames() == "Runa Veld");
    CHECK(test.card.comparison == record::Comparison::whichOfThese);
    CHECK(test.card.margins.at(record::Metric::carry) == 3.1);
    CHECK(test.card.wants.at(*record::outcomeFromText("launch_deg")) == record::Want{record::Want::Kind::near, 24.5});
    CHECK(test.card.shapes.size() == 1);
    CHECK(test.card.targets.size() == 1);
    CHECK(test.card.covariates == std::vector{record::Metric::strikeHigh});
    CHECK(test.builds.size() == 2);
    CHECK(test.shots.size() == 32);
    CHECK(test.shots[3].status == record::ShotStatus::setAside);
    CHECK(test.shots[3].reason == "thin");
    CHECK(test.shots[5].readings.has(record::Metric::carry));
    CHECK(test.extraColumns == std::vector<std::string>{"bounce_deg"});
    CHECK(fs::exists(folder.file("old.format1.knotbook")));
    CHECK(Logbook::read(path));
    CHECK(!fs::exists(folder.file("old.format3.knotbook")));
}

TEST_CASE("what was said of a test stands in the list until anything of the test changes, and goes with it") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = simulate::testFrom(*simulate::scenarioByKey("five-wood"));
    test.id = *book.save(test);
    test.nameClubs();
    const logbook::TestEntry::Finding said{.verdict = 0, .text = "Fern carries farther: real"};
    auto stands = [&] { return book.tests()->front().finding == said; };
    auto nothingStands = [&] { return book.tests()->front().finding.text.empty(); };
    REQUIRE(book.keepFinding(test.id, said));
    CHECK(stands());

    SECTION("a shot more") {
        test.shots.push_back(test.shots.back());
        test.shots.back().id = test.nextShotId();
        REQUIRE(book.saveShots(test, test.shots.size() - 1));
        CHECK(nothingStands());
    }
    SECTION("as many shots, one of them set aside") {
        test.shots.back().status = record::ShotStatus::setAside;
        REQUIRE(book.saveShotsAndHead(test, test.shots.size() - 1));
        CHECK(nothingStands());
    }
    SECTION("another gap that is worthwhile") {
        test.card.margins[record::Metric::carry] = 1.0;
        REQUIRE(book.saveHead(test));
        CHECK(nothingStands());
    }
    SECTION("kept whole anew") {
        REQUIRE(book.save(test));
        CHECK(nothingStands());
    }
    SECTION("a refused change leaves it") {
        test.title.clear();
        test.builds.clear();
        CHECK(!book.saveHead(test)); // it would take shots along
        CHECK(stands());
        CHECK(!book.load(test.id)->shots.empty());
    }
    SECTION("texts that are no finding") {
        for (const char* odd : {"", "1", "99 x", "x y", "-7 z"}) {
            REQUIRE(book.setSetting("found:" + test.id, odd));
            CHECK(nothingStands());
        }
    }
    REQUIRE(book.remove(test.id));
    CHECK(book.setting("found:" + test.id)->empty());
}

TEST_CASE("whoever reads a logbook by SQL finds tests, stints and shots with their names") {
    const Folder folder;
    const std::string path = folder.file("views.knotbook");
    record::Test test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    {
        auto book = Logbook::create(path);
        REQUIRE(book);
        REQUIRE(book->save(test));
    }
    // One that was made before there were any gets them when it is opened.
    Folder::runSql(path, "DROP VIEW shots; DROP VIEW stints; DROP VIEW tests;");
    REQUIRE(Logbook::open(path));
    SQLite::Database database(path, SQLite::OPEN_READONLY);
    SQLite::Statement tests(database, "SELECT test, clubs, shots FROM tests");
    REQUIRE(tests.executeStep());
    CHECK(tests.getColumn(0).getString() == test.title);
    CHECK(tests.getColumn(1).getInt() == static_cast<int>(test.builds.size()));
    CHECK(tests.getColumn(2).getInt() == static_cast<int>(test.shots.size()));
    SQLite::Statement shots(database, "SELECT club, lap, carry_m, status FROM shots ORDER BY shot");
    for (const record::Shot& shot : test.shots) {
        REQUIRE(shots.executeStep());
        CHECK(shots.getColumn(0).getString() == test.builds[shot.build].name);
        CHECK(shots.getColumn(1).getString() == shot.round);
        CHECK(shots.getColumn(2).getDouble() == shot.readings.at(record::Metric::carry).value());
    }
    CHECK(!shots.executeStep());
    SQLite::Statement stints(database, "SELECT sum(shots) FROM stints");
    REQUIRE(stints.executeStep());
    CHECK(stints.getColumn(0).getInt() == static_cast<int>(test.shots.size()));
}
