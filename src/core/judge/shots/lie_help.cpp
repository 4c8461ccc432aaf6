#include "core/judge/shots/lie_help.h"

#include "core/rack/figures.h"
#include "core/statistics/distributions.h"

#include <algorithm>
#include <cmath>

namespace knot::judge {
namespace {

constexpr double leastBend = 0.5; // degrees: less no gauge tells apart

std::optional<LieHelp> helpOf(const record::Test& test, const Column& lies, BuildAt build) {
    const auto stands = rack::figuresOf(test.builds[build].club).lie;
    const BuildValues& own = lies.builds[build];
    if (!stands || own.turns.empty())
        return std::nullopt;
    const auto means = own.turnMeans();
    LieHelp help{.build = build,
                 .stints = means.size(),
                 .shots = own.count(),
                 .stands = *stands,
                 .delivered = meanOf(means),
                 .off = {},
                 .bend = {}};
    if (means.size() < 2)
        return help;
    const auto n = static_cast<double>(means.size());
    const double reach = statistics::studentQuantile(0.975, n - 1) * standardDeviation(means) / std::sqrt(n);
    const double off = help.delivered - help.stands;
    help.off = Interval{off - reach, off + reach, 0.95};
    if (!help.off->contains(0) && std::fabs(off) >= leastBend)
        help.bend = std::clamp(off, -mostBent, mostBent);
    return help;
}

std::optional<LieSlope> slopeOf(const record::Test& test, const Column& lies, Metric metric) {
    double xx = 0;
    double xy = 0;
    double yy = 0;
    double n = 0;
    double stints = 0;
    for (const BuildValues& build : lies.builds)
        for (const TurnValues& turn : build.turns) {
            std::vector<double> x;
            std::vector<double> y;
            for (std::size_t i = 0; i < turn.values.size(); ++i)
                if (const auto value = test.shots[turn.shots[i]].readings.at(metric)) {
                    x.push_back(turn.values[i]);
                    y.push_back(*value);
                }
            if (x.size() < 2)
                continue;
            const double meanX = meanOf(x);
            const double meanY = meanOf(y);
            for (std::size_t i = 0; i < x.size(); ++i) {
                xx += (x[i] - meanX) * (x[i] - meanX);
                xy += (x[i] - meanX) * (y[i] - meanY);
                yy += (y[i] - meanY) * (y[i] - meanY);
            }
            n += static_cast<double>(x.size());
            ++stints;
        }
    const double df = n - stints - 1;
    if (!(xx > 0) || df < 3)
        return std::nullopt;
    const double slope = xy / xx;
    const double se = std::sqrt(std::max(yy - slope * xy, 0.0) / df / xx);
    const double reach = statistics::studentQuantile(0.975, df) * se;
    return LieSlope{.metric = metric,
                    .perDegree = slope,
                    .ci95 = {slope - reach, slope + reach, 0.95},
                    .shots = static_cast<std::size_t>(n)};
}

} // namespace

LieReading lieReading(const Case& subject) {
    const record::Test& test = subject.test();
    const Column lies = columnOf(test, subject.structure(), Metric::dynamicLie, subject.taken());
    LieReading reading;
    for (BuildAt b; b < test.builds.size(); ++b)
        if (auto help = helpOf(test, lies, b))
            reading.clubs.push_back(*help);
    for (const Metric metric : {Metric::launchDirection, Metric::strikeToe})
        if (auto slope = slopeOf(test, lies, metric))
            reading.slopes.push_back(*slope);
    return reading;
}

} // namespace knot::judge
