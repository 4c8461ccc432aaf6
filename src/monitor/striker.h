#pragma once

#include "core/random.h"
#include "core/simulate/scenarios.h"
#include "link/message.h"

#include <deque>
#include <optional>
#include <string>
#include <vector>

namespace knot::monitor {

/// How often each thing goes wrong, from 0 to 1.
struct Faults {
    double missed = 0; ///< struck and not read
    double noSpin = 0, noAttack = 0, noStrike = 0;
    double outlier = 0;
    double duplicate = 0;
    double late = 0;       ///< sent behind the next shot
    double disconnect = 0; ///< the line is cut after the shot
    double junk = 0;       ///< a line that is no message comes first
    /// A little of everything.
    static Faults some();
};

/// The simulated player and monitor without a socket: strikes as the club in hand would and says what
/// goes over the line, faults included. The same seed and the same calls give the same lines.
class Striker {
public:
    Striker(const simulate::Scenario& scenario, std::uint64_t seed, const Faults& faults);

    /// The club handed over: a place among the scenario's clubs, from the tag's or club's place in the
    /// test and its name. A name of the scenario decides, else the place.
    void handOver(const std::string& build, std::size_t place);
    /// The metrics it reads.
    std::vector<std::string> reads() const;

    struct Strike {
        std::vector<link::Message> messages; ///< in the order they go out; kept by the caller until acknowledged
        std::vector<std::string> junk;       ///< raw lines that go out first
        bool disconnect = false;
    };
    Strike strike(const std::string& at);
    /// What is held back still, at the end.
    std::vector<link::Message> rest();
    int struck() const { return m_struck; }

private:
    bool happens(double rate) { return rate > 0 && m_faultRandom.uniform() < rate; }
    void spoil(record::Readings& readings);

    const simulate::Scenario& m_scenario;
    Faults m_faults;
    Random m_random, m_faultRandom;
    std::uint64_t m_run;
    simulate::TurnState m_turn;
    std::size_t m_inHand = 0;
    int m_struck = 0;
    std::optional<link::Message> m_heldBack;
};

} // namespace knot::monitor
