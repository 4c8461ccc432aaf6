// What people type, in their units and with the decimals of their locale, and what is made of it.
#include "core/record/test.h"
#include "core/record/typed/amount.h"
#include "core/record/typed/club_names.h"
#include "core/record/typed/shape_text.h"

#include <catch2/catch.hpp>

#include <optional>

using namespace knot::record;

namespace {

constexpr auto point = DecimalMark::point;
constexpr auto comma = DecimalMark::comma;
constexpr auto open = DecimalMark::open;
constexpr DisplayUnits metric{};
constexpr DisplayUnits american{.speed = SpeedUnit::mph, .distance = DistanceUnit::yd, .length = LengthUnit::in};

} // namespace

TEST_CASE("a number of a metric is read as it is typed, or refused in a sentence") {
    struct Row {
        const char* typed;
        Metric of;
        std::optional<double> value; ///< internal; nothing: refused
        DisplayUnits units = metric;
        DecimalMark mark = open;
    };
    const Row rows[] = {
        // Decimals and thousands.
        {"2.7", Metric::carry, 2.7},
        {"2,7", Metric::carry, 2.7},
        {"2,7", Metric::carry, 2.7, metric, point},
        {"2,7", Metric::carry, 2.7, metric, comma},
        {"2.7", Metric::carry, 2.7, metric, comma},
        {" 2.7 ", Metric::carry, 2.7},
        {".5", Metric::carry, 0.5},
        {",5", Metric::carry, 0.5},
        {"0,015", Metric::smash, 0.015, metric, point},
        {"1.405", Metric::smash, 1.405},
        {"1.405", Metric::smash, 1.405, metric, point},
        {"1.405", Metric::smash, 1.405, metric, comma},
        {"1,405", Metric::smash, 1.405, metric, point},
        {"1,405", Metric::smash, 1.405, metric, comma},
        {"2400", Metric::spin, 2400},
        {"2,400", Metric::spin, std::nullopt},
        {"2,400", Metric::spin, 2400, metric, point},
        {"2.400", Metric::spin, std::nullopt, metric, comma},
        {"2 400", Metric::spin, 2400},
        {"2\u202f400", Metric::spin, 2400},
        {"2\u00a0400 rpm", Metric::spin, 2400},
        {"2'400", Metric::spin, 2400},
        {"2’400", Metric::spin, 2400},
        {"12,345.6", Metric::spin, 12345.6},
        {"12.345,6", Metric::spin, 12345.6},
        {"1,234,567", Metric::spin, 1234567},
        {"1.2.3", Metric::carry, std::nullopt},
        {"1,2,3", Metric::carry, std::nullopt},
        {"2e3", Metric::spin, 2000},
        {"inf", Metric::carry, std::nullopt},
        {"nan", Metric::carry, std::nullopt},
        {"0x10", Metric::carry, std::nullopt},
        {"", Metric::carry, std::nullopt},
        {",", Metric::carry, std::nullopt},
        {"-", Metric::carry, std::nullopt},
        {"two", Metric::carry, std::nullopt},
        {"12 15", Metric::carry, std::nullopt},
        {"½", Metric::carry, 0.5},
        {"1½", Metric::carry, 1.5},
        {"1 1/2", Metric::carry, 1.5},
        {"3/4", Metric::carry, 0.75},
        // Signs.
        {"-3.5", Metric::attack, -3.5},
        {"\u22123.5", Metric::attack, -3.5},
        {"+3.5", Metric::attack, 3.5},
        {"-½", Metric::attack, -0.5},
        {"--3", Metric::attack, std::nullopt},
        // Units, typed or not.
        {"3 yd", Metric::carry, 2.7432},
        {"3yd", Metric::carry, 2.7432},
        {"3 yards", Metric::carry, 2.7432},
        {"3 YD", Metric::carry, 2.7432},
        {"3", Metric::carry, 2.7432, american},
        {"3 m", Metric::carry, 3, american},
        {"3m", Metric::carry, 3, american},
        {"2,5 m", Metric::carry, 2.5, american, comma},
        {"9 ft", Metric::carry, 2.7432},
        {"12 m/s", Metric::carry, std::nullopt},
        {"12 °", Metric::carry, std::nullopt},
        {"12 parsecs", Metric::carry, std::nullopt},
        {"30 ft", Metric::apex, 9.144},
        {"30", Metric::apex, 9.144, american},
        {"30 yd", Metric::apex, 27.432},
        {"100 mph", Metric::clubSpeed, 44.704},
        {"100", Metric::clubSpeed, 44.704, american},
        {"160 km/h", Metric::clubSpeed, 160 / 3.6},
        {"160 kmh", Metric::clubSpeed, 160 / 3.6},
        {"45 m/s", Metric::clubSpeed, 45, american},
        {"45m/s", Metric::clubSpeed, 45},
        {"45 m", Metric::clubSpeed, std::nullopt},
        {"12,5°", Metric::launch, 12.5},
        {"12.5 deg", Metric::launch, 12.5},
        {"12.5 degrees", Metric::launch, 12.5},
        {"12.5 rpm", Metric::launch, std::nullopt},
        {"2500 rpm", Metric::spin, 2500},
        {"2500rpm", Metric::spin, 2500},
        {"148 %", Metric::smash, 1.48},
        {"1.48", Metric::smash, 1.48},
        {"8 mm", Metric::strikeToe, 8},
        {"0.5 in", Metric::strikeToe, 12.7},
        {"½\"", Metric::strikeToe, 12.7},
        {"6 s", Metric::hang, 6},
        {"6,2 s", Metric::hang, 6.2},
        // Sides.
        {"4 left", Metric::side, -4},
        {"4 L", Metric::side, -4},
        {"4L", Metric::side, -4},
        {"4 r", Metric::side, 4},
        {"4 yd left", Metric::side, -3.6576},
        {"4 left", Metric::side, -3.6576, american},
        {"-4", Metric::side, -4},
        {"-5 L", Metric::side, -5},
        {"-5 R", Metric::side, std::nullopt},
        {"4 left", Metric::carry, std::nullopt},
    };
    for (const Row& row : rows) {
        INFO(row.typed << ", " << info(row.of).label);
        const auto value = valueTyped(row.typed, row.of, {row.units, row.mark});
        REQUIRE(value.has_value() == row.value.has_value());
        if (value)
            CHECK(*value == Approx(*row.value).epsilon(1e-12));
        else
            CHECK(value.error().back() == '.');
    }
    CHECK(valueTyped("12 m/s", Metric::carry, {}).error() ==
          "“12 m/s” is not a distance; that is in m, yd, ft, or without a unit in what is shown.");
    CHECK(valueTyped("2,400", Metric::spin, {}).error() ==
          "“2,400” can be read in two ways; write it without the mark between thousands.");
}

