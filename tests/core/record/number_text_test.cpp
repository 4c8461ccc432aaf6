// One way from text to a number: what is one, what is refused, and why.
#include "core/record/text/number_text.h"
#include "core/record/text/text.h"
#include "core/record/typed/number_in.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot::record;

namespace {

struct Taken {
    const char* text;
    double value;
};

struct Refused {
    const char* text;
    NumberFault fault;
};

} // namespace

TEST_CASE("a text is a number or is refused with the reason, whatever its marks") {
    const Taken taken[] = {
        {"12", 12},
        {"12.5", 12.5},
        {"12,5", 12.5},
        {" 12.5 ", 12.5},
        {"\u00a012.5\u2009", 12.5},
        {"\ufeff12", 12},
        {"-3.5", -3.5},
        {"\u22123.5", -3.5},
        {"+3.5", 3.5},
        {".5", 0.5},
        {",5", 0.5},
        {"0,250", 0.25},
        {"5.", 5},
        {"6.250", 6.25},
        {"1,234.5", 1234.5},
        {"1.234,5", 1234.5},
        {"1,234,567", 1234567},
        {"1.234.567", 1234567},
        {"6 250", 6250},
        {"6\u00a0250", 6250},
        {"6\u202f250,5", 6250.5},
        {"6'250", 6250},
        {"6\u2019250.25", 6250.25},
        {"12345,678", 12345.678},
        {"1e3", 1000},
        {"1E+3", 1000},
        {"1.5e-3", 0.0015},
        {"1e-999", 0},
        {"007", 7},
    };
    for (const Taken& row : taken) {
        INFO(row.text);
        const auto number = numberIn(row.text);
        REQUIRE(number);
        CHECK(*number == Approx(row.value).epsilon(1e-15));
    }
    const Refused refused[] = {
        {"", NumberFault::notANumber},         {" ", NumberFault::notANumber},
        {"-", NumberFault::notANumber},        {"inf", NumberFault::notANumber},
        {"nan", NumberFault::notANumber},      {"infinity", NumberFault::notANumber},
        {"0x1A", NumberFault::notANumber},     {"1e", NumberFault::notANumber},
        {"1e+", NumberFault::notANumber},      {"12m", NumberFault::notANumber},
        {"1 2", NumberFault::notANumber},      {"12 34", NumberFault::notANumber},
        {"1,23,456", NumberFault::notANumber}, {"1.2.3", NumberFault::notANumber},
        {"1,2,3", NumberFault::notANumber},    {"--3", NumberFault::notANumber},
        {"3-", NumberFault::notANumber},       {"one", NumberFault::notANumber},
        {"°", NumberFault::notANumber},        {"1e999", NumberFault::notFinite},
        {"-1e999", NumberFault::notFinite},    {"6,250", NumberFault::ambiguous},
        {"-6,250", NumberFault::ambiguous},    {"12,345", NumberFault::ambiguous},
    };
    for (const Refused& row : refused) {
        INFO(row.text);
        const auto number = numberIn(row.text);
        REQUIRE(!number);
        CHECK(number.error() == row.fault);
    }
}

TEST_CASE("a decimal mark that is known settles what a number alone leaves open") {
    CHECK(*numberIn("6,250", DecimalMark::point) == 6250);
    CHECK(*numberIn("6,250", DecimalMark::comma) == 6.25);
    CHECK(*numberIn("6.250", DecimalMark::comma) == 6250);
    CHECK(*numberIn("6.250", DecimalMark::point) == 6.25);
    CHECK(!numberIn("12,5", DecimalMark::point));
    CHECK(!numberIn("12.5", DecimalMark::comma));
    CHECK(decimalMarkTold("12,5") == DecimalMark::comma);
    CHECK(decimalMarkTold("12.5") == DecimalMark::point);
    CHECK(decimalMarkTold("1,234.5") == DecimalMark::point);
    CHECK(!decimalMarkTold("6,250"));
    CHECK(!decimalMarkTold("12"));
    CHECK(!decimalMarkTold("carry"));
}

TEST_CASE("white space is cut by the character, never through one") {
    CHECK(trimmed(" Launch \u00b0") == "Launch \u00b0");
    CHECK(trimmed("\u00a0Voil\u00e0\u00a0") == "Voil\u00e0");
    CHECK(trimmed("\u2003x\u3000") == "x\u3000"); // no space that people type between cells
    CHECK(trimmed(" \t\r\n") == "");
    CHECK(lowerCase("Ball SPEED \u00c4") == "ball speed \u00c4");
}
