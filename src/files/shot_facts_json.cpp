#include "files/shot_facts_json.h"

#include "core/record/text/names.h"
#include "files/reading_rows.h"

#include <array>

namespace knot::files {
namespace {

using judge::Reading;
using nlohmann::ordered_json;

constexpr std::array sides = {"left", "on_line", "right"};
constexpr std::array lengths = {"short", "on_length", "long"};

ordered_json shareJson(const judge::Share& share) {
    return {{"count", share.hits}, {"n", share.n}, {"share", share.share}, {"ci95", {share.ci95.low, share.ci95.high}}};
}

void writeParts(ordered_json& json, const Reading& reading) {
    json["parts"] = ordered_json::array();
    for (const auto& row : reading.parts) {
        ordered_json out = pairHead(reading, row.metric, row.build, row.against);
        for (const auto& part : row.parts) {
            out["parts"][part.input] = part.value;
            if (part.ci95)
                out["parts_ci95"][part.input] = {part.ci95->low, part.ci95->high};
        }
        out["rest"] = row.rest;
        put(out, "rest_ci95", row.restInterval);
        out["measured"] = row.measured;
        out["modelled"] = row.modelled;
        if (const auto& of = row.ofLoft)
            out["of_loft"] = {{"loft_deg", of->loft},
                              {"launch_deg", of->launch},
                              {"spin_rpm", of->spin},
                              {"ball_speed_ms", of->ballSpeed},
                              {"value", of->value}};
        if (const auto& of = row.ofMass) {
            out["of_mass"] = ordered_json::object();
            put(out["of_mass"], "head_g", of->head);
            put(out["of_mass"], "ball_speed_ms", of->ballSpeed);
            put(out["of_mass"], "value", of->value);
            put(out["of_mass"], "swing_weight_points", of->swingWeight);
            put(out["of_mass"], "club_g", of->whole);
        }
        json["parts"].push_back(std::move(out));
    }
}

void writeUnread(ordered_json& json, const Reading& reading) {
    auto of = [](const judge::Unread::Of& one) {
        return ordered_json{
            {"unread", one.unread}, {"n", one.n}, {"struck", one.struck}, {"off_middle", one.offMiddle}};
    };
    json["unread"] = ordered_json::array();
    for (const auto& row : reading.unread) {
        ordered_json out = pairHead(reading, row.metric, row.build, row.against);
        out["of_build"] = of(row.ofBuild);
        out["of_against"] = of(row.ofAgainst);
        out["p"] = row.p;
        json["unread"].push_back(std::move(out));
    }
}

void writeCalls(ordered_json& json, const Reading& reading) {
    json["called"] = ordered_json::array();
    for (const auto& one : reading.called)
        json["called"].push_back({{"build", reading.builds[one.build].name},
                                  {"good", one.good},
                                  {"so_so", one.soSo},
                                  {"bad", shareJson(one.bad)}});
    json["called_gaps"] = ordered_json::array();
    for (const auto& gap : reading.calledGaps) {
        ordered_json out = pairHead(reading, gap.metric, gap.build, gap.against);
        out["call"] = record::nameOf(record::callNames, gap.call);
        out["n_build"] = gap.nBuild;
        out["n_against"] = gap.nAgainst;
        out["gap"] = gap.gap;
        put(out, "ci95", gap.ci95);
        out["past"] = gap.past;
        json["called_gaps"].push_back(std::move(out));
    }
    if (const auto& agreement = reading.callAgreement) {
        put(json["call_agreement"], "smash_tau", agreement->withSmash);
        put(json["call_agreement"], "strike_tau", agreement->withStrike);
    }
}

void writeMisses(ordered_json& json, const Reading& reading) {
    json["misses"] = ordered_json::array();
    for (const auto& one : reading.misses) {
        ordered_json out{{"build", reading.builds[one.build].name}, {"n", one.n}, {"aimed", one.aimed}};
        for (std::size_t side = 0; side < sides.size(); ++side)
            for (std::size_t length = 0; length < lengths.size(); ++length)
                out["table"][sides[side]][lengths[length]] = one.table[side][length];
        if (one.oneWay)
            out["one_way"] = {{"side", one.oneWay->side == record::Side::left ? "left" : "right"},
                              {"count", one.oneWay->count},
                              {"of", one.oneWay->of},
                              {"p", one.oneWay->p}};
        if (one.flyers)
            out["flyers"] = shareJson(*one.flyers);
        json["misses"].push_back(std::move(out));
    }
}

void writePassing(ordered_json& json, const Reading& reading) {
    json["beats"] = ordered_json::array();
    for (const auto& row : reading.beats) {
        ordered_json out = pairHead(reading, row.metric, row.build, row.against);
        out["chance"] = row.chance;
        put(out, "ci95", row.ci95);
        json["beats"].push_back(std::move(out));
    }
    json["ten_shots"] = ordered_json::array();
    for (const auto& row : reading.tenShots)
        json["ten_shots"].push_back({{"metric", record::info(row.metric).key},
                                     {"build", reading.builds[row.build].name},
                                     {"range", row.range}});
}

void writeSaid(ordered_json& json, const Reading& reading) {
    auto scale = [](record::FeelScale of) { return record::nameOf(record::feelNames, of); };
    json["feels"] = {
        {"likeness", ordered_json::array()}, {"gaps", ordered_json::array()}, {"ranks", ordered_json::array()}};
    for (const auto& one : reading.feelLikeness)
        json["feels"]["likeness"].push_back({{"scale", scale(one.scale)}, {"stints", one.stints}, {"icc", one.icc}});
    for (const auto& gap : reading.feelGaps) {
        ordered_json out{{"scale", scale(gap.scale)},
                         {"build", reading.builds[gap.build].name},
                         {"against", reading.builds[gap.against].name},
                         {"stints", gap.stints},
                         {"gap", gap.gap}};
        put(out, "ci95", gap.ci95);
        put(out, "p", gap.p);
        json["feels"]["gaps"].push_back(std::move(out));
    }
    for (const auto& rank : reading.feelRanks)
        json["feels"]["ranks"].push_back({{"scale", scale(rank.scale)},
                                          {"metric", record::info(rank.metric).key},
                                          {"stints", rank.stints},
                                          {"rho", rank.rho}});
    json["versus"] = ordered_json::array();
    for (const auto& count : reading.versus)
        json["versus"].push_back({{"build", reading.builds[count.build].name},
                                  {"against", reading.builds[count.against].name},
                                  {"better", count.better},
                                  {"worse", count.worse},
                                  {"cant_tell", count.same},
                                  {"p", count.p}});
    json["expected"] = ordered_json::array();
    for (const auto& one : reading.expected) {
        ordered_json out = pairHead(reading, one.metric, one.build, one.against);
        out["said"] = record::nameOf(record::expectationNames, one.said);
        out["found"] = key(one.found);
        json["expected"].push_back(std::move(out));
    }
    if (const auto& order = reading.expectedOrder) {
        ordered_json& out = json["expected_order"];
        out["outcome"] = record::outcomeText(order->outcome);
        out["said"] = ordered_json::array();
        for (const judge::BuildAt build : order->said)
            out["said"].push_back(reading.builds[build].name);
        out["as_expected"] = order->asExpected;
        out["other_way"] = order->otherWay;
        out["nothing_that_matters"] = order->nothingThatMatters;
        out["not_settled"] = order->notSettled;
    }
    json["usual"] = ordered_json::array();
    for (const auto& usual : reading.usual)
        json["usual"].push_back({{"metric", record::info(usual.metric).key},
                                 {"build", reading.builds[usual.build].name},
                                 {"usual", usual.usual},
                                 {"first_stint", usual.first},
                                 {"prediction95", {usual.prediction.low, usual.prediction.high}},
                                 {"outside", usual.outside()}});
    json["usual_bets"] = ordered_json::array();
    for (const auto& bet : reading.usualBets) {
        ordered_json out = pairHead(reading, bet.metric, bet.build, bet.against);
        out["usual"] = bet.usual;
        out["sittings"] = bet.sittings;
        out["ahead"] = bet.ahead;
        out["expected"] = bet.expected;
        out["sd"] = bet.sd;
        out["low80"] = bet.low80;
        out["high80"] = bet.high80;
        json["usual_bets"].push_back(std::move(out));
    }
}

} // namespace

void writeShotFacts(ordered_json& json, const Reading& reading) {
    writeParts(json, reading);
    writeUnread(json, reading);
    writeCalls(json, reading);
    writeMisses(json, reading);
    writePassing(json, reading);
    writeSaid(json, reading);
}

} // namespace knot::files
