#include "core/judge/shots/unread.h"

#include "core/statistics/quantile.h"
#include "core/statistics/ranks.h"

#include <cmath>

namespace knot::judge {
namespace {

std::optional<double> offMiddle(const record::Shot& shot) {
    const auto toe = shot.readings.at(Metric::strikeToe);
    const auto high = shot.readings.at(Metric::strikeHigh);
    return toe && high ? std::optional(std::hypot(*toe, *high)) : std::nullopt;
}

// What is unread of a metric with each build; off the middle is farther from it than `middling`, mm.
std::vector<Unread::Of> countUnread(const std::vector<const record::Shot*>& shots, std::size_t builds, Metric metric,
                                    double middling) {
    std::vector<Unread::Of> of(builds);
    for (const record::Shot* shot : shots) {
        Unread::Of& own = of[shot->build];
        ++own.n;
        if (shot->readings.has(metric))
            continue;
        ++own.unread;
        if (const auto stray = offMiddle(*shot)) {
            ++own.struck;
            own.offMiddle += *stray > middling ? 1 : 0;
        }
    }
    return of;
}

} // namespace

std::vector<Unread> unreadOf(const Case& subject, const Reading& reading) {
    const record::Test& test = subject.test();
    std::vector<const record::Shot*> shots;
    std::vector<double> strays;
    for (const record::Shot& shot : test.shots)
        if (isTaken(shot, subject.taken())) {
            shots.push_back(&shot);
            if (const auto stray = offMiddle(shot))
                strays.push_back(*stray);
        }
    const double middling = strays.empty() ? 0 : statistics::medianOf(strays);
    std::vector<Unread> rows;
    for (const Metric metric : reading.metrics) {
        const auto of = countUnread(shots, test.builds.size(), metric, middling);
        for (const AverageGap& row : reading.average) {
            if (row.metric != metric || row.kind != record::OutcomeKind::average)
                continue;
            const Unread::Of& own = of[row.build];
            const Unread::Of& other = of[row.against];
            if (own.unread + other.unread > 0)
                rows.push_back({.metric = metric,
                                .build = row.build,
                                .against = row.against,
                                .ofBuild = own,
                                .ofAgainst = other,
                                .p = statistics::fisherExact(own.unread, own.n, other.unread, other.n)});
        }
    }
    return rows;
}

} // namespace knot::judge
