// What kind of club a file is of, told from names and shots, whatever the clubs are called.
#include "core/flight/impact.h"
#include "core/judge/judge.h"
#include "core/rack/club_kind.h"
#include "core/rack/club_name.h"
#include "core/random.h"
#include "core/words/answer.h"
#include "core/words/averages.h"

#include <catch2/catch.hpp>

#include <map>

using namespace knot;
using flight::HeadKind;
using rack::ClubKind;
using record::Metric;

namespace {

// A club as it is sold, and how it is swung; its flight comes from the models, not from the table that is tested.
struct Made {
    ClubKind kind;
    double loft, shareOfDriver, lean;
};

std::vector<Made> fortyClubs() {
    std::vector<Made> all;
    auto add = [&](HeadKind head, bool hybrid, int number, const std::vector<double>& lofts, double share,
                   double lean) {
        for (const double loft : lofts)
            all.push_back({{head, hybrid, number}, loft, share, lean});
    };
    add(HeadKind::driver, false, 0, {9, 9.5, 10, 10.5, 11, 12}, 1, 2);
    add(HeadKind::wood, false, 3, {14.5, 15, 16}, 0.95, 0);
    add(HeadKind::wood, false, 5, {18, 18.5, 19}, 0.92, 0);
    add(HeadKind::wood, true, 4, {21, 22}, 0.88, -1);
    add(HeadKind::wood, true, 5, {25}, 0.86, -1);
    add(HeadKind::iron, false, 4, {21, 23}, 0.86, -3);
    add(HeadKind::iron, false, 5, {24, 26}, 0.84, -4);
    add(HeadKind::iron, false, 6, {27, 29}, 0.82, -5);
    add(HeadKind::iron, false, 7, {29, 30, 31, 32, 33, 34}, 0.8, -6);
    add(HeadKind::iron, false, 8, {35, 37}, 0.78, -7);
    add(HeadKind::iron, false, 9, {40, 42}, 0.76, -8);
    add(HeadKind::wedge, false, 45, {44, 46}, 0.74, -9);
    add(HeadKind::wedge, false, 50, {50, 52}, 0.72, -10);
    add(HeadKind::wedge, false, 55, {54, 56, 58}, 0.7, -10);
    add(HeadKind::wedge, false, 60, {60, 62}, 0.66, -10);
    return all;
}

std::string figure(double value) {
    std::string text = std::to_string(value);
    while (text.ends_with('0'))
        text.pop_back();
    if (text.ends_with('.'))
        text.pop_back();
    return text;
}

// Three clubs of one kind as people name them in a file.
std::vector<std::string> named(const Made& club, int style) {
    const std::string kind = rack::kindText(club.kind);
    const std::string number = std::to_string(club.kind.number);
    const bool isNumbered = club.kind.head == HeadKind::iron || (club.kind.head == HeadKind::wood);
    const std::string letter = club.kind.isHybrid ? "h" : club.kind.head == HeadKind::iron ? "i" : "w";
    switch (style) {
    case 0:
        return {kind + " Fern", kind + " Slate", kind + " Ash"};
    case 1:
        return isNumbered ? std::vector<std::string>{number + letter + " Fern", number + letter + " Slate",
                                                     number + letter + " Ash"}
                          : std::vector<std::string>{"Fern " + kind, "Slate " + kind, "Ash " + kind};
    case 2:
        return {"Wren 105", "Wren 116", "Wren 126"};
    case 3:
        return {"Red", "Blue", "Black"};
    case 4:
        return {"Head A", "Head B", "Head C"};
    case 5:
        return {"Blade", "Cavity", "Hollow"};
    case 6:
        return {"graphite R", "graphite S", "steel R"};
    case 7:
        return {"Stiff", "Regular", "Soft"};
    case 8:
        return {"Ash 1", "Ash 2", "Ash 3"};
    case 9:
        return {figure(club.loft) + "°", figure(club.loft + 1) + "°", figure(club.loft + 2) + "°"};
    case 10:
        return {"-1", "STD", "+1"};
    default:
        return {"Alder 62", "Reed 53", "Larch 71"};
    }
}

record::Test fileOf(const Made& club, int style, double driverSpeed, Random& random) {
    record::Test test;
    const auto names = named(club, style);
    for (const std::string& name : names)
        test.builds.push_back({.name = name});
    for (std::size_t build = 0; build < names.size(); ++build)
        for (int i = 0; i < 5; ++i) {
            const flight::Delivery delivery{.clubSpeed = driverSpeed * club.shareOfDriver + 0.6 * random.normal(),
                                            .dynamicLoft = club.loft + club.lean + 1.2 * random.normal(),
                                            .attack = (club.kind.head == HeadKind::driver ? 0 : -3) + random.normal(),
                                            .strikeToe = 6 * random.normal(),
                                            .strikeHigh = 4 * random.normal()};
            const auto launch = flight::launchOf(delivery, flight::usualHead(club.kind.head));
            const auto flown = flight::fly(launch);
            record::Shot shot;
            shot.build = record::BuildAt(build);
            shot.id = record::ShotId{static_cast<std::int64_t>(test.shots.size()) + 1};
            shot.readings.measure(Metric::clubSpeed, delivery.clubSpeed);
            shot.readings.measure(Metric::ballSpeed, launch.ballSpeed);
            shot.readings.measure(Metric::launch, launch.launch);
            shot.readings.measure(Metric::spin, launch.spin);
            shot.readings.measure(Metric::carry, flown.carry);
            shot.readings.measure(Metric::descent, flown.descent);
            test.shots.push_back(std::move(shot));
        }
    return test;
}

} // namespace

