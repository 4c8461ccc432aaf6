// One logbook added to another: what was changed after the other stands, what was changed apart stands twice.
#include "files/stock.h"
#include "files/test_json.h"
#include "logbook/kept_versions.h"

#include <algorithm>
#include <fstream>
#include <iterator>

using namespace knot;
using knot::test::bookOf;
using knot::test::contentOf;
using knot::test::Folder;
using knot::test::versionOf;
using logbook::Logbook;

TEST_CASE(
    "players are known by id or by name and hand; of what is said differently of one the last stands, and is told") {
    const Folder folder;
    auto here = *Logbook::create(folder.file("a.knotbook"));
    auto there = *Logbook::create(folder.file("b.knotbook"));
    auto own = versionOf(0, 0);
    own.players = {{.id = "00000000-0000-4000-8000-0000000000a1", .name = "Marit", .shape = "fade", .height = 1720}};
    auto theirs = versionOf(1, 0);
    theirs.players = {{.id = "00000000-0000-4000-8000-0000000000a2",
                       .name = "Marit",
                       .shape = "draw",
                       .miss = "left",
                       .height = 1720}};
    REQUIRE(here.save(own));
    REQUIRE(there.save(theirs));
    const auto merged = here.addAll(there);
    REQUIRE(merged);
    CHECK(merged->added.size() == 1);
    CHECK(merged->players == std::vector<std::string>{"Marit"});
    REQUIRE(here.players()->size() == 1);
    const auto marit = here.players()->front().player;
    CHECK(marit.id == "00000000-0000-4000-8000-0000000000a1"); // the lesser one, wherever they meet
    CHECK(marit.miss == "left");
    CHECK(here.players()->front().tests == 2);
    CHECK(here.addAll(there)->known.size() == 1); // although they have another id there
    CHECK(here.addAll(there)->step.empty());
    CHECK(there.load(theirs.id)->firstPlayer().shape == "draw");
    // The other way round they are the same one.
    REQUIRE(there.addAll(here));
    REQUIRE(there.players()->size() == 1);
    CHECK(there.players()->front().player == marit);
    CHECK(there.addAll(here)->step.empty());
    // What is said later of somebody arrives; who is taken away does not come back.
    auto known = marit;
    known.goals = "fewer on the left";
    REQUIRE(there.savePlayer(known));
    REQUIRE(there.savePlayer({.id = "00000000-0000-4000-8000-0000000000a9", .name = "Odd"}));
    REQUIRE(here.addAll(there)->players.empty());
    CHECK(here.players()->front().player.goals == "fewer on the left");
    REQUIRE(here.players()->size() == 2);
    REQUIRE(here.removePlayer("00000000-0000-4000-8000-0000000000a9"));
    REQUIRE(here.addAll(there));
    CHECK(here.players()->size() == 1);
    REQUIRE(there.addAll(here));
    CHECK(there.players()->size() == 1);
}

TEST_CASE("who was kept twice and joined is one in every logbook that hears of it") {
    const Folder folder;
    auto here = *Logbook::create(folder.file("a.knotbook"));
    auto there = *Logbook::create(folder.file("b.knotbook"));
    auto one = versionOf(0, 0);
    one.players = {{.id = "00000000-0000-4000-8000-0000000000a1", .name = "Marit A"}};
    auto two = versionOf(1, 0);
    two.players = {{.id = "00000000-0000-4000-8000-0000000000a2", .name = "Marit Aas"}};
    REQUIRE(here.save(one));
    REQUIRE(here.save(two));
    REQUIRE(there.addAll(here));
    REQUIRE(here.joinPlayers(two.players[0].id, one.players[0].id));
    auto three = versionOf(2, 0);
    three.players = two.players;
    REQUIRE(there.save(three)); // where nobody knows yet
    REQUIRE(here.addAll(there));
    CHECK(here.players()->size() == 1);
    CHECK(here.load(three.id)->firstPlayer().name == "Marit A");
    REQUIRE(there.addAll(here));
    CHECK(there.players()->size() == 1);
    CHECK(there.load(two.id)->firstPlayer().name == "Marit A");
    CHECK(here.addAll(there)->step.empty());
}

