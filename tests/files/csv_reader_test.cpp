#include "files/import/shot_file.h"

#include <catch2/catch.hpp>

using namespace knot;
using record::Metric;
using record::ShotStatus;

namespace {

record::Test read(const std::string& text, const files::ReadOptions& options = {}) {
    auto imported = files::readShots("shots.csv", text, options);
    if (!imported)
        FAIL(files::sentence(imported.error()));
    return imported->test;
}

double carry(const record::Test& test, std::size_t shot = 0) {
    return *test.shots.at(shot).readings.at(Metric::carry);
}

} // namespace

TEST_CASE("a plain shot file is read column by column") {
    const auto test =
        read("shot,sitting,player,round,turn,build,carry_m,side_m,status,reason,taken_at,delivery,feel,note,weight_g\n"
             "7,May,Ivo,2,3,Briar,152.5,-3.25,set_aside,thin,2026-05-01T10:00:00,usual,8,\"a, b\",74\n");
    const auto& shot = test.shots.at(0);
    CHECK(test.builds.at(0).name == "Briar");
    CHECK(shot.number == "7");
    CHECK(shot.sitting == "May");
    CHECK(shot.player == "Ivo");
    CHECK(shot.round == "2");
    CHECK(shot.turn == "3");
    CHECK(shot.status == ShotStatus::setAside);
    CHECK(shot.reason == "thin");
    CHECK(shot.takenAt == "2026-05-01T10:00:00");
    CHECK(shot.delivery == "usual");
    CHECK(shot.feel == 8);
    CHECK(shot.note == "a, b");
    CHECK(test.extraColumns == std::vector<std::string>{"weight_g"});
    CHECK(shot.extra == std::vector<std::string>{"74"});
    CHECK(carry(test) == 152.5);
    CHECK(shot.readings.at(Metric::side) == -3.25);
}

TEST_CASE("units come as suffixes, in brackets or in a row of their own, and are turned into SI") {
    CHECK(carry(read("build,carry_yd\nA,100\n")) == Approx(91.44).epsilon(1e-15));
    CHECK(carry(read("Build,Carry [yd]\nA,100\n")) == Approx(91.44).epsilon(1e-15));
    CHECK(carry(read("Build,Carry (yds)\nA,100\n")) == Approx(91.44).epsilon(1e-15));
    CHECK(carry(read("Build,Carry\n,[yd]\nA,100\n")) == Approx(91.44).epsilon(1e-15));
    CHECK(carry(read("build,carry_m\n,m\nA,100\n")) == 100);
    const auto test = read("build,ball_speed_mph,club_speed_kmh,apex_ft,strike_toe_in,Spin,Launch "
                           "(deg),smash\nA,100,90,100,0.5,2500,12.5,1.4\n");
    const auto& r = test.shots[0].readings;
    CHECK(*r.at(Metric::ballSpeed) == Approx(44.704).epsilon(1e-15));
    CHECK(*r.at(Metric::clubSpeed) == Approx(25).epsilon(1e-15));
    CHECK(*r.at(Metric::apex) == Approx(30.48).epsilon(1e-15));
    CHECK(*r.at(Metric::strikeToe) == Approx(12.7).epsilon(1e-15));
    CHECK(r.at(Metric::spin) == 2500);
    CHECK(r.at(Metric::launch) == 12.5);
    CHECK(!r.derived(Metric::smash));
}

