// Players are kept once: who is in which test, another name, two that are one, and logbooks from before.
#include "core/bay/hand.h"
#include "core/bay/strike.h"
#include "core/simulate/scenarios.h"
#include "logbook/logbook.h"
#include "support/folder.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <filesystem>
#include <fstream>

using namespace knot;
using knot::test::Folder;
using logbook::Logbook;
using record::Player;

namespace {

record::Test testOf(std::vector<Player> players) {
    auto test = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    test.players = std::move(players);
    if (test.players.size() > 1)
        for (std::size_t i = 0; i < test.shots.size(); ++i)
            test.shots[i].player = test.players[i % test.players.size()].name;
    return test;
}

std::vector<std::string> namesIn(Logbook& book) {
    std::vector<std::string> names;
    const auto players = *book.players();
    for (const auto& entry : players)
        names.push_back(entry.player.name + (entry.player.leftHanded ? ", left" : "") + ", " +
                        std::to_string(entry.tests));
    return names;
}

} // namespace

TEST_CASE("a player of the same name and hand is the same one in every test, who learns only what was not known") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto first = *book.save(testOf({{.id = {}, .name = "Marit", .leftHanded = true, .shape = "fade"}}));
    const auto second =
        *book.save(testOf({{.id = {}, .name = "Marit", .leftHanded = true, .shape = "draw", .miss = "left"}}));
    book.save(testOf({{.id = {}, .name = "Marit"}}));
    CHECK(namesIn(book) == std::vector<std::string>{"Marit, 1", "Marit, left, 2"});
    const auto own = book.load(first)->firstPlayer();
    CHECK(own.shape == "fade");
    CHECK(own.miss == "left");
    CHECK(book.load(second)->firstPlayer() == own);
    CHECK(book.tests()->front().players == "Marit");
    CHECK(!book.tests()->front().playerIds.empty());
}

TEST_CASE("what is known of a player stands in every test, and a name goes into its shots") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto id = *book.save(testOf({{.id = {}, .name = "Marit"}, {.id = {}, .name = "Odd"}}));
    Player marit = book.load(id)->players[0];
    marit.name = "Marit Aasgaard";
    marit.usual = {{.club = "five-wood", .carry = 160}};
    REQUIRE(book.savePlayer(marit));
    auto test = *book.load(id);
    CHECK(test.players[0] == marit);
    CHECK(test.shots[0].player == "Marit Aasgaard");
    CHECK(test.shots[1].player == "Odd");
    // Kept again as it was loaded, it is the same.
    REQUIRE(book.saveHead(test));
    CHECK(*book.load(id) == test);
    // Nobody may be called like another of the same test.
    marit.name = "Odd";
    const auto refused = book.savePlayer(marit);
    REQUIRE(!refused);
    CHECK(refused.error().kind == logbook::ErrorKind::invalid);
    CHECK(logbook::sentence(refused.error()).find("“Odd” is another player of") != std::string::npos);
    CHECK(*book.load(id) == test);
    marit.name.clear();
    CHECK(!book.savePlayer(marit));
    CHECK(book.integrityFaults()->empty());
}

TEST_CASE("what was put right late keeps speaking of a player who has another name now") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = testOf({{.id = {}, .name = "Marit"}, {.id = {}, .name = "Odd"}});
    test.nameShots();
    test.amendments = {{"2026-05-02T10:00:00.000", "shot 1: struck by Odd after all", {test.shots[0]}}};
    test.progress.player = record::PlayerAt(1);
    const auto id = *book.save(test);
    Player odd = book.load(id)->players[1];
    odd.name = "Odd Farstad";
    REQUIRE(book.savePlayer(odd));
    const auto loaded = *book.load(id);
    CHECK(loaded.progress.player == record::PlayerAt(1));
    CHECK(loaded.amendments[0].was[0].player == "Marit");
    CHECK(loaded.amendments[0].was[0].readings == test.shots[0].readings);
}

TEST_CASE("two that are one are joined by hand, and those who hit in one test are not") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto old = *book.save(testOf({{.id = {}, .name = "M. Aasgaard", .tempo = "smooth"}}));
    const auto now = *book.save(testOf({{.id = {}, .name = "Marit", .shape = "fade"}, {.id = {}, .name = "Odd"}}));
    const auto marit = book.load(now)->players[0];
    const auto odd = book.load(now)->players[1];
    const auto former = book.load(old)->players[0];
    const auto refused = book.joinPlayers(marit.id, odd.id);
    REQUIRE(!refused);
    CHECK(logbook::sentence(refused.error()).find("both hit in") != std::string::npos);
    REQUIRE(book.joinPlayers(former.id, marit.id));
    CHECK(book.load(old)->firstPlayer().name == "Marit");
    CHECK(book.load(old)->firstPlayer().tempo == "smooth");
    CHECK(book.load(old)->firstPlayer().shape == "fade");
    CHECK(namesIn(book) == std::vector<std::string>{"Marit, 2", "Odd, 1"});
    CHECK(!book.joinPlayers(former.id, marit.id)); // there is no such player any more
    CHECK(book.integrityFaults()->empty());
}

