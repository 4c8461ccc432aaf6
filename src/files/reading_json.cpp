#include "files/reading_json.h"

#include "core/record/text/names.h"
#include "core/words/remarks.h"
#include "files/bets_json.h"
#include "files/reading_rows.h"
#include "files/shot_facts_json.h"
#include "files/spreads_json.h"

#include <nlohmann/json.hpp>

namespace knot::files {
namespace {

using nlohmann::ordered_json;

using judge::Claim;
using judge::Interval;
using judge::Reading;

void putShare(ordered_json& row, const char* name, const std::optional<judge::Share>& share) {
    if (share)
        row[name] = {{"share", share->share}, {"n", share->n}, {"ci95", {share->ci95.low, share->ci95.high}}};
}

void putDetails(ordered_json& row, const judge::GapDetails& details) {
    put(row, "slope_per_stint", details.slopePerStint);
    if (!details.slopes.empty()) {
        row["slopes"] = details.slopes;
        row["nu"] = details.nu;
    }
    put(row, "scale", details.scale);
    putShare(row, "mishits_build", details.mishitsBuild);
    putShare(row, "mishits_against", details.mishitsAgainst);
}

ordered_json pooledJson(const judge::SittingsPooled& p) {
    return {{"pooled", p.pooled}, {"se", p.se},  {"ci95", {p.ci95.low, p.ci95.high}}, {"tau2", p.tau2},
            {"Q", p.q},           {"Q_p", p.qP}, {"over", judge::key(p.over)},        {"sittings", p.sittings},
            {"held_up", p.heldUp}};
}

ordered_json averageRow(const Reading& reading, const judge::AverageGap& gap) {
    ordered_json row = pairHead(reading, gap.metric, gap.build, gap.against);
    if (gap.kind != record::OutcomeKind::average)
        row["outcome"] = record::outcomeText({.kind = gap.kind, .metric = gap.metric, .shape = {}});
    row["method"] = key(gap.method);
    if (gap.rounds > 0)
        row["rounds"] = gap.rounds;
    if (gap.sameOrder)
        row["same_order"] = true;
    putDetails(row, gap.details);
    row["gap"] = gap.gap;
    put(row, "se", gap.se);
    put(row, "df", gap.df);
    put(row, "ci95", gap.ci95);
    put(row, "ci90", gap.ci90);
    put(row, "shown", gap.shown);
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
    return {{"build", build.name},         {"shots", build.shots},    {"counted", build.counted},
            {"set_aside", build.setAside}, {"warm_up", build.warmUp}, {"turns", build.turns}};
}

ordered_json modelJson(const judge::ModelEstimate& e, const char* valueName) {
    return {{"method", key(e.method)},          {valueName, e.value}, {"se", e.se}, {"df", e.df}, {"p", e.p},
            {"ci95", {e.ci95.low, e.ci95.high}}};
}

// One object a metric. Where several pairs have one, the first stands under the metric and the
// others are listed in its `more`.
class ByMetric {
public:
    explicit ByMetric(const Reading& reading)
        : m_reading(reading) {}
    void add(judge::Metric metric, ordered_json object, std::size_t build, std::size_t against) {
        if (build != against) {
            object["build"] = m_reading.builds[build].name;
            object["against"] = m_reading.builds[against].name;
        }
        ordered_json& place = m_out[record::info(metric).key];
        if (place.is_null())
            place = std::move(object);
        else
            place["more"].push_back(std::move(object));
    }
    ordered_json take() { return std::move(m_out); }

private:
    const Reading& m_reading;
    ordered_json m_out = ordered_json::object();
};

ordered_json equalStrikeJson(const judge::EqualStrike& e) {
    ordered_json out = modelJson(e.equal, "estimate");
    out["as_struck"] = e.asStruck.value;
    out["explained"] = e.explained;
    put(out, "explained_ci95", e.explainedInterval);
    return out;
}

ordered_json trendJson(const judge::Trend& t) {
    ordered_json out = modelJson(t.slope, "slope");
    if (t.fitF)
        out["lack_of_fit"] = {{"F", *t.fitF}, {"df", {*t.fitDf1, *t.fitDf2}}, {"p", *t.fitP}};
    return out;
}

void putOpinions(ordered_json& json, const Reading& reading) {
    json["brown_forsythe"] = ordered_json::object();
    for (const auto& b : reading.brownForsythe)
        json["brown_forsythe"][record::info(b.metric).key] = {{"F", b.f}, {"df", {b.df1, b.df2}}, {"p", b.p}};
    ByMetric yuen(reading);
    ByMetric medians(reading);
    for (const auto& row : reading.average) {
        if (const auto* y = std::get_if<judge::YuenTest>(&row.opinion))
            yuen.add(row.metric, {{"gap", y->gap}, {"t", y->t}, {"df", y->df}, {"p", y->p}}, row.build, row.against);
        if (const auto* m = std::get_if<judge::MedianGap>(&row.opinion)) {
            ordered_json object{{"median", m->median}};
            if (m->interval) {
                object["interval"] = {m->interval->low, m->interval->high};
                object["level"] = m->interval->level;
            }
            medians.add(row.metric, std::move(object), row.build, row.against);
        }
    }
    json["yuen"] = yuen.take();
    json["median_gap"] = medians.take();
}

void putTrend(ordered_json& json, const Reading& reading) {
    if (reading.trend.empty())
        return;
    ByMetric trend(reading);
    ByMetric order(reading);
    for (const auto& t : reading.trend) {
        trend.add(t.slope.metric, trendJson(t), {}, {});
        if (t.jonckheere)
            order.add(t.slope.metric, {{"J", *t.jonckheere}, {"z", *t.z}, {"p", *t.orderP}}, {}, {});
    }
    json["trend"] = trend.take();
    json["jonckheere"] = order.take();
}

void putModels(ordered_json& json, const Reading& reading) {
    ByMetric drift(reading);
    for (const auto& e : reading.drift)
        drift.add(e.metric, modelJson(e, "estimate"), {}, {});
    json["drift_per_shot"] = drift.take();
    ByMetric adaptation(reading);
    ByMetric equal(reading);
    for (const auto& row : reading.average) {
        if (row.adaptation)
            adaptation.add(row.metric, modelJson(*row.adaptation, "estimate"), row.build, row.against);
        if (row.equalStrike)
            equal.add(row.metric, equalStrikeJson(*row.equalStrike), row.build, row.against);
    }
    json["adaptation_per_turn"] = adaptation.take();
    if (ordered_json found = equal.take(); !found.empty())
        json["at_equal_strike"] = std::move(found);
    putTrend(json, reading);
    if (!reading.interaction.empty()) {
        ByMetric interaction(reading);
        for (const auto& e : reading.interaction) {
            ordered_json object = modelJson(e, "interaction");
            object["level"] = e.level;
            interaction.add(e.metric, std::move(object), e.build, e.against);
        }
        json["interaction"] = interaction.take();
    }
    auto list = [&](const char* name, const std::vector<judge::ModelEstimate>& estimates) {
        json[name] = ordered_json::array();
        for (const auto& e : estimates) {
            ordered_json row{{"metric", record::info(e.metric).key}, {"build", reading.builds[e.build].name}};
            if (e.against != e.build)
                row["against"] = reading.builds[e.against].name;
            row.update(modelJson(e, "estimate"));
            json[name].push_back(std::move(row));
        }
    };
    auto between = [&](std::optional<judge::ModelEstimate> judge::AverageGap::*kind) {
        std::vector<judge::ModelEstimate> all;
        for (const auto& row : reading.average)
            if (row.*kind)
                all.push_back(*(row.*kind));
        return all;
    };
    list("settling_per_shot", reading.settling);
    list("settling_gaps", between(&judge::AverageGap::settling));
    list("late_in_turn", reading.lateInTurn);
    list("forgiveness_gaps", between(&judge::AverageGap::forgiveness));
}

void putRecordMatters(ordered_json& json, const Reading& reading) {
    json["influence"] = ordered_json::array();
    auto hangsOn = [&](const record::Outcome& outcome, const auto& pair, const Claim& claim) {
        for (const auto& i : claim.influence) {
            ordered_json row = pairHead(reading, outcome.metric, pair.build, pair.against);
            row["outcome"] = record::outcomeText(outcome);
            row["shot"] = i.number;
            row["verdict_without"] = key(i.without);
            json["influence"].push_back(std::move(row));
        }
    };
    json["set_asides"] = ordered_json::array();
    json["late_changes"] = ordered_json::array();
    auto otherSide = [&](ordered_json row, const Claim& claim) {
        if (claim.withoutLate && claim.withoutLate->changes) {
            ordered_json late = row;
            late["verdict"] = key(claim.verdict);
            late["verdict_without"] = key(claim.withoutLate->verdict);
            json["late_changes"].push_back(std::move(late));
        }
        if (!claim.otherSide)
            return;
        const std::string side = reading.fromAllRead ? "_counted" : "_all_read";
        row["estimate" + side] = claim.otherSide->estimate;
        row["verdict" + side] = key(claim.otherSide->verdict);
        row["changes"] = claim.otherSide->changes;
        json["set_asides"].push_back(std::move(row));
    };
    auto head = [&](const std::string& outcome, const auto& pair) {
        return ordered_json{{"outcome", outcome},
                            {"build", reading.builds[pair.build].name},
                            {"against", reading.builds[pair.against].name}};
    };
    using record::OutcomeKind;
    auto say = [&](const record::Outcome& outcome, const auto& pair, const Claim& claim) {
        hangsOn(outcome, pair, claim);
        otherSide(head(record::outcomeText(outcome), pair), claim);
    };
    for (const auto& row : reading.average)
        say({.kind = row.kind, .metric = row.metric}, row, row.claim);
    for (const auto& row : reading.consistency)
        say({.kind = OutcomeKind::spread, .metric = row.metric}, row, row.claim);
    for (const auto& row : reading.areas)
        say({.kind = OutcomeKind::area}, row, row.claim);
    for (const auto& row : reading.shareGaps)
        say({.kind = OutcomeKind::share, .shape = row.shape}, row.gap, row.gap.claim);
    json["late_set_asides"] = ordered_json::array();
    for (const auto& late : reading.lateSetAsides)
        json["late_set_asides"].push_back({{"shot", late.number},
                                           {"build", reading.builds[late.build].name},
                                           {"when", record::nameOf(record::setAsideWhenNames, late.when)}});
    if (const auto& g = reading.guesses)
        json["guesses"] = {{"right", g->right},
                           {"of", g->tries},
                           {"builds", g->builds},
                           {"p_at_least", g->p},
                           {"method", g->matching ? "matching" : "binomial"}};
    json["amendments"] = ordered_json::array();
    for (const auto& amendment : reading.amendments)
        json["amendments"].push_back({{"at", amendment.at}, {"text", amendment.text}});
    json["set_aside_share"] = ordered_json::array();
    for (std::size_t b = 0; b < reading.setAsideShares.size(); ++b) {
        const auto& share = reading.setAsideShares[b];
        if (share.n > 0)
            json["set_aside_share"].push_back({{"build", reading.builds[b].name},
                                               {"set_aside", share.hits},
                                               {"struck", share.n},
                                               {"share", share.share},
                                               {"ci95", {share.ci95.low, share.ci95.high}},
                                               {"swings", share.n},
                                               {"counted", share.n - share.hits}});
    }
}

void putChoices(ordered_json& json, const Reading& reading) {
    json["best"] = ordered_json::object();
    json["choosing"] = ordered_json::object();
    for (const auto& best : reading.best) {
        const std::string outcome = record::outcomeText(best.outcome);
        if (!best.set.empty()) {
            json["best"][outcome]["best_set"] = ordered_json::array();
            for (const std::size_t build : best.set)
                json["best"][outcome]["best_set"].push_back(reading.builds[build].name);
        }
        json["choosing"][outcome] = ordered_json::array();
        for (const auto& choice : best.choosing)
            json["choosing"][outcome].push_back({{"build", reading.builds[choice.build].name},
                                                 {"chance_best", choice.chanceBest},
                                                 {"mean_loss", choice.meanLoss}});
    }
    json["choosing_by_priority"] = ordered_json::array();
    for (const auto& choice : reading.byPriority)
        json["choosing_by_priority"].push_back(
            {{"build", reading.builds[choice.build].name}, {"chance_best", choice.chanceBest}});
    json["forgiveness"] = ordered_json::array();
    for (const auto& f : reading.forgiveness)
        json["forgiveness"].push_back({{"metric", record::info(f.metric).key},
                                       {"build", reading.builds[f.build].name},
                                       {"loss_per_mm", f.lossPerMm},
                                       {"se", f.se},
                                       {"df", f.df},
                                       {"ci95", {f.ci95.low, f.ci95.high}}});
    json["worst_fifth"] = ordered_json::array();
    for (const auto& gap : reading.average) {
        if (!gap.worstFifth)
            continue;
        ordered_json row = pairHead(reading, gap.metric, gap.build, gap.against);
        row["gap"] = gap.worstFifth->gap;
        row["ci95"] = {gap.worstFifth->ci95.low, gap.worstFifth->ci95.high};
        if (gap.longestFifth) {
            row["long_gap"] = gap.longestFifth->gap;
            row["long_ci95"] = {gap.longestFifth->ci95.low, gap.longestFifth->ci95.high};
        }
        json["worst_fifth"].push_back(std::move(row));
    }
    json["findings"] = ordered_json::array();
    for (const auto& finding : reading.findings) {
        ordered_json outcomes = ordered_json::array();
        for (const auto& outcome : finding)
            outcomes.push_back(record::outcomeText(outcome));
        json["findings"].push_back({{"outcomes", outcomes}});
    }
    json["shares"] = ordered_json::array();
    for (const auto& s : reading.shapeShares) {
        ordered_json row{{"shape", s.shape},
                         {"build", reading.builds[s.build].name},
                         {"share", s.counted.share},
                         {"n", s.counted.n},
                         {"effective_n", s.counted.effective},
                         {"ci95", {s.counted.ci95.low, s.counted.ci95.high}}};
        put(row, "fitted", s.fitted);
        json["shares"].push_back(std::move(row));
    }
    json["share_gaps"] = ordered_json::array();
    for (const auto& s : reading.shareGaps) {
        ordered_json row = averageRow(reading, s.gap);
        row["metric"] = "share:" + s.shape;
        json["share_gaps"].push_back(std::move(row));
    }
    json["sittings"] = ordered_json::array();
    for (const auto& gap : reading.average) {
        if (!gap.pooled)
            continue;
        ordered_json row = pairHead(reading, gap.metric, gap.build, gap.against);
        row.update(pooledJson(*gap.pooled));
        json["sittings"].push_back(std::move(row));
    }
    json["repeated"] = ordered_json::array();
    for (const auto& one : reading.repeated) {
        ordered_json row = pairHead(reading, one.outcome.metric, one.build, one.against);
        row["outcome"] = record::outcomeText(one.outcome);
        row.update(pooledJson(one.pooled));
        json["repeated"].push_back(std::move(row));
    }
    json["by_way"] = ordered_json::array();
    for (const auto& one : reading.byWay)
        json["by_way"].push_back({{"outcome", record::outcomeText(one.outcome)},
                                  {"build", reading.builds[one.build].name},
                                  {"other", one.other},
                                  {"via", reading.builds[one.via].name},
                                  {"test", one.test},
                                  {"gap", one.gap},
                                  {"ci95", {one.ci95.low, one.ci95.high}}});
    if (reading.carryPerBallSpeed)
        json["carry_per_ball_speed"] = *reading.carryPerBallSpeed;
    if (reading.bagStep)
        json["bag_step_m"] = *reading.bagStep;
    json["targets"] = ordered_json::array();
    for (const auto& t : reading.targets)
        json["targets"].push_back({{"metric", record::info(t.metric).key},
                                   {"build", reading.builds[t.build].name},
                                   {"verdict", key(t.verdict)},
                                   {"share", t.share.share},
                                   {"share_ci95", {t.share.ci95.low, t.share.ci95.high}}});
}

} // namespace

std::string readingJson(const Reading& reading) {
    ordered_json json;
    json["format"] = "knotcount.reading";
    json["version"] = 1;
    json["baseline"] = reading.builds.empty() ? std::string() : reading.builds[reading.baseline].name;
    json["alpha"] = reading.card.alpha;
    json["level"] = reading.level;
    json["looks"] = record::nameOf(record::looksNames, reading.card.looks);
    json["rounds"] = {
        {"done", reading.roundsDone}, {"planned", reading.card.plannedRounds}, {"beyond_plan", reading.roundsBeyond}};
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
    json["consistency"] = consistencyJson(reading);
    json["dispersion"] = dispersionJson(reading);
    putOpinions(json, reading);
    putModels(json, reading);
    putRecordMatters(json, reading);
    putChoices(json, reading);
    writeBets(json, reading);
    writeShotFacts(json, reading);
    json["checks"] = ordered_json::array();
    for (const auto& check : words::checks(reading))
        json["checks"].push_back({{"code", check.code}, {"severity", key(check.severity)}, {"text", check.text}});
    json["sentences"] = words::sentences(reading, {});
    return json.dump(2, ' ', false, nlohmann::json::error_handler_t::replace) + "\n";
}

} // namespace knot::files
