#pragma once

#include <array>
#include <bitset>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace knot::record {

/// What a launch monitor measures, in the order of the canonical keys. Values are kept in SI-based
/// internal units: m, m/s, degrees, rpm, mm for the strike, seconds. Signs: side and direction +
/// right of the target line; strike + toward the toe and above the centre; spin axis + curves
/// right; attack + upward. They are the same for left-handed players.
enum class Metric : std::uint8_t {
    clubSpeed,
    ballSpeed,
    smash,
    attack,
    path,
    face,
    faceToPath,
    dynamicLoft,
    spinLoft,
    dynamicLie,
    launch,
    launchDirection,
    spin,
    spinAxis,
    carry,
    total,
    side,
    curve,
    apex,
    descent,
    hang,
    strikeToe,
    strikeHigh,
    miss ///< no monitor measures it: how far from the card's aim the ball came down
};

inline constexpr std::size_t measuredCount = 23;
inline constexpr std::size_t metricCount = 24;

/// What a number is a size of. The last three are of clubs and of bodies, and no monitor gives them.
enum class Quantity { speed, distance, height, angle, spin, ratio, strike, time, mass, length, volume };

/// One row of the metric table (data/metrics.csv).
struct MetricInfo {
    std::string key;         ///< canonical key with its SI unit, e.g. `carry_m`
    std::string label;       ///< as read in a sentence: "carry"
    std::string spreadLabel; ///< "carry spread"
    std::string more, less;  ///< predicates: "carries farther", "carries shorter"
    Quantity quantity = Quantity::ratio;
    int decimals = 1;         ///< usual display decimals in the SI unit
    double worthwhileGap = 1; ///< starting default, SI
    double repeatability = 0; ///< typical repeatability of a monitor, SI
};

const MetricInfo& info(Metric metric);
/// What a monitor may measure, and files and logbooks hold.
const std::array<Metric, measuredCount>& allMetrics();
/// The same and what the judge reckons from the card's aim.
const std::array<Metric, metricCount>& judgedMetrics();
/// The metric of a canonical key, or nothing.
std::optional<Metric> metricFromKey(std::string_view key);

/// Where the ball met the face describes the swing as much as the club, so these explain outcomes
/// and are kept out of the families of claims.
constexpr bool isStrike(Metric metric) {
    return metric == Metric::strikeToe || metric == Metric::strikeHigh;
}

/// The readings of one shot: a value or "no reading" for every metric, and where it came from.
class Readings {
public:
    std::optional<double> at(Metric metric) const {
        return has(metric) ? std::optional(m_values[index(metric)]) : std::nullopt;
    }
    bool has(Metric metric) const { return m_present[index(metric)]; }
    bool derived(Metric metric) const { return m_derived[index(metric)]; }
    bool modelled(Metric metric) const { return m_modelled[index(metric)]; }
    bool empty() const { return m_present.none(); }

    void measure(Metric metric, double value) { put(metric, value, false, false); }
    void derive(Metric metric, double value) { put(metric, value, true, false); }
    void model(Metric metric, double value) { put(metric, value, false, true); }
    void clear(Metric metric) { m_present.reset(index(metric)); }

    bool operator==(const Readings& other) const;

private:
    static constexpr std::size_t index(Metric metric) { return static_cast<std::size_t>(metric); }
    void put(Metric metric, double value, bool isDerived, bool isModelled) {
        m_values[index(metric)] = value;
        m_present.set(index(metric));
        m_derived.set(index(metric), isDerived);
        m_modelled.set(index(metric), isModelled);
    }

    std::array<double, metricCount> m_values{};
    std::bitset<metricCount> m_present, m_derived, m_modelled;
};

/// Fills smash, spin loft and face to path where their parts are present and they are not, and
/// marks them as derived. A ball speed over a club speed of 0 derives nothing.
void deriveMissing(Readings& readings);

/// Nothing that is measured is farther from zero, in internal units: what is, is no reading.
inline constexpr double mostReading = 1e6;

} // namespace knot::record
