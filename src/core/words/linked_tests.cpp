#include "core/words/linked_tests.h"

#include "core/record/text/number_text.h"

namespace knot::words {

using record::MetricFormat;

std::string heldUpText(const judge::SittingsPooled& pooled) {
    if (pooled.ci95.contains(0))
        return {};
    return "; it held up in " + std::to_string(pooled.heldUp) + " of " + std::to_string(pooled.sittings);
}

std::vector<std::string> heldSentences(const judge::Reading& reading, const record::DisplayUnits& units) {
    std::vector<std::string> sentences;
    const auto name = [&](judge::BuildAt build) { return reading.builds[build].name; };
    for (const judge::Repeated& one : reading.repeated) {
        const judge::SittingsPooled& p = one.pooled;
        const MetricFormat format = MetricFormat(one.outcome.metric, units).supportedBy(p.se);
        std::string text = "The same test on " + record::counted(p.sittings, "day") + ": " + name(one.build) +
                           " against " + name(one.against) + " in " + record::outcomeLabel(one.outcome) + ", " +
                           format.withUnit(p.pooled) + " (" + format.range(p.ci95.low, p.ci95.high) + ")" +
                           heldUpText(p);
        constexpr double beyondLuck = 0.1;
        text += p.fP < beyondLuck ? ", and the days disagree more than luck explains." : ".";
        sentences.push_back(text);
    }
    for (const judge::ByWay& one : reading.byWay) {
        const MetricFormat format =
            MetricFormat(one.outcome.metric, units).supportedBy((one.ci95.high - one.ci95.low) / 4);
        sentences.push_back(name(one.build) + " and " + one.other + " met in no test. By way of " + name(one.via) +
                            ", which met both: " + format.withUnit(one.gap) + " (" +
                            format.range(one.ci95.low, one.ci95.high) + ") in " + record::outcomeLabel(one.outcome) +
                            ", and what else differed between the days.");
    }
    return sentences;
}

} // namespace knot::words
