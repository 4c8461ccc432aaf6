// One logbook added to another: the same test is one, versions stand beside each other, and nothing is overwritten.
#include "core/simulate/scenarios.h"
#include "logbook/logbook.h"
#include "support/folder.h"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

#include <algorithm>
#include <filesystem>
#include <fstream>
#include <iterator>
#include <set>

using namespace knot;
using knot::test::Folder;
using logbook::Logbook;

namespace {

// A test by its number, as one of several versions of it has it.
record::Test versionOf(int number, int version) {
    static const record::Test struck = simulate::testFrom(*simulate::scenarioByKey("wedge-loft"));
    record::Test test = struck;
    test.id = "00000000-0000-4000-8000-00000000000" + std::to_string(number);
    test.title = "Test " + std::to_string(number);
    test.createdAt = "2026-03-0" + std::to_string(number + 1) + "T10:00:00";
    test.players = {{.id = "00000000-0000-4000-8000-0000000000aa", .name = "Marit"}};
    test.shots.resize(3);
    test.decision.reason = "version " + std::to_string(version);
    return test;
}

using Kept = std::map<int, int>; // versions by number

Logbook bookOf(const Folder& folder, const std::string& name, const Kept& kept) {
    std::filesystem::remove(folder.file(name));
    auto book = *Logbook::create(folder.file(name));
    for (const auto& [number, version] : kept)
        REQUIRE(book.save(versionOf(number, version)));
    return book;
}

// What stands in it, without the ids of versions.
std::multiset<std::string> contentOf(Logbook& book) {
    std::multiset<std::string> all;
    const auto entries = *book.tests();
    for (const auto& entry : entries) {
        const auto test = *book.load(entry.id);
        all.insert(test.title + ", " + test.decision.reason + ", " + std::to_string(test.shots.size()));
    }
    return all;
}

Kept anyBook() {
    Kept kept;
    for (int number = 0; number < 4; ++number)
        if (const int version = *rc::gen::inRange(-1, 3); version >= 0)
            kept[number] = version;
    return kept;
}

} // namespace

TEST_CASE("adding a logbook twice is adding it once, and the order of several does not matter") {
    const Folder folder;
    CHECK(rc::check("merging", [&] {
        const Kept a = anyBook();
        const Kept b = anyBook();
        const Kept c = anyBook();
        auto other = bookOf(folder, "b.knotbook", b);
        auto third = bookOf(folder, "c.knotbook", c);
        auto first = bookOf(folder, "a.knotbook", a);
        auto second = bookOf(folder, "a2.knotbook", a);
        const auto merged = first.addAll(other);
        RC_ASSERT(merged.has_value());
        std::size_t clashes = 0;
        for (const auto& [number, version] : b)
            clashes += a.contains(number) && a.at(number) != version ? 1 : 0;
        RC_ASSERT(merged->conflicts.size() == clashes);
        RC_ASSERT(merged->added.size() + merged->known + clashes == b.size());
        const auto once = contentOf(first);
        const auto again = first.addAll(other);
        RC_ASSERT(again->added.empty());
        RC_ASSERT(again->conflicts.empty());
        RC_ASSERT(contentOf(first) == once);
        RC_ASSERT(first.addAll(third).has_value());
        RC_ASSERT(second.addAll(third).has_value());
        RC_ASSERT(second.addAll(other).has_value());
        RC_ASSERT(contentOf(first) == contentOf(second));
        // What was here is as it was, and each version of all is there once.
        std::set<std::string> all;
        for (const Kept& kept : {a, b, c})
            for (const auto& [number, version] : kept)
                all.insert("Test " + std::to_string(number) + ", version " + std::to_string(version) + ", 3");
        RC_ASSERT(contentOf(first) == std::multiset<std::string>(all.begin(), all.end()));
        for (const auto& [number, version] : a)
            RC_ASSERT(first.load(versionOf(number, version).id)->decision.reason ==
                      "version " + std::to_string(version));
        // And back: the one that was added knows nothing new but what it lacked.
        RC_ASSERT(other.addAll(first).has_value());
        RC_ASSERT(contentOf(other) == contentOf(first));
        RC_ASSERT(first.addAll(other)->added.empty());
        RC_ASSERT(contentOf(other) == contentOf(first));
        RC_ASSERT(first.integrityFaults()->empty());
    }));
}

TEST_CASE("players are known by id or by name and hand; what is said differently of one is told, not overwritten") {
    const Folder folder;
    auto here = *Logbook::create(folder.file("a.knotbook"));
    auto there = *Logbook::create(folder.file("b.knotbook"));
    auto own = versionOf(0, 0);
    own.players = {{.id = {}, .name = "Marit", .shape = "fade", .height = 1720}};
    auto theirs = versionOf(1, 0);
    theirs.players = {{.id = {}, .name = "Marit", .shape = "draw", .miss = "left", .height = 1720}};
    REQUIRE(here.save(own));
    REQUIRE(there.save(theirs));
    const auto merged = here.addAll(there);
    REQUIRE(merged);
    CHECK(merged->added.size() == 1);
    CHECK(merged->players == std::vector<std::string>{"Marit"});
    REQUIRE(here.players()->size() == 1);
    const auto marit = here.players()->front().player;
    CHECK(marit.shape == "fade");
    CHECK(marit.miss == "left");
    CHECK(here.players()->front().tests == 2);
    CHECK(here.addAll(there)->known == 1); // although they have another id there
    CHECK(there.load(theirs.id)->firstPlayer().shape == "draw");
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
