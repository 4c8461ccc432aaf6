// Files as other programs write them (tests/data/import, made by make_corpus.py): each is read without a
// question, or with exactly the questions named beside it, and every reading is compared.
#include "core/record/check.h"
#include "files/import/shot_file.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <fstream>

using namespace knot;

namespace {

std::vector<std::filesystem::path> corpus() {
    std::vector<std::filesystem::path> files;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(KNOT_TEST_DATA) + "/import"))
        if (const auto kind = entry.path().extension(); kind == ".csv" || kind == ".xlsx" || kind == ".ods")
            files.push_back(entry.path());
    std::ranges::sort(files);
    return files;
}

nlohmann::json expectedOf(const std::filesystem::path& file) {
    auto beside = file;
    std::ifstream in(beside.replace_extension(".expected.json"));
    return nlohmann::json::parse(in);
}

std::optional<record::Metric> metricNamed(const std::string& key) {
    for (const auto metric : record::allMetrics())
        if (record::info(metric).key == key)
            return metric;
    return std::nullopt;
}

void compare(const record::Test& test, const record::Shot& shot, const nlohmann::json& wanted) {
    CHECK(test.builds.at(shot.build).name == wanted["club"].get<std::string>());
    for (const auto& [key, value] : wanted.items()) {
        if (const auto metric = metricNamed(key)) {
            INFO(key << " of shot " << static_cast<std::int64_t>(shot.id));
            REQUIRE(shot.readings.has(*metric));
            CHECK(std::fabs(*shot.readings.at(*metric) - value.get<double>()) <
                  1e-6 * (1 + std::fabs(value.get<double>())));
        } else if (key != "club" && !value.is_null()) {
            CHECK(std::string(record::shotFieldNamed(key)->text(shot)) == value.get<std::string>());
        }
    }
    for (const auto metric : record::allMetrics())
        if (shot.readings.has(metric) && !shot.readings.derived(metric))
            CHECK(wanted.contains(record::info(metric).key));
}

} // namespace

TEST_CASE("a file of every style is read to the cell, with no question but those named beside it") {
    const auto files = corpus();
    REQUIRE(files.size() >= 60);
    for (const auto& file : files)
        DYNAMIC_SECTION(file.filename().string()) {
            const auto expected = expectedOf(file);
            const auto read = files::readShotFile(file.string(), {.doubt = files::ReadOptions::Doubt::takeLikelier});
            INFO((read ? std::string() : files::sentence(read.error())));
            REQUIRE(read);
            CHECK(record::faultsOf(read->test) == std::vector<std::string>{}); // whatever is read can be kept
            std::vector<std::string> asked;
            for (const auto& column : read->columns)
                if (column.isAsked())
                    asked.push_back(column.meaning.heading);
            CHECK(asked == expected["asks"].get<std::vector<std::string>>());
            REQUIRE(read->columns.size() == expected["columns"].size());
            for (std::size_t i = 0; i < read->columns.size(); ++i) {
                INFO("column " << read->columns[i].meaning.heading << ": " << read->columns[i].why);
                const auto& wanted = expected["columns"][i][1];
                const std::string name = files::canonicalName(read->columns[i].meaning);
                const auto allowed =
                    wanted.is_array() ? wanted.get<std::vector<std::string>>() : std::vector{wanted.get<std::string>()};
                CHECK_THAT(allowed, Catch::VectorContains(name));
            }
            REQUIRE(read->test.shots.size() == expected["shots"].size());
            for (std::size_t i = 0; i < read->test.shots.size(); ++i)
                compare(read->test, read->test.shots[i], expected["shots"][i]);
        }
}
