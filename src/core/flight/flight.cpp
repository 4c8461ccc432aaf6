#include "core/flight/flight.h"

#include <array>
#include <cmath>
#include <numbers>

namespace knot::flight {
namespace {

constexpr double mass = 0.04593;        // kg
constexpr double radius = 0.02134;      // m
constexpr double gravity = 9.80665;     // m/s²
constexpr double viscosity = 1.4607e-5; // m²/s, kinematic
constexpr double spinDecay = 2e-5;
constexpr double step = 0.01; // s; RK4 is then good to 1e-8 of the carry
constexpr double degree = std::numbers::pi / 180;

// along, right, up; their velocities; spin rate in rad/s
using State = std::array<double, 7>;

State plus(const State& a, const State& b, double scale) {
    State sum = a;
    for (std::size_t i = 0; i < sum.size(); ++i)
        sum[i] += scale * b[i];
    return sum;
}

class Motion {
public:
    Motion(const Launch& launch, const Air& air)
        : m_air(air) {
        // The axis lies across the launch direction and tips down on the right for a curve to the
        // right; it stays fixed in space.
        const double tilt = launch.spinAxis * degree;
        const double azimuth = launch.direction * degree;
        m_axis = {-std::sin(azimuth) * std::cos(tilt), std::cos(azimuth) * std::cos(tilt), -std::sin(tilt)};
        m_force = 0.5 * air.density * std::numbers::pi * radius * radius / mass;
    }

    State derivative(const State& s) const {
        const double x = s[3] - m_air.windAlong;
        const double y = s[4] - m_air.windRight;
        const double z = s[5] - m_air.windUp;
        const double speed = std::sqrt(x * x + y * y + z * z);
        if (!(speed > 0))
            return {s[3], s[4], s[5], 0, 0, -gravity, 0};
        const double ratio = s[6] * radius / speed;
        const double reynolds = speed * 2 * radius / viscosity;
        const double drag = 0.24 + 0.18 * ratio + 0.06 * std::sin(std::numbers::pi * (reynolds - 90000) / 200000);
        const double lift = 0.54 * std::pow(ratio, 0.4);
        const double d = m_force * drag * speed;
        // Axis × velocity in (along, right, up), whose handedness turns the usual signs around.
        // The lift has its full size in whatever direction the product points.
        const double liftX = m_axis[2] * y - m_axis[1] * z;
        const double liftY = m_axis[0] * z - m_axis[2] * x;
        const double liftZ = m_axis[1] * x - m_axis[0] * y;
        const double across = std::hypot(liftX, liftY, liftZ);
        const double l = across > 0 ? m_force * lift * speed * speed / across : 0;
        return {s[3],
                s[4],
                s[5],
                -d * x + l * liftX,
                -d * y + l * liftY,
                -d * z + l * liftZ - gravity,
                -2 * spinDecay * speed * s[6] / (2 * radius)};
    }

    State advanced(const State& s, double dt) const {
        const State k1 = derivative(s);
        const State k2 = derivative(plus(s, k1, dt / 2));
        const State k3 = derivative(plus(s, k2, dt / 2));
        const State k4 = derivative(plus(s, k3, dt));
        State next = s;
        for (std::size_t i = 0; i < next.size(); ++i)
            next[i] += dt / 6 * (k1[i] + 2 * k2[i] + 2 * k3[i] + k4[i]);
        return next;
    }

    // The part of a step after which component `i` crosses 0, by bisection and a last secant.
    double crossing(const State& from, std::size_t i) const {
        double low = 0;
        double high = step;
        for (int n = 0; n < 40; ++n) {
            const double middle = 0.5 * (low + high);
            (advanced(from, middle)[i] > 0 ? low : high) = middle;
        }
        return 0.5 * (low + high);
    }

private:
    Air m_air;
    std::array<double, 3> m_axis{};
    double m_force = 0;
};

State start(const Launch& launch) {
    const double up = launch.launch * degree;
    const double azimuth = launch.direction * degree;
    const double level = launch.ballSpeed * std::cos(up);
    return {0,
            0,
            0,
            level * std::cos(azimuth),
            level * std::sin(azimuth),
            launch.ballSpeed * std::sin(up),
            launch.spin * 2 * std::numbers::pi / 60};
}

} // namespace

Flight fly(const Launch& launch, const Air& air, PathWanted path) {
    Flight flight;
    State s = start(launch);
    if (!(s[5] > 0) || !std::isfinite(launch.spin) || launch.spin < 0)
        return flight;
    const Motion motion(launch, air);
    constexpr int longest = 6000; // steps: a minute
    for (int i = 0; i < longest; ++i) {
        if (path == PathWanted::yes && i % 5 == 0)
            flight.path.push_back({s[0], s[1], s[2]});
        const State next = motion.advanced(s, step);
        if (s[5] > 0 && next[5] <= 0)
            flight.apex = motion.advanced(s, motion.crossing(s, 5))[2];
        if (next[2] <= 0 && next[5] < 0) {
            const double rest = motion.crossing(s, 2);
            s = motion.advanced(s, rest);
            flight.hang = i * step + rest;
            break;
        }
        s = next;
    }
    flight.carry = s[0];
    flight.side = s[1];
    flight.descent = std::atan2(-s[5], std::hypot(s[3], s[4])) / degree;
    flight.spinAtLanding = s[6] * 60 / (2 * std::numbers::pi);
    if (path == PathWanted::yes)
        flight.path.push_back({s[0], s[1], 0});
    return flight;
}

} // namespace knot::flight
