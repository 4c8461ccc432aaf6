#include "core/flight/flight.h"

#include "core/flight/constants.h"

#include <boost/numeric/odeint.hpp>

#include <algorithm>
#include <array>
#include <cmath>

namespace knot::flight {
namespace {

constexpr double viscosity = 1.4607e-5; // m²/s, kinematic
constexpr double spinDecay = 2e-5;
constexpr double firstStep = 0.01; // s
constexpr double pathStep = 0.05;  // s
constexpr double longest = 60;     // s
constexpr double windAt = 10;      // m

// along, right, up; their velocities; spin rate in rad/s
using State = std::array<double, 7>;
constexpr std::size_t up = 2;
constexpr std::size_t climb = 5;

class Motion {
public:
    Motion(const Launch& launch, const Air& air)
        : m_air(air) {
        // The axis lies across the launch direction and tips down on the right for a curve to the
        // right; it stays fixed in space.
        const double tilt = launch.spinAxis * degree;
        const double azimuth = launch.direction * degree;
        m_axis = {-std::sin(azimuth) * std::cos(tilt), std::cos(azimuth) * std::cos(tilt), -std::sin(tilt)};
        m_force = 0.5 * air.density * std::numbers::pi * ball::radius * ball::radius / ball::mass;
    }

    void operator()(const State& s, State& change, double) const {
        const double wind = windAtHeight(s[up]);
        const double x = s[3] - wind * m_air.windAlong;
        const double y = s[4] - wind * m_air.windRight;
        const double z = s[climb] - wind * m_air.windUp;
        const double speed = std::sqrt(x * x + y * y + z * z);
        if (!(speed > 0)) {
            change = {s[3], s[4], s[climb], 0, 0, -gravity, 0};
            return;
        }
        const double ratio = s[6] * ball::radius / speed;
        const double reynolds = speed * 2 * ball::radius / viscosity;
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
        change = {s[3],
                  s[4],
                  s[climb],
                  -d * x + l * liftX,
                  -d * y + l * liftY,
                  -d * z + l * liftZ - gravity,
                  -2 * spinDecay * speed * s[6] / (2 * ball::radius)};
    }

private:
    double windAtHeight(double height) const {
        return m_air.shear == 0 ? 1 : std::pow(std::max(height, 0.0) / windAt, m_air.shear);
    }

    Air m_air;
    std::array<double, 3> m_axis{};
    double m_force = 0;
};

State start(const Launch& launch) {
    const double angle = launch.launch * degree;
    const double azimuth = launch.direction * degree;
    const double level = launch.ballSpeed * std::cos(angle);
    return {0,
            0,
            0,
            level * std::cos(azimuth),
            level * std::sin(azimuth),
            launch.ballSpeed * std::sin(angle),
            launch.spin * 2 * std::numbers::pi / 60};
}

// The state when component `i` falls through `bar` between two moments of a step, and that moment.
template<typename Stepper> std::pair<double, State> crossing(Stepper& stepper, std::size_t i, double bar) {
    double low = stepper.previous_time();
    double high = stepper.current_time();
    State state{};
    for (int n = 0; n < 60 && high - low > 1e-13 * high; ++n) {
        const double middle = 0.5 * (low + high);
        stepper.calc_state(middle, state);
        (state[i] > bar ? low : high) = middle;
    }
    const double at = 0.5 * (low + high);
    stepper.calc_state(at, state);
    return {at, state};
}

void land(Flight& flight, const State& s, double at) {
    flight.hang = at;
    flight.carry = s[0];
    flight.side = s[1];
    flight.descent = std::atan2(-s[climb], std::hypot(s[3], s[4])) / degree;
    flight.speedAtLanding = std::hypot(s[3], s[4], s[climb]);
    flight.spinAtLanding = s[6] * 60 / (2 * std::numbers::pi);
}

} // namespace

Flight fly(const Launch& launch, const Air& air, PathWanted path, double landing, double tolerance) {
    namespace odeint = boost::numeric::odeint;
    Flight flight;
    const State first = start(launch);
    if (!(first[climb] > 0) || !std::isfinite(launch.spin) || launch.spin < 0)
        return flight;
    const Motion motion(launch, air);
    auto stepper = odeint::make_dense_output(tolerance, tolerance, odeint::runge_kutta_dopri5<State>());
    stepper.initialize(first, 0, firstStep);
    double nextPoint = 0;
    State shown{};
    auto draw = [&](double upTo) {
        for (; path == PathWanted::yes && nextPoint < upTo; nextPoint += pathStep) {
            stepper.calc_state(nextPoint, shown);
            flight.path.push_back({shown[0], shown[1], shown[up]});
        }
    };
    while (stepper.current_time() < longest) {
        stepper.do_step(std::cref(motion));
        const State& s = stepper.current_state();
        if (s[climb] <= 0 && stepper.previous_state()[climb] > 0) {
            flight.apex = crossing(stepper, climb, 0).second[up];
            if (flight.apex < landing)
                return {};
        }
        if (s[climb] < 0 && s[up] <= landing) {
            // A step may begin below the ground that it rises to: the way down is what counts.
            const auto [at, state] = crossing(stepper, up, landing);
            draw(at);
            land(flight, state, at);
            if (path == PathWanted::yes)
                flight.path.push_back({state[0], state[1], landing});
            return flight;
        }
        draw(stepper.current_time());
    }
    land(flight, stepper.current_state(), stepper.current_time());
    return flight;
}

} // namespace knot::flight
