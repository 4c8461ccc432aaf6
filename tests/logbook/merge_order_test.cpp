// The order in which logbooks are added does not matter, however they came to be.
#include "logbook/kept_versions.h"

#include <rapidcheck.h>

#include <algorithm>

using namespace knot;
using knot::test::bookOf;
using knot::test::contentOf;
using knot::test::Folder;
using knot::test::Kept;
using knot::test::versionOf;
using logbook::Logbook;

namespace {

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
        RC_ASSERT(merged->added.size() + merged->known.size() + clashes == b.size());
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

namespace {

// A day in a bay: tests are made, struck on, told of, thrown away, as somebody there does it.
void spendDay(Logbook& bay, int name, int day) {
    const std::string when = "bay " + std::to_string(name) + " day " + std::to_string(day);
    for (int act = *rc::gen::inRange(0, 4); act > 0; --act) {
        const auto listed = *bay.tests();
        const int what = *rc::gen::inRange(0, 5);
        if (what == 0 || listed.empty()) {
            auto made = versionOf(0, day);
            made.id = "0000000" + std::to_string(name) + "-0000-4000-8000-0000000000" + std::to_string(10 + day);
            made.title = "Made, " + when;
            if (std::ranges::find(listed, made.id, &logbook::TestEntry::id) == listed.end())
                RC_ASSERT(bay.save(made).has_value());
            continue;
        }
        auto test =
            *bay.load(listed[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(listed.size())))].id);
        if (what == 1) {
            RC_ASSERT(bay.remove(test.id).has_value());
        } else if (what == 2) {
            test.decision.reason = when + " " + std::to_string(act);
            RC_ASSERT(bay.saveHead(test).has_value());
        } else {
            const std::size_t from = test.shots.size();
            test.shots.push_back(test.shots.front());
            test.shots.back().id = test.nextShotId();
            test.shots.back().note = when;
            RC_ASSERT(bay.saveShots(test, from).has_value());
        }
    }
}

Logbook& one(std::vector<Logbook>& bays) {
    return bays[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(bays.size())))];
}

} // namespace

TEST_CASE("a shop and three bays over ten days: any order every night, twice or half of them; in the end all agree") {
    const Folder folder;
    CHECK(rc::check("days", [&] {
        std::vector<Logbook> bays;
        for (int b = 0; b < 3; ++b)
            bays.push_back(bookOf(folder, "bay" + std::to_string(b) + ".knotbook", {}));
        auto shop = bookOf(folder, "shop.knotbook", {{0, 0}, {1, 0}});
        for (Logbook& bay : bays)
            RC_ASSERT(bay.addAll(shop).has_value());
        for (int day = 0; day < 10; ++day) {
            for (int b = 0; b < 3; ++b)
                spendDay(bays[static_cast<std::size_t>(b)], b, day);
            for (int night = *rc::gen::inRange(0, 5); night > 0; --night)
                RC_ASSERT(shop.addAll(one(bays)).has_value());
            if (*rc::gen::arbitrary<bool>())
                RC_ASSERT(one(bays).addAll(shop).has_value());
        }
        // Two more shops hear of it by other ways.
        auto second = bookOf(folder, "second.knotbook", {});
        auto third = bookOf(folder, "third.knotbook", {});
        for (Logbook& bay : bays)
            RC_ASSERT(second.addAll(bay).has_value());
        RC_ASSERT(second.addAll(shop).has_value());
        for (const std::size_t b : {2, 0, 1})
            RC_ASSERT(shop.addAll(bays[b]).has_value());
        RC_ASSERT(third.addAll(bays[1]).has_value());
        RC_ASSERT(third.addAll(second).has_value());
        RC_ASSERT(contentOf(shop) == contentOf(second));
        RC_ASSERT(contentOf(third) == contentOf(second));
        for (Logbook& bay : bays) {
            RC_ASSERT(bay.addAll(shop).has_value());
            RC_ASSERT(contentOf(bay) == contentOf(shop));
            RC_ASSERT(shop.addAll(bay)->step.empty());
            RC_ASSERT(bay.integrityFaults()->empty());
        }
        RC_ASSERT(shop.integrityFaults()->empty());
    }));
}
