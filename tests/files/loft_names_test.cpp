// Files whose clubs are called by their lofts, or by the settings of a sleeve.
#include "files/import/shot_file.h"

#include <catch2/catch.hpp>

using namespace knot;

namespace {

// Four shots with each club, in runs.
std::string file(const std::string& heading, const std::vector<std::string>& names) {
    std::string text = heading + ",Ball Speed (m/s),Launch (deg),Spin (rpm),Carry (m)\n";
    for (std::size_t club = 0; club < names.size(); ++club)
        for (int shot = 0; shot < 4; ++shot)
            text += names[club] + ",66." + std::to_string(shot) + ",1" + std::to_string(club) + ".5,2" +
                    std::to_string(5 + club) + "00,22" + std::to_string(shot) + "\n";
    return text;
}

} // namespace

TEST_CASE("lofts that clubs are called by are clubs with these lofts, and a ladder of them") {
    struct Row {
        const char* heading;
        std::vector<std::string> names;
        std::vector<double> lofts;
    };
    for (const Row& row : std::vector<Row>{{"Club", {"9.5", "10.5", "11.5"}, {9.5, 10.5, 11.5}},
                                           {"Club", {"M 9.5", "M 7.5", "M 11.5"}, {9.5, 7.5, 11.5}},
                                           {"Club", {"9.5 deg", "10.5 deg", "12 deg"}, {9.5, 10.5, 12}},
                                           {"Club Name", {"9.5°", "10.5°", "12°"}, {9.5, 10.5, 12}},
                                           {"Club", {"D9.5", "D10.5", "D12"}, {9.5, 10.5, 12}},
                                           {"club", {"9", "10.5", "12"}, {9, 10.5, 12}}}) {
        INFO(row.names.front());
        const auto read = files::readShots("lofts.csv", file(row.heading, row.names));
        REQUIRE(read);
        const auto& clubs = read->test.builds;
        REQUIRE(clubs.size() == 3);
        for (std::size_t i = 0; i < 3; ++i) {
            CHECK(clubs[i].name == row.names[i]);
            CHECK(clubs[i].club.head.loft == row.lofts[i]);
        }
        CHECK(read->test.shots.size() == 12);
        for (const auto& column : read->columns)
            CHECK_FALSE(column.isAsked());
    }
}

TEST_CASE("settings of a sleeve are clubs, and what they add is the sleeve's") {
    const auto read = files::readShots("sleeve.csv", file("Club", {"-1", "STD", "+1"}));
    REQUIRE(read);
    REQUIRE(read->test.builds.size() == 3);
    CHECK(read->test.shots.size() == 12);
    CHECK(read->test.builds[1].name == "STD");
    CHECK(read->test.builds[0].club.sleeve.loft == -1.0);
    CHECK(read->test.builds[2].club.sleeve.setting == "+1");
}

TEST_CASE("speeds under a heading of one word stay speeds") {
    std::string text = "Club,Ball Speed (m/s),Carry (m),Build\n";
    for (int shot = 0; shot < 24; ++shot)
        text += "3" + std::to_string(6 + shot % 3) + "." + std::to_string((7 * shot) % 10) + ",66." +
                std::to_string(shot % 10) + ",22" + std::to_string(shot % 10) + "," + (shot < 12 ? "Ash" : "Fern") +
                "\n";
    const auto read = files::readShots("speeds.csv", text, {.doubt = files::ReadOptions::Doubt::takeLikelier});
    REQUIRE(read);
    CHECK(read->test.builds.size() == 2);
    CHECK(read->test.shots[0].readings.at(record::Metric::clubSpeed).has_value());
}
