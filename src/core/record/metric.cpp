#include "core/record/metric.h"

#include "core/record/text/table.h"

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace knot::embedded {
extern const std::string_view metricTable;
}

namespace knot::record {
namespace {

constexpr std::array<std::string_view, metricCount> keys = {
    "club_speed_ms",    "ball_speed_ms",    "smash",
    "attack_deg",       "path_deg",         "face_deg",
    "face_to_path_deg", "dynamic_loft_deg", "spin_loft_deg",
    "dynamic_lie_deg",  "launch_deg",       "launch_direction_deg",
    "spin_rpm",         "spin_axis_deg",    "carry_m",
    "total_m",          "side_m",           "curve_m",
    "apex_m",           "descent_deg",      "hang_s",
    "strike_toe_mm",    "strike_high_mm",   "miss_m"};

Quantity quantityFromName(std::string_view name) {
    constexpr std::array<std::pair<std::string_view, Quantity>, 8> names = {{{"speed", Quantity::speed},
                                                                             {"distance", Quantity::distance},
                                                                             {"height", Quantity::height},
                                                                             {"angle", Quantity::angle},
                                                                             {"spin", Quantity::spin},
                                                                             {"ratio", Quantity::ratio},
                                                                             {"strike", Quantity::strike},
                                                                             {"time", Quantity::time}}};
    for (const auto& [text, quantity] : names)
        if (text == name)
            return quantity;
    throw std::logic_error("data/metrics.csv: unknown quantity " + std::string(name));
}

// The table is compiled in from data/metrics.csv; a fault in it is a fault of the build.
std::array<MetricInfo, metricCount> loadTable() {
    std::array<MetricInfo, metricCount> table;
    const auto rows = tableRows(embedded::metricTable, 9);
    for (std::size_t i = 0; i < metricCount; ++i) {
        const auto& row = rows.at(i);
        if (row[0] != keys[i])
            throw std::logic_error("data/metrics.csv: bad row for " + std::string(keys[i]));
        table[i] = {row[0],
                    row[1],
                    row[2],
                    row[3],
                    row[4],
                    quantityFromName(row[5]),
                    static_cast<int>(tableNumber(row[6])),
                    tableNumber(row[7]),
                    tableNumber(row[8])};
    }
    return table;
}

template<std::size_t count> std::array<Metric, count> inOrder() {
    std::array<Metric, count> metrics{};
    for (std::size_t i = 0; i < count; ++i)
        metrics[i] = static_cast<Metric>(i);
    return metrics;
}

} // namespace

const MetricInfo& info(Metric metric) {
    static const auto table = loadTable();
    return table[static_cast<std::size_t>(metric)];
}

const std::array<Metric, measuredCount>& allMetrics() {
    static const auto all = inOrder<measuredCount>();
    return all;
}

const std::array<Metric, metricCount>& judgedMetrics() {
    static const auto all = inOrder<metricCount>();
    return all;
}

std::optional<Metric> metricFromKey(std::string_view key) {
    for (std::size_t i = 0; i < metricCount; ++i)
        if (keys[i] == key)
            return static_cast<Metric>(i);
    return std::nullopt;
}

bool Readings::operator==(const Readings& other) const {
    if (m_present != other.m_present)
        return false;
    return std::ranges::none_of(judgedMetrics(), [&](Metric metric) {
        return has(metric) && (at(metric) != other.at(metric) || derived(metric) != other.derived(metric) ||
                               modelled(metric) != other.modelled(metric));
    });
}

void deriveMissing(Readings& readings) {
    auto fill = [&](Metric target, Metric first, Metric second, auto combine) {
        if (readings.has(target) || !readings.has(first) || !readings.has(second))
            return;
        const std::optional<double> value = combine(*readings.at(first), *readings.at(second));
        if (value && std::fabs(*value) <= mostReading)
            readings.derive(target, *value);
    };
    auto minus = [](double a, double b) { return std::optional(a - b); };
    fill(Metric::smash, Metric::ballSpeed, Metric::clubSpeed,
         [](double ball, double club) { return club > 0 ? std::optional(ball / club) : std::nullopt; });
    fill(Metric::spinLoft, Metric::dynamicLoft, Metric::attack, minus);
    fill(Metric::faceToPath, Metric::face, Metric::path, minus);
}

} // namespace knot::record
