// Files that mean no good or can't be read: each is refused in words, at once and in little memory, or read.
#include "core/record/check.h"
#include "files/import/forms/spreadsheet.h"
#include "files/import/shot_file.h"
#include "support/packed.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace knot;
using knot::test::packed;

namespace {

std::string workbook(const std::string& sheet, const std::string& strings = "<sst/>") {
    return packed({{"xl/workbook.xml", "<workbook><sheets><sheet name=\"S\" id=\"r1\"/></sheets></workbook>"},
                   {"xl/sharedStrings.xml", strings},
                   {"xl/worksheets/sheet1.xml", sheet}});
}

std::string row(const std::string& cells) {
    return "<row>" + cells + "</row>";
}

std::string inlined(const std::string& text) {
    return "<c t=\"inlineStr\"><is><t>" + text + "</t></is></c>";
}

std::string refusal(const std::string& bytes) {
    const auto read = files::readShots("f.xlsx", bytes, {.doubt = files::ReadOptions::Doubt::takeLikelier});
    return read ? "read" : files::sentence(read.error());
}

const std::string headings = row(inlined("Club") + inlined("Carry (m)"));

} // namespace

TEST_CASE("spreadsheets that can't be read say why") {
    CHECK(refusal("PK\x03\x04") ==
          "f.xlsx can't be read as a spreadsheet: it is damaged; save it as XLSX, ODS or CSV.");
    CHECK(refusal("\xD0\xCF\x11\xE0 old").find("of an old kind or locked with a password") != std::string::npos);
    CHECK(refusal(packed({{"word/document.xml", "<a/>"}})).find("another kind of archive") != std::string::npos);
    CHECK(refusal(workbook("<worksheet><sheetData><row>")).find("damaged") != std::string::npos);
    CHECK(refusal(workbook("<worksheet/>")).find("is empty") != std::string::npos);
    const auto whole = workbook("<worksheet>" + headings + row(inlined("A") + "<c><v>150</v></c>") + "</worksheet>");
    CHECK(refusal(whole) == "read");
    for (std::size_t size = 0; size < whole.size(); size += 7)
        CHECK(!refusal(whole.substr(0, size)).empty());
}

TEST_CASE("a cell of a spreadsheet that is no number is asked about with its row, and refused where nobody can be") {
    const auto bytes = workbook("<worksheet>" + headings + row(inlined("A") + inlined("15o")) +
                                row(inlined("B") + "<c><v>150</v></c>") + "</worksheet>");
    const auto read = files::readShots("f.xlsx", bytes, {.doubt = files::ReadOptions::Doubt::takeLikelier});
    REQUIRE(read);
    CHECK(read->columns[1].question == "Line 2 says “15o”: not measured?");
    CHECK(read->test.shots.size() == 2);
    CHECK(!read->test.shots[0].readings.has(record::Metric::carry));
    const auto refused = files::readShots("f.xlsx", bytes);
    REQUIRE(!refused);
    CHECK(files::sentence(refused.error()).starts_with("f.xlsx, line 2, column 2 (Carry (m)): '15o' is not a number"));
}

TEST_CASE("a formula's last result counts, and an error in a cell is a missing reading") {
    const auto read = files::readShots(
        "f.xlsx", workbook("<worksheet>" + headings + row(inlined("A") + "<c><f>1+1</f><v>150.5</v></c>") +
                           row(inlined("B") + "<c t=\"e\"><v>#DIV/0!</v></c>") +
                           row(inlined("B") + "<c t=\"str\"><f>x</f><v>151</v></c>") + "</worksheet>"));
    REQUIRE(read);
    CHECK(read->test.shots[0].readings.at(record::Metric::carry) == 150.5);
    CHECK(!read->test.shots[1].readings.has(record::Metric::carry));
    CHECK(read->test.shots[2].readings.at(record::Metric::carry) == 151);
}

