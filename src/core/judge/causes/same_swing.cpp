#include "core/judge/causes/same_swing.h"

#include "core/judge/gaps/families.h"
#include "core/judge/gaps/verdict.h"
#include "core/rack/figures.h"

#include <algorithm>
#include <array>

namespace knot::judge {
namespace {

constexpr std::array deliveries = {Metric::clubSpeed,   Metric::attack,     Metric::path,     Metric::face,
                                   Metric::dynamicLoft, Metric::strikeHigh, Metric::strikeToe};
constexpr double level = 0.05;

// What two clubs differ by in themselves, in a metric of the delivery; nothing where that is not known.
std::optional<double> builtIn(const record::Test& test, Metric metric, BuildAt build, BuildAt against) {
    const auto own = rack::figuresOf(test.builds[build].club);
    const auto other = rack::figuresOf(test.builds[against].club);
    if (!own.loft || !other.loft)
        return std::nullopt;
    return metric == Metric::dynamicLoft ? *own.loft - *other.loft : own.face - other.face;
}

bool isOfLoft(Metric metric) {
    return metric == Metric::dynamicLoft || metric == Metric::face;
}

// The order of stints was drawn beforehand, so that the moment has no share in a gap.
bool isDrawn(const record::Test& test) {
    using record::Schedule;
    return !test.turns.empty() && test.plan.schedule != Schedule::sandwich &&
           test.plan.schedule != Schedule::oneRunEach;
}

SameSwing::Doing doingOf(const Reading& reading, const record::Test& test, const AverageGap& gap) {
    if (gap.claim.cap || !gap.claim.p)
        return SameSwing::Doing::asSeen;
    if (!isDrawn(test) || gap.sameOrder)
        return SameSwing::Doing::clubOrMoment;
    const bool isBlind =
        test.card.blinding == record::Blinding::playerBlind || test.card.blinding == record::Blinding::bothBlind;
    const bool couldTell = reading.guesses && reading.guesses->p < level;
    return isBlind && test.seal.wasMade() && !couldTell ? SameSwing::Doing::club : SameSwing::Doing::clubOrKnowing;
}

} // namespace

std::vector<SameSwing> sameSwings(const record::Test& test, const Reading& reading) {
    const bool isLoftTheFactor = test.card.kind == record::TestKind::loft || test.card.kind == record::TestKind::lie;
    std::vector<SameSwing> rows;
    std::vector<double> differs;
    std::vector<double> same;
    for (const AverageGap& gap : reading.average) {
        if (gap.kind != record::OutcomeKind::average || std::ranges::find(deliveries, gap.metric) == deliveries.end())
            continue;
        SameSwing row{.metric = gap.metric,
                      .build = gap.build,
                      .against = gap.against,
                      .gap = gap.gap,
                      .ci90 = gap.ci90,
                      .asSeen = gap.claim.cap.has_value() || !gap.claim.p,
                      .doing = doingOf(reading, test, gap)};
        Claim claim = gap.claim;
        bool isSwing = true;
        if (isOfLoft(gap.metric)) {
            const auto known = builtIn(test, gap.metric, gap.build, gap.against);
            isSwing = known || !isLoftTheFactor;
            if (known && *known != 0) {
                row.builtIn = known;
                row.gap -= *known;
                if (gap.se) {
                    const Effect beyond{row.gap, *gap.se, *gap.df};
                    row.ci90 = intervalOf(beyond, 0.9);
                    fillPs(claim, beyond, gap.margin);
                }
            }
        }
        const bool isJudged = !claim.cap && isSwing;
        row.p = isJudged ? claim.p : std::nullopt;
        rows.push_back(row);
        differs.push_back(row.p.value_or(1));
        same.push_back(isJudged ? claim.pSame.value_or(1) : 1);
    }
    differs = benjaminiHochberg(differs);
    same = benjaminiHochberg(same);
    for (std::size_t i = 0; i < rows.size(); ++i)
        rows[i].verdict = same[i] < level      ? SameSwing::Verdict::same
                          : differs[i] < level ? SameSwing::Verdict::differs
                                               : SameSwing::Verdict::open;
    return rows;
}

} // namespace knot::judge