TEST_CASE("exports as they really look") {
    CHECK(carry(read("\xEF\xBB\xBF"
                     "build,carry_m\r\nA,150.5\r\n")) == 150.5);
    CHECK(carry(read("build;carry_m\nA;150,5\n")) == 150.5);
    CHECK(carry(read("build\tcarry_m\nA\t150.5\n")) == 150.5);
    CHECK(carry(read("build,carry_m\nA,\"150,5\"\n")) == 150.5);
    CHECK(carry(read("build,carry_m\n\n  \nA,150\n\n")) == 150);
    CHECK(carry(read("build,carry_m,,\nA,150,,\n")) == 150);
    CHECK(carry(read("build,carry_m\nA,150")) == 150);
    CHECK(read("build,carry_m\nB\xFCrste,150\n").builds[0].name == "Bürste");
    std::string wide = "\xFF\xFE";
    for (const char c : std::string("build,carry_m\nA,150\n"))
        wide += std::string{c, '\0'};
    CHECK(carry(read(wide)) == 150);
    const auto quoted = read("build,carry_m,note\n\"A \"\"B\"\"\",150,\"two\nlines\"\nC,151,x\n");
    CHECK(quoted.builds[0].name == "A \"B\"");
    CHECK(quoted.shots[0].note == "two\nlines");
    CHECK(carry(quoted, 1) == 151);
}

TEST_CASE("sides are read with a letter before or after, left negative") {
    struct Row {
        const char* cell;
        double side;
    };
    for (const Row& row :
         {Row{"12.3 L", -12.3}, {"R 4", 4}, {"4R", 4}, {"L12", -12}, {"-3", -3}, {"\u22123.5", -3.5}, {"+2", 2}})
        CHECK(*read(std::string("build,side_m\nA,") + row.cell + "\n").shots[0].readings.at(Metric::side) == row.side);
}

TEST_CASE("no reading is written in several ways and never as zero") {
    for (const char* cell : {"", "--", "-", "---", "–", "n/a", "NA", "  "})
        CHECK(!read(std::string("build,carry_m,side_m\nA,") + cell + ",1\n").shots[0].readings.has(Metric::carry));
}

TEST_CASE("rows of averages and deviations are left out and counted") {
    auto imported = files::readShots("x.csv", "shot,build,carry_m\n1,A,150\n2,A,152\nAverage,,151\nStd. Dev.,,1.4\n");
    REQUIRE(imported);
    CHECK(imported->test.shots.size() == 2);
    CHECK(imported->notes == std::vector<std::string>{"2 summary rows were left out."});
}

TEST_CASE("headings can be mapped by hand, and unknown ones are kept as text") {
    const auto test =
        read("Club,Flight length,Mood\nA,100,good\n", {.headings = {{"Club", "build"}, {"Flight length", "carry_yd"}}});
    CHECK(carry(test) == Approx(91.44).epsilon(1e-15));
    CHECK(test.extraColumns == std::vector<std::string>{"Mood"});
}

TEST_CASE("the longest name wins where one heading begins like another") {
    const auto test = read("build,spin_axis_deg,face_to_path_deg,launch_direction_deg,total_mass_g\nA,3,1,2,330\n");
    CHECK(test.shots[0].readings.at(Metric::spinAxis) == 3);
    CHECK(test.shots[0].readings.at(Metric::faceToPath) == 1);
    CHECK(test.shots[0].readings.at(Metric::launchDirection) == 2);
    CHECK(test.extraColumns == std::vector<std::string>{"total_mass_g"});
}

TEST_CASE("a device's file that knows no clubs is read as shots of one") {
    const files::ReadOptions options{.headings = {}, .clubs = files::ReadOptions::Clubs::unknown};
    const auto bare = files::readShots("device.csv", "taken_at,carry_m\n2026-05-02T09:00:00,150\n,151\n", options);
    REQUIRE(bare);
    CHECK(bare->test.shots.size() == 2);
    CHECK(bare->test.builds.size() == 1);
    CHECK(bare->test.shots[0].takenAt == "2026-05-02T09:00:00");
    const auto units = files::readShots("device.csv", "Carry;Ball Speed\nm;m/s\n150,5;60\n", options);
    REQUIRE(units);
    CHECK(units->test.shots[0].readings.at(record::Metric::carry) == 150.5);
    const auto some = files::readShots("device.csv", "build,carry_m\nLarch,150\n,151\n", options);
    REQUIRE(some);
    CHECK(some->test.builds.size() == 2);
    CHECK(!files::readShots("device.csv", "carry_m\n150\n"));
}
