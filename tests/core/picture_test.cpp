#include "app/picture/club.h"
#include "app/picture/cords.h"
#include "app/picture/face.h"
#include "app/picture/landing.h"
#include "app/picture/power.h"
#include "app/picture/strip.h"
#include "app/picture/swarm.h"
#include "core/rack/club_kind.h"
#include "core/rack/figures.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace knot;
using namespace knot::picture;

TEST_CASE("ticks are round, inside the axis and not too many") {
    struct Row {
        double low, high;
        int most;
        double step;
        int decimals;
    };
    for (const Row& row :
         {Row{170, 200, 7, 5, 0}, Row{1.41, 1.46, 5, 0.02, 2}, Row{-3, 3, 8, 1, 0}, Row{4000, 7000, 6, 1000, 0}}) {
        const Axis axis = niceAxis(row.low, row.high, 0, 600, row.most);
        CHECK(axis.step == Approx(row.step));
        CHECK(axis.decimals == row.decimals);
        CHECK(axis.ticks.size() <= static_cast<std::size_t>(row.most) + 1);
        for (const double tick : axis.ticks) {
            CHECK(axis.pixel(tick) >= 0);
            CHECK(axis.pixel(tick) <= 600);
        }
    }
}

TEST_CASE("an axis over nothing or one value is still an axis") {
    for (const auto& [low, high] : {std::pair(5.0, 5.0), {NAN, NAN}, {1e9, 1e9}, {0.0, INFINITY}}) {
        const Axis axis = niceAxis(low, high, 0, 100, 5);
        CHECK(axis.high > axis.low);
        CHECK(std::isfinite(axis.pixel(axis.low)));
        CHECK(!axis.ticks.empty());
    }
}

TEST_CASE("no two points of a swarm overlap and lone points stay down") {
    const std::vector<double> x{10, 11, 50, 12, 30, 10};
    const auto levels = swarmLevels(x, 8);
    for (std::size_t i = 0; i < x.size(); ++i)
        for (std::size_t j = 0; j < i; ++j)
            CHECK((levels[i] != levels[j] || std::fabs(x[i] - x[j]) >= 8));
    CHECK(levels[2] == 0);
    CHECK(levels[4] == 0);
    CHECK(swarmLevels({}, 8).empty());
}

TEST_CASE("many knots together cover no more ground than three hundred do") {
    CHECK(knotRadius(1, 5) == 5);
    CHECK(knotRadius(300, 5) == 5);
    CHECK(knotRadius(1200, 5) == Approx(2.5));
    CHECK(knotRadius(0, 5) == 5);
    CHECK(knotRadius(1000000, 5) == Approx(1.2));
}

TEST_CASE("cords place every knot inside the frame, shrinking when crowded") {
    CordsData data;
    for (int c = 0; c < 6; ++c) {
        CordData cord;
        for (std::size_t i = 0; i < 300; ++i) {
            cord.values.push_back(150 + static_cast<double>(i % 7) + c);
            cord.shots.push_back(i);
        }
        cord.mean = 153;
        cord.low = 152;
        cord.high = 154;
        data.cords.push_back(cord);
    }
    data.band = {150.3, 155.7};
    const auto layout = layOutCords(data, {100, 10, 700, 500});
    CHECK(layout.knots.size() == 1800);
    CHECK(layout.knotRadius < 6);
    for (const auto& knot : layout.knots) {
        CHECK(knot.x >= 100);
        CHECK(knot.x <= 700);
        CHECK(knot.y >= 0);
        CHECK(knot.y <= 500);
    }
    CHECK(layout.hasBand);
    CHECK((layout.bandRight - layout.bandLeft) == Approx(5.4 * 600 / (layout.axis.high - layout.axis.low)));
}

