#include "core/flight/flight.h"
#include "core/flight/run.h"
#include "core/rack/club_line.h"
#include "core/rack/difference.h"
#include "core/rack/effects.h"
#include "core/rack/figures.h"
#include "core/rack/norms.h"
#include "core/rack/starting.h"
#include "support/reference.h"

#include <catch2/catch.hpp>

#include <algorithm>

using namespace knot;
using record::Club;

namespace {

constexpr double inch = 25.4;

Club clubOf(const nlohmann::json& in) {
    Club club;
    club.head.mass = in.at("head_g");
    club.headAt = in.at("head_at_in").get<double>() * inch;
    club.shaft.mass = in.at("shaft_g");
    club.shaft.length = in.at("shaft_length_in").get<double>() * inch;
    club.shaft.balance = in.at("shaft_balance_from_butt_in").get<double>() * inch;
    club.grip.mass = in.at("grip_g");
    club.grip.balance = in.at("grip_cg_in").get<double>() * inch;
    return club;
}

record::Build buildOf(const char* name, double shaftMass, double length = 1080) {
    record::Build build;
    build.name = name;
    build.club.head = {.kind = record::PartKind::head, .name = "Tarn 5", .mass = 218, .loft = 18, .lie = 58};
    build.club.shaft = {
        .kind = record::PartKind::shaft, .name = name, .mass = shaftMass, .length = 1036, .balance = 525};
    build.club.grip = {.kind = record::PartKind::grip, .name = "Cord", .mass = 50, .balance = 105};
    build.club.ball = "Lapwing";
    build.club.length = length;
    return build;
}

const rack::Difference* row(const std::vector<rack::Difference>& sheet, const std::string& what) {
    const auto at = std::ranges::find(sheet, what, &rack::Difference::what);
    return at == sheet.end() ? nullptr : &*at;
}

} // namespace

TEST_CASE("clubs weigh, balance and swing as the worked examples do") {
    const auto reference = knot::test::loadJson("rack");
    std::map<std::string, Club> clubs;
    for (const auto& example : reference.at("clubs")) {
        INFO(example.at("case"));
        const Club club = clubOf(example);
        clubs[example.at("case")] = club;
        const auto figures = rack::figuresOf(club);
        CHECK(figures.missing.empty());
        CHECK(*figures.mass == example.at("total_g").get<double>());
        CHECK(*figures.balance / inch == Approx(example.at("balance_in").get<double>()).epsilon(1e-9));
        CHECK(*figures.swingWeight == Approx(example.at("swing_weight_points_from_D0").get<double>()).epsilon(1e-8));
        CHECK(*figures.inertia == Approx(example.at("inertia_butt_kg_m2").get<double>()).epsilon(1e-8));
        CHECK(rack::swingWeightText(*figures.swingWeight) == example.at("scale").get<std::string>());
    }
    const auto& even = reference.at("lead_to_even");
    CHECK(*rack::leadToEven(clubs.at(even.at("lighter")), clubs.at(even.at("heavier"))) ==
          Approx(even.at("grams").get<double>()).epsilon(1e-8));
}

TEST_CASE("what evens two clubs does even them") {
    auto light = buildOf("Reed", 53).club;
    const auto heavy = buildOf("Alder", 66).club;
    const double wanted = *rack::figuresOf(heavy).swingWeight;
    auto leaded = light;
    leaded.lead = *rack::leadToEven(light, heavy);
    CHECK(*rack::figuresOf(leaded).swingWeight == Approx(wanted).epsilon(1e-9));
    const double longer = *rack::lengthToEven(light, heavy);
    auto lengthened = light;
    lengthened.length = *light.length + longer; // head and shaft move outward, the grip stays
    lengthened.shaft.balance = *light.shaft.balance + longer;
    CHECK(*rack::figuresOf(lengthened).swingWeight == Approx(wanted).epsilon(1e-9));
    CHECK(*rack::leadToEven(heavy, light) < 0);
    CHECK(!rack::leadToEven({}, heavy));
}

TEST_CASE("gripping down is the same club held nearer its head") {
    auto club = buildOf("Reed", 60).club;
    const auto before = rack::figuresOf(club);
    club.grippedDown = 12.7;
    const auto after = rack::figuresOf(club);
    CHECK(*after.mass == *before.mass);
    CHECK(*before.balance - *after.balance == Approx(12.7));
    CHECK(*before.length - *after.length == Approx(12.7));
    CHECK(*after.inertia < *before.inertia);
    CHECK(*after.swingWeight < *before.swingWeight);
}

TEST_CASE("sleeve and bending move loft and lie, the sleeve the face too") {
    auto club = buildOf("Reed", 60).club;
    club.sleeve = {"+1", 1, -0.7, 0.5};
    club.bentLie = -1;
    const auto figures = rack::figuresOf(club);
    CHECK(*figures.loft == Approx(19));
    CHECK(*figures.lie == Approx(57.5));
    CHECK(figures.face == Approx(-0.7));
}

