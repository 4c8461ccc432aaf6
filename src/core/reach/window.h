#pragma once

#include "core/flight/impact.h"
#include "core/reach/chart.h"

#include <optional>
#include <vector>

// What lofts and strikes can give a swing, by the models of impact and flight: modelled, and no measured launches.
namespace knot::reach {

/// What counts as far: the carry, or where the ball stops on turf (by the run model, which is rough and too kind to low
/// flights).
enum class Ground { carry, soft, usual, firm };

struct Swing {
    flight::HeadKind kind = flight::HeadKind::driver;
    double clubSpeed = 0;             ///< m/s
    double attack = 0;                ///< degrees, up positive
    std::optional<double> added = {}; ///< what this player delivers above the static loft; else as is usual
    double addedLoft() const;
};

/// The club speed that gives this ball speed, from the middle of the lofts that are sold, struck in the middle; nothing
/// where none between 15 and 70 m/s does.
std::optional<double> clubSpeedFor(flight::HeadKind kind, double ballSpeed, double attack);

/// One loft struck in the middle of the face.
struct Try {
    double loft = 0; ///< static, degrees
    flight::Launch launch;
    double distance = 0; ///< m, by the ground asked for
};
Try tried(const Swing& swing, double loft, Ground ground = Ground::carry);
/// Of the lofts on offer the one that goes farthest.
Try bestOf(const Swing& swing, Ground ground = Ground::carry);

/// The lofts on offer with one swing, and those that go nearly as far as the best.
struct Window {
    std::vector<Try> along; ///< by static loft, a quarter of a degree apart
    std::size_t best = 0;
    Band loft;             ///< within a hundredth of the best
    Band launch, spin;     ///< of these, with an attack a degree either way and strikes 12 mm high or low
    double twoDegrees = 0; ///< m, what the best loses at most with two degrees more or less
    const Try& bestTry() const { return along[best]; }
};
inline constexpr double nearlyAll = 0.99;

/// Nothing for a club speed outside 20 to 60 m/s.
std::optional<Window> windowOf(const Swing& swing, Ground ground = Ground::carry);

/// How far balls of this swing go by their launch and spin, as shares of what the best of the window does: each at the
/// ball speed that a loft with its launch gives, struck in the middle. Reckoned on a grid over these ranges, between
/// its points in proportion, beyond them as at their edge.
class Shares {
public:
    static constexpr std::size_t side = 24; ///< points of the grid along each
    Shares(const Window& window, const Band& launch, const Band& spin, Ground ground = Ground::carry);
    double at(double launch, double spin) const;
    /// As far as nearly all.
    bool isInside(double launch, double spin) const { return at(launch, spin) >= nearlyAll; }
    double launchAt(std::size_t column) const { return m_launch + m_launchStep * static_cast<double>(column); }
    double spinAt(std::size_t row) const { return m_spin + m_spinStep * static_cast<double>(row); }
    double gridAt(std::size_t column, std::size_t row) const { return m_shares[row * side + column]; }

private:
    double m_launch, m_launchStep, m_spin, m_spinStep;
    std::vector<double> m_shares;
};

/// What is wanted at a ball speed and attack, in round numbers. A driver: `windowOf`. The others hit at a green:
/// launch, spin, height and descent of the lofts that stop soon enough on the turf (woods within 20 m, irons 12, wedges
/// 6, by the run model) and of which a headwind of 6 m/s takes at most 1.3 times what it takes of the lowest of these.
/// Nothing where no loft does.
std::optional<Wanted> wantedAt(flight::HeadKind kind, double ballSpeed, std::optional<double> attack = {},
                               Ground turf = Ground::usual);

/// The rows of the chart that ships.
std::vector<Chart::Row> chartRows();

} // namespace knot::reach
