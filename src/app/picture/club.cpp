#include "app/picture/club.h"

#include "core/rack/club_kind.h"
#include "core/rack/figures.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace knot::picture {
namespace {

constexpr double gripLength = 267; // mm
constexpr double usualShaft = 62;  // g: as thick as it really is

/// How large a head of a look is, mm.
struct HeadSize {
    double depth, height; ///< from face to back; above the ground
    double blade;         ///< from heel to toe
    double usualLength;   ///< of such a club
};

HeadSize sizeOf(HeadLook look) {
    switch (look) {
    case HeadLook::driver:
        return {112, 62, 122, 1150};
    case HeadLook::wood:
        return {84, 42, 102, 1075};
    case HeadLook::hybrid:
        return {62, 38, 96, 1015};
    case HeadLook::iron:
        return {22, 54, 80, 940};
    case HeadLook::wedge:
        return {24, 60, 82, 900};
    }
    return {};
}

bool isWood(HeadLook look) {
    return look == HeadLook::driver || look == HeadLook::wood || look == HeadLook::hybrid;
}

// Beside the shaft's end, hanging down as a club held up shows it.
ClubOutline headBeside(HeadLook look, double x) {
    const HeadSize size = sizeOf(look);
    if (isWood(look)) { // a neck, a rounded heel, and most of it toward the toe
        ClubOutline outline = {{-6, -7}, {10, -7}, {26, -3}, {66, 2}, {92, 16}, {104, 44},
                               {92, 72}, {60, 84}, {26, 78}, {4, 54}, {-6, 24}, {-8, 4}};
        for (ClubPoint& point : outline) {
            point.x = x + point.x * size.blade / 102;
            point.y *= size.depth / 88;
        }
        return outline;
    }
    // A blade: narrow at the heel, high at the toe.
    return {{x - 4, -6},
            {x + 8, -6},
            {x + 14, 18},
            {x + size.blade, 0.55 * size.blade + 6},
            {x + size.blade + 3, 0.55 * size.blade + 26},
            {x + size.blade - 8, 0.55 * size.blade + 34},
            {x + 6, 44},
            {x - 4, 30}};
}

} // namespace

HeadLook lookOf(const record::Part& head, flight::HeadKind usual) {
    constexpr double largestHybrid = 135; // cm³
    switch (head.volume || head.loft ? rack::headKind(head) : usual) {
    case flight::HeadKind::driver:
        return HeadLook::driver;
    case flight::HeadKind::wood:
        return head.volume && *head.volume < largestHybrid ? HeadLook::hybrid : HeadLook::wood;
    case flight::HeadKind::iron:
        return HeadLook::iron;
    case flight::HeadKind::wedge:
        return HeadLook::wedge;
    }
    return HeadLook::wood;
}

ClubSide clubFromSide(const record::Club& club, flight::HeadKind usual) {
    const HeadLook look = lookOf(club.head, usual);
    const rack::Figures figures = rack::figuresOf(club);
    ClubSide side;
    side.isLengthKnown = figures.length.has_value();
    side.length = figures.length.value_or(sizeOf(look).usualLength);
    side.balance = figures.balance;
    side.grip = {{0, -13}, {gripLength, -8.5}, {gripLength, 8.5}, {0, 13}};
    // A millimetre more at the butt than at the tip; twice the grams are drawn twice as thick.
    const double weight = std::clamp(club.shaft.mass.value_or(usualShaft) / usualShaft, 0.5, 2.2);
    const double butt = 7 * weight;
    const double tip = 4.6 * weight;
    side.shaft = {{gripLength, -butt}, {side.length - 20, -tip}, {side.length - 20, tip}, {gripLength, butt}};
    side.head = headBeside(look, side.length - 26);
    return side;
}

std::optional<HeadFromToe> headFromToe(const record::Club& club) {
    const auto loft = rack::figuresOf(club).loft;
    if (!loft)
        return std::nullopt;
    const HeadLook look = lookOf(club.head);
    const HeadSize size = sizeOf(look);
    const double lean = *loft * std::numbers::pi / 180;
    HeadFromToe head;
    head.loft = *loft;
    head.faceLow = {0, -2};
    head.faceHigh = {size.height * std::sin(lean), -2 - size.height * std::cos(lean)};
    head.body = {head.faceLow, head.faceHigh};
    if (isWood(look)) {
        const double back = size.depth;
        for (int i = 1; i <= 12; ++i) { // over the crown, down to the tail, and back along the sole
            const double turn = std::numbers::pi / 2 * i / 12;
            head.body.push_back({head.faceHigh.x + (back - head.faceHigh.x) * std::sin(turn),
                                 -14 + (head.faceHigh.y + 14) * std::cos(turn)});
        }
        head.body.push_back({0.85 * back, -3});
        head.body.push_back({0.4 * back, 0});
        head.body.push_back({8, 0});
    } else {
        head.body.push_back({head.faceHigh.x + 5, head.faceHigh.y + 1});
        head.body.push_back({size.depth * 0.7 + 0.3 * head.faceHigh.x, -0.45 * size.height * std::cos(lean)});
        head.body.push_back({size.depth, -6});
        head.body.push_back({0.7 * size.depth, 0});
        head.body.push_back({4, 0});
    }
    return head;
}

std::optional<HeadFromFace> headFromFace(const record::Club& club, bool leftHanded) {
    const auto lie = rack::figuresOf(club).lie;
    if (!lie)
        return std::nullopt;
    const HeadLook look = lookOf(club.head);
    const HeadSize size = sizeOf(look);
    constexpr double shaftSeen = 110;
    const double up = *lie * std::numbers::pi / 180;
    HeadFromFace head;
    head.lie = *lie;
    head.heel = {0, -14};
    head.shaftEnd = {-shaftSeen * std::cos(up), -14 - shaftSeen * std::sin(up)};
    // From the heel over the top to the toe, and back along a sole that is a little round.
    if (isWood(look))
        head.body = {{-4, -14},
                     {6, -0.62 * size.height},
                     {0.35 * size.blade, -0.98 * size.height},
                     {0.7 * size.blade, -0.95 * size.height},
                     {0.96 * size.blade, -0.55 * size.height},
                     {0.97 * size.blade, -0.22 * size.height},
                     {0.8 * size.blade, -3},
                     {0.45 * size.blade, 0},
                     {0.1 * size.blade, -3}};
    else
        head.body = {{-6, -16},
                     {4, -24},
                     {14, -26},
                     {0.78 * size.blade, -size.height},
                     {0.95 * size.blade, -0.92 * size.height},
                     {size.blade, -0.45 * size.height},
                     {0.9 * size.blade, -4},
                     {0.5 * size.blade, 0},
                     {0.08 * size.blade, -4}};
    if (leftHanded) {
        for (ClubPoint& point : head.body)
            point.x = -point.x;
        head.heel.x = -head.heel.x;
        head.shaftEnd.x = -head.shaftEnd.x;
    }
    return head;
}

} // namespace knot::picture