TEST_CASE("bombs are refused before they burst") {
    // 300 MiB of blanks in 300 KiB.
    CHECK(refusal(workbook("<worksheet>" + std::string(std::size_t{300} << 20, ' ') + "</worksheet>"))
              .find("unpacks to more than 128 MiB") != std::string::npos);
    // Entities that grow.
    CHECK(refusal(workbook("<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\">]><worksheet/>")).find("document type") !=
          std::string::npos);
    // 10,000 columns, in a spreadsheet and a text.
    std::string wide;
    for (int i = 0; i < 10'000; ++i)
        wide += inlined("x");
    CHECK(refusal(workbook("<worksheet>" + row(wide) + "</worksheet>")).find("1001 columns; expected at most 1000") !=
          std::string::npos);
    CHECK(refusal("build,carry_m" + std::string(10'000, ',') + "\nA,1\n").find("columns; expected at most 1000") !=
          std::string::npos);
    // A row or a column named far away.
    CHECK(refusal(
              workbook("<worksheet><row r=\"99999999999999999999\"><c r=\"ZZZZZZZZ1\"><v>1</v></c></row></worksheet>"))
              .find("columns; expected at most 1000") != std::string::npos);
    // More rows than anybody hits.
    std::string rows = "build,carry_m\n";
    for (int i = 0; i < 200'001; ++i)
        rows += "A,1\n";
    CHECK(refusal(rows) == "f.xlsx has more than 200000 rows; split it.");
    // One line without an end.
    CHECK(refusal("build,carry_m\nA," + std::string(2'000'000, '1') + "\n").find("longer than 1 MiB") !=
          std::string::npos);
    // A repeated cell and a repeated row, as the others of its kind write their emptiness.
    const auto ods =
        packed({{"content.xml", "<office><table name=\"S\"><table-row><table-cell value-type=\"string\"><p>Club</p>"
                                "</table-cell><table-cell value-type=\"string\"><p>Carry (m)</p></table-cell>"
                                "<table-cell number-columns-repeated=\"99999999\"/></table-row>"
                                "<table-row><table-cell><p>A</p></table-cell><table-cell value-type=\"float\" "
                                "value=\"150\"/></table-row>"
                                "<table-row number-rows-repeated=\"4000000000\"><table-cell "
                                "number-columns-repeated=\"16384\"/></table-row></table></office>"}});
    const auto read = files::readShots("f.ods", ods);
    REQUIRE(read);
    CHECK(read->test.shots.size() == 1);
}

TEST_CASE("a last column without a heading is kept as text where it holds something") {
    const auto read = files::readShots("f.csv", "build,carry_m,\nA,150,x\nB,151,\n");
    REQUIRE(read);
    CHECK(read->test.extraColumns == std::vector<std::string>{""});
    CHECK(read->test.shots[0].extra == std::vector<std::string>{"x"});
    CHECK(files::readShots("f.csv", "build,carry_m,,\nA,150,,\n")->test.extraColumns.empty());
}

TEST_CASE("clubs named by numbers are clubs under a heading of our own") {
    const auto read = files::readShots("f.csv", "build,carry_m\n0.5,150\nReed,149\n");
    REQUIRE(read);
    CHECK(read->test.builds.front().name == "0.5");
}

TEST_CASE("headings that mean nothing certain are asked about, never dropped in silence") {
    const auto columns =
        files::columnsIn("f.csv", "Club,Speed,Carry Spin,Carry (m)\nA,65.1,4000,150\nB,66.2,4100,152\n");
    REQUIRE(columns);
    CHECK((*columns)[1].question == "Is it club speed or ball speed?");
    CHECK((*columns)[2].question == "Is it spin?");
    CHECK((*columns)[2].meaning.role == files::ColumnRole::extra);
    CHECK(!(*columns)[3].isAsked());
}

TEST_CASE("how a club is made is no measurement of its shots") {
    const auto read =
        files::readShots("f.csv", "build,carry_m,length_in,Weight (g),Loft\nA,150,37.5,60,30\nB,151,37,62,31\n",
                         {.doubt = files::ReadOptions::Doubt::takeLikelier});
    REQUIRE(read);
    CHECK(read->test.extraColumns == std::vector<std::string>{"length_in", "Weight (g)", "Loft"});
    CHECK(read->columns[4].isAsked());
}

TEST_CASE("a file that is waited for says how far it is, and is given up when asked") {
    std::string text = "Club,Carry (m)\n";
    for (int i = 0; i < 5000; ++i)
        text += "Fern,150\n";
    files::Watch watch;
    files::ReadOptions options;
    options.watch = &watch;
    REQUIRE(files::readShots("a.csv", text, options));
    CHECK(watch.share > 0.9);
    CHECK(watch.share <= 1);
    watch.givenUp = true;
    const auto given = files::readShots("a.csv", text, options);
    REQUIRE(!given);
    CHECK(given.error().kind == files::ErrorKind::givenUp);
    CHECK(files::sentence(given.error()) == "a.csv was not read to its end.");
    const auto corpus = std::string(KNOT_TEST_DATA) + "/import/";
    for (const auto& entry : std::filesystem::directory_iterator(corpus))
        if (entry.path().extension() == ".xlsx" || entry.path().extension() == ".ods")
            CHECK(files::readShotFile(entry.path().string(), options).error().kind == files::ErrorKind::givenUp);
}

TEST_CASE("a status in words of one's own writing is the record's") {
    const auto read =
        files::readShots("a.csv", "Club,Carry (m),Status\nFern,150,\nFern,120,Set aside\nFern,149,warm-up\n");
    REQUIRE(read);
    CHECK(read->test.shots[0].status == record::ShotStatus::counted);
    CHECK(read->test.shots[1].status == record::ShotStatus::setAside);
    CHECK(read->test.shots[2].status == record::ShotStatus::warmUp);
}

TEST_CASE("a shot without a reading under the headings is no second row of headings") {
    const auto read = files::readShots("a.csv", "build,carry_m,side_m,status\nLa,,,counted\nrch,150.5,-12.3,counted\n");
    REQUIRE(read);
    CHECK(read->test.shots.size() == 2);
    CHECK(read->test.builds.front().name == "La");
    const auto grouped =
        files::readShots("a.csv", "Club,Ball,Ball,Head\n,Speed (m/s),Spin,Speed (m/s)\nLa,61,2900,42\n");
    REQUIRE(grouped);
    CHECK(grouped->test.shots.front().readings.at(record::Metric::clubSpeed) == 42);
    CHECK(grouped->test.shots.front().readings.at(record::Metric::spin) == 2900);
}

TEST_CASE("sheets that are understood differently make one test that can be kept") {
    // The one has words, a column of its own and a blank heading's neighbour where the other has numbers.
    auto number = [](int value) { return "<c><v>" + std::to_string(value) + "</v></c>"; };
    const std::string headed =
        "<worksheet>" + row(inlined("Weather") + inlined("Club") + inlined("Carry (m)") + inlined("Spin"));
    const std::string first = headed + row(inlined("dry") + inlined("Reed") + number(150) + number(6000)) +
                              row(inlined("dry") + inlined("Reed") + number(151) + number(6100)) + "</worksheet>";
    const std::string second = headed + row(inlined("dry") + inlined("reed") + number(149) + inlined("a lot")) +
                               row(inlined("wet") + inlined("Larch") + number(152) + inlined("little")) +
                               "</worksheet>";
    const auto sheets = [](const std::string& one, const std::string& other) {
        return packed(
            {{"xl/workbook.xml",
              "<workbook><sheets><sheet name=\"A\" id=\"r1\"/><sheet name=\"B\" id=\"r2\"/></sheets></workbook>"},
             {"xl/_rels/workbook.xml.rels",
              "<Relationships><Relationship Id=\"r1\" Target=\"worksheets/sheet1.xml\"/>"
              "<Relationship Id=\"r2\" Target=\"worksheets/sheet2.xml\"/></Relationships>"},
             {"xl/sharedStrings.xml", "<sst/>"},
             {"xl/worksheets/sheet1.xml", one},
             {"xl/worksheets/sheet2.xml", other}});
    };
    for (const auto& bytes : {sheets(first, second), sheets(second, first)}) {
        const auto read = files::readShots("f.xlsx", bytes, {.doubt = files::ReadOptions::Doubt::takeLikelier});
        INFO((read ? std::string() : files::sentence(read.error())));
        REQUIRE(read);
        CHECK(read->test.shots.size() == 4);
        CHECK(record::faultsOf(read->test) == std::vector<std::string>{});
        CHECK(read->test.builds.size() == 2); // "Reed" and "reed" are one
        for (const auto& shot : read->test.shots)
            CHECK(shot.extra.size() == read->test.extraColumns.size());
    }
}

TEST_CASE("a small spreadsheet that grows to much is refused before it takes the memory") {
    // One shared text of 20 KiB in 20,000 cells: 400 MB of text from a few kilobytes.
    std::string rows;
    for (int i = 0; i < 20000; ++i)
        rows += row("<c t=\"s\"><v>0</v></c><c><v>150</v></c>");
    const std::string shared = "<sst><si><t>" + std::string(20 << 10, 'x') + "</t></si></sst>";
    const auto bytes = workbook("<worksheet>" + headings + rows + "</worksheet>", shared);
    CHECK(bytes.size() < 200'000);
    CHECK(refusal(bytes).find("its cells hold more than 64 MiB") != std::string::npos);
    // One cell that is too much by itself.
    CHECK(refusal(workbook("<worksheet>" + headings + row(inlined(std::string(40 << 10, 'x')) + "<c><v>1</v></c>") +
                           "</worksheet>"))
              .find("a cell holds more than 32 KiB") != std::string::npos);
    // A comment and an attribute that never end.
    for (const std::string& endless :
         {"<worksheet><!--" + std::string(4 << 20, ' ') + "-->", "<worksheet a=\"" + std::string(4 << 20, ' ') + "\">"})
        CHECK(refusal(workbook(endless + headings + row(inlined("A") + "<c><v>1</v></c>") + "</worksheet>"))
                  .find("longer than 1 MiB") != std::string::npos);
}

TEST_CASE("equal rows of an OpenDocument sheet that follow each other are all read") {
    auto cell = [](const std::string& text) {
        return "<table-cell value-type=\"string\"><p>" + text + "</p></table-cell>";
    };
    auto number = [](int value) {
        return "<table-cell value-type=\"float\" value=\"" + std::to_string(value) + "\"/>";
    };
    auto line = [](const std::string& cells, int times) {
        return "<table-row number-rows-repeated=\"" + std::to_string(times) + "\">" + cells + "</table-row>";
    };
    auto document = [&](const std::string& rows) {
        return packed({{"content.xml", "<document><table name=\"S\">" + line(cell("Club") + cell("Carry (m)"), 1) +
                                           rows + line(cell(""), 1'000'000) + "</table></document>"}});
    };
    const auto read =
        files::readShots("f.ods", document(line(cell("A") + number(150), 3) + line(cell("B") + number(152), 1) +
                                           line(cell("A") + number(151), 2) + line(cell("B") + number(153), 1)));
    INFO((read ? std::string() : files::sentence(read.error())));
    REQUIRE(read);
    REQUIRE(read->test.shots.size() == 7);
    CHECK(read->test.shots[2].readings.at(record::Metric::carry) == 150.0);
    CHECK(read->test.shots[5].readings.at(record::Metric::carry) == 151.0);
    CHECK(refusal(document(line(cell("A") + number(150), 300'000))).find("rows") != std::string::npos);
    CHECK(refusal(document(line(cell(std::string(30 << 10, 'x')) + number(150), 100'000))).find("64 MiB") !=
          std::string::npos);
}

TEST_CASE("a thousand columns of one heading are asked about, or are one measurement and text") {
    std::string text = "Club";
    for (int i = 0; i < 999; ++i)
        text += ",Carry (m)";
    for (int shot = 0; shot < 12; ++shot) {
        text += shot % 2 == 0 ? "\nReed" : "\nAlder";
        for (int i = 0; i < 999; ++i)
            text += "," + std::to_string(140 + shot + i % 7);
    }
    const auto asked = files::readShots("f.csv", text + "\n");
    REQUIRE_FALSE(asked);
    CHECK(files::sentence(asked.error()).find("Carry (m)") != std::string::npos);
    const auto read = files::readShots("f.csv", text + "\n", {.doubt = files::ReadOptions::Doubt::takeLikelier});
    REQUIRE(read);
    CHECK(read->test.shots.size() == 12);
    CHECK(read->test.shots[0].readings.at(record::Metric::carry) == 140.0);
}