TEST_CASE("lengths, masses and volumes of clubs and bodies are read in their units") {
    struct Row {
        const char* typed;
        Quantity of;
        Unit usual;
        std::optional<double> value;
    };
    const Row rows[] = {{"1073", Quantity::length, Unit::mm, 1073},
                        {"45.25", Quantity::length, Unit::in, 1149.35},
                        {"45,25 in", Quantity::length, Unit::mm, 1149.35},
                        {"45¼ in", Quantity::length, Unit::mm, 1149.35},
                        {"45 1/4 in", Quantity::length, Unit::mm, 1149.35},
                        {"45-1/4\"", Quantity::length, Unit::mm, 1149.35},
                        {"45¼″", Quantity::length, Unit::mm, 1149.35},
                        {"107.3 cm", Quantity::length, Unit::mm, 1073},
                        {"5'11\"", Quantity::length, Unit::mm, 1803.4},
                        {"5 ft 11 in", Quantity::length, Unit::mm, 1803.4},
                        {"6'", Quantity::length, Unit::mm, 1828.8},
                        {"62,5 g", Quantity::mass, Unit::g, 62.5},
                        {"62.5g", Quantity::mass, Unit::g, 62.5},
                        {"62 grams", Quantity::mass, Unit::g, 62},
                        {"62 mm", Quantity::mass, Unit::g, std::nullopt},
                        {"152cc", Quantity::volume, Unit::cm3, 152},
                        {"152 cm³", Quantity::volume, Unit::cm3, 152},
                        {"152 cm3", Quantity::volume, Unit::cm3, 152},
                        {"90 s", Quantity::time, Unit::s, 90},
                        {"1,5 min", Quantity::time, Unit::s, 90},
                        {"10 in", Quantity::angle, Unit::deg, std::nullopt}};
    for (const Row& row : rows) {
        INFO(row.typed);
        const auto value = valueTyped(row.typed, Wanted{row.of, row.usual}, open);
        REQUIRE(value.has_value() == row.value.has_value());
        if (value)
            CHECK(*value == Approx(*row.value).epsilon(1e-12));
    }
}