TEST_CASE("pictures of nothing are empty, and an endless interval does not squeeze the shots") {
    CHECK(layOutCords({}, {0, 0, 10, 10}).cords.empty());
    CordsData blank;
    blank.cords.resize(2);
    CHECK(layOutCords(blank, {0, 0, 10, 10}).knots.empty());
    CordsData wide;
    wide.cords = {{.values = {150, 152}, .shots = {0, 1}, .mean = 151, .low = -800, .high = 1100}};
    const auto layout = layOutCords(wide, {0, 0, 300, 100});
    CHECK(layout.axis.high - layout.axis.low < 10);
    CHECK(*layout.cords[0].lowX >= 0);
}

TEST_CASE("a strip places every shot once, rounds under each other, inside the width") {
    for (const int rounds : {1, 6, 40})
        for (const int shots : {1, 4, 30}) {
            std::vector<knot::record::PlannedTurn> turns;
            for (int round = 1; round <= rounds; ++round)
                for (std::size_t build = 0; build < 3; ++build)
                    turns.push_back({knot::record::BuildAt(build), round, shots});
            const auto layout = layoutStrip(turns, 900);
            REQUIRE(layout.turns.size() == turns.size());
            CHECK(layout.rounds.size() == static_cast<std::size_t>(rounds));
            for (const auto& turn : layout.turns) {
                CHECK(turn.knots.size() == static_cast<std::size_t>(shots));
                CHECK(turn.left >= 0);
                CHECK(turn.right <= 900);
                CHECK(turn.y < layout.height);
                CHECK(turnAt(layout, (turn.left + turn.right) / 2, turn.y) == turn.turn);
            }
        }
    CHECK(layoutStrip({}, 900).turns.empty());
    CHECK(!turnAt(layoutStrip({}, 900), 5, 5));
}

TEST_CASE("on a strip every player's laps are laps of their own, and no wider for it") {
    std::vector<knot::record::PlannedTurn> turns;
    for (std::size_t player = 0; player < 2; ++player)
        for (int round = 1; round <= 2; ++round)
            for (std::size_t build = 0; build < 2; ++build)
                turns.push_back({knot::record::BuildAt(build), round, 3, false, knot::record::PlayerAt(player)});
    const auto layout = layoutStrip(turns, 900);
    REQUIRE(layout.rounds.size() == 4);
    CHECK(layout.rounds[2].round == 1);
    CHECK(layout.rounds[2].player == knot::record::PlayerAt(1));
    turns.resize(4);
    CHECK(layoutStrip(turns, 900).lapWidth == layout.lapWidth);
}

TEST_CASE("a face keeps its proportions, and a strike point comes back from where it was drawn") {
    using namespace knot::picture;
    const auto kind = GENERATE(FaceKind::driver, FaceKind::wood, FaceKind::iron, FaceKind::wedge);
    const auto toe = GENERATE(Toe::left, Toe::right);
    const auto face = layOutFace(kind, toe, 10, 20, 300, 180);
    for (const auto& point : face.outline) {
        CHECK(point.x >= 10);
        CHECK(point.x <= 310);
        CHECK(point.y >= 20);
        CHECK(point.y <= 200);
    }
    const auto at = face.place(12, -5);
    CHECK((at.x < face.centre.x) == (toe == Toe::left));
    CHECK(at.y > face.centre.y);
    CHECK(face.strikeAt(at.x, at.y).x == Approx(12));
    CHECK(face.strikeAt(at.x, at.y).y == Approx(-5));
    CHECK(face.holds(face.centre.x, face.centre.y));
    CHECK(!face.holds(11, 21));
    CHECK((face.toeX < face.heelX) == (toe == Toe::left));
}