TEST_CASE("the kind is told in 95 of 100 files of forty clubs, twelve ways to name them and three players") {
    Random random(7);
    int right = 0;
    int all = 0;
    std::map<std::string, int> wrong;
    for (const double speed : {36.0, 43.0, 50.0})
        for (const Made& club : fortyClubs())
            for (int style = 0; style < 12; ++style) {
                const auto test = fileOf(club, style, speed, random);
                const rack::ClubKinds kinds(test);
                const bool isRight = kinds.first() == club.kind.head;
                ++all;
                right += isRight ? 1 : 0;
                if (!isRight)
                    ++wrong[rack::kindText(club.kind) + " " + figure(club.loft) + " as " +
                            (kinds.ofAll() ? rack::kindText(kinds.ofAll()->kind) : "several") + ", style " +
                            std::to_string(style) + " at " + figure(speed)];
            }
    CHECK(all == 1440);
    for (const auto& [what, often] : wrong)
        UNSCOPED_INFO(what << ": " << often);
    CHECK(right >= 0.95 * all);
}

TEST_CASE("a name says a kind, a number and a loft, and a maker's figure says nothing") {
    struct Row {
        const char* name;
        const char* kind; ///< empty: none
    };
    for (const Row& row : std::vector<Row>{{"7 iron", "7-iron"},
                                           {"Eisen 7", "7-iron"},
                                           {"Fer 5 forgé", "5-iron"},
                                           {"3W full", "3-wood"},
                                           {"H 5i", "5-hybrid"},
                                           {"Hyb 21", "hybrid"},
                                           {"gap wedge", "wedge"},
                                           {"56 wedge", "wedge"},
                                           {"my driver", "driver"},
                                           {"10.5°", "driver"},
                                           {"9.5 deg", "driver"},
                                           {"7", "7-iron"},
                                           {"Reed i", ""},
                                           {"Wren 105", ""},
                                           {"graphite R", ""},
                                           {"", ""}}) {
        INFO(row.name);
        const auto kind = rack::kindFromText(row.name);
        CHECK((kind ? rack::kindText(*kind) : "") == row.kind);
    }
    CHECK(rack::loftNamed("M 9.5") == 9.5);
    CHECK(rack::loftNamed("10,5 deg") == 10.5);
    CHECK(rack::loftNamed("D12.5") == 12.5);
    CHECK_FALSE(rack::loftNamed("Wren 105"));
    CHECK_FALSE(rack::loftNamed("7 iron"));
    CHECK(rack::settingNamed("+1") == 1.0);
    CHECK(rack::settingNamed("STD") == 0.0);
    CHECK_FALSE(rack::settingNamed("Alder"));
    // Lofts only where every club is called by one.
    auto lofts = [](std::vector<std::string> names) {
        std::vector<record::Build> clubs;
        for (std::string& name : names)
            clubs.push_back({.name = std::move(name)});
        rack::takeLoftsFromNames(clubs);
        std::vector<double> all;
        for (const record::Build& club : clubs)
            if (club.club.head.loft)
                all.push_back(*club.club.head.loft);
        return all;
    };
    CHECK(lofts({"9", "10.5", "12"}) == std::vector<double>{9, 10.5, 12});
    CHECK(lofts({"9.5", "Alder"}).empty());
    CHECK(lofts({"56", "60", "62"}).empty()); // grams as well as degrees
}