TEST_CASE("a player is taken out only where no test is theirs; a name thought better of is nobody") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = testOf({{.id = "aa", .name = "Mar"}});
    test.id = *book.save(test);
    test.players = {{.id = "bb", .name = "Marit", .shape = "fade"}};
    REQUIRE(book.saveHead(test));
    CHECK(namesIn(book) == std::vector<std::string>{"Marit, 1"});
    CHECK(!book.removePlayer("bb"));
    test.players.clear();
    REQUIRE(book.saveHead(test));
    CHECK(namesIn(book) == std::vector<std::string>{"Marit, 0"}); // something is known of her
    REQUIRE(book.removePlayer("bb"));
    CHECK(namesIn(book).empty());
    CHECK(book.load(test.id)->players.empty());
}

TEST_CASE("a test that comes back knows its players by the names that they have now") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    const auto id = *book.save(testOf({{.id = "aa", .name = "Marit"}, {.id = "bb", .name = "Odd"}}));
    const auto loaded = *book.load(id);
    REQUIRE(book.remove(id));
    Player odd = loaded.players[1];
    odd.name = "Odd Farstad";
    REQUIRE(book.savePlayer(odd));
    REQUIRE(book.save(loaded));
    const auto back = *book.load(id);
    CHECK(back.players[1].name == "Odd Farstad");
    for (const auto& shot : back.shots)
        CHECK(back.playerIndex(shot.player).has_value());
    // Two of one name in one test can't be kept.
    REQUIRE(book.remove(id));
    odd.name = "Marit";
    REQUIRE(book.savePlayer(odd));
    const auto refused = book.save(loaded);
    REQUIRE(!refused);
    CHECK(logbook::sentence(refused.error()).find("are called “Marit” now") != std::string::npos);
    CHECK(book.tests()->empty());
}

TEST_CASE("players outlive their tests, and a restored test finds them again") {
    const Folder folder;
    auto book = *Logbook::create(folder.file("a.knotbook"));
    auto test = testOf({{.id = {}, .name = "Marit"}});
    const auto id = *book.save(test);
    const auto loaded = *book.load(id);
    REQUIRE(book.remove(id));
    CHECK(namesIn(book) == std::vector<std::string>{"Marit, 0"});
    REQUIRE(book.save(loaded));
    CHECK(*book.load(id) == loaded);
    CHECK(namesIn(book) == std::vector<std::string>{"Marit, 1"});
}

TEST_CASE("a logbook of format 4 has each player once, of one name and one hand") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format4.sql");
    const std::string script{std::istreambuf_iterator<char>(sql), {}};
    REQUIRE(!script.empty());
    Folder::runSql(path, script.c_str());
    auto book = Logbook::open(path);
    REQUIRE(book);
    CHECK(std::filesystem::exists(folder.file("old.format4.knotbook")));
    CHECK(book->integrityFaults()->empty());
    CHECK(namesIn(*book) ==
          std::vector<std::string>{"Marit Aasgaard, 1", "Marit Aasgaard, left, 2", "Odd Farstad, 1", "Runa Veld, 2"});
    REQUIRE(book->tests()->size() == 6);
    const auto entries = *book->tests();
    auto titled = [&](const std::string& title) {
        return *book->load(std::ranges::find(entries, title, &logbook::TestEntry::title)->id);
    };
    const auto spring = titled("Spring");
    CHECK(spring.firstPlayer() == titled("Summer").firstPlayer());
    CHECK(spring.firstPlayer().shape == "draw"); // as last said
    CHECK(spring.firstPlayer().tempo == "smooth");
    CHECK(spring.firstPlayer().clubSpeed == 41.5);
    CHECK(titled("Her namesake").firstPlayer().id != spring.firstPlayer().id);
    const auto two = titled("Two of them");
    REQUIRE(two.players.size() == 2);
    CHECK(two.players[1].name == "Odd Farstad");
    CHECK(two.shots[2].player == "Odd Farstad");
    CHECK(titled("Nobody said").players.empty());
    const auto four = titled("Format four");
    REQUIRE(four.shots.size() == 5);
    CHECK(four.shots[0].status == record::ShotStatus::warmUp);
    CHECK(four.shots[2].setAsideWhen == record::SetAsideWhen::called);
    CHECK(four.shots[1].readId == "link:2");
    CHECK(four.feels.front().words == "dead");
    // What is new can be kept.
    auto more = spring;
    more.shots[0].call = record::Call::soSo;
    more.shots[1].mark = record::Mark::day;
    REQUIRE(book->saveShots(more, 0));
    CHECK(book->load(more.id)->shots == more.shots);
}

TEST_CASE("a test that can't be read does not hold up a logbook that is brought up to date") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format4.sql");
    std::string script{std::istreambuf_iterator<char>(sql), {}};
    script += "UPDATE test SET head = 'no more' WHERE title = 'Summer';\n";
    Folder::runSql(path, script.c_str());
    auto book = Logbook::open(path);
    REQUIRE(book);
    CHECK(book->tests()->size() == 6);
    const auto entries = *book->tests();
    for (const auto& entry : entries)
        CHECK(book->load(entry.id).has_value() == (entry.title != "Summer"));
}