TEST_CASE("the face is that of the head, as far as it is known") {
    knot::record::Club club;
    using knot::flight::HeadKind;
    CHECK(knot::rack::headKind(club.head) == HeadKind::wood);
    for (const auto& [name, kind] : std::vector<std::pair<std::string, HeadKind>>{{"7", HeadKind::iron},
                                                                                  {"7 iron", HeadKind::iron},
                                                                                  {"7i Fern", HeadKind::iron},
                                                                                  {"My driver", HeadKind::driver},
                                                                                  {"3W", HeadKind::wood},
                                                                                  {"gap wedge", HeadKind::wedge},
                                                                                  {"PW", HeadKind::wedge},
                                                                                  {"Tarn 7", HeadKind::iron},
                                                                                  {"Club 7", HeadKind::wood},
                                                                                  {"Alder 62", HeadKind::wood},
                                                                                  {"Reed i", HeadKind::wood},
                                                                                  {"", HeadKind::wood}}) {
        INFO(name);
        CHECK(knot::rack::headKind(club.head, name) == kind);
    }
    club.head.loft = 10.5;
    CHECK(knot::rack::headKind(club.head, "7 iron") == HeadKind::driver); // what is measured goes before a name
    CHECK(knot::rack::headKind(club.head) == knot::picture::FaceKind::driver);
    club.head.loft = 30;
    CHECK(knot::rack::headKind(club.head) == knot::picture::FaceKind::iron);
    club.head.loft = 52;
    CHECK(knot::rack::headKind(club.head) == knot::picture::FaceKind::wedge);
    club.head.volume = 152;
    CHECK(knot::rack::headKind(club.head) == knot::picture::FaceKind::wood);
    knot::record::Test sealed;
    sealed.builds = {{.name = "Fern"}};
    sealed.sealedBuilds = {{.name = "hidden"}, {.name = "known", .club = club}};
    sealed.sealedBuilds[1].club.head.volume = 460;
    CHECK(knot::picture::faceKind(sealed) == knot::picture::FaceKind::driver);
}

TEST_CASE("a power curve runs from no gap to the largest, inside its field") {
    const knot::picture::PowerCurve curve{.largest = 6, .plan = {0, 0.5, 1}, .runs = {0, 0.1, 0.3}, .worthwhile = 3};
    const auto layout = knot::picture::layOutPower(curve, 400, 200);
    REQUIRE(layout.plan.size() == 3);
    CHECK(layout.plan.front().x == Approx(layout.left));
    CHECK(layout.plan.back().x == Approx(layout.left + layout.width));
    CHECK(layout.plan.front().y == Approx(layout.top + layout.height));
    CHECK(layout.plan[1].y == Approx(layout.top + layout.height / 2));
    CHECK(layout.plan.back().y == Approx(layout.top));
    CHECK(layout.worthwhileX == Approx(layout.left + layout.width / 2));
    CHECK(layout.runs.back().y == Approx(layout.top + 0.7 * layout.height));
    REQUIRE(layout.gaps.size() >= 3);
    CHECK(layout.gaps.back().value <= 6);
    for (const auto& chance : layout.chances)
        CHECK(chance.at == Approx(layout.top + layout.height * (1 - chance.value / 100)));
    CHECK(knot::picture::layOutPower({.largest = 6, .plan = {}, .runs = {}, .worthwhile = 3}, 400, 200).plan.empty());
}