TEST_CASE("what is not known is named, and what is taken as usual too") {
    const auto nothing = rack::figuresOf({});
    CHECK(!nothing.mass);
    CHECK(nothing.missing.size() == 3);
    auto club = buildOf("Reed", 60).club;
    club.grip.balance.reset();
    club.shaft.length.reset();
    club.shaft.balance.reset();
    const auto figures = rack::figuresOf(club);
    CHECK(figures.swingWeight);
    CHECK(figures.assumed.size() == 4); // head's place, shaft's length and centre, grip's centre
    CHECK(rack::swingWeightText(9.96) == "E0.0");
    CHECK(rack::swingWeightText(-0.04) == "D0.0");
    CHECK(rack::swingWeightText(1e6) == "–");
}

TEST_CASE("the difference sheet lists what differs besides the factor, the unasked first") {
    std::vector<record::Build> builds{buildOf("Reed", 53), buildOf("Alder", 66)};
    builds[1].club.ball = "Plover";
    const auto sheet = rack::differenceSheet(builds, record::TestKind::shaft);
    CHECK(row(sheet, "shaft mass") == nullptr); // the factor itself
    CHECK(row(sheet, "shaft") == nullptr);
    REQUIRE(row(sheet, "ball") != nullptr);
    CHECK(&sheet.front() == row(sheet, "ball"));
    const auto* swing = row(sheet, "swing weight");
    REQUIRE(swing != nullptr);
    CHECK(swing->follows);
    CHECK(swing->weight == rack::Weight::noticed);
    CHECK(swing->remedy.find("g of lead at the head of Reed") != std::string::npos);
    CHECK(row(sheet, "total mass")->values == std::vector<std::string>{"321", "334"});
    CHECK(row(sheet, "length") == nullptr);
    builds[1].club.length = 1092;
    const auto longer = rack::differenceSheet(builds, record::TestKind::shaft);
    CHECK(row(longer, "length")->weight == rack::Weight::large);
    CHECK(row(longer, "length")->remedy == "grip down 12 mm on Alder");
    CHECK(!row(longer, "length")->follows);
    const auto inches = rack::differenceSheet(builds, record::TestKind::shaft, {.length = record::LengthUnit::in});
    const auto byInches = std::ranges::find(inches, "length", &rack::Difference::what);
    const auto byMetres = std::ranges::find(longer, "length", &rack::Difference::what);
    REQUIRE(byInches != inches.end());
    CHECK(byInches->unit == "in");
    CHECK(byInches->spread == Approx(byMetres->spread / 25.4));
    CHECK(byInches->weight == byMetres->weight);
    CHECK(byInches->remedy.find(" in on ") != std::string::npos);
    CHECK(rack::differenceSheet({builds[0], builds[0]}, record::TestKind::shaft).empty());
    CHECK(rack::differenceSheet({}, record::TestKind::own).empty());
    builds[0].club.grip.mass.reset();
    CHECK(rack::unknowns(builds) == std::vector<std::string>{"the grip's mass of Reed"});
}

TEST_CASE("the starting tables give a bracket by speed, and another by tempo") {
    const auto& tables = rack::usualStartingTables();
    REQUIRE(rack::bySpeed(tables.speed, 40));
    CHECK(rack::bySpeed(tables.speed, 40)->flex == "R");
    CHECK(!rack::bySpeed(tables.speed, 200));
    const auto quick = *rack::bySpeedAndTempo(tables.speed, tables.tempo, 40, "quick, late");
    CHECK(quick.flex == "S");
    CHECK(quick.fromGrams == rack::bySpeed(tables.speed, 40)->fromGrams + 5);
    CHECK(*rack::bySpeedAndTempo(tables.speed, tables.tempo, 40, "") == *rack::bySpeed(tables.speed, 40));
    CHECK(rack::bySpeedAndTempo(tables.speed, tables.tempo, 60, "hard")->flex == "X"); // no step beyond the last
    CHECK(rack::bySpeedAndTempo(tables.speed, tables.tempo, 40, "quick start, smooth end")->flex ==
          "S"); // the first word counts
}