TEST_CASE("a logbook that is read only for it stays as it is, and what can't be added leaves all as it was") {
    const Folder folder;
    auto bytes = [](const std::string& path) {
        std::ifstream in(path, std::ios::binary);
        return std::string(std::istreambuf_iterator<char>(in), {});
    };
    { bookOf(folder, "b.knotbook", {{0, 0}, {1, 1}}); }
    const std::string before = bytes(folder.file("b.knotbook"));
    auto here = bookOf(folder, "a.knotbook", {{1, 0}});
    {
        auto other = *Logbook::read(folder.file("b.knotbook"));
        CHECK(here.addAll(other)->conflicts.size() == 1);
    }
    CHECK(bytes(folder.file("b.knotbook")) == before);

    // Two players of one test who are called the same here.
    auto both = versionOf(2, 0);
    both.players = {{.id = "00000000-0000-4000-8000-0000000000aa", .name = "Marit"},
                    {.id = "00000000-0000-4000-8000-0000000000bb", .name = "Odd"}};
    auto there = *Logbook::create(folder.file("c.knotbook"));
    REQUIRE(there.save(versionOf(3, 0)));
    REQUIRE(there.save(both));
    REQUIRE(here.savePlayer({.id = "00000000-0000-4000-8000-0000000000aa", .name = "Odd"}));
    const auto content = contentOf(here);
    const auto refused = here.addAll(there);
    REQUIRE(!refused);
    CHECK(logbook::sentence(refused.error()).find("Odd") != std::string::npos);
    CHECK(contentOf(here) == content);
}

TEST_CASE(
    "of a test that one side changed after the other the later version stands, and of one changed on both sides both") {
    const Folder folder;
    auto shop = *Logbook::create(folder.file("shop.knotbook"));
    auto test = versionOf(0, 0);
    REQUIRE(shop.save(test));
    auto bay = *Logbook::create(folder.file("bay.knotbook"));
    REQUIRE(bay.addAll(shop)->added == std::vector<std::string>{test.id});
    auto inBay = *bay.load(test.id);
    SECTION("more shots come home in their place") {
        inBay.shots.push_back(inBay.shots.back());
        inBay.shots.back().id = inBay.nextShotId();
        REQUIRE(bay.saveShots(inBay, 3));
        const auto merged = shop.addAll(bay);
        CHECK(merged->later == std::vector<std::string>{test.id});
        CHECK(merged->conflicts.empty());
        CHECK(shop.load(test.id)->shots.size() == 4);
        CHECK(shop.tests()->size() == 1);
        CHECK(shop.addAll(bay)->step.empty());
        CHECK(bay.addAll(shop)->step.empty());
    }
    SECTION("fewer too, and that is said") {
        inBay.shots.pop_back();
        REQUIRE(bay.saveShots(inBay, 2));
        CHECK(shop.addAll(bay)->fewer == 1);
        CHECK(shop.load(test.id)->shots.size() == 2);
    }
    SECTION("what was deleted stays away, on both sides") {
        REQUIRE(shop.remove(test.id));
        CHECK(shop.addAll(bay)->added.empty());
        CHECK(shop.tests()->empty());
        CHECK(bay.addAll(shop)->deleted == std::vector<std::string>{test.id});
        CHECK(bay.tests()->empty());
        // Brought back it is later than its deletion.
        REQUIRE(bay.save(inBay));
        CHECK(shop.addAll(bay)->added == std::vector<std::string>{test.id});
        CHECK(shop.tests()->size() == 1);
    }
    SECTION("what was deleted here and struck on there is back, since nothing struck is lost") {
        REQUIRE(shop.remove(test.id));
        inBay.question = "Which one?";
        REQUIRE(bay.saveHead(inBay));
        CHECK(shop.addAll(bay)->back == std::vector<std::string>{test.id});
        CHECK(bay.addAll(shop)->deleted.empty());
        CHECK(bay.tests()->size() == 1);
    }
    SECTION("changed apart both stand; one that is thrown away does not come back; the other goes on") {
        auto inShop = *shop.load(test.id);
        inShop.decision.reason = "ours";
        REQUIRE(shop.saveHead(inShop));
        inBay.decision.reason = "theirs";
        REQUIRE(bay.saveHead(inBay));
        const auto merged = shop.addAll(bay);
        REQUIRE(merged->conflicts.size() == 1);
        const std::string beside = merged->conflicts[0].there;
        CHECK(shop.load(beside)->decision.reason == "theirs");
        inBay.shots.pop_back();
        REQUIRE(bay.saveShots(inBay, 2));
        CHECK(shop.addAll(bay)->later == std::vector<std::string>{beside});
        REQUIRE(shop.remove(beside));
        CHECK(shop.addAll(bay)->step.empty());
        CHECK(shop.tests()->size() == 1);
        // The bay hears of both: its own version is gone, the shop's stands there.
        REQUIRE(bay.addAll(shop));
        CHECK(contentOf(bay) == contentOf(shop));
    }
    SECTION("struck on there and looked at here it is one still: only the shots are more") {
        auto inShop = *shop.load(test.id);
        REQUIRE(shop.saveHead(inShop)); // changed, and nothing is other
        inBay.shots.push_back(inBay.shots.back());
        inBay.shots.back().id = inBay.nextShotId();
        REQUIRE(bay.saveShots(inBay, 3));
        const auto merged = shop.addAll(bay);
        CHECK(merged->conflicts.empty());
        CHECK(shop.load(test.id)->shots.size() == 4);
        REQUIRE(bay.addAll(shop));
        CHECK(bay.tests()->size() == 1);
    }
}

