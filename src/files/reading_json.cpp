#include "files/reading_json.h"

#include "core/judge/sentences.h"

#include <nlohmann/json.hpp>

namespace knot::files {
namespace {

using nlohmann::ordered_json;

using judge::Claim;
using judge::Interval;
using judge::Reading;

template <typename T> void put(ordered_json& object, const char* name, const std::optional<T>& value) {
    if (value)
        object[name] = *value;
}

void put(ordered_json& object, const char* name, const std::optional<Interval>& interval) {
    if (interval)
        object[name] = {interval->low, interval->high};
}

void putClaim(ordered_json& row, const Claim& claim) {
    row["role"] = key(claim.role);
    put(row, "p", claim.p);
    put(row, "p_worthwhile", claim.pWorthwhile);
    put(row, "p_same", claim.pSame);
    put(row, "p_adjusted", claim.pAdjusted);
    put(row, "p_worthwhile_adjusted", claim.pWorthwhileAdjusted);
    put(row, "p_same_adjusted", claim.pSameAdjusted);
    row["verdict"] = key(claim.verdict);
    if (claim.favours)
        row["favours"] = key(*claim.favours);
    if (claim.cap)
        row["cap"] = key(*claim.cap);
}

ordered_json averageRow(const Reading& reading, const judge::AverageGap& gap) {
    ordered_json row;
    row["metric"] = record::info(gap.metric).key;
    row["build"] = reading.builds[gap.build].name;
    row["against"] = reading.builds[gap.against].name;
    row["method"] = key(gap.method);
    row["gap"] = gap.gap;
    put(row, "se", gap.se);
    put(row, "df", gap.df);
    put(row, "ci95", gap.ci95);
    put(row, "ci90", gap.ci90);
    put(row, "var_turn", gap.varTurn);
    put(row, "var_shot", gap.varShot);
    putClaim(row, gap.claim);
    if (gap.shuffle) {
        row["shuffle_p"] = gap.shuffle->p;
        row["shuffle_exact"] = gap.shuffle->exact;
    }
    put(row, "bound", gap.bound);
    put(row, "further_rounds", gap.furtherRounds);
    return row;
}

ordered_json summaryRow(const Reading& reading, const judge::Summary& s) {
    ordered_json row;
    row["metric"] = record::info(s.metric).key;
    row["build"] = reading.builds[s.build].name;
    row["n"] = s.n;
    row["turns"] = s.turns;
    row["mean"] = s.mean;
    put(row, "sd", s.sd);
    put(row, "se", s.standardError);
    row["median"] = s.median;
    row["mad"] = s.mad;
    row["min"] = s.min;
    row["max"] = s.max;
    row["trimmed_mean"] = s.trimmedMean;
    put(row, "ci95", s.ci95);
    row["ci_from"] = s.intervalFromShots ? "shots" : "turns";
    put(row, "within_turn_sd", s.withinTurnSd);
    return row;
}

ordered_json buildRow(const judge::BuildCount& build) {
    return {{"build", build.name},       {"shots", build.shots},    {"counted", build.counted},
            {"set_aside", build.setAside}, {"warm_up", build.warmUp}, {"turns", build.turns}};
}

} // namespace

std::string readingJson(const Reading& reading) {
    ordered_json json;
    json["format"] = "knotcount.reading";
    json["version"] = 1;
    json["baseline"] = reading.card.baseline;
    json["alpha"] = reading.card.alpha;
    json["primary"] = ordered_json::array();
    for (const auto& outcome : reading.card.primary)
        json["primary"].push_back(record::outcomeText(outcome));
    json["margins"] = ordered_json::object();
    for (const auto metric : reading.metrics)
        json["margins"][record::info(metric).key] = reading.card.margin(metric);
    json["sd_ratio_margin"] = reading.card.sdRatioMargin;
    json["area_ratio_margin"] = reading.card.areaRatioMargin;
    json["builds"] = ordered_json::array();
    for (const auto& build : reading.builds)
        json["builds"].push_back(buildRow(build));
    json["summary"] = ordered_json::array();
    for (const auto& summary : reading.summary)
        json["summary"].push_back(summaryRow(reading, summary));
    json["average"] = ordered_json::array();
    for (const auto& gap : reading.average)
        json["average"].push_back(averageRow(reading, gap));
    json["checks"] = ordered_json::array();
    for (const auto& check : reading.checks)
        json["checks"].push_back({{"code", check.code}, {"severity", key(check.severity)}, {"text", check.text}});
    json["sentences"] = judge::sentences(reading, {});
    return json.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

} // namespace knot::files