TEST_CASE("a line is taken apart into words and amounts") {
    auto said = [](const char* line) {
        std::string text;
        for (const Piece& piece : piecesIn(line, open))
            text += (text.empty() ? "" : "|") + std::string(piece.begins ? ">" : "") + piece.text +
                    (piece.amount ? "#" : "") + (piece.fault ? "!" : "");
        return text;
    };
    CHECK(said("Reed 53, 62,5 g") == "Reed|53#|>62,5 g#");
    CHECK(said("Tarn 5 · 18.0° · 58.5° · 218 g") == "Tarn|5#|18.0°#|58.5°#|218 g#");
    CHECK(said("7i and 3w, 2nd") == "7i|and|3w|>2nd");
    CHECK(said("D2,5 1½ up") == "D2,5|1½#|up");
    CHECK(said("box 20x12 at 150") == "box|20#|12#|at|150#");
    CHECK(said("launch 12-15") == "launch|12#|15#");
    CHECK(said("launch 12–15°") == "launch|12#|15°#");
    CHECK(said("carry 150yd-160yd") == "carry|150yd#|160yd#");
    CHECK(said("62,500 g") == "62,500 g!");
    CHECK(said("5.1.2 g, 5.1.2") == "5.1.2 g!|>5.1.2");
    CHECK(said("").empty());
    CHECK(said(" , ; · ").empty());
}

TEST_CASE("shapes are said in any unit of distance") {
    const auto shape = [](const char* text, const DisplayUnits& units = metric) {
        return shapeFromText(text, {units, open});
    };
    CHECK(shape("circle 12 yd at 150 yd")->width == Approx(10.9728));
    CHECK(shape("circle 12 yd at 150 yd")->carry == Approx(137.16));
    CHECK(shape("circle 12 at 150 yd")->width == Approx(12));
    CHECK(shape("strip 20,5")->width == Approx(20.5));
    CHECK(shape("box 20x12 at 150, 3 left")->side == Approx(-3));
    CHECK(shape("box 20 x 12 at 150, 3")->side == Approx(3));
    CHECK(shape("strip 20 m", american)->width == Approx(20));
    for (const char* bad :
         {"strip", "strip 20 m/s", "circle 12", "circle 12 at 150 at 3 4 5", "left 15 at 3", "blob 3"})
        CHECK_FALSE(shape(bad));
}

TEST_CASE("names in a list are parted by commas, semicolons, and, or") {
    const std::vector<std::string> known = {"Reed 53", "Reed 53, new grip", "Sand and Sea", "Larch 71"};
    using Names = std::vector<std::string>;
    CHECK(namesIn("Reed 53 or Larch 71", {}) == Names{"Reed 53", "Larch 71"});
    CHECK(namesIn("A, B and C", {}) == Names{"A", "B", "C"});
    CHECK(namesIn("A; B;; C,", {}) == Names{"A", "B", "C"});
    CHECK(namesIn("fern > slate", {}) == Names{"fern", "slate"});
    CHECK(namesIn("reed 53, new grip and LARCH 71", known) == Names{"Reed 53, new grip", "Larch 71"});
    CHECK(namesIn("Sand and Sea or Oak", known) == Names{"Sand and Sea", "Oak"});
    CHECK(namesIn("\"Salt and Sun\", Oak", {}) == Names{"Salt and Sun", "Oak"});
    CHECK(namesIn("Anderson, Orion", {}) == Names{"Anderson", "Orion"});
    CHECK(namesIn(" , ", {}).empty());
    CHECK(namesIn("", {}).empty());
}

