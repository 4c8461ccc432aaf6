#pragma once

#include "core/judge/reading.h"

#include <nlohmann/json.hpp>

#include <optional>

/// What rows of a reading's JSON have in common. What is not known is left out.
namespace knot::files {

template<typename T> void put(nlohmann::ordered_json& object, const char* name, const std::optional<T>& value) {
    if (value)
        object[name] = *value;
}

inline void put(nlohmann::ordered_json& object, const char* name, const std::optional<judge::Interval>& interval) {
    if (interval)
        object[name] = {interval->low, interval->high};
}

inline void putClaim(nlohmann::ordered_json& row, const judge::Claim& claim) {
    row["role"] = key(claim.role);
    put(row, "p", claim.p);
    put(row, "p_worthwhile", claim.pWorthwhile);
    put(row, "p_same", claim.pSame);
    put(row, "p_adjusted", claim.pAdjusted);
    put(row, "p_worthwhile_adjusted", claim.pWorthwhileAdjusted);
    put(row, "p_same_adjusted", claim.pSameAdjusted);
    row["level"] = claim.level;
    row["verdict"] = key(claim.verdict);
    if (claim.favours)
        row["favours"] = key(*claim.favours);
    if (claim.cap)
        row["cap"] = key(*claim.cap);
}

inline nlohmann::ordered_json pairHead(const judge::Reading& reading, judge::Metric metric, std::size_t build,
                                       std::size_t against) {
    nlohmann::ordered_json row;
    row["metric"] = record::info(metric).key;
    row["build"] = reading.builds[build].name;
    row["against"] = reading.builds[against].name;
    return row;
}

} // namespace knot::files
