#include "app/picture/power.h"

namespace knot::picture {
namespace {

constexpr double labelsLeft = 34, labelsBelow = 34, margin = 8;

} // namespace

PowerLayout layOutPower(const PowerCurve& curve, double width, double height) {
    PowerLayout layout{.left = labelsLeft,
                       .top = margin,
                       .width = width - labelsLeft - margin,
                       .height = height - margin - labelsBelow};
    if (curve.plan.size() < 2)
        return layout;
    const double right = layout.left + layout.width;
    const double bottom = layout.top + layout.height;
    auto x = [&](double gap) {
        return layout.left + (gap - curve.smallest) / (curve.largest - curve.smallest) * layout.width;
    };
    auto y = [&](double chance) { return bottom - chance * layout.height; };
    auto points = [&](const std::vector<double>& chances) {
        std::vector<PowerLayout::Point> made;
        for (std::size_t i = 0; i < chances.size(); ++i)
            made.push_back(
                {layout.left + layout.width * static_cast<double>(i) / static_cast<double>(chances.size() - 1),
                 y(chances[i])});
        return made;
    };
    layout.plan = points(curve.plan);
    if (curve.runs.size() > 1)
        layout.runs = points(curve.runs);
    layout.worthwhileX = x(curve.worthwhile);
    for (const double inHundred : {0.0, 50.0, 80.0, 100.0})
        layout.chances.push_back({y(inHundred / 100), inHundred});
    const Axis axis = niceAxis(curve.smallest, curve.largest, layout.left, right, 8);
    layout.decimals = axis.decimals;
    for (const double tick : axis.ticks)
        if (tick >= curve.smallest && tick <= curve.largest * 1.0001)
            layout.gaps.push_back({x(tick), tick});
    return layout;
}

} // namespace knot::picture
