// A shop's stock of parts from a table, and a sheet that was written before it became a sentence.
#include "core/ask/sentence.h"
#include "files/base/file.h"
#include "files/stock.h"
#include "files/test_json.h"

#include <catch2/catch.hpp>

using namespace knot;
using record::PartKind;

TEST_CASE("a stock is read by the words of its headings") {
    const auto parts = files::stockOf("stock.csv", "Model;Weight (g);Length (in);Flex;Price;Remarks\n"
                                                   "Reed 53;53;46;A;120;last one\n"
                                                   ";99;46;S;1;\n"
                                                   "Larch 71;71,5;46;S;90;\n");
    REQUIRE(parts);
    REQUIRE(parts->size() == 2); // a row without a name is nothing
    CHECK(
        parts->front() ==
        record::Part{
            .kind = PartKind::shaft, .name = "Reed 53", .mass = 53, .length = 46 * 25.4, .flex = "A", .price = "120"});
    CHECK(parts->back().mass == 71.5);

    const auto mixed = files::stockOf("stock.csv", "kind,name,mass,loft,lie,volume,tip stiffness,tip trim\n"
                                                   "Head,Tarn 5,218,18,58.5,152,,\n"
                                                   "grip,Oakum,50,,,,,\n"
                                                   "shaft,Yew,61,,,,240,12\n");
    REQUIRE(mixed);
    CHECK((*mixed)[0].kind == PartKind::head);
    CHECK((*mixed)[0].lie == 58.5);
    CHECK((*mixed)[1].kind == PartKind::grip);
    CHECK((*mixed)[2].tipTrim == 12.0);
    CHECK((*mixed)[2].tipStiffness == 240.0);
    CHECK(files::stockFromText(files::stockText(*mixed)) == *mixed);
    CHECK(files::stockFromText("no text of ours").empty());
}

TEST_CASE("a unit of a stock is a word or a sign by itself, and a cell may say its own") {
    struct Row {
        const char* heading;
        const char* cell;
        double length;
    };
    const Row rows[] = {
        {"length", "1168", 1168},         {"length in mm", "1168", 1168},     {"Length (mm)", "1168", 1168},
        {"length in", "46", 1168.4},      {"Length (in)", "46", 1168.4},      {"length \"", "46", 1168.4},
        {"length, inches", "46", 1168.4}, {"length in inches", "46", 1168.4}, {"length", "46 in", 1168.4},
        {"length", "46½\"", 1181.1},      {"length cm", "116.8", 1168},       {"length (in)", "1168 mm", 1168}};
    for (const Row& row : rows) {
        INFO(row.heading << ": " << row.cell);
        const auto parts = files::stockOf("s.csv", std::string("name;") + row.heading + "\nReed;" + row.cell + "\n");
        REQUIRE(parts);
        CHECK(*parts->front().length == Approx(row.length));
    }
    const auto balance = files::stockOf("s.csv", "name;balance point (mm);mass\nReed;600;62,5 g\n");
    REQUIRE(balance);
    CHECK(*balance->front().balance == 600);
    CHECK(*balance->front().mass == 62.5);
    CHECK_FALSE(files::stockOf("s.csv", "name;length\nReed;46 g\n"));
}

TEST_CASE("what is no stock is refused with a place, and a part that comes again takes the place of the one before") {
    const auto refusal = [](const char* text) { return files::sentence(files::stockOf("stock.csv", text).error()); };
    CHECK(refusal("weight,flex\n53,A\n").find("name") != std::string::npos);
    CHECK(refusal("name,mass\nReed,heavy\n").find("line 2") != std::string::npos);
    CHECK_FALSE(files::stockOf("stock.csv", ""));
    const auto merged = files::withStock(
        {{.kind = PartKind::shaft, .name = "Reed", .mass = 50}},
        {{.kind = PartKind::shaft, .name = "Reed", .mass = 53}, {.kind = PartKind::grip, .name = "Reed", .mass = 40}});
    REQUIRE(merged.size() == 2);
    CHECK(merged[0].mass == 53.0);
}

TEST_CASE("a sheet made before it was a sentence opens, reads as it was declared, and is written back the same") {
    const std::string text = *files::readFile(std::string(KNOT_TEST_DATA) + "/sheets/before_the_sentence.json");
    const auto read = files::readTestJson("before.json", text);
    REQUIRE(read);
    const record::Test& test = read->test;
    CHECK(
        ask::textOf(ask::sentenceOf(test, {})) ==
        "Against Alder 62, does another shaft (Reed 53 or Larch 71) give Marit Aasgaard more carry – worth having from "
        "2.7 m – and less left–right spread from 1.25 times?");
    CHECK(test.card.expectations.size() == 2);
    CHECK(test.card.held.size() == 9);
    CHECK(test.card.targets.size() == 1);
    CHECK(test.decision == record::Decision{});
    const auto again = files::readTestJson("again.json", files::testJson(test));
    REQUIRE(again);
    CHECK(again->test == test);
}
