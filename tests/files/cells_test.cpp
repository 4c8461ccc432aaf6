// A table of cells as exports write them: what each is read as, or how it is refused.
#include "core/record/shot_fields.h"
#include "files/csv_writer.h"
#include "files/import/cells/moment_cell.h"
#include "files/import/shot_file.h"

#include <catch2/catch.hpp>

using namespace knot;
using record::Metric;

namespace {

// The one reading of a file with a heading and a cell, or its refusal.
std::string readAs(const std::string& heading, const std::string& cell, Metric metric) {
    const auto read = files::readShots("f.csv", "build;" + heading + "\nA;" + cell + "\n");
    if (!read)
        return files::sentence(read.error());
    const auto value = read->test.shots.front().readings.at(metric);
    return value ? std::to_string(*value) : "none";
}

std::optional<double> first(const std::string& text, Metric metric) {
    const auto read = files::readShots("f.csv", text);
    INFO((read ? std::string() : files::sentence(read.error())));
    REQUIRE(read);
    return read->test.shots.front().readings.at(metric);
}

std::string refusal(const std::string& text) {
    const auto read = files::readShots("f.csv", text);
    return read ? "read" : files::sentence(read.error());
}

} // namespace

TEST_CASE("cells of one column become values, no reading, or a refusal") {
    struct Row {
        const char* heading;
        const char* cell;
        Metric metric;
        const char* is; ///< a value, "none", or a part of the refusal
    };
    const Row rows[] = {
        {"carry_m", "150", Metric::carry, "150.000000"},
        {"carry_m", "150,5", Metric::carry, "150.500000"},
        {"carry_m", "150.5", Metric::carry, "150.500000"},
        {"carry_m", " 150.5 ", Metric::carry, "150.500000"},
        {"carry_m", "\u00a0150.5", Metric::carry, "150.500000"},
        {"carry_m", "", Metric::carry, "none"},
        {"carry_m", "-", Metric::carry, "none"},
        {"carry_m", "--", Metric::carry, "none"},
        {"carry_m", "\u2013", Metric::carry, "none"},
        {"carry_m", "n/a", Metric::carry, "none"},
        {"carry_m", "inf", Metric::carry, "'inf' is not a number"},
        {"carry_m", "nan", Metric::carry, "none"},
        {"carry_m", "1e999", Metric::carry, "'1e999' is not a number"},
        {"carry_m", "0x10", Metric::carry, "'0x10' is not a number"},
        {"carry_m", "15o", Metric::carry, "'15o' is not a number"},
        {"carry_yd", "100", Metric::carry, "91.440000"},
        {"Carry [yd]", "100", Metric::carry, "91.440000"},
        {"Carry (m)", "100", Metric::carry, "100.000000"},
        {"side_m", "3.5 L", Metric::side, "-3.500000"},
        {"side_m", "R 3.5", Metric::side, "3.500000"},
        {"side_m", "12L", Metric::side, "-12.000000"},
        {"side_m", "-5 L", Metric::side, "-5.000000"},
        {"side_m", "L -5", Metric::side, "-5.000000"},
        {"side_m", "+5 R", Metric::side, "5.000000"},
        {"side_m", "-5 R", Metric::side, "'-5 R' is not a number"},
        {"side_m", "\u22124", Metric::side, "-4.000000"},
        {"spin_rpm", "6250", Metric::spin, "6250.000000"},
        {"spin_rpm", "6 250", Metric::spin, "6250.000000"},
        {"spin_rpm", "6'250", Metric::spin, "6250.000000"},
        {"spin_rpm", "6,250", Metric::spin, "6250.000000"}, // no ball spins at 6.25
        {"spin_rpm", "99,999", Metric::spin, "may part thousands or decimals"},
        {"spin_rpm", "6,250.5", Metric::spin, "6250.500000"},
        {"launch_deg", "11.5", Metric::launch, "11.500000"},
        {"Launch [\u00b0]", "11.5", Metric::launch, "11.500000"},
        {"Launch (deg)", "11,5", Metric::launch, "11.500000"},
        {"ball_speed_mph", "100", Metric::ballSpeed, "44.704000"},
        {"Ball Speed [km/h]", "180", Metric::ballSpeed, "50.000000"},
        {"strike_toe_mm", "-3", Metric::strikeToe, "-3.000000"},
        {"Carry [\u00b0]", "1", Metric::carry, "unknown unit '\u00b0'"},
        {"carry_furlong", "1", Metric::carry, "unknown unit 'furlong'"},
    };
    for (const Row& row : rows) {
        INFO(row.heading << " | " << row.cell);
        const std::string is = readAs(row.heading, row.cell, row.metric);
        CHECK(is.find(row.is) != std::string::npos);
    }
}

