#pragma once

#include "core/simulate/scenarios.h"
#include "logbook/logbook.h"
#include "support/folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>
#include <set>
#include <string>

namespace knot::test {

/// A test by its number, as one of several versions of it has it.
inline record::Test versionOf(int number, int version) {
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

using Kept = std::map<int, int>; ///< versions by number

inline logbook::Logbook bookOf(const Folder& folder, const std::string& name, const Kept& kept) {
    std::filesystem::remove(folder.file(name));
    auto book = *logbook::Logbook::create(folder.file(name));
    for (const auto& [number, version] : kept)
        REQUIRE(book.save(versionOf(number, version)));
    return book;
}

/// What stands in it, without the ids of versions.
inline std::multiset<std::string> contentOf(logbook::Logbook& book) {
    std::multiset<std::string> all;
    const auto entries = *book.tests();
    for (const auto& entry : entries) {
        const auto test = *book.load(entry.id);
        all.insert(test.title + ", " + test.decision.reason + ", " + std::to_string(test.shots.size()));
    }
    return all;
}

} // namespace knot::test