TEST_CASE("starting tables are written and read back, and a bad line is named") {
    const auto& tables = rack::usualStartingTables();
    std::string reason;
    CHECK(*rack::speedTableFrom(rack::speedTableText(tables.speed), reason) == tables.speed);
    CHECK(*rack::tempoTableFrom(rack::tempoTableText(tables.tempo), reason) == tables.tempo);
    CHECK(rack::speedTableFrom("10,5; 20; 45; 55,5; A", reason)->front().bracket.toGrams ==
          55.5); // with decimal commas
    CHECK(*rack::speedTableFrom(rack::speedTableText(tables.iron), reason) == tables.iron);
    CHECK(*rack::speedTableFrom(rack::speedTableText(tables.wedge), reason) == tables.wedge);
    CHECK(*rack::bodyTableFrom(rack::bodyTableText(tables.body), reason) == tables.body);
    CHECK(!rack::bodyTableFrom("shoe, 1, 2, 0, 0,\n", reason));
    CHECK(!rack::speedTableFrom("0, 31, 40, 52, L\n31, x, 45, 58, A\n", reason));
    CHECK(reason == "Line 2: 'x' is not a number from 0 on.");
    CHECK(!rack::speedTableFrom("40, 31, 40, 52, L\n", reason));
    CHECK(!rack::speedTableFrom("1, 2, 3\n", reason));
    CHECK(!rack::tempoTableFrom("smooth, 1.5, 0.5\n", reason));
    CHECK(rack::tempoTableFrom("\n\n", reason)->empty());
}

TEST_CASE("length and grip start from the body") {
    const auto& body = rack::usualStartingTables().body;
    CHECK_FALSE(rack::lengthFor(body, std::nullopt, std::nullopt));
    CHECK(rack::lengthFor(body, 1750, std::nullopt)->low == -6);
    const auto both = *rack::lengthFor(body, 1750, 900); // what the two say together
    CHECK(both.low == -6);
    CHECK(both.high == 13);
    CHECK(rack::gripFor(body, 183) == "standard");
    CHECK(rack::gripFor(body, 1000).empty());
}

TEST_CASE("what more loft or a heavier head would do by itself goes the way that it should, farther for the fast") {
    record::Club iron;
    iron.head = {.kind = record::PartKind::head, .mass = 268, .loft = 32};
    const record::Player slow{.name = "A", .ironSpeed = 30};
    const record::Player fast{.name = "B", .ironSpeed = 40};
    const auto up = *rack::effectOfLoft(iron, slow, 2);
    CHECK(up.clubSpeed == 30);
    CHECK(up.launch > 0.5);
    CHECK(up.spin > 100);
    CHECK(up.carry < 0);
    CHECK(rack::effectOfLoft(iron, slow, -2)->carry > 0);
    CHECK(rack::effectOfLoft(iron, fast, 2)->carry < up.carry);
    const auto heavier = *rack::effectOfHeadMass(iron, slow, 10);
    CHECK(heavier.ballSpeed > 0);
    CHECK(heavier.carry > 0);
    CHECK(rack::effectOfHeadMass(iron, slow, 0)->carry == 0);
    CHECK(rack::effectOfLoft(iron, {}, 1)->clubSpeed > 25); // nobody known: a usual one
    CHECK_FALSE(rack::effectOfLoft({}, slow, 1));
}

namespace {

void sayPart(record::Part& part, const std::string& text, const record::Typing& typing = {}) {
    const auto said = rack::partSaid(part, text, typing);
    REQUIRE(said);
    part = *said;
}

void sayClub(record::Build& build, const std::string& line, record::TestKind kind, const record::Typing& typing = {}) {
    const auto said = rack::clubSaid(build, line, kind, typing);
    REQUIRE(said);
    build = *said;
}

} // namespace

TEST_CASE("a part is said in a line and comes back as it was said") {
    using record::PartKind;
    record::Part head{.kind = PartKind::head};
    sayPart(head, "Tarn 5 18° 58.5° 218 g 152cc");
    CHECK(head ==
          record::Part{.kind = PartKind::head, .name = "Tarn 5", .mass = 218, .loft = 18, .lie = 58.5, .volume = 152});
    CHECK(rack::partText(head) == "Tarn 5 · 18.0° · 58.5° · 218 g · 152 cm³");
    record::Part again{.kind = PartKind::head};
    sayPart(again, rack::partText(head));
    CHECK(again == head);
    sayPart(again, "220g"); // what is not said stays
    CHECK(again.name == "Tarn 5");
    CHECK(again.mass == 220.0);
    record::Part shaft{.kind = PartKind::shaft};
    sayPart(shaft, "Club A 62 g graphite SR 42¼in");
    CHECK(shaft.name == "Club A");
    CHECK(shaft.flex == "SR");
    CHECK(shaft.material == "graphite");
    CHECK(*shaft.length == Approx(42.25 * 25.4));
    sayPart(shaft, "7 iron");
    CHECK(shaft.name == "7 iron");
    CHECK(shaft.mass == 62.0);
}