TEST_CASE("thousands and decimals are told by the column, then by the file, then by what is usual") {
    // The column's own numbers tell.
    CHECK(first("build;spin_rpm\nA;6,250\nA;6,25\n", Metric::spin) == 6.25);
    CHECK(first("build;spin_rpm\nA;6,250\nA;6,250.5\n", Metric::spin) == 6250);
    CHECK(first("build,spin_rpm\nA,\"6,250\"\nA,\"7,100.5\"\n", Metric::spin) == 6250);
    // Those of other columns do.
    CHECK(first("build;carry_m;spin_rpm\nA;150,5;6,250\n", Metric::spin) == 6.25);
    CHECK(first("build,carry_m,spin_rpm\nA,150.5,\"6,250\"\n", Metric::spin) == 6250);
    CHECK(first("build;carry_m;spin_rpm\nA;150,5;6.250\n", Metric::spin) == 6250);
    // Nothing tells.
    CHECK(
        refusal("build,spin_rpm\nA,\"99,999\"\n").find("line 2, column 2 (spin_rpm): '99,999' has a comma that may") !=
        std::string::npos);
}

TEST_CASE("headings keep their characters, and lines before them that are blank do not hide the delimiter") {
    const auto degrees = files::readShots("f.csv", "build,Launch [\u00b0],Voil\u00e0\nA,11,x\n");
    REQUIRE(degrees);
    CHECK(degrees->test.extraColumns == std::vector<std::string>{"Voil\u00e0"});
    const auto unitRow = files::readShots("f.csv", "build,Launch\n,\u00b0\nA,11\n");
    REQUIRE(unitRow);
    CHECK(unitRow->test.shots.front().readings.at(Metric::launch) == 11);
    CHECK(first("\n\nbuild;carry_m\nA;150\n", Metric::carry) == 150);
    CHECK(first("  \r\nbuild\tcarry_m\r\nA\t150\r\n", Metric::carry) == 150);
}

TEST_CASE("every field of a shot is written and read back the same, and each refuses what it has no word for") {
    for (const record::ShotField& field : record::shotFields()) {
        INFO(field.key);
        record::Shot shot;
        const char* sample = field.kind == record::ShotField::Kind::flag    ? "1"
                             : field.kind == record::ShotField::Kind::score ? "7"
                             : field.key == "mark"                          ? "player"
                             : field.key == "called"                        ? "so_so"
                             : field.key == "status"                        ? "warm_up"
                             : field.key == "set_aside_when"                ? "after_number"
                                                                            : "some, \"text\"";
        REQUIRE(field.take(shot, sample));
        CHECK(field.text(shot) == sample);
        if (field.kind != record::ShotField::Kind::text) {
            CHECK(!field.take(shot, "no such word"));
            CHECK(field.text(shot) == sample); // what is refused changes nothing
            CHECK(!field.expected.empty());
        }
        CHECK(record::shotFieldNamed(field.key) == &field);
        if (field.inShotFiles == record::ShotField::InShotFiles::never)
            continue;
        record::Test test;
        test.builds = {{.name = "A"}};
        shot.id = record::ShotId{1};
        shot.readings.measure(Metric::carry, 150);
        test.shots = {shot};
        const auto back = files::readShots("f.csv", files::shotCsv(test));
        REQUIRE(back);
        CHECK(back->test.shots == test.shots);
    }
    CHECK(record::shotFieldNamed("carry_m") == nullptr);
}

TEST_CASE("a plain moment is read as one with more blanks in it is, whatever its figures") {
    for (int i = 0; i < 4000; ++i) {
        char text[64];
        std::snprintf(text, sizeof text, "%04d-%02d-%02d", 1890 + i % 200, i % 14, i * 7 % 33);
        char clock[64];
        std::snprintf(clock, sizeof clock, "%02d:%02d:%02d", i * 5 % 26, i * 11 % 62, i * 13 % 62);
        const auto plain = files::momentOfCell(std::string(text) + " " + clock, files::DateOrder::dayFirst);
        const auto wide = files::momentOfCell(std::string(text) + "  " + clock, files::DateOrder::dayFirst);
        INFO(text << " " << clock);
        REQUIRE(plain.has_value() == wide.has_value());
        CHECK((!plain || (plain->date == wide->date && plain->time == wide->time)));
    }
}

TEST_CASE("a day that the calendar does not have is refused, not dropped") {
    CHECK_THAT(refusal("build,date,time,carry_m\nA,31/02/2026,10:00,150\n"),
               Catch::Contains("no day '31/02/2026'") && Catch::Contains("line 2"));
    CHECK_THAT(refusal("build,taken_at,carry_m\nA,2026-02-31T10:00:00,150\n"), Catch::Contains("no day '2026-02-31"));
    CHECK(refusal("build,date,time,carry_m\nA,28/02/2026,10:00,150\n") == "read");
    CHECK(refusal("build,taken_at,carry_m\nA,2028-02-29T10:00:00,150\n") == "read");
}