TEST_CASE("what somebody says of the clubs goes before what they look like, and a bag is no contest") {
    Random random(3);
    const auto clubs = fortyClubs();
    auto test = fileOf(clubs[22], 2, 43, random);
    REQUIRE(rack::ClubKinds(test).first() == HeadKind::iron);
    CHECK(rack::ClubKinds(test).areOne());
    test.card.clubKind = "4-hybrid";
    CHECK(rack::kindText(rack::ClubKinds(test).ofAll()->kind) == "4-hybrid");
    CHECK(rack::ClubKinds(test).ofAll()->by == rack::ToldBy::person);
    test.card.clubKind.clear();
    test.builds[0].name = "driver";
    test.builds[1].name = "7 iron";
    CHECK_FALSE(rack::ClubKinds(test).areOne());
    CHECK(rack::ClubKinds(test).head(record::BuildAt(0)) == HeadKind::driver);
    // One that stays on the rack makes no bag of the others.
    for (record::Shot& shot : test.shots)
        if (shot.build == record::BuildAt(0))
            shot.build = record::BuildAt(2);
    CHECK(rack::ClubKinds(test).areOne());
}

TEST_CASE("a file of a bag has averages, and neither bets nor a fair test of driver against iron") {
    Random random(5);
    const auto clubs = fortyClubs();
    record::Test bag;
    for (const std::size_t at : {0UL, 6UL, 22UL, 34UL}) {
        const auto one = fileOf(clubs[at], 0, 43, random);
        bag.builds.push_back({.name = rack::kindText(clubs[at].kind)});
        for (record::Shot shot : one.shots)
            if (shot.build == record::BuildAt(0)) {
                shot.build = record::BuildAt(bag.builds.size() - 1);
                shot.id = bag.nextShotId();
                bag.shots.push_back(std::move(shot));
            }
    }
    const auto reading = judge::judge({.subject = judge::Case::of(bag)});
    REQUIRE(reading);
    CHECK_FALSE(reading->kind.areOne);
    CHECK(words::oneRunEach(*reading, {}) ==
          std::vector<std::string>{"Clubs of several kinds are steps of a bag, and no rivals of each other."});
    CHECK(words::answersOf(*reading, {}).empty());
    CHECK_FALSE(words::averages(*reading, {}).empty());
}

TEST_CASE("a topped shot, or distances alone, make no bag of clubs that are rivals") {
    Random random(9);
    auto test = fileOf(fortyClubs()[22], 3, 43, random);
    std::erase_if(test.shots, [](const record::Shot& shot) { return static_cast<std::int64_t>(shot.id) % 5 > 3; });
    test.shots[0].readings.measure(Metric::carry, 60);
    test.shots[0].readings.measure(Metric::ballSpeed, 30);
    CHECK(rack::ClubKinds(test).areOne());
    record::Test far;
    far.builds = {{.name = "Red"}, {.name = "Blue"}};
    for (int i = 0; i < 8; ++i) {
        record::Shot shot{.id = record::ShotId{i + 1}, .build = record::BuildAt(static_cast<std::size_t>(i % 2))};
        shot.readings.measure(Metric::carry, i % 2 == 0 ? 150 : 110);
        far.shots.push_back(shot);
    }
    CHECK(rack::ClubKinds(far).areOne());
    CHECK_FALSE(rack::ClubKinds(far).ofAll());
}
