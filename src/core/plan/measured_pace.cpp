#include "core/plan/measured_pace.h"

#include "core/record/structure.h"
#include "core/record/text/moment.h"
#include "core/statistics/quantile.h"

#include <algorithm>

namespace knot::plan {

namespace {

constexpr double longest = 600; // s: beyond it nobody waited for the next shot

struct Intervals {
    std::vector<double> inside, changes;
};

void addTest(Intervals& intervals, const record::Test& test) {
    const auto structure = record::structureOf(test);
    const record::Shot* before = nullptr;
    std::size_t turnBefore = 0;
    for (record::TurnAt t; t < structure.turns.size(); ++t)
        for (const record::ShotAt at : structure.turns[t].shots) {
            const record::Shot& shot = test.shots[at];
            const auto apart = before == nullptr || before->sitting != shot.sitting
                                   ? std::nullopt
                                   : record::secondsBetween(before->takenAt, shot.takenAt);
            if (apart && *apart > 0 && *apart < longest)
                (t == turnBefore ? intervals.inside : intervals.changes).push_back(*apart);
            before = &shot;
            turnBefore = t;
        }
}

} // namespace

MeasuredPace measuredPace(const std::vector<record::Test>& tests, record::TestKind kind, std::size_t fewest) {
    Intervals intervals;
    for (const record::Test& test : tests)
        if (test.card.kind == kind)
            addTest(intervals, test);
    MeasuredPace pace;
    if (intervals.inside.size() >= fewest)
        pace.shotSeconds = statistics::medianOf(intervals.inside);
    if (pace.shotSeconds && intervals.changes.size() >= fewest)
        pace.changeSeconds = std::max(0.0, statistics::medianOf(intervals.changes) - *pace.shotSeconds);
    return pace;
}

} // namespace knot::plan
