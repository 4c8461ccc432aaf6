#include "monitor/striker.h"

#include <algorithm>

namespace knot::monitor {

using record::Metric;

Faults Faults::some() {
    return {.missed = 0.05,
            .noSpin = 0.05,
            .noAttack = 0.05,
            .noStrike = 0.05,
            .outlier = 0.02,
            .duplicate = 0.05,
            .late = 0.05,
            .disconnect = 0.03,
            .junk = 0.03};
}

Striker::Striker(const simulate::Scenario& scenario, std::uint64_t seed, const Faults& faults)
    : m_scenario(scenario)
    , m_faults(faults)
    , m_random(seed)
    , m_faultRandom(m_random.fork())
    , m_run(m_random.fork())
    , m_turn(simulate::drawTurn(scenario.player, m_random)) {}

void Striker::handOver(const std::string& build, std::size_t place) {
    const auto named = std::ranges::find(m_scenario.builds, build, &simulate::BuildTruth::name);
    m_inHand = named != m_scenario.builds.end() ? static_cast<std::size_t>(named - m_scenario.builds.begin())
                                                : place % m_scenario.builds.size();
    m_turn = simulate::drawTurn(m_scenario.player, m_random);
}

std::vector<std::string> Striker::reads() const {
    Random random(1);
    const auto readings = simulate::strike(m_scenario.player, m_scenario.builds.front(), {}, 0, random);
    std::vector<std::string> keys;
    for (const Metric metric : record::allMetrics())
        if (readings.has(metric) && !readings.derived(metric))
            keys.push_back(record::info(metric).key);
    return keys;
}

void Striker::spoil(record::Readings& readings) {
    if (happens(m_faults.noSpin)) {
        readings.clear(Metric::spin);
        readings.clear(Metric::spinAxis);
    }
    if (happens(m_faults.noAttack))
        readings.clear(Metric::attack);
    if (happens(m_faults.noStrike)) {
        readings.clear(Metric::strikeToe);
        readings.clear(Metric::strikeHigh);
    }
    if (happens(m_faults.outlier))
        for (const Metric metric : {Metric::carry, Metric::total})
            if (const auto value = readings.at(metric))
                readings.measure(metric, *value * 0.4);
}

Striker::Strike Striker::strike(const std::string& at) {
    Strike out;
    if (happens(m_faults.junk))
        out.junk.push_back(R"({"type":"shot","metrics":{"carry_)");
    // Unlike in any other run, so that a monitor started anew in the same sitting is not taken for its past.
    const std::string id = std::to_string(m_run % 1000000) + "-" + std::to_string(m_struck + 1);
    auto readings = simulate::strike(m_scenario.player, m_scenario.builds[m_inHand], m_turn, m_struck, m_random);
    ++m_struck;
    spoil(readings);
    record::Readings measured;
    for (const Metric metric : record::allMetrics())
        if (const auto value = readings.at(metric); value && !readings.derived(metric))
            measured.measure(metric, *value);
    link::Message message = happens(m_faults.missed) ? link::Message(link::NoRead{id, at, "no ball seen"})
                                                     : link::Message(link::ShotRead{id, at, measured, 0.95});
    const bool twice = happens(m_faults.duplicate);
    const bool late = happens(m_faults.late) && !m_heldBack;
    out.disconnect = happens(m_faults.disconnect);
    if (late) {
        m_heldBack = std::move(message);
        return out;
    }
    if (twice)
        out.messages.push_back(message);
    out.messages.push_back(std::move(message));
    for (auto& held : rest())
        out.messages.push_back(std::move(held));
    return out;
}

std::vector<link::Message> Striker::rest() {
    std::vector<link::Message> messages;
    if (m_heldBack)
        messages.push_back(std::move(*m_heldBack));
    m_heldBack.reset();
    return messages;
}

} // namespace knot::monitor