TEST_CASE("what is typed means the same in every locale, and without a unit what is shown") {
    struct Row {
        const char* typed;
        Metric of;
        double value;
        std::optional<Unit> unit; ///< that is typed; nothing: the one that is shown
    };
    const Row rows[] = {
        {"150", Metric::carry, 150, {}},
        {"150.5", Metric::carry, 150.5, {}},
        {"150,5", Metric::carry, 150.5, {}},
        {"+150,5", Metric::carry, 150.5, {}},
        {"150½", Metric::carry, 150.5, {}},
        {"150 1/2", Metric::carry, 150.5, {}},
        {"0,25", Metric::carry, 0.25, {}},
        {"1'250", Metric::spin, 1250, {}},
        {"12 345", Metric::spin, 12345, {}},
        {"2500,5", Metric::spin, 2500.5, {}},
        {"150 m", Metric::carry, 150, Unit::m},
        {"150m", Metric::carry, 150, Unit::m},
        {"150 metres", Metric::carry, 150, Unit::m},
        {"150,5 yd", Metric::carry, 150.5, Unit::yd},
        {"150yds", Metric::carry, 150, Unit::yd},
        {"150 Yards", Metric::carry, 150, Unit::yd},
        {"450 ft", Metric::carry, 450, Unit::ft},
        {"90 feet", Metric::apex, 90, Unit::ft},
        {"30 m", Metric::apex, 30, Unit::m},
        {"92,5 mph", Metric::clubSpeed, 92.5, Unit::mph},
        {"92.5MPH", Metric::clubSpeed, 92.5, Unit::mph},
        {"150 km/h", Metric::clubSpeed, 150, Unit::kmh},
        {"41,2 m/s", Metric::ballSpeed, 41.2, Unit::ms},
        {"41.2m/s", Metric::ballSpeed, 41.2, Unit::ms},
        {"95", Metric::clubSpeed, 95, {}},
        {"95,5", Metric::ballSpeed, 95.5, {}},
        {"−2,5", Metric::attack, -2.5, {}},
        {"-2.5°", Metric::attack, -2.5, Unit::deg},
        {"12°", Metric::launch, 12, Unit::deg},
        {"12,5 deg", Metric::launch, 12.5, Unit::deg},
        {"4 L", Metric::side, -4, {}},
        {"4,5 left", Metric::side, -4.5, {}},
        {"4 m L", Metric::side, -4, Unit::m},
        {"4.5 yd right", Metric::side, 4.5, Unit::yd},
        {"-5 L", Metric::side, -5, {}},
        {"3 R", Metric::launchDirection, 3, {}},
        {"2° left", Metric::launchDirection, -2, Unit::deg},
        {"1,41", Metric::smash, 1.41, {}},
        {"1,405", Metric::smash, 1.405, {}},
        {"1.405", Metric::smash, 1.405, {}},
        {"6 mm", Metric::strikeToe, 6, Unit::mm},
        {"¼ in", Metric::strikeHigh, 0.25, Unit::in},
        {"0,5 cm", Metric::strikeHigh, 0.5, Unit::cm},
        {"6,5 s", Metric::hang, 6.5, Unit::s},
    };
    for (const Row& row : rows)
        for (const DecimalMark mark : {open, point, comma})
            for (const DisplayUnits& units : {metric, american}) {
                INFO(row.typed << ", " << info(row.of).label);
                const auto value = valueTyped(row.typed, row.of, {units, mark});
                INFO((value ? std::string() : value.error()));
                REQUIRE(value);
                const Unit unit = row.unit.value_or(displayUnit(info(row.of).quantity, units));
                CHECK(*value == Approx(toInternal(row.value, unit)).margin(1e-12));
            }
}

TEST_CASE("a plain number keeps its thousands: a stiffness of 1,200 is not 1.2") {
    CHECK(*numberTyped("1,200", point) == 1200);
    CHECK(*numberTyped("1,200", comma) == 1.2);
    CHECK_FALSE(numberTyped("1,200", open));
    CHECK(*numberTyped("1,25", open) == 1.25);
}
