#include "core/words/along.h"

#include "core/rack/measures.h"
#include "core/record/text/number_text.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <string_view>

namespace knot::words {

std::string Along::stepText() const {
    return record::fixed(step, 0) + unit + " of " + what;
}

Along alongOf(const std::string& name) {
    if (const rack::Measure* measure = rack::measureCalled(name)) {
        const std::string unit(measure->unit);
        return {.what = std::string(measure->what),
                .unit = unit.empty()  ? measure->step > 1 ? " points" : " point"
                        : unit == "°" ? unit
                                      : " " + unit,
                .step = measure->step};
    }
    constexpr std::array<std::pair<std::string_view, std::string_view>, 9> units{{{"g", " g"},
                                                                                  {"kg", " kg"},
                                                                                  {"mm", " mm"},
                                                                                  {"cm", " cm"},
                                                                                  {"m", " m"},
                                                                                  {"in", " in"},
                                                                                  {"cpm", " cpm"},
                                                                                  {"oz", " oz"},
                                                                                  {"deg", "°"}}};
    Along along{.what = name};
    if (const auto at = name.rfind('_'); at != std::string::npos && at > 0)
        for (const auto& [key, shown] : units)
            if (name.substr(at + 1) == key) {
                along.unit = shown;
                along.what = name.substr(0, at);
            }
    if (along.unit == "°" || along.unit == " in" || along.unit == " oz" || along.unit == " kg" || along.unit == " m")
        along.step = 1;
    std::ranges::replace(along.what, '_', ' ');
    return along;
}

std::string sizeText(const judge::ModelEstimate& estimate, double per, const record::DisplayUnits& units) {
    return record::MetricFormat(estimate.metric, units)
        .supportedBy(estimate.se * per)
        .withUnit(std::fabs(estimate.value) * per);
}

std::string sizeRange(const judge::ModelEstimate& estimate, double per, const record::DisplayUnits& units) {
    const auto format = record::MetricFormat(estimate.metric, units).supportedBy(estimate.se * per);
    const double sign = estimate.value < 0 ? -per : per;
    return format.range(std::min(sign * estimate.ci95.low, sign * estimate.ci95.high),
                        std::max(sign * estimate.ci95.low, sign * estimate.ci95.high));
}

std::string trendSentence(const judge::Trend& trend, const std::string& along, const record::DisplayUnits& units) {
    const Along number = alongOf(along);
    const std::string& label = record::info(trend.slope.metric).label;
    const std::string size = (trend.slope.value < 0 ? " less by " : " more by ") +
                             sizeText(trend.slope, number.step, units) + " (" +
                             sizeRange(trend.slope, number.step, units) + ")";
    std::string text = (trend.slope.p < 0.05 ? "Each further " + number.stepText() + ": " + label + size
                                             : "Whether " + label + " goes along is not settled: each further " +
                                                   number.stepText() + size + " as seen") +
                       ". The line sums up these clubs and does not speak for others";
    if (trend.fitP && *trend.fitP < 0.05)
        return text + ", and they do not all lie on it.";
    text += ".";
    const double half = (trend.high - trend.low) / 2;
    if (trend.slope.p < 0.05 && half > 0) // inside of what was tested, never beyond it
        text += " On it a club at " + record::fixed(trend.low + half, half < 5 ? 1 : 0) + number.unit +
                ", half-way between two of them, would have " + sizeText(trend.slope, half, units) + " (" +
                sizeRange(trend.slope, half, units) + ")" + (trend.slope.value < 0 ? " less" : " more") +
                " than the lower of the two.";
    return text;
}

std::string interactionSentence(const judge::ModelEstimate& estimate, bool isThere, const judge::Reading& reading,
                                const record::DisplayUnits& units) {
    const std::string gap = "the gap in " + record::info(estimate.metric).label + ", " +
                            reading.builds[estimate.build].name + " against " + reading.builds[estimate.against].name +
                            ", ";
    const std::string size = sizeText(estimate, 1, units) + (estimate.value > 0 ? " larger" : " smaller");
    const std::string range = " (" + sizeRange(estimate, 1, units) + ")";
    const std::string at = " at “" + estimate.level + "”";
    return isThere ? "T" + gap.substr(1) + "is " + size + at + range + "."
                   : "Whether " + gap + "is another" + at + " is not settled: " + size + " as seen" + range + ".";
}

} // namespace knot::words