TEST_CASE("stock and starting tables come along, and which folder is watched and what units are shown do not") {
    const Folder folder;
    auto here = *Logbook::create(folder.file("a.knotbook"));
    auto there = *Logbook::create(folder.file("b.knotbook"));
    REQUIRE(there.setSetting("start_speed", "30: R"));
    REQUIRE(there.setSetting("watched_folder", "/elsewhere"));
    REQUIRE(there.setSetting("headings:ab", "{}"));
    REQUIRE(there.setSetting("stock", files::stockText({{.kind = record::PartKind::shaft, .name = "Larch"}})));
    REQUIRE(here.setSetting("stock", files::stockText({{.kind = record::PartKind::shaft, .name = "Alder"}})));
    REQUIRE(here.addAll(there));
    CHECK(*here.setting("start_speed") == "30: R");
    CHECK(here.setting("watched_folder")->empty());
    CHECK(here.setting("headings:ab")->empty());
    CHECK(files::stockFromText(*here.setting("stock")).size() == 2);
    REQUIRE(there.addAll(here));
    CHECK(*there.setting("stock") == *here.setting("stock"));
    REQUIRE(here.setSetting("start_speed", "31: R"));
    REQUIRE(there.addAll(here)->settings.empty());
    CHECK(*there.setting("start_speed") == "31: R");
    CHECK(here.addAll(there)->step.empty());
}

TEST_CASE("a merge is one step, which is taken back whole or not at all") {
    const Folder folder;
    auto here = bookOf(folder, "a.knotbook", {{0, 0}, {1, 0}, {3, 0}});
    auto there = *Logbook::create(folder.file("b.knotbook"));
    REQUIRE(there.addAll(here));
    auto changed = versionOf(0, 1);
    changed.players[0].goals = "straighter";
    REQUIRE(there.save(changed));
    REQUIRE(there.savePlayer({.id = changed.players[0].id, .name = "Marit", .goals = "straighter"}));
    REQUIRE(there.save(versionOf(2, 0)));
    REQUIRE(there.remove(versionOf(3, 0).id));
    auto own = versionOf(1, 1);
    REQUIRE(here.save(own));
    REQUIRE(there.save(versionOf(1, 2)));
    const auto content = contentOf(here);
    const auto players = *here.players();
    const auto version = *here.version(logbook::Thing::test, versionOf(0, 0).id);
    const auto merged = *here.addAll(there);
    CHECK(merged.added.size() == 1);
    CHECK(merged.later.size() == 1);
    CHECK(merged.deleted.size() == 1);
    CHECK(merged.conflicts.size() == 1);
    CHECK(contentOf(here) != content);
    SECTION("whole") {
        REQUIRE(here.takeBack(merged.step));
        CHECK(contentOf(here) == content);
        CHECK(here.players()->front().player == players.front().player);
        CHECK(*here.version(logbook::Thing::test, versionOf(0, 0).id) == version);
        CHECK(here.integrityFaults()->empty());
        const auto again = *here.addAll(there); // as if for the first time
        CHECK(again.added == merged.added);
        CHECK(again.conflicts == merged.conflicts);
    }
    SECTION("not where something of it was changed since") {
        auto test = *here.load(versionOf(0, 0).id);
        test.shots.pop_back();
        REQUIRE(here.saveShots(test, 2));
        const auto after = contentOf(here);
        const auto refused = here.takeBack(merged.step);
        REQUIRE_FALSE(refused);
        CHECK(logbook::sentence(refused.error()).find("changed since") != std::string::npos);
        CHECK(contentOf(here) == after);
        REQUIRE(here.save(versionOf(2, 1))); // references hold again
    }
    SECTION("what was found meanwhile is in nobody's way") {
        REQUIRE(here.keepFinding(versionOf(0, 0).id, {.verdict = 1, .text = "farther"}));
        REQUIRE(here.takeBack(merged.step));
        CHECK(contentOf(here) == content);
    }
}

