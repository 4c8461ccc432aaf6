#include "core/rack/effects.h"

#include "core/flight/flight.h"
#include "core/flight/impact.h"
#include "core/rack/club_kind.h"
#include "core/rack/figures.h"

namespace knot::rack {
namespace {

using flight::HeadKind;

/// How a kind of club is usually swung: its speed as a share of a driver's and of a seven-iron's, what the delivery
/// adds to the static loft, and the attack, degrees.
struct Usual {
    double ofDriver, ofIron, leanOfShaft, attack;
};

Usual usualOf(HeadKind kind) {
    switch (kind) {
    case HeadKind::driver:
        return {1, 1.28, 1, 0};
    case HeadKind::wood:
        return {0.94, 1.2, 0, -2};
    case HeadKind::iron:
        return {0.78, 1, -5, -4};
    case HeadKind::wedge:
        return {0.7, 0.9, -6, -5};
    }
    return {1, 1, 0, 0};
}

constexpr double usualDriverSpeed = 42; // m/s

double speedOf(HeadKind kind, const record::Player& player) {
    const Usual usual = usualOf(kind);
    const bool isIron = kind == HeadKind::iron || kind == HeadKind::wedge;
    if (isIron && player.ironSpeed)
        return *player.ironSpeed * usual.ofIron;
    if (player.clubSpeed)
        return *player.clubSpeed * usual.ofDriver;
    return player.ironSpeed ? *player.ironSpeed * usual.ofIron : usualDriverSpeed * usual.ofDriver;
}

std::optional<Effect> between(const record::Club& club, const record::Player& player, double degrees, double grams) {
    const auto loft = figuresOf(club).loft;
    if (!loft)
        return std::nullopt;
    const HeadKind kind = headKind(club.head);
    const Usual usual = usualOf(kind);
    const double speed = speedOf(kind, player);
    flight::Head head = flight::usualHead(kind);
    flight::Delivery delivery{.clubSpeed = speed, .dynamicLoft = *loft + usual.leanOfShaft, .attack = usual.attack};
    const auto before = flight::launchOf(delivery, head);
    delivery.dynamicLoft += degrees;
    head.mass += grams / 1000;
    const auto after = flight::launchOf(delivery, head);
    return Effect{.clubSpeed = speed,
                  .ballSpeed = after.ballSpeed - before.ballSpeed,
                  .launch = after.launch - before.launch,
                  .spin = after.spin - before.spin,
                  .carry = flight::fly(after).carry - flight::fly(before).carry};
}

} // namespace

std::optional<Effect> effectOfLoft(const record::Club& club, const record::Player& player, double degrees) {
    return between(club, player, degrees, 0);
}

std::optional<Effect> effectOfHeadMass(const record::Club& club, const record::Player& player, double grams) {
    return between(club, player, 0, grams);
}

} // namespace knot::rack
