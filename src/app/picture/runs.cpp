#include "app/picture/runs.h"

#include <algorithm>

namespace knot::picture {
namespace {

constexpr double laneHeight = 34, closestRow = 18;
constexpr double tagWidth = 22, parting = 16;
constexpr double widestPitch = 20, closestPitch = 3;

PlacedRun placed(std::size_t run, std::size_t count, double x, double y, double pitch, double nameWidth = 0) {
    PlacedRun at{.run = run, .tagX = x, .left = x + tagWidth + nameWidth, .right = 0, .y = y, .knots = {}};
    for (std::size_t i = 0; i < count; ++i)
        at.knots.push_back(at.left + pitch * (static_cast<double>(i) + 0.6));
    at.right = at.left + pitch * (static_cast<double>(count) + 0.2);
    return at;
}

// Side by side in rows; those that find no row are counted.
RunsLayout flowed(const std::vector<std::size_t>& counts, double width, double height, double pitch) {
    RunsLayout layout;
    const double row = std::max(closestRow, std::min(laneHeight, 2.2 * pitch + 8));
    double x = 0;
    double y = row / 2;
    for (std::size_t i = 0; i < counts.size(); ++i) {
        const double wide = tagWidth + pitch * (static_cast<double>(counts[i]) + 0.2);
        if (x > 0 && x + wide > width) {
            x = 0;
            y += row;
        }
        if (y + row / 2 > height + 0.5) {
            layout.leftOut = counts.size() - i;
            break;
        }
        layout.runs.push_back(placed(i, counts[i], x, y, pitch));
        x += wide + parting;
    }
    layout.knotRadius = std::clamp(0.42 * pitch, 1.2, 6.0);
    return layout;
}

bool fitsAcross(const RunsLayout& layout, double width) {
    return layout.leftOut == 0 &&
           std::ranges::all_of(layout.runs, [&](const PlacedRun& run) { return run.right <= width + 0.5; });
}

} // namespace

RunsLayout layoutRuns(const std::vector<std::size_t>& counts, double width, double height, double nameWidth) {
    if (counts.empty() || width <= 0 || height <= 0)
        return {};
    const std::size_t longest = *std::ranges::max_element(counts);
    const double row = std::min(laneHeight, height / static_cast<double>(counts.size()));
    const double pitch = std::min(widestPitch, (width - tagWidth - nameWidth) / (static_cast<double>(longest) + 0.2));
    if (row >= closestRow && pitch >= closestPitch) {
        RunsLayout layout{.hasNames = nameWidth > 0};
        for (std::size_t i = 0; i < counts.size(); ++i)
            layout.runs.push_back(placed(i, counts[i], 0, row * (static_cast<double>(i) + 0.5), pitch, nameWidth));
        layout.knotRadius = std::clamp(0.42 * pitch, 1.2, std::min(7.0, 0.4 * row));
        return layout;
    }
    for (double now = widestPitch; now > closestPitch; now *= 0.85)
        if (auto layout = flowed(counts, width, height, now); fitsAcross(layout, width))
            return layout;
    return flowed(counts, width, height, closestPitch);
}

} // namespace knot::picture
