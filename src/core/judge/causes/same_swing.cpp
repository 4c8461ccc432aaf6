#include "core/judge/causes/same_swing.h"

#include "core/judge/gaps/families.h"

#include <algorithm>
#include <array>

namespace knot::judge {
namespace {

constexpr std::array deliveries = {Metric::clubSpeed,   Metric::attack,     Metric::path,     Metric::face,
                                   Metric::dynamicLoft, Metric::strikeHigh, Metric::strikeToe};
constexpr double level = 0.05;

} // namespace

std::vector<SameSwing> sameSwings(const std::vector<AverageGap>& averages) {
    std::vector<SameSwing> rows;
    std::vector<double> differs;
    std::vector<double> same;
    for (const AverageGap& gap : averages) {
        if (gap.kind != record::OutcomeKind::average || std::ranges::find(deliveries, gap.metric) == deliveries.end())
            continue;
        const auto& claim = gap.claim;
        rows.push_back({.metric = gap.metric,
                        .build = gap.build,
                        .against = gap.against,
                        .gap = gap.gap,
                        .ci90 = gap.ci90,
                        .asSeen = claim.cap.has_value() || !claim.p});
        differs.push_back(claim.cap ? 1 : claim.p.value_or(1));
        same.push_back(claim.cap ? 1 : claim.pSame.value_or(1));
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