TEST_CASE("a club is said in a line by what is tested") {
    using record::TestKind;
    record::Build build{.name = "Club"};
    sayClub(build, "Reed 53, 53 g graphite A", TestKind::shaft);
    CHECK(build.name == "Reed 53");
    CHECK(build.club.shaft.name == "Reed 53"); // the part is called as the club is
    CHECK(build.club.shaft.mass == 53.0);
    CHECK(rack::clubLine(build, TestKind::shaft) == "Reed 53, 53 g · graphite · A");
    record::Build again = build;
    sayClub(again, rack::clubLine(build, TestKind::shaft), TestKind::shaft);
    CHECK(again == build);
    sayClub(build, "Reed 55", TestKind::shaft);
    CHECK(build.name == "Reed 55");
    CHECK(build.club.shaft.mass == 53.0);
    sayClub(build, "7 iron, new", TestKind::loft); // a comma of its own
    CHECK(build.name == "7 iron, new");
    build.club.sleeve.loft = 1;
    sayClub(build, "one up, 19.5°", TestKind::loft);
    CHECK(*rack::figuresOf(build.club).loft == Approx(19.5)); // the sleeve stays, the head gives way
    CHECK(rack::differsText(build, TestKind::loft) == "19.5°");
    sayClub(build, "short, 42 in", TestKind::length);
    CHECK(*build.club.length == Approx(42 * 25.4));
    sayClub(build, "Lapwing", TestKind::ball);
    CHECK(build.club.ball == "Lapwing");
    // A builder's words, from how the head stands.
    record::Build iron{.name = "7 iron"};
    iron.club.head = {.kind = record::PartKind::head, .mass = 268, .loft = 32, .lie = 62};
    iron.club.shaft = {.kind = record::PartKind::shaft, .mass = 95, .length = 920};
    iron.club.grip = {.kind = record::PartKind::grip, .mass = 50};
    iron.club.length = 940;
    sayClub(iron, "7 iron, 1 weak 1½ up ½in long", TestKind::lie);
    CHECK(iron.name == "7 iron");
    CHECK(iron.club.bentLoft == 1);
    CHECK(iron.club.bentLie == 1.5);
    CHECK(*iron.club.length == Approx(952.7));
    sayClub(iron, "7 iron, 2 strong, 1 flat", TestKind::lie);
    CHECK(iron.club.bentLoft == -2);
    CHECK(iron.club.bentLie == -1);
    const double before = *rack::figuresOf(iron.club).swingWeight;
    const std::string wanted = rack::swingWeightText(before + 3).substr(0, 2);
    sayClub(iron, "7 iron, " + wanted, TestKind::shaft);
    CHECK(iron.club.lead > 0);
    CHECK(rack::swingWeightText(*rack::figuresOf(iron.club).swingWeight).starts_with(wanted));
    CHECK(rack::lengthText(1073.15, record::LengthUnit::in) == "42¼ in");
    CHECK(rack::lengthText(1073.15, record::LengthUnit::mm) == "1073 mm");
    sayClub(build, "", TestKind::shaft);
    CHECK(build.name == "Lapwing"); // a club keeps a name
}

TEST_CASE("norms come from a table, and are there for every kind as said") {
    CHECK(rack::normOf(flight::HeadKind::iron, record::Metric::smash)->value == Approx(1.38));
    CHECK(!rack::normOf(flight::HeadKind::iron, record::Metric::smash)->source.empty());
    CHECK_FALSE(rack::normOf(flight::HeadKind::iron, record::Metric::carry));
}

TEST_CASE("what ships as a norm is what the impact model says") {
    using flight::HeadKind;
    struct Row {
        HeadKind kind;
        double clubSpeed, dynamicLoft, attack;
    };
    for (const Row& row : {Row{HeadKind::driver, 45, 13, 0}, Row{HeadKind::wood, 42, 16, -2},
                           Row{HeadKind::iron, 36, 24, -4}, Row{HeadKind::wedge, 32, 38, -5}}) {
        const auto launch =
            flight::launchOf({.clubSpeed = row.clubSpeed, .dynamicLoft = row.dynamicLoft, .attack = row.attack},
                             flight::usualHead(row.kind));
        CHECK(rack::normOf(row.kind, record::Metric::smash)->value ==
              Approx(launch.ballSpeed / row.clubSpeed).margin(0.006));
    }
}

TEST_CASE("a loft that is typed of a bent head is what it has after the bend") {
    record::Build build{.name = "Iron"};
    build.club.head = {.kind = record::PartKind::head, .name = "Tarn 7", .mass = 268, .loft = 32, .lie = 62};
    build.club.bentLoft = 1.5;
    build.club.bentLie = -1;
    const auto said = rack::clubSaid(build, "Iron, 34°", record::TestKind::loft, {});
    INFO((said ? std::string() : said.error()));
    REQUIRE(said);
    CHECK(*said->club.head.loft == Approx(32.5));
    CHECK(said->club.bentLoft == 1.5);
}