TEST_CASE("landings have one scale both ways, hold every shot, and their contours hold what they say") {
    LandingData data;
    LandingCloud cloud;
    for (int i = 0; i < 40; ++i)
        cloud.shots.push_back({6 * std::sin(1.3 * i), 150 + 9 * std::cos(2.1 * i), static_cast<std::size_t>(i)});
    cloud.spread = {.side = 1, .carry = 151, .sdAlong = 8, .sdAcross = 4, .tilt = 25};
    data.clouds = {cloud};
    const LandingLayout layout = layOutLanding(data, {0, 0, 600, 400});
    REQUIRE(!layout.isEmpty);
    REQUIRE(layout.shots.size() == 40);
    for (const PlacedLanding& placed : layout.shots) {
        CHECK((placed.at.x > 0 && placed.at.x < 600));
        CHECK((placed.at.y > 0 && placed.at.y < 400));
    }
    const auto a = layout.place(0, 150);
    CHECK(layout.place(1, 150).x - a.x == Approx(a.y - layout.place(0, 151).y)); // right and up, alike
    for (const auto& [share, radius] : {std::pair(0.5, 1.17741), std::pair(0.9, 2.14597)}) {
        const auto contour = layout.contour(*cloud.spread, share);
        const auto middle = layout.place(1, 151);
        double far = 0;
        double near = 1e9;
        GroundPoint farthest;
        for (const GroundPoint& point : contour) {
            const double distance = std::hypot(point.x - middle.x, point.y - middle.y) / layout.pixelsPerUnit;
            if (distance > far) {
                far = distance;
                farthest = point;
            }
            near = std::min(near, distance);
        }
        CHECK(far == Approx(radius * 8).epsilon(1e-3));
        CHECK(near == Approx(radius * 4).epsilon(1e-3));
        // The long axis leans to the right of the target line.
        CHECK((farthest.x - middle.x) * (middle.y - farthest.y) > 0);
    }
    CHECK(layOutLanding({}, {0, 0, 100, 100}).isEmpty);
    LandingData single;
    single.clouds = {{.shots = {{0, 100, 0}}}};
    CHECK(!layOutLanding(single, {0, 0, 100, 100}).isEmpty);
    LandingData wide = data; // a contour beyond all measure does not squeeze the shots
    wide.clouds[0].spread->sdAlong = 5000;
    CHECK(layOutLanding(wide, {0, 0, 600, 400}).pixelsPerUnit > 0.5 * layout.pixelsPerUnit);
}

TEST_CASE("clubs are drawn to scale, and their angles are those that the rack reckons") {
    record::Club club;
    club.head = {.kind = record::PartKind::head, .mass = 218, .loft = 18, .lie = 58.5, .volume = 152};
    club.shaft = {.kind = record::PartKind::shaft, .mass = 62, .length = 1036};
    club.grip = {.kind = record::PartKind::grip, .mass = 50};
    club.length = 1073;
    club.sleeve.loft = 1;
    const auto figures = rack::figuresOf(club);
    const auto side = picture::clubFromSide(club);
    CHECK(side.isLengthKnown);
    CHECK(side.length == *figures.length);
    CHECK(side.balance == figures.balance);
    auto thickness = [](const picture::ClubSide& of) { return of.shaft.back().y - of.shaft.front().y; };
    record::Club heavier = club;
    heavier.shaft.mass = 93;
    CHECK(thickness(picture::clubFromSide(heavier)) == Approx(1.5 * thickness(side)));
    const auto toe = *picture::headFromToe(club);
    CHECK(toe.loft == *figures.loft);
    const double lean =
        std::atan2(toe.faceHigh.x - toe.faceLow.x, toe.faceLow.y - toe.faceHigh.y) * 180 / 3.14159265358979;
    CHECK(lean == Approx(19)); // with the sleeve
    const auto face = *picture::headFromFace(club, false);
    const double up = std::atan2(face.heel.y - face.shaftEnd.y, face.heel.x - face.shaftEnd.x) * 180 / 3.14159265358979;
    CHECK(up == Approx(*figures.lie));
    const auto mirrored = *picture::headFromFace(club, true);
    for (std::size_t i = 0; i < face.body.size(); ++i)
        CHECK(mirrored.body[i].x == -face.body[i].x);

    const record::Club unknown;
    CHECK_FALSE(picture::clubFromSide(unknown).isLengthKnown);
    CHECK(picture::clubFromSide(unknown).length > 500);
    CHECK_FALSE(picture::headFromToe(unknown));
    CHECK_FALSE(picture::headFromFace(unknown, false));
    using picture::HeadLook;
    const auto look = [](std::optional<double> volume, std::optional<double> loft) {
        return picture::lookOf({.kind = record::PartKind::head, .loft = loft, .volume = volume});
    };
    CHECK(look(440, {}) == HeadLook::driver);
    CHECK(look(170, {}) == HeadLook::wood);
    CHECK(look(110, {}) == HeadLook::hybrid);
    CHECK(look({}, 30) == HeadLook::iron);
    CHECK(look({}, 54) == HeadLook::wedge);
}
