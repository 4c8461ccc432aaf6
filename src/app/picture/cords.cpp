#include "app/picture/cords.h"

#include "app/picture/swarm.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace knot::picture {
namespace {

struct Range {
    double low = std::numeric_limits<double>::infinity();
    double high = -std::numeric_limits<double>::infinity();
    void hold(double value) {
        low = std::min(low, value);
        high = std::max(high, value);
    }
};

Range rangeOf(const CordsData& data) {
    Range range;
    for (const CordData& cord : data.cords) {
        for (const double v : cord.values)
            range.hold(v);
        // An interval far wider than the shots must not squeeze them together.
        const auto [low, high] = cord.values.empty() ? std::pair(0.0, 0.0)
                                                     : std::pair(*std::ranges::min_element(cord.values),
                                                                 *std::ranges::max_element(cord.values));
        const double reach = std::max(high - low, data.band ? (data.band->high - data.band->low) / 2 : 0.0);
        if (cord.low && *cord.low > low - reach)
            range.hold(*cord.low);
        if (cord.high && *cord.high < high + reach)
            range.hold(*cord.high);
    }
    if (data.band && data.baseline < data.cords.size() && !data.cords[data.baseline].values.empty()) {
        range.hold(data.band->low);
        range.hold(data.band->high);
    }
    return range;
}

constexpr double largestRadius = 6.5;
constexpr double smallestRadius = 1.5;

// The places of a cord's values from left to right.
std::vector<std::size_t> fromLeft(const CordData& cord) {
    std::vector<std::size_t> order(cord.values.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::ranges::stable_sort(order, {}, [&](std::size_t i) { return cord.values[i]; });
    return order;
}

std::vector<std::vector<int>> stack(const CordsData& data, const std::vector<std::vector<std::size_t>>& orders,
                                    const Axis& axis, double radius) {
    std::vector<std::vector<int>> levels;
    for (std::size_t c = 0; c < data.cords.size(); ++c) {
        std::vector<double> x;
        x.reserve(orders[c].size());
        for (const std::size_t i : orders[c])
            x.push_back(axis.pixel(data.cords[c].values[i]));
        const auto sorted = swarmLevels(x, 2 * radius - 0.5);
        levels.emplace_back(sorted.size());
        for (std::size_t i = 0; i < sorted.size(); ++i)
            levels.back()[orders[c][i]] = sorted[i];
    }
    return levels;
}

int tallest(const std::vector<std::vector<int>>& levels) {
    int most = 0;
    for (const auto& cord : levels)
        for (const int level : cord)
            most = std::max(most, level);
    return most;
}

} // namespace

CordsLayout layOutCords(const CordsData& data, const Frame& frame) {
    CordsLayout layout;
    layout.top = frame.top;
    layout.bottom = frame.bottom;
    const Range range = rangeOf(data);
    if (data.cords.empty() || !std::isfinite(range.low))
        return layout;
    layout.axis = niceAxis(range.low, range.high, frame.left, frame.right,
                           std::max(2, static_cast<int>((frame.right - frame.left) / 80)));
    const double rowHeight = (frame.bottom - frame.top) / static_cast<double>(data.cords.size());
    // Below the cord: the interval and a gap to the next row.
    const double below = std::clamp(0.3 * rowHeight, 8.0, 34.0);
    const double above = rowHeight - below;
    // Spread evenly over the row no larger ones would fit; shots crowd, so that it shrinks from there.
    std::size_t most = 1;
    for (const CordData& cord : data.cords)
        most = std::max(most, cord.values.size());
    const double evenly = std::sqrt((frame.right - frame.left) * above / (2.9 * static_cast<double>(most)));
    double radius = std::clamp(evenly, smallestRadius, largestRadius);
    std::vector<std::vector<std::size_t>> orders;
    orders.reserve(data.cords.size());
    for (const CordData& cord : data.cords)
        orders.push_back(fromLeft(cord));
    auto levels = stack(data, orders, layout.axis, radius);
    while (radius > smallestRadius && 1.45 * radius * tallest(levels) + 2 * radius > above) {
        radius *= 0.92;
        levels = stack(data, orders, layout.axis, radius);
    }
    layout.knotRadius = radius;
    const double pitch = std::min(1.75 * radius, (above - radius) / std::max(tallest(levels), 1));
    for (std::size_t c = 0; c < data.cords.size(); ++c) {
        const CordData& cord = data.cords[c];
        PlacedCord placed;
        placed.top = frame.top + rowHeight * static_cast<double>(c);
        placed.y = placed.top + above;
        placed.intervalY = placed.y + 0.5 * below + 2;
        placed.empty = cord.values.empty();
        placed.meanX = layout.axis.pixel(cord.mean);
        auto clampX = [&](double value) { return std::clamp(layout.axis.pixel(value), frame.left, frame.right); };
        if (cord.low && cord.high) {
            placed.lowX = clampX(*cord.low);
            placed.highX = clampX(*cord.high);
        }
        for (std::size_t i = 0; i < cord.values.size(); ++i)
            layout.knots.push_back(
                {layout.axis.pixel(cord.values[i]), placed.y - pitch * levels[c][i], c, cord.shots[i], cord.values[i]});
        layout.cords.push_back(placed);
    }
    if (data.band && !data.cords[data.baseline].values.empty()) {
        layout.bandLeft = layout.axis.pixel(data.band->low);
        layout.bandRight = layout.axis.pixel(data.band->high);
        layout.hasBand = true;
    }
    return layout;
}

} // namespace knot::picture
