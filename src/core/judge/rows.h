#pragma once

#include "core/judge/reading.h"

// What every kind of row of a reading has: an outcome, a claim and two builds.
namespace knot::judge {

inline record::Outcome outcomeOf(const AverageGap& row) {
    return {.kind = row.kind, .metric = row.metric, .shape = {}};
}
inline record::Outcome outcomeOf(const SpreadRatio& row) {
    return {.kind = record::OutcomeKind::spread, .metric = row.metric, .shape = {}};
}
inline record::Outcome outcomeOf(const ShareGap& row) {
    return {.kind = record::OutcomeKind::share, .metric = Metric::carry, .shape = row.shape};
}
inline record::Outcome outcomeOf(const AreaRatio&) {
    return {.kind = record::OutcomeKind::area, .metric = Metric::carry, .shape = {}};
}

template<typename Row> auto& claimOf(Row& row) {
    if constexpr (std::is_same_v<std::remove_const_t<Row>, ShareGap>)
        return row.gap.claim;
    else
        return row.claim;
}

inline const AverageGap& pairOf(const ShareGap& row) {
    return row.gap;
}
template<typename Row> const Row& pairOf(const Row& row) {
    return row;
}

} // namespace knot::judge
