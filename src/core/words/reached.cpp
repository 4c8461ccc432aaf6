#include "core/words/reached.h"

#include "core/reach/offer.h"
#include "core/record/text/number_text.h"

#include <algorithm>

namespace knot::words {
namespace {

using record::Metric;

std::optional<double> meanOf(const judge::Reading& reading, record::BuildAt build, Metric metric) {
    const auto at = std::ranges::find_if(reading.summary, [&](const judge::Summary& summary) {
        return summary.build == build && summary.metric == metric;
    });
    return at == reading.summary.end() || at->n == 0 ? std::nullopt : std::optional(at->mean);
}

} // namespace

std::vector<ReachedBy> reachedBy(const judge::Reading& reading) {
    std::vector<ReachedBy> all;
    for (record::BuildAt build; build < reading.builds.size(); ++build) {
        const auto mean = [&](Metric metric) { return meanOf(reading, build, metric); };
        const auto ball = mean(Metric::ballSpeed);
        const auto launch = mean(Metric::launch);
        const auto spin = mean(Metric::spin);
        const auto carry = mean(Metric::carry);
        if (!ball || !launch || !spin || !carry)
            continue;
        const reach::Means means{.launch = {.ballSpeed = *ball, .launch = *launch, .spin = *spin},
                                 .carry = *carry,
                                 .attack =
                                     mean(Metric::attack).value_or(reach::offerOf(flight::HeadKind::driver).attack),
                                 .clubSpeed = mean(Metric::clubSpeed)};
        if (const auto reached = reach::reachedBy(means))
            all.push_back({build, *reached});
    }
    return all;
}

std::string reachedSentence(const judge::Reading& reading, const ReachedBy& of, const record::DisplayUnits& units) {
    const record::MetricFormat carry(Metric::carry, units);
    const record::MetricFormat speed(Metric::ballSpeed, units);
    const std::string unit = " " + carry.unitText();
    const auto whole = [&](double metres) { return record::fixed(carry.shown(metres), 0); };
    const auto part = [&](double metres) { return record::signedFixed(carry.shown(metres), 0); };
    const reach::Reached& reached = of.reached;
    std::string text = reading.builds[of.build].name + " carries " + whole(reached.carry) + unit +
                       "; this ball speed could carry " + whole(reached.withBallSpeed) + " (launch " +
                       part(reached.byLaunch) + ", spin " + part(reached.bySpin) + ")";
    if (reached.withClubSpeed)
        text += ", this club speed " + whole(*reached.withClubSpeed);
    return text + ". 1 " + speed.unitText() + " more of ball speed is worth " +
           record::fixed(carry.shown(reached.perBallSpeed * speed.internal(1)), 1) + unit + ", 2° more loft " +
           part(reached.twoDegreesMore) + ": modelled.";
}

} // namespace knot::words
