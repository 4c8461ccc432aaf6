#include "files/import/shot_file.h"
#include "files/test_json.h"

#include <catch2/catch.hpp>

#include <cstdio>
#include <fstream>

using namespace knot;

namespace {

std::string refusal(const std::string& text) {
    auto imported = files::readShots("shots.csv", text);
    return imported ? "read" : files::sentence(imported.error());
}

} // namespace

TEST_CASE("what can't be understood is refused with file, place and what was expected") {
    struct Row {
        std::string text, sentence;
    };
    const Row rows[] = {
        {"", "shots.csv is empty; expected a heading row and one row a shot."},
        {" \n\n", "shots.csv is empty; expected a heading row and one row a shot."},
        {"build,carry_m\n", "shots.csv has headings but no shots; expected one row a shot under them."},
        {"shot,carry_m\n1,150\n",
         "shots.csv, line 1: no column says which club was struck; expected one headed 'build'."},
        {"build,weight\nA,3\n",
         "shots.csv, line 1: no column holds a measurement; expected one such as carry_m or ball_speed_mph."},
        {"build,carry_furlong\nA,1\n", "shots.csv, line 1, column 2 (carry_furlong): unknown unit 'furlong'; expected "
                                       "carry_m, carry_yd or carry_ft."},
        {"build,carry\nA,1\n",
         "shots.csv, line 1, column 2 (carry): no unit is given; expected carry_m, carry_yd or carry_ft."},
        {"build,Ball Speed [rpm]\nA,1\n",
         "shots.csv, line 1, column 2 (Ball Speed [rpm]): unknown unit 'rpm'; expected "
         "ball_speed_ms, ball_speed_mph or ball_speed_kmh."},
        {"build,carry_m,carry_yd\nA,1,1\n", "shots.csv, line 1, column 3 (carry_yd): holds the same measurement as "
                                            "column 2 (carry_m); expected each once."},
        {"build,carry_m\nA,150\nB,15o\n", "shots.csv, line 3, column 2 (carry_m): '15o' is not a number; expected a "
                                          "number in m, or an empty cell where nothing was measured."},
        {"build,carry_m\nA,1e999\n", "shots.csv, line 2, column 2 (carry_m): '1e999' is not a number; expected a "
                                     "number in m, or an empty cell where nothing was measured."},
        {"build,carry_m,note\nA,150,\"x\ny\"\nB,zz,\n",
         "shots.csv, line 4, column 2 (carry_m): 'zz' is not a number; "
         "expected a number in m, or an empty cell where nothing was measured."},
        {"build,carry_m,status\nA,150,maybe\n", "shots.csv, line 2, column 3 (status): unknown status 'maybe'; "
                                                "expected counted, set_aside, warm_up or nothing."},
        {"build,carry_m,feel\nA,150,11\n", "shots.csv, line 2, column 3 (feel): no feel score: '11'; expected a "
                                           "whole number from 1 to 10, or nothing."},
        {"build,carry_m\n,150\n",
         "shots.csv, line 2, column 1 (build): the build is missing; expected the name of the club that was struck."},
        {"build,carry_m\nA,150,7\n",
         "shots.csv, line 2, column 3: 3 cells in this row; expected at most 2, one for each heading."},
        {"build,carry_m\nA,\"150\n", "shots.csv, line 2: a quotation mark is not closed; expected quotes in pairs."},
        {std::string("build,carry_m\nA,1\0", 18) + "50\n",
         "shots.csv, line 2: there is a NUL byte; expected a text file with comma-separated values."},
        {"build,carry_m\nA," + std::string(10 << 20, '1') + "\n",
         "shots.csv, line 2: the line is longer than 1 MiB; expected one shot a line."},
    };
    for (const Row& row : rows)
        CHECK(refusal(row.text) == row.sentence);
}

TEST_CASE("missing files and folders are refused with the system's reason") {
    CHECK(files::sentence(files::readShotFile("/nowhere/shots.csv").error()) ==
          "/nowhere/shots.csv can't be opened (No such file or directory); check the name and that you may read it.");
    CHECK(files::sentence(files::readShotFile("/tmp").error()).find("it is a folder") != std::string::npos);
}

TEST_CASE("random bytes are refused or read, never worse") {
    std::uint32_t state = 12345;
    for (int round = 0; round < 400; ++round) {
        std::string text = round % 2 == 0 ? "build,carry_m\n" : "";
        for (int i = 0; i < 80; ++i) {
            state = state * 1664525 + 1013904223;
            text += round % 4 < 2 ? static_cast<char>(state >> 24) : "A1,;\"\n\t-."[(state >> 24) % 10];
        }
        auto imported = files::readShots("x.csv", text);
        if (!imported)
            CHECK(!files::sentence(imported.error()).empty());
    }
}

TEST_CASE("tests as JSON are refused whole when anything is off") {
    auto refusalOf = [](const std::string& text) {
        auto imported = files::readTestJson("t.json", text);
        return imported ? "read" : files::sentence(imported.error());
    };
    CHECK(refusalOf("{").find("not JSON") != std::string::npos);
    CHECK(refusalOf("[]").find("expected JSON with the format knotcount.test") != std::string::npos);
    CHECK(refusalOf(R"({"format":"other"})").find("its format is another") != std::string::npos);
    CHECK(refusalOf(R"({"format":"knotcount.test","version":2})") ==
          "t.json was written by a newer Knot Count (version 2); expected version 1.");
    CHECK(refusalOf(R"({"format":"knotcount.test","version":1})").find("a member is missing") != std::string::npos);
}
