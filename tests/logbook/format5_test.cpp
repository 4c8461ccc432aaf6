// A logbook of format 5: clubs get ids, and who left is told by what stands there.
#include "core/record/roster.h"
#include "logbook/logbook.h"
#include "support/folder.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <fstream>

using namespace knot;
using logbook::Logbook;
using test::Folder;

TEST_CASE("a logbook of format 5 gives each club an id, the same in tests that follow from each other") {
    const Folder folder;
    const auto path = folder.file("old.knotbook");
    std::ifstream sql(std::string(KNOT_TEST_DATA) + "/logbook/format5.sql");
    const std::string script{std::istreambuf_iterator<char>(sql), {}};
    REQUIRE(!script.empty());
    Folder::runSql(path, script.c_str());
    auto book = Logbook::open(path);
    REQUIRE(book);
    CHECK(book->integrityFaults()->empty());
    CHECK(book->players()->size() == 1);
    const auto entries = *book->tests();
    auto titled = [&](const std::string& title) {
        return *book->load(std::ranges::find(entries, title, &logbook::TestEntry::title)->id);
    };
    const auto one = titled("One broke, one was changed");
    const auto another = titled("One broke, another day");
    for (const auto& build : one.builds)
        CHECK(build.id.size() == 36);
    CHECK(one.builds[0].id == another.builds[0].id);
    CHECK(one.builds[1].id == another.builds[1].id);
    CHECK(titled("Four heads, two left").builds[0].id != titled("A few each").builds[0].id);
    // What named a club by its name names it by its id.
    CHECK(one.card.baseline == one.builds[0].id);
    CHECK(one.card.expectedOrder == std::vector{one.builds[1].id, one.builds[0].id});
    CHECK(one.card.targets.front().build == one.builds[1].id);
    CHECK(one.guesses.front().said == one.builds[1].id);
    CHECK(one.choices.byFeel.tag == one.builds[1].id);
    CHECK(one.decision.club == one.builds[1].id);

    // Who left, and when.
    const record::Roster broken(one);
    CHECK(broken.isIn(record::BuildAt(2), 1));
    CHECK_FALSE(broken.isIn(record::BuildAt(2), 2));
    CHECK_FALSE(broken.isStruckOff(record::BuildAt(2)));
    const record::Roster heads(titled("Four heads, two left"));
    CHECK(heads.left() == std::vector{record::BuildAt(0), record::BuildAt(1)});
    CHECK(heads.isIn(record::BuildAt(3), 3));
    CHECK_FALSE(heads.isIn(record::BuildAt(3), 4));
    CHECK(heads.whyOut(record::BuildAt(3)) == "after lap 3");
    CHECK(record::Roster(titled("A few each")).whyOut(record::BuildAt(1)) == "too low");

    // The same again after it was kept, and from a copy that only reads.
    REQUIRE(book->saveHead(one));
    CHECK(*book->load(one.id) == one);
    Folder::runSql(folder.file("twin.knotbook"), script.c_str());
    auto twin = Logbook::read(folder.file("twin.knotbook"));
    REQUIRE(twin);
    CHECK(*twin->load(one.id) == one);
}