TEST_CASE("an exported test is known again by its id") {
    const Folder folder;
    auto book = bookOf(folder, "a.knotbook", {{0, 0}});
    auto exported = *files::readTestJson("a.json", files::testJson(*book.load(versionOf(0, 0).id)));
    REQUIRE(exported.test.id == versionOf(0, 0).id);
    SECTION("the same is here") {
        const auto come = *book.add(exported.test);
        CHECK(come.id == exported.test.id);
        CHECK_FALSE(come.isNew);
        CHECK(book.tests()->size() == 1);
    }
    SECTION("one that was deleted here, and is opened again, is wanted") {
        REQUIRE(book.remove(exported.test.id));
        REQUIRE(book.add(exported.test));
        REQUIRE(book.remove(exported.test.id)); // it is known now
        CHECK(book.add(exported.test)->isNew);
        CHECK(book.tests()->size() == 1);
    }
    SECTION("an older one changes nothing") {
        auto later = *book.load(exported.test.id);
        later.shots.push_back(later.shots.back());
        later.shots.back().id = later.nextShotId();
        REQUIRE(book.saveShots(later, 3));
        CHECK_FALSE(book.add(exported.test)->isNew);
        CHECK(book.load(exported.test.id)->shots.size() == 4);
    }
    SECTION("one that goes on takes its place, and one that was changed stands beside it") {
        exported.test.shots.push_back(exported.test.shots.back());
        exported.test.shots.back().id = exported.test.nextShotId();
        CHECK(book.add(exported.test)->id == exported.test.id);
        CHECK(book.load(exported.test.id)->shots.size() == 4);
        exported.test.shots[0].note = "thin";
        const auto come = *book.add(exported.test);
        CHECK(come.id != exported.test.id);
        CHECK(come.isNew);
        CHECK(book.tests()->size() == 2);
        CHECK_FALSE(book.add(exported.test)->isNew);
    }
    CHECK(files::readTestJson(
              "a.json",
              R"({"format":"knotcount.test","version":1,"title":"t","id":"../x","builds":[],"card":{},"shots":[]})")
              .map([](const auto& read) { return read.test.id; })
              .value_or("")
              .empty());
}

TEST_CASE("a logbook of format 6 knows its versions from then on, also those that stood side by side") {
    const Folder folder;
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format6.sql");
    const std::string script{std::istreambuf_iterator<char>(sql), {}};
    for (const char* name : {"a.knotbook", "b.knotbook"})
        Folder::runSql(folder.file(name), script.c_str());
    auto here = *Logbook::open(folder.file("a.knotbook"));
    CHECK(std::filesystem::exists(folder.file("a.format6.knotbook")));
    CHECK(here.integrityFaults()->empty());
    REQUIRE(here.tests()->size() == 2);
    const std::string first = "ce782182-d1e7-44e9-9b59-6ac79046783f";
    const std::string beside = "afe8d8b9-9697-89fb-ab9c-64cb5ac05845";
    CHECK(here.version(logbook::Thing::test, first)->of == first);
    CHECK(here.version(logbook::Thing::test, beside)->of == first);
    auto there = *Logbook::read(folder.file("b.knotbook"));
    CHECK(here.addAll(there)->step.empty());
    // The version itself, as the other computer has it, is known too.
    auto other = *Logbook::create(folder.file("c.knotbook"));
    auto test = *here.load(beside);
    test.id = first;
    REQUIRE(other.save(test));
    CHECK(here.addAll(other)->added.empty());
    CHECK(here.tests()->size() == 2);
}
