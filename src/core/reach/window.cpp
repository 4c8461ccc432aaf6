#include "core/reach/window.h"

#include "core/flight/run.h"
#include "core/reach/offer.h"

#include <algorithm>
#include <cmath>

namespace knot::reach {
namespace {

using flight::HeadKind;

constexpr double step = 0.25;
constexpr double tolerance = 1e-7; // of the flight: right to a hundredth of a millimetre

flight::Turf turfOf(Ground ground) {
    return ground == Ground::soft   ? flight::Turf::soft
           : ground == Ground::firm ? flight::Turf::firm
                                    : flight::Turf::usual;
}

flight::Flight flown(const flight::Launch& launch, double wind = 0) {
    return flight::fly(launch, {.windAlong = wind}, flight::PathWanted::no, 0, tolerance);
}

double distanceOf(const flight::Launch& launch, Ground ground) {
    const flight::Flight flight = flown(launch);
    return flight.carry + (ground == Ground::carry ? 0 : flight::runAfter(flight, turfOf(ground)).length());
}

flight::Launch struck(const Swing& swing, double loft, double strikeHigh = 0) {
    return flight::launchOf({.clubSpeed = swing.clubSpeed,
                             .dynamicLoft = loft + swing.addedLoft(),
                             .attack = swing.attack,
                             .strikeHigh = strikeHigh},
                            flight::usualHead(swing.kind));
}

std::vector<Try> alongOffer(const Swing& swing, Ground ground) {
    const Offer& offer = offerOf(swing.kind);
    std::vector<Try> along;
    for (double loft = offer.from; loft <= offer.to; loft += step)
        along.push_back(tried(swing, loft, ground));
    return along;
}

void widen(Band& band, double value) {
    band.from = std::min(band.from.value_or(value), value);
    band.to = std::max(band.to.value_or(value), value);
}

Band rounded(const Band& band, double to) {
    auto near = [&](std::optional<double> end) {
        return end ? std::optional(std::round(*end / to) * to) : std::nullopt;
    };
    return {near(band.from), near(band.to)};
}

// Launch and spin of other ways to strike this loft, at the ball speed of the middle.
void addNeighbours(const Swing& swing, const Try& middle, Ground ground, double least, Window& window) {
    constexpr double degree = 1;
    constexpr double off = 12; // mm
    for (const auto& [attack, high] : {std::pair(0.0, 0.0), {-degree, 0.0}, {degree, 0.0}, {0.0, -off}, {0.0, off}}) {
        Swing other = swing;
        other.attack += attack;
        flight::Launch launch = struck(other, middle.loft, high);
        launch.ballSpeed = middle.launch.ballSpeed;
        if (distanceOf(launch, ground) < least)
            continue;
        widen(window.launch, launch.launch);
        widen(window.spin, launch.spin);
    }
}

// Along the lofts on offer, and beyond them as between the outermost.
double ballSpeedAt(const Window& window, double launch) {
    const auto& along = window.along;
    std::size_t i = 1;
    while (i + 1 < along.size() && along[i].launch.launch < launch)
        ++i;
    const flight::Launch& low = along[i - 1].launch;
    const flight::Launch& high = along[i].launch;
    return low.ballSpeed + (high.ballSpeed - low.ballSpeed) * (launch - low.launch) / (high.launch - low.launch);
}

// The delivered loft of a kind that is struck at a ball speed, and its flight.
struct Held {
    flight::Launch launch;
    flight::Flight flight;
    double windTakes = 0; ///< share of the carry
};

double longestRun(HeadKind kind) {
    return kind == HeadKind::wedge ? 6 : kind == HeadKind::iron ? 12 : 20;
}

std::optional<double> speedInto(HeadKind kind, double ballSpeed, double dynamicLoft, double attack) {
    double low = 15;
    double high = 70;
    auto ballAt = [&](double club) {
        return flight::launchOf({.clubSpeed = club, .dynamicLoft = dynamicLoft, .attack = attack},
                                flight::usualHead(kind))
            .ballSpeed;
    };
    if (ballAt(low) > ballSpeed || ballAt(high) < ballSpeed)
        return std::nullopt;
    for (int i = 0; i < 40; ++i) {
        const double middle = (low + high) / 2;
        (ballAt(middle) < ballSpeed ? low : high) = middle;
    }
    return (low + high) / 2;
}

// The lofts on offer that stop soon enough, the lowest first.
std::vector<Held> thatHold(HeadKind kind, double ballSpeed, double attack, Ground turf) {
    const Offer& offer = offerOf(kind);
    const flight::Turf ground = turfOf(turf == Ground::carry ? Ground::usual : turf);
    constexpr double headwind = -6;
    std::vector<Held> held;
    for (double loft = offer.from; loft <= offer.to; loft += 2 * step) {
        const double dynamicLoft = loft + offer.added(attack);
        const auto club = speedInto(kind, ballSpeed, dynamicLoft, attack);
        if (!club)
            continue;
        Held one{flight::launchOf({.clubSpeed = *club, .dynamicLoft = dynamicLoft, .attack = attack},
                                  flight::usualHead(kind)),
                 {}};
        one.flight = flown(one.launch);
        if (flight::runAfter(one.flight, ground).length() > longestRun(kind))
            continue;
        one.windTakes = 1 - flown(one.launch, headwind).carry / one.flight.carry;
        held.push_back(one);
    }
    return held;
}

} // namespace

double Swing::addedLoft() const {
    return added.value_or(offerOf(kind).added(attack));
}

std::optional<double> clubSpeedFor(HeadKind kind, double ballSpeed, double attack) {
    const Offer& offer = offerOf(kind);
    return speedInto(kind, ballSpeed, (offer.from + offer.to) / 2 + offer.added(attack), attack);
}

Try tried(const Swing& swing, double loft, Ground ground) {
    const flight::Launch launch = struck(swing, loft);
    return {loft, launch, distanceOf(launch, ground)};
}

Try bestOf(const Swing& swing, Ground ground) {
    return std::ranges::max(alongOffer(swing, ground), {}, &Try::distance);
}

std::optional<Window> windowOf(const Swing& swing, Ground ground) {
    if (!(swing.clubSpeed >= 20 && swing.clubSpeed <= 60))
        return std::nullopt;
    Window window;
    window.along = alongOffer(swing, ground);
    window.best =
        static_cast<std::size_t>(std::ranges::max_element(window.along, {}, &Try::distance) - window.along.begin());
    const double farthest = window.bestTry().distance;
    for (const Try& one : window.along) {
        if (one.distance >= nearlyAll * farthest)
            widen(window.loft, one.loft);
        addNeighbours(swing, one, ground, nearlyAll * farthest, window);
    }
    for (const double more : {-2.0, 2.0})
        window.twoDegrees =
            std::max(window.twoDegrees, farthest - tried(swing, window.bestTry().loft + more, ground).distance);
    return window;
}

Shares::Shares(const Window& window, const Band& launch, const Band& spin, Ground ground)
    : m_launch(*launch.from)
    , m_launchStep((*launch.to - *launch.from) / (side - 1))
    , m_spin(*spin.from)
    , m_spinStep((*spin.to - *spin.from) / (side - 1)) {
    for (std::size_t row = 0; row < side; ++row)
        for (std::size_t column = 0; column < side; ++column)
            m_shares.push_back(distanceOf({.ballSpeed = ballSpeedAt(window, launchAt(column)),
                                           .launch = launchAt(column),
                                           .spin = spinAt(row)},
                                          ground) /
                               window.bestTry().distance);
}

double Shares::at(double launch, double spin) const {
    const auto place = [](double value, double from, double stepOf) {
        const double at = std::clamp((value - from) / stepOf, 0.0, static_cast<double>(side - 1));
        const double whole = std::min(std::floor(at), static_cast<double>(side - 2));
        return std::pair(static_cast<std::size_t>(whole), at - whole);
    };
    const auto [column, right] = place(launch, m_launch, m_launchStep);
    const auto [row, up] = place(spin, m_spin, m_spinStep);
    const double low = gridAt(column, row) * (1 - right) + gridAt(column + 1, row) * right;
    const double high = gridAt(column, row + 1) * (1 - right) + gridAt(column + 1, row + 1) * right;
    return low * (1 - up) + high * up;
}

std::optional<Wanted> wantedAt(HeadKind kind, double ballSpeed, std::optional<double> attack, Ground turf) {
    constexpr double halfDegree = 0.5;
    constexpr double spinStep = 50;
    const double angle = attack.value_or(offerOf(kind).attack);
    if (kind == HeadKind::driver) {
        const auto club = clubSpeedFor(kind, ballSpeed, angle);
        const auto window = club ? windowOf({.kind = kind, .clubSpeed = *club, .attack = angle}) : std::nullopt;
        if (!window)
            return std::nullopt;
        return Wanted{.launch = rounded(window->launch, halfDegree), .spin = rounded(window->spin, spinStep)};
    }
    constexpr double windShare = 1.3;
    const auto held = thatHold(kind, ballSpeed, angle, turf);
    if (held.empty())
        return std::nullopt;
    Wanted wanted;
    for (const Held& one : held) {
        if (one.windTakes > windShare * held.front().windTakes)
            break;
        widen(wanted.launch, one.launch.launch);
        widen(wanted.spin, one.launch.spin);
        widen(wanted.height, one.flight.apex);
        widen(wanted.descent, one.flight.descent);
    }
    return Wanted{rounded(wanted.launch, halfDegree), rounded(wanted.spin, 2 * spinStep), rounded(wanted.height, 1),
                  rounded(wanted.descent, 1)};
}

std::vector<Chart::Row> chartRows() {
    constexpr double stepOfSpeed = 2.5; // m/s
    struct Kind {
        HeadKind kind;
        double slowest, fastest;
    };
    std::vector<Chart::Row> rows;
    for (const Kind& one : {Kind{HeadKind::driver, 45, 85}, Kind{HeadKind::wood, 40, 75}, Kind{HeadKind::iron, 30, 65},
                            Kind{HeadKind::wedge, 25, 50}})
        for (double speed = one.slowest; speed <= one.fastest; speed += stepOfSpeed)
            if (const auto wanted = wantedAt(one.kind, speed))
                rows.push_back({one.kind, speed - stepOfSpeed / 2, speed + stepOfSpeed / 2, *wanted});
    return rows;
}

} // namespace knot::reach
